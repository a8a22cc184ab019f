import django.db.models.deletion
from django.db import migrations, models

TO_FILE = {"on_delete": django.db.models.deletion.PROTECT, "related_name": "+", "to": "files.storedfile"}


class Migration(migrations.Migration):

    dependencies = [
        ("files", "0001_stored_files"),
        ("catalogue", "0004_kits_for_customers"),
    ]

    operations = [
        # Only what Django thinks of: the table was renamed, and its references went along.
        migrations.SeparateDatabaseAndState(
            state_operations=[
                migrations.AlterField("revisionfile", "file", models.ForeignKey(**TO_FILE)),
            ],
        ),
    ]
