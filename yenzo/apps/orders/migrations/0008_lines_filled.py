import re

from django.db import connection, migrations
from django.db.models import F

# What people called an order was its row's number counted on from here.
NUMBERS_BEGAN_AFTER = 2000
KINDS = {
    "Ordered; the spelling was checked": "placed",
    "Paid": "paid",
    "The payment was declined; nothing was taken": "declined",
    "Cancelled": "cancelled",
    "Cancelled; what was paid is paid back": "cancelled_paid",
    "Pack {piece} is ready": "pack_ready",
    "Pack {piece} is tried again": "pack_again",
}
TYPED_ORDER = re.compile(r"Piece (\d+): its text runs in both directions and keeps the order that its customer saw")


def fill_lines(apps, schema_editor):
    """Give each line a personalization of what was asked, with its uploads, and as many pieces as were ordered."""
    personalizations = apps.get_model("designs", "Personalization").objects
    piece_model = apps.get_model("orders", "Piece")
    lines = apps.get_model("orders", "Line").objects.filter(personalization=None)
    for line in lines.select_related("revision", "order").iterator(500):
        kept = personalizations.create(revision_id=line.revision_id, asked=line.asked)
        personalizations.filter(pk=kept.pk).update(made_at=line.order.placed_at)
        kept.uploads.set(line.uploads.all())
        line.personalization, line.product_id = kept, line.revision.product_id
        line.quantity = line.asked.get("pieces", 1)
        line.save(update_fields=["personalization", "product", "quantity"])
        piece_model.objects.bulk_create(
            piece_model(line=line, index=index, personalization=kept) for index in range(1, line.quantity + 1)
        )


def fill_orders(apps, schema_editor):
    """Give each order its number, and tell its payment apart from what becomes of it."""
    orders = apps.get_model("orders", "Order").objects
    orders.update(number=F("pk") + NUMBERS_BEGAN_AFTER, payment_state=F("state"))
    cancelled = orders.filter(state="cancelled")
    cancelled.update(payment_state="waiting")
    cancelled.filter(payments__state="approved").update(payment_state="owed_back")
    orders.exclude(state="cancelled").update(state="placed")
    last = orders.order_by("-number").values_list("number", flat=True).first()
    with connection.cursor() as cursor:
        cursor.execute("SELECT setval('orders_number', %s)", [last or NUMBERS_BEGAN_AFTER])


def tell_kinds(apps, schema_editor):
    """Tell by its sentence what kind of event each was."""
    events = apps.get_model("orders", "OrderEvent").objects
    for what, kind in KINDS.items():
        events.filter(what=what).update(kind=kind)
    for event in events.filter(what__startswith="Piece "):
        if found := TYPED_ORDER.fullmatch(event.what):
            event.kind, event.facts = "typed_order", {"number": int(found[1])}
            event.save(update_fields=["kind", "facts"])


class Migration(migrations.Migration):
    dependencies = [("designs", "0008_entries_apart_done"), ("orders", "0007_lines")]

    operations = [
        migrations.RunPython(fill_lines, migrations.RunPython.noop),
        migrations.RunPython(fill_orders, migrations.RunPython.noop),
        migrations.RunPython(tell_kinds, migrations.RunPython.noop),
    ]
