from django.db import migrations


class Migration(migrations.Migration):

    dependencies = [
        ("catalogue", "0005_files_apart"),
        ("designs", "0003_files_apart"),
        ("production", "0002_files_apart"),
    ]

    operations = [
        migrations.SeparateDatabaseAndState(state_operations=[migrations.DeleteModel("StoredFile")]),
    ]
