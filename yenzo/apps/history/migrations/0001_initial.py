import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models


class Migration(migrations.Migration):

    dependencies = [migrations.swappable_dependency(settings.AUTH_USER_MODEL), ("catalogue", "0008_parts_apart")]

    # Its table was the catalogue's, and is called as it is now since that let go of it.
    operations = [
        migrations.SeparateDatabaseAndState(
            state_operations=[
                migrations.CreateModel(
                    name='SharedChange',
                    fields=[
                        ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                        ('label', models.CharField(max_length=200)),
                        ('kept_by', models.CharField(help_text='which kind of thing was changed', max_length=20)),
                        ('subject', models.TextField(help_text='which of its kind; one a line')),
                        ('before', models.JSONField(null=True)),
                        ('after', models.JSONField(null=True)),
                        ('state', models.CharField(choices=[('done', 'Done'), ('undone', 'Undone'), ('dropped', 'Undone, then overtaken by another change')], default='done', max_length=8)),
                        ('moved', models.PositiveBigIntegerField(help_text='counts each doing, undoing and doing again')),
                        ('made_at', models.DateTimeField(auto_now_add=True)),
                        ('person', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to=settings.AUTH_USER_MODEL)),
                    ],
                    options={
                        'ordering': ['moved'],
                    },
                ),
    
            ],
        ),
    ]
