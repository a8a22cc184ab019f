import re

from django.db import migrations, models

PACK = re.compile(r"Pack (\S+) is (ready|tried again)")


def tell_apart(apps, schema_editor):
    """What was written of packs becomes a message and its fact, so that each reader has it in their language."""
    for event in apps.get_model("orders", "OrderEvent").objects.filter(what__startswith="Pack "):
        if found := PACK.fullmatch(event.what):
            event.what, event.facts = f"Pack {{piece}} is {found[2]}", {"piece": found[1]}
            event.save(update_fields=["what", "facts"])


class Migration(migrations.Migration):
    dependencies = [("orders", "0005_texts_in_typed_order")]

    operations = [
        migrations.AddField("orderevent", "facts", models.JSONField(default=dict)),
        migrations.AlterField(
            "orderevent",
            "what",
            models.CharField(max_length=300, help_text="in English; {names} in it stand for facts"),
        ),
        migrations.RunPython(tell_apart, migrations.RunPython.noop, elidable=True),
    ]
