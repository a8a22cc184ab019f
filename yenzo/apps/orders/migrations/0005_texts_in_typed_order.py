import unicodedata

from django.db import migrations

RIGHT_TO_LEFT, LEFT_TO_RIGHT = {"R", "AL"}, {"L", "EN", "AN"}


def has_both_directions(text):
    classes = {unicodedata.bidirectional(char) for char in text}
    return bool(classes & RIGHT_TO_LEFT) and bool(classes & LEFT_TO_RIGHT)


def keep_as_seen(apps, schema_editor):
    """Have orders whose texts run both ways made as their customers saw them, and tell the desk which these are."""
    piece_model, event_model = apps.get_model("orders", "Piece"), apps.get_model("orders", "OrderEvent")
    for piece in piece_model.objects.exclude(search_text="").iterator(500):
        if not has_both_directions(piece.search_text):
            continue
        piece.asked = {**piece.asked, "in_typed_order": True}
        piece.save(update_fields=["asked"])
        what = f"Piece {piece.number}: its text runs in both directions and keeps the order that its customer saw"
        event_model.objects.create(order_id=piece.order_id, who="Yenzo", what=what)


class Migration(migrations.Migration):

    dependencies = [
        ("orders", "0004_mails_apart"),
    ]

    operations = [
        migrations.RunPython(keep_as_seen, migrations.RunPython.noop),
    ]
