"""A lake or a reach of river."""

from __future__ import annotations

from django.conf import settings
from django.db import models


class Water(models.Model):
    """A water that somebody fishes."""

    owner = models.ForeignKey(
        settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="waters"
    )
    name = models.CharField(max_length=120)
    deepest_m = models.FloatField()
    latitude_deg = models.FloatField()
    longitude_deg = models.FloatField()
    utc_offset_min = models.IntegerField()
    chart = models.JSONField(
        null=True, blank=True, help_text="coldwake_core.chart.grid.DepthGrid as JSON, SI units"
    )
    rules = models.JSONField(
        null=True, blank=True, help_text="what the user read of its rules: WaterRules as JSON"
    )

    class Meta:
        ordering = ("name", "pk")

    def __str__(self) -> str:
        return self.name
