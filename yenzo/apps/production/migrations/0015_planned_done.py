from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("production", "0014_planned_filled")]

    operations = [
        migrations.AlterField(
            model_name="job",
            name="planned_on",
            field=models.DateField(help_text="when it is to be made; the day that it is due, unless it was moved"),
        ),
    ]
