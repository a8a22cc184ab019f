from django.db import migrations


class Migration(migrations.Migration):
    """Materials, stock and the shared history are apps of their own, with their tables (decision 13)."""

    dependencies = [("catalogue", "0007_cards")]

    operations = [
        migrations.SeparateDatabaseAndState(
            database_operations=[
                migrations.AlterModelTable("Material", "materials_material"),
                migrations.AlterModelTable("StockItem", "stock_stockitem"),
                migrations.AlterModelTable("SharedChange", "history_sharedchange"),
            ],
            state_operations=[
                migrations.DeleteModel("Material"),
                migrations.DeleteModel("StockItem"),
                migrations.DeleteModel("SharedChange"),
            ],
        ),
    ]
