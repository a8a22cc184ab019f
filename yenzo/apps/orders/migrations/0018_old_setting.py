from django.db import migrations

# One statement for all, whatever is in them: only texts on bends and letters set apart look otherwise by it.
KEPT = """
UPDATE designs_personalization SET asked = asked || '{"old_setting": true}'::jsonb WHERE asked IS NOT NULL
"""


class Migration(migrations.Migration):

    # Personalizations of old orders are made by the orders' own migrations.
    dependencies = [
        ("orders", "0017_inward_notes"),
        ("designs", "0012_groups"),
    ]

    operations = [
        # What was kept before letters stood upright is made as its customer saw it.
        migrations.RunSQL(KEPT, migrations.RunSQL.noop),
    ]
