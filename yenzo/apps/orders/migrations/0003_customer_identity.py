from django.db import migrations, models

from yenzo.apps.pages.addresses import AddressError, mail_identity


def identify(apps, schema_editor):
    """Write the addresses of earlier orders as they are compared; one that can't be is nobody's."""
    order_model = apps.get_model("orders", "Order")
    for order in order_model.objects.iterator(500):
        try:
            order.customer_identity = mail_identity(order.customer_mail)
        except AddressError:
            continue
        order.save(update_fields=["customer_identity"])


class Migration(migrations.Migration):

    dependencies = [
        ("orders", "0002_language"),
    ]

    operations = [
        migrations.AddField(
            model_name="order",
            name="customer_identity",
            field=models.CharField(
                blank=True,
                db_index=True,
                default="",
                help_text="the mail address as it is compared; none of old ones",
                max_length=320,
            ),
            preserve_default=False,
        ),
        migrations.RunPython(identify, migrations.RunPython.noop),
    ]
