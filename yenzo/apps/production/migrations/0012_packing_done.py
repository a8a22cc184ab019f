import uuid

from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("production", "0011_packing_filled")]

    operations = [
        migrations.AlterField(
            model_name="parcel",
            name="reference",
            field=models.UUIDField(
                default=uuid.uuid4, editable=False, help_text="booked once by this", unique=True
            ),
        ),
    ]
