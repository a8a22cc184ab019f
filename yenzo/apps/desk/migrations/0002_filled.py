from django.db import connection, migrations

# What was paid before there was a preflight went to production at once.
RELEASE = """
    INSERT INTO desk_preflight (line_id, index, personalization_id, state, held_why, since)
    SELECT piece.line_id, min(piece.index), piece.personalization_id, 'released', '', now()
    FROM orders_piece AS piece
    JOIN orders_line AS line ON line.id = piece.line_id
    JOIN orders_order AS one ON one.id = line.order_id
    WHERE one.state = 'placed' AND one.payment_state = 'paid'
    GROUP BY piece.line_id, piece.personalization_id
"""
TURNS = """
    UPDATE orders_order SET waits_since = coalesce(sent_at, made_at, begun_at, placed_at), waits_for = CASE
        WHEN state = 'cancelled' OR sent_at IS NOT NULL THEN ''
        WHEN payment_state <> 'paid' THEN 'customer'
        WHEN made_at IS NOT NULL THEN 'desk'
        ELSE 'station' END
"""


def fill(apps, schema_editor):
    """Release what was paid, and say whose turn each order is."""
    with connection.cursor() as cursor:
        cursor.execute(RELEASE)
        cursor.execute(TURNS)


class Migration(migrations.Migration):
    dependencies = [("desk", "0001_preflight"), ("orders", "0014_desk")]

    operations = [migrations.RunPython(fill, migrations.RunPython.noop)]
