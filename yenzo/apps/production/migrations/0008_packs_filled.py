from django.db import connection, migrations

FILL = """
    UPDATE production_pack AS pack SET personalization_id = piece.personalization_id
    FROM orders_piece AS piece WHERE piece.line_id = pack.line_id AND piece.index = pack.index
"""


def fill(apps, schema_editor):
    """Say of each pack which personalization it is of: that of its pieces, none of which was ever changed."""
    with connection.cursor() as cursor:
        cursor.execute(FILL)


class Migration(migrations.Migration):
    dependencies = [("production", "0007_packs_of_personalizations")]

    operations = [migrations.RunPython(fill, migrations.RunPython.noop)]
