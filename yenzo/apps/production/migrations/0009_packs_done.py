import django.db.models.deletion
from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("production", "0008_packs_filled")]

    operations = [
        migrations.AlterField(
            model_name="pack",
            name="personalization",
            field=models.ForeignKey(
                on_delete=django.db.models.deletion.PROTECT, related_name="packs", to="designs.personalization"
            ),
        ),
        migrations.AddConstraint(
            model_name="pack",
            constraint=models.UniqueConstraint(
                fields=("line", "index", "personalization"), name="one_pack_for_pieces_as_they_are"
            ),
        ),
    ]
