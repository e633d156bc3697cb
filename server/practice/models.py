"""Simulated days."""

from __future__ import annotations

from django.conf import settings
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
    world = models.CharField(max_length=20, default="lake", help_text="whose fish they are")
    path = models.JSONField(help_text="the boat's way, GeoPoint as JSON")
    way = models.JSONField(default=list, help_text="of each minute: share of the way, depth, m")
    boat = models.JSONField(default=dict, help_text="where the boat is on it")
    taps = models.BooleanField(default=False, help_text="whether whoever fishes taps what bites")
    bites = models.JSONField(default=list, help_text="what fish did where it is tapped by hand")
    scores = models.JSONField(default=dict, help_text="hits of those who fished the same day")

    def __str__(self) -> str:
        return f"day {self.seed} to minute {self.minutes}"


class LessonProgress(models.Model):
    """How far somebody is with a lesson: the task asked now, and what came of those before."""

    owner = models.ForeignKey(
        settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="lessons"
    )
    lesson = models.CharField(max_length=40)
    seed = models.PositiveBigIntegerField(help_text="of the task that is asked now")
    tried = models.JSONField(default=list, help_text="what was set for each stretch, Given as JSON")
    asked = models.PositiveIntegerField(default=0, help_text="tasks that were answered")
    right = models.PositiveIntegerField(default=0)
    streak = models.PositiveIntegerField(default=0, help_text="right in a row now")
    best = models.PositiveIntegerField(default=0, help_text="most right in a row")
    passed_at = models.DateTimeField(null=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=("owner", "lesson"), name="one_progress")]

    def __str__(self) -> str:
        return f"{self.lesson}: {self.right} of {self.asked}"
