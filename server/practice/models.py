"""Simulated days."""

from __future__ import annotations

from django.db import models

from trips.models import Trip


class PracticeDay(models.Model):
    """A simulated day: its seed is all of it; how far it has been played, and what came of it."""

    trip = models.OneToOneField(
        Trip, on_delete=models.CASCADE, primary_key=True, related_name="practice"
    )
    seed = models.PositiveBigIntegerField()
    minutes = models.PositiveIntegerField(default=0, help_text="that have been played")
    looked_s = models.FloatField(help_text="when somebody looked last, by the wall clock")
    advice = models.BooleanField(default=True)
    path = models.JSONField(help_text="the boat's way, GeoPoint as JSON")
    boat = models.JSONField(default=dict, help_text="where the boat is on it")
    scores = models.JSONField(default=dict, help_text="hits of those who fished the same day")

    def __str__(self) -> str:
        return f"day {self.seed} to minute {self.minutes}"
