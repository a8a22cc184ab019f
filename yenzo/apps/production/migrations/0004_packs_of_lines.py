import django.db.models.deletion
from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("orders", "0007_lines"), ("production", "0003_questioned")]

    operations = [
        migrations.RenameField("pack", "piece", "line"),
        migrations.AlterField(
            "pack",
            "line",
            models.OneToOneField(
                on_delete=django.db.models.deletion.PROTECT, related_name="pack", to="orders.line"
            ),
        ),
    ]
