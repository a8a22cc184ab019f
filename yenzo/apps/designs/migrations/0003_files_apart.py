import django.db.models.deletion
from django.db import migrations, models

TO_FILE = {"on_delete": django.db.models.deletion.PROTECT, "related_name": "+", "to": "files.storedfile"}


class Migration(migrations.Migration):

    dependencies = [
        ("files", "0001_stored_files"),
        ("designs", "0002_upload_preparation"),
    ]

    operations = [
        # Only what Django thinks of: the table was renamed, and its references went along.
        migrations.SeparateDatabaseAndState(
            state_operations=[
                migrations.AlterField("upload", "original", models.ForeignKey(**TO_FILE)),
                migrations.AlterField("upload", "prepared", models.ForeignKey(**TO_FILE)),
                migrations.AlterField("upload", "shown", models.ForeignKey(**TO_FILE)),
            ],
        ),
    ]
