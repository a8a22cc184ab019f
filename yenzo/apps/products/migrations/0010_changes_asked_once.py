"""What is asked again, since its answer was lost, is done once."""

from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [
        ("catalogue", "0009_card_categories"),
    ]

    operations = [
        migrations.AddField(
            model_name="draftedit",
            name="asked_as",
            field=models.CharField(
                blank=True,
                db_default="",
                help_text="a digest of the request that asked for it; it comes once",
                max_length=64,
            ),
        ),
    ]
