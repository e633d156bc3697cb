"""A trip and its events."""

from __future__ import annotations

import uuid
from pathlib import Path
from typing import Any

from django.conf import settings
from django.db import models


class Trip(models.Model):
    """A trip, apart from its events: what it started with."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    boat = models.ForeignKey(
        "locker.Outfit", on_delete=models.SET_NULL, null=True, related_name="trips",
        help_text="which boat, by whatever name it goes now",
    )
    water = models.ForeignKey(
        "waters.Water", on_delete=models.SET_NULL, null=True, related_name="trips"
    )
    owner = models.ForeignKey(
        settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="trips"
    )
    name = models.CharField(max_length=120)
    water_name = models.CharField(max_length=120)
    species = models.CharField(max_length=20)
    started_at = models.DateTimeField()
    utc_offset_min = models.IntegerField()
    bottom_m = models.FloatField()
    outfit = models.JSONField()
    sun = models.JSONField()
    clock_shift_s = models.FloatField(default=0.0)
    rest_after_s = models.FloatField(
        null=True, help_text="how long after the latest event the trip's clock stands still, s"
    )
    clock_pace = models.FloatField(default=1.0, help_text="how fast the trip's clock goes")
    clock_set_s = models.FloatField(
        default=0.0, help_text="when the shift held, for a clock of another pace"
    )
    is_practice = models.BooleanField(default=False, help_text="made-up fish: in no season")
    readings = models.JSONField(default=list, help_text="depths seen on earlier trips")
    chart = models.JSONField(null=True, blank=True, help_text="the water's chart when it started")
    keep_out = models.JSONField(
        default=list, blank=True, help_text="closed water and hazards when it started"
    )
    rules = models.JSONField(null=True, blank=True, help_text="the water's rules when it started")
    plan = models.JSONField(null=True, blank=True, help_text="the day as it was planned")
    earlier = models.JSONField(default=list, blank=True, help_text="what earlier days taught")
    taught = models.JSONField(
        null=True, blank=True, help_text="what this day taught, and up to which event"
    )
    is_ended = models.BooleanField(default=False)

    class Meta:
        ordering = ("-started_at", "pk")

    def __str__(self) -> str:
        return f"{self.name}, {self.water_name}"

    def document(self) -> dict[str, Any]:
        """Return the trip as the core's ``Trip`` in JSON."""
        return {
            "id": str(self.pk), "name": self.name, "water_name": self.water_name,
            "species": self.species, "started_at_s": self.started_at.timestamp(),
            "utc_offset_min": self.utc_offset_min, "bottom_m": self.bottom_m,
            "outfit": self.outfit, "sun": self.sun, "clock_shift_s": self.clock_shift_s,
            "rest_after_s": self.rest_after_s, "clock_pace": self.clock_pace,
            "clock_set_s": self.clock_set_s, "is_practice": self.is_practice,
            "readings": self.readings, "chart": self.chart, "keep_out": self.keep_out,
            "rules": self.rules, "plan": self.plan, "earlier": self.earlier,
        }


class Event(models.Model):
    """Something that happened on a trip. Never changed, never deleted."""

    id = models.UUIDField(primary_key=True, editable=False)
    trip = models.ForeignKey(Trip, on_delete=models.CASCADE, related_name="events")
    seq = models.PositiveIntegerField(help_text="in which order it came in, from 1 in each trip")
    at_s = models.FloatField(help_text="seconds since 1970-01-01 UTC, by the trip's clock")
    type = models.CharField(max_length=30)
    payload = models.JSONField()
    received_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ("at_s", "pk")
        indexes = [models.Index(fields=("trip", "at_s"))]
        constraints = [models.UniqueConstraint(fields=("trip", "seq"), name="one_seq_a_trip")]

    def __str__(self) -> str:
        return f"{self.type} at {self.at_s:.0f}"

    def document(self) -> dict[str, Any]:
        """Return the event as the core's ``Event`` in JSON."""
        return {
            "id": str(self.pk), "at_s": self.at_s, "type": self.type, "payload": self.payload
        }


class Photo(models.Model):
    """A picture of a trip; the record's events say what of. The file lies beside the database."""

    id = models.UUIDField(primary_key=True, editable=False)
    trip = models.ForeignKey(Trip, on_delete=models.CASCADE, related_name="photos")
    width_px = models.PositiveIntegerField()
    height_px = models.PositiveIntegerField()
    received_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ("received_at", "pk")

    def __str__(self) -> str:
        return f"{self.pk}.jpg"

    @property
    def file(self) -> Path:
        """Where the picture lies, whether it is there or not."""
        return Path(settings.PHOTOS) / str(self.trip_id) / f"{self.pk}.jpg"
