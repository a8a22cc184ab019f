from django.db import migrations


class Migration(migrations.Migration):
    dependencies = [("production", "0013_planned")]

    operations = [
        migrations.RunSQL("UPDATE production_job SET planned_on = due_on", migrations.RunSQL.noop),
    ]
