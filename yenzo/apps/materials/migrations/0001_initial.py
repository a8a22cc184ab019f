from django.db import migrations, models


class Migration(migrations.Migration):

    dependencies = [("catalogue", "0008_parts_apart")]

    # Its table was the catalogue's, and is called as it is now since that let go of it.
    operations = [
        migrations.SeparateDatabaseAndState(
            state_operations=[
                migrations.CreateModel(
                    name='Material',
                    fields=[
                        ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                        ('kind', models.CharField(choices=[('methods', 'Method'), ('palettes', 'Palette'), ('typefaces', 'Typeface'), ('word_lists', 'Word list')], max_length=12)),
                        ('key', models.SlugField(max_length=60)),
                        ('document', models.JSONField()),
                    ],
                    options={
                        'ordering': ['kind', 'key'],
                        'constraints': [models.UniqueConstraint(fields=('kind', 'key'), name='material_key_is_unique_in_its_kind')],
                    },
                ),
    
            ],
        ),
    ]
