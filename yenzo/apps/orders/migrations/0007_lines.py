import django.db.models.deletion
from django.db import migrations, models

CHANNELS = [("shop", "Shop")]
STATES = [("placed", "Placed"), ("cancelled", "Cancelled")]
PAYMENTS = [
    ("waiting", "Waiting for payment"),
    ("unknown", "Payment unknown"),
    ("paid", "Paid"),
    ("owed_back", "To be paid back"),
]
KINDS = [
    ("placed", "Placed"),
    ("paid", "Paid"),
    ("declined", "Declined"),
    ("cancelled", "Cancelled"),
    ("cancelled_paid", "Cancelled Paid"),
    ("pack_ready", "Pack Ready"),
    ("pack_again", "Pack Again"),
    ("typed_order", "Typed Order"),
]


class Migration(migrations.Migration):
    """What was called a piece is a line of its order; pieces are counted below it."""

    dependencies = [
        ("catalogue", "0007_cards"),
        ("designs", "0006_personalizations"),
        ("orders", "0006_event_facts"),
    ]

    operations = [
        migrations.RenameModel("Piece", "Line"),
        migrations.RemoveConstraint("line", "piece_number_is_unique_in_its_order"),
        migrations.AlterField(
            "line",
            "order",
            models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="lines", to="orders.order"),
        ),
        migrations.AddConstraint(
            "line",
            models.UniqueConstraint(fields=("order", "number"), name="line_number_is_unique_in_its_order"),
        ),
        migrations.AddField(
            "line",
            "product",
            models.ForeignKey(
                null=True, on_delete=django.db.models.deletion.PROTECT, related_name="+", to="catalogue.product"
            ),
        ),
        migrations.AddField(
            "line",
            "personalization",
            models.ForeignKey(
                null=True,
                on_delete=django.db.models.deletion.PROTECT,
                related_name="lines",
                to="designs.personalization",
            ),
        ),
        migrations.AddField("line", "quantity", models.PositiveIntegerField(default=1)),
        migrations.CreateModel(
            name="Piece",
            fields=[
                ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                ("index", models.PositiveIntegerField(help_text="counted from 1 in its line")),
                (
                    "line",
                    models.ForeignKey(
                        on_delete=django.db.models.deletion.CASCADE, related_name="pieces", to="orders.line"
                    ),
                ),
                (
                    "personalization",
                    models.ForeignKey(
                        on_delete=django.db.models.deletion.PROTECT,
                        related_name="pieces",
                        to="designs.personalization",
                    ),
                ),
            ],
            options={
                "ordering": ["line", "index"],
                "constraints": [
                    models.UniqueConstraint(fields=("line", "index"), name="piece_index_is_unique_in_its_line"),
                    models.CheckConstraint(
                        condition=models.Q(("index__gte", 1)), name="pieces_are_counted_from_one"
                    ),
                ],
            },
        ),
        migrations.RunSQL("CREATE SEQUENCE orders_number START WITH 2001", "DROP SEQUENCE orders_number"),
        migrations.AddField("order", "number", models.BigIntegerField(null=True)),
        migrations.AddField(
            "order", "channel", models.CharField(choices=CHANNELS, default="shop", max_length=20)
        ),
        migrations.AddField(
            "order",
            "outside_number",
            models.CharField(
                blank=True,
                default="",
                help_text="what the order is called where it came from; none of the shop's own",
                max_length=80,
            ),
            preserve_default=False,
        ),
        migrations.AddField(
            "order", "payment_state", models.CharField(choices=PAYMENTS, default="waiting", max_length=10)
        ),
        migrations.AlterField(
            "order", "state", models.CharField(choices=STATES, default="placed", max_length=10)
        ),
        migrations.AddField(
            "orderevent",
            "kind",
            models.CharField(choices=KINDS, default="placed", max_length=20),
            preserve_default=False,
        ),
        migrations.AlterField(
            "orderevent", "facts", models.JSONField(default=dict, help_text="what its sentence names")
        ),
    ]
