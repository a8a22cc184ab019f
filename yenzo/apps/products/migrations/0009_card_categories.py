"""Cards tell of categories."""

from django.db import migrations


def fill_categories(apps, schema_editor):
    """Say of earlier revisions in which category they are, in each language that says it."""
    revision_model = apps.get_model("catalogue", "Revision")
    for revision in revision_model.objects.iterator(100):
        category, wording = revision.document["offer"].get("category", ""), revision.document.get("wording", {})
        categories = {language: known[category] for language, known in wording.items() if category in known}
        revision.card = {**revision.card, "category": category, "categories": categories}
        revision.save(update_fields=["card"])


class Migration(migrations.Migration):

    dependencies = [
        ("catalogue", "0008_parts_apart"),
    ]

    operations = [
        migrations.RunPython(fill_categories, migrations.RunPython.noop),
    ]
