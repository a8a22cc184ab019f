from django.db import migrations


def keep_apart(apps, schema_editor):
    """Give each design a personalization of its entries and uploads; what follows from them is found when it is read."""
    personalizations = apps.get_model("designs", "Personalization").objects
    for design in apps.get_model("designs", "Design").objects.filter(personalization=None).iterator(500):
        kept = personalizations.create(revision_id=design.revision_id, entries=design.entries)
        personalizations.filter(pk=kept.pk).update(made_at=design.changed_at)
        kept.uploads.set(design.uploads.all())
        # Not by saving it: when it was changed tells which state of a basket somebody has seen.
        type(design).objects.filter(pk=design.pk).update(personalization=kept)


class Migration(migrations.Migration):
    dependencies = [("designs", "0006_personalizations")]

    operations = [migrations.RunPython(keep_apart, migrations.RunPython.noop, elidable=True)]
