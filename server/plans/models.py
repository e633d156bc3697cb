"""A planned day, and the last answer of the forecast service."""

from __future__ import annotations

import uuid

from django.conf import settings
from django.db import models


class Plan(models.Model):
    """A day as it was planned: what was asked, and what came of it."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    owner = models.ForeignKey(
        settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="plans"
    )
    water = models.ForeignKey("waters.Water", on_delete=models.CASCADE, related_name="plans")
    species = models.CharField(max_length=20)
    day = models.DateField()
    asked = models.JSONField(help_text="what its user set")
    document = models.JSONField(help_text="coldwake_core.record.planned.DayPlan as JSON")
    saved_at = models.DateTimeField(auto_now=True)

    class Meta:
        ordering = ("-day", "pk")

    def __str__(self) -> str:
        return f"{self.day}, {self.species}"


class KeptForecast(models.Model):
    """What the forecast service said last of a water and a day."""

    water = models.ForeignKey("waters.Water", on_delete=models.CASCADE, related_name="forecasts")
    day = models.DateField()
    hours = models.JSONField(help_text="coldwake_core.water.weather.WeatherHour as JSON, in order")
    words = models.CharField(max_length=200)
    fetched_at = models.DateTimeField()

    class Meta:
        constraints = [
            models.UniqueConstraint(fields=("water", "day"), name="one_forecast_a_water_and_day")
        ]

    def __str__(self) -> str:
        return f"{self.day}: {self.words}"
