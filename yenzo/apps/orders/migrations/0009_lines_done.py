import django.db.models.deletion
import django.db.models.functions
from django.db import migrations, models

NEXT_NUMBER = models.Func(models.Value("orders_number"), function="nextval", output_field=models.BigIntegerField())


class Migration(migrations.Migration):
    dependencies = [("orders", "0008_lines_filled"), ("production", "0004_packs_of_lines")]

    operations = [
        migrations.AlterField(
            "order",
            "number",
            models.BigIntegerField(db_default=NEXT_NUMBER, help_text="what people call the order", unique=True),
        ),
        migrations.AddConstraint(
            "order",
            models.UniqueConstraint(
                condition=models.Q(("outside_number", ""), _negated=True),
                fields=("channel", "outside_number"),
                name="order_of_outside_comes_in_once",
            ),
        ),
        migrations.AddConstraint(
            "order",
            models.CheckConstraint(
                condition=models.Q(
                    models.Q(("payment_state", "owed_back"), _negated=True), ("state", "cancelled"), _connector="OR"
                ),
                name="only_cancelled_orders_owe",
            ),
        ),
        migrations.AlterField(
            "line",
            "product",
            models.ForeignKey(
                on_delete=django.db.models.deletion.PROTECT, related_name="+", to="catalogue.product"
            ),
        ),
        migrations.AlterField(
            "line",
            "personalization",
            models.ForeignKey(
                on_delete=django.db.models.deletion.PROTECT, related_name="lines", to="designs.personalization"
            ),
        ),
        migrations.AlterField("line", "quantity", models.PositiveIntegerField()),
        migrations.AddConstraint(
            "line", models.CheckConstraint(condition=models.Q(("quantity__gte", 1)), name="line_has_pieces")
        ),
        migrations.RemoveField("line", "asked"),
        migrations.RemoveField("line", "uploads"),
        migrations.RemoveField("orderevent", "what"),
    ]
