from django.db import migrations, models

# The table moves here from the catalogue; its rows and all that refers to them stay.
RENAME = "ALTER TABLE {} RENAME TO {}"


class Migration(migrations.Migration):

    initial = True

    dependencies = [
        ("catalogue", "0004_kits_for_customers"),
        ("designs", "0002_upload_preparation"),
        ("production", "0001_initial"),
    ]

    operations = [
        migrations.SeparateDatabaseAndState(
            database_operations=[
                migrations.RunSQL(
                    RENAME.format("catalogue_storedfile", "files_storedfile"),
                    RENAME.format("files_storedfile", "catalogue_storedfile"),
                )
            ],
            state_operations=[
                migrations.CreateModel(
                    name="StoredFile",
                    fields=[
                        ("sha256", models.CharField(max_length=64, primary_key=True, serialize=False)),
                        ("size_bytes", models.PositiveBigIntegerField()),
                        ("path", models.CharField(help_text="in the default storage", max_length=200)),
                        ("is_public", models.BooleanField(default=False)),
                        ("created_at", models.DateTimeField(auto_now_add=True)),
                    ],
                    options={
                        "constraints": [
                            models.CheckConstraint(
                                condition=models.Q(("sha256__regex", "^[0-9a-f]{64}$")),
                                name="stored_file_sha256_is_one",
                            )
                        ],
                    },
                ),
            ],
        ),
    ]
