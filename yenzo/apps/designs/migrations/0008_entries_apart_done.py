import django.db.models.deletion
from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("designs", "0007_entries_apart")]

    operations = [
        migrations.AlterField(
            "design",
            "personalization",
            models.ForeignKey(
                on_delete=django.db.models.deletion.PROTECT, related_name="designs", to="designs.personalization"
            ),
        ),
        migrations.RemoveField("design", "uploads"),
        migrations.RemoveField("design", "entries"),
        migrations.RemoveField("design", "revision"),
    ]
