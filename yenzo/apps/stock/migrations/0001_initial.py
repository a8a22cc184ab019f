from django.db import migrations, models


class Migration(migrations.Migration):

    dependencies = [("catalogue", "0008_parts_apart")]

    # Its table was the catalogue's, and is called as it is now since that let go of it.
    operations = [
        migrations.SeparateDatabaseAndState(
            state_operations=[
                migrations.CreateModel(
                    name='StockItem',
                    fields=[
                        ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                        ('sku', models.CharField(max_length=60, unique=True)),
                        ('pieces', models.IntegerField()),
                        ('changed_at', models.DateTimeField(auto_now=True)),
                    ],
                    options={
                        'ordering': ['sku'],
                        'constraints': [models.CheckConstraint(condition=models.Q(('pieces__gte', 0)), name='stock_is_not_negative')],
                    },
                ),
    
            ],
        ),
    ]
