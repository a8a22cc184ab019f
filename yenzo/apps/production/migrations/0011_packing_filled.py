from django.db import migrations

FILL = "UPDATE production_parcel SET reference = gen_random_uuid() WHERE reference IS NULL"
# What was sent before parcels had anything in them had all of its order.
ITEMS = """
    INSERT INTO production_parcelitem (parcel_id, line_id, index, quantity)
    SELECT parcel.id, piece.line_id, min(piece.index), count(*)
    FROM production_parcel AS parcel
    JOIN orders_line AS line ON line.order_id = parcel.order_id
    JOIN orders_piece AS piece ON piece.line_id = line.id
    GROUP BY parcel.id, piece.line_id, piece.personalization_id
"""


class Migration(migrations.Migration):
    dependencies = [("production", "0010_packing")]

    operations = [
        migrations.RunSQL(FILL, migrations.RunSQL.noop),
        migrations.RunSQL(ITEMS, migrations.RunSQL.noop),
    ]
