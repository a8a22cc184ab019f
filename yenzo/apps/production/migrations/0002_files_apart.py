import django.db.models.deletion
from django.db import migrations, models

TO_FILE = {"on_delete": django.db.models.deletion.PROTECT, "related_name": "+", "to": "files.storedfile"}


class Migration(migrations.Migration):

    dependencies = [
        ("files", "0001_stored_files"),
        ("production", "0001_initial"),
    ]

    operations = [
        # Only what Django thinks of: the table was renamed, and its references went along.
        migrations.SeparateDatabaseAndState(
            state_operations=[
                migrations.AlterField("pack", "file", models.ForeignKey(null=True, blank=True, **TO_FILE)),
            ],
        ),
    ]
