"""Trips know boat and water by key; events know in which order they came in."""

import django.db.models.deletion
from django.db import migrations, models


def by_key(apps, schema_editor):
    """Until now a boat and a water were known by their names alone."""
    trips = apps.get_model("trips", "Trip")
    outfits = apps.get_model("locker", "Outfit")
    waters = apps.get_model("waters", "Water")
    for trip in trips.objects.only("pk", "owner_id", "outfit", "water_name").iterator(50):
        boat = outfits.objects.filter(owner_id=trip.owner_id, name=trip.outfit.get("boat_name"))
        water = waters.objects.filter(owner_id=trip.owner_id, name=trip.water_name)
        trips.objects.filter(pk=trip.pk).update(
            boat=boat.order_by("pk").first(), water=water.order_by("pk").first()
        )


def number_events(apps, schema_editor):
    """In the order in which they came in, as far as that is known."""
    schema_editor.execute(
        "UPDATE trips_event SET seq = ranked.number FROM (SELECT id, row_number() OVER "
        "(PARTITION BY trip_id ORDER BY received_at, at_s, id) AS number FROM trips_event) "
        "AS ranked WHERE trips_event.id = ranked.id"
    )


class Migration(migrations.Migration):
    dependencies = [
        ("trips", "0004_rules"), ("locker", "0002_tackle"), ("waters", "0004_timezone"),
    ]
    operations = [
        migrations.AddField(
            "trip", "boat",
            models.ForeignKey(
                help_text="which boat, by whatever name it goes now", null=True,
                on_delete=django.db.models.deletion.SET_NULL, related_name="trips",
                to="locker.outfit"),
        ),
        migrations.AddField(
            "trip", "water",
            models.ForeignKey(
                null=True, on_delete=django.db.models.deletion.SET_NULL, related_name="trips",
                to="waters.water"),
        ),
        migrations.AddField(
            "trip", "rest_after_s",
            models.FloatField(
                help_text="how long after the latest event the trip's clock stands still, s",
                null=True),
        ),
        migrations.RunPython(by_key, migrations.RunPython.noop),
        migrations.AddField(
            "event", "seq",
            models.PositiveIntegerField(
                default=0, help_text="in which order it came in, from 1 in each trip"),
            preserve_default=False,
        ),
        migrations.RunPython(number_events, migrations.RunPython.noop),
        migrations.AddConstraint(
            "event", models.UniqueConstraint(fields=("trip", "seq"), name="one_seq_a_trip"),
        ),
    ]
