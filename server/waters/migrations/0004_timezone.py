"""A water's time zone by name, for dates and summer time."""

from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("waters", "0003_rules")]
    operations = [
        migrations.AddField(
            "water", "timezone",
            models.CharField(
                blank=True, default="", help_text="IANA name of its time zone", max_length=60),
        ),
        migrations.AlterField(
            "water", "utc_offset_min",
            models.IntegerField(help_text="local time less UTC where no zone is known"),
        ),
    ]
