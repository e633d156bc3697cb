"""Days in short, and fish that were noted elsewhere."""

from __future__ import annotations

from django.conf import settings
from django.db import models

from trips.models import Trip


class Digest(models.Model):
    """A trip in short: worked out once, and anew when something came late."""

    trip = models.OneToOneField(
        Trip, on_delete=models.CASCADE, primary_key=True, related_name="digest"
    )
    seq = models.PositiveIntegerField(help_text="up to which event")
    version = models.PositiveIntegerField(help_text="of the way it is worked out")
    document = models.JSONField(help_text="coldwake_core.season.digest.DayDigest as JSON")
    numbers = models.JSONField(null=True, help_text="what the list of days shows of it")

    def __str__(self) -> str:
        return f"{self.trip_id} up to {self.seq}"


class NotedCatch(models.Model):
    """Fish out of somebody's spreadsheet: counted by day; nobody noted how long was fished."""

    owner = models.ForeignKey(
        settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="noted_catches"
    )
    source = models.CharField(max_length=120, help_text="name of the file")
    key = models.CharField(max_length=64, help_text="of the row: the same row is kept once")
    day = models.DateField()
    hour = models.FloatField(null=True)
    water_name = models.CharField(max_length=120, blank=True)
    species = models.CharField(max_length=20)
    count = models.PositiveIntegerField(default=1)
    kept = models.PositiveIntegerField(default=0)
    length_m = models.FloatField(null=True)
    depth_m = models.FloatField(null=True)
    speed_mps = models.FloatField(null=True)
    warm_degc = models.FloatField(null=True)
    lure = models.CharField(max_length=120, blank=True)
    colour = models.CharField(max_length=120, blank=True)
    note = models.CharField(max_length=300, blank=True)

    class Meta:
        ordering = ("day", "pk")
        constraints = [models.UniqueConstraint(fields=("owner", "key"), name="one_row_once")]

    def __str__(self) -> str:
        return f"{self.count} {self.species}, {self.day}"
