import uuid

import django.db.models.deletion
from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [
        ("catalogue", "0007_cards"),
        ("files", "0002_checks_and_runs"),
        ("designs", "0005_unfinished_entries"),
    ]

    operations = [
        migrations.CreateModel(
            name="Personalization",
            fields=[
                ("id", models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ("entries", models.JSONField(help_text="as the customer gave them", null=True)),
                ("asked", models.JSONField(help_text="what was asked of them", null=True)),
                (
                    "record",
                    models.JSONField(
                        help_text="what followed: texts, sizes, digests, amounts, verdict, engine", null=True
                    ),
                ),
                ("made_at", models.DateTimeField(auto_now_add=True)),
                (
                    "revision",
                    models.ForeignKey(
                        on_delete=django.db.models.deletion.PROTECT, related_name="+", to="catalogue.revision"
                    ),
                ),
                ("uploads", models.ManyToManyField(related_name="personalizations", to="designs.upload")),
            ],
            options={
                "constraints": [
                    models.CheckConstraint(
                        condition=models.Q(("entries__isnull", False), ("asked__isnull", False), _connector="OR"),
                        name="personalization_has_entries_or_what_was_asked",
                    )
                ],
            },
        ),
        migrations.CreateModel(
            name="Proof",
            fields=[
                ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                ("side", models.CharField(help_text="the side's key", max_length=60)),
                (
                    "file",
                    models.ForeignKey(
                        on_delete=django.db.models.deletion.PROTECT, related_name="+", to="files.storedfile"
                    ),
                ),
                (
                    "personalization",
                    models.ForeignKey(
                        on_delete=django.db.models.deletion.CASCADE,
                        related_name="proofs",
                        to="designs.personalization",
                    ),
                ),
            ],
            options={
                "constraints": [
                    models.UniqueConstraint(fields=("personalization", "side"), name="one_proof_a_side")
                ],
            },
        ),
        migrations.AddField(
            "design",
            "personalization",
            models.ForeignKey(
                null=True,
                on_delete=django.db.models.deletion.PROTECT,
                related_name="designs",
                to="designs.personalization",
            ),
        ),
    ]
