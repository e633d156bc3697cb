from django.db import migrations, models


class Migration(migrations.Migration):

    dependencies = [
        ('trips', '0006_plan'),
    ]

    operations = [
        migrations.AddField(
            model_name='trip',
            name='earlier',
            field=models.JSONField(blank=True, default=list, help_text='what earlier days taught'),
        ),
        migrations.AddField(
            model_name='trip',
            name='taught',
            field=models.JSONField(blank=True, help_text='what this day taught, and up to which event', null=True),
        ),
    ]
