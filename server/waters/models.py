"""A lake or a reach of river."""

from __future__ import annotations

from datetime import datetime
from zoneinfo import ZoneInfo

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
    utc_offset_min = models.IntegerField(help_text="local time less UTC where no zone is known")
    timezone = models.CharField(
        max_length=60, blank=True, default="", help_text="IANA name of its time zone"
    )
    chart = models.JSONField(
        null=True, blank=True, help_text="coldwake_core.chart.grid.DepthGrid as JSON, SI units"
    )
    features = models.JSONField(
        default=list, blank=True,
        help_text="what stands on the chart: coldwake_core.chart.features.Feature as JSON",
    )
    doubt = models.JSONField(
        null=True, blank=True, help_text="how sure each cell of the chart is, m"
    )
    below_m = models.FloatField(
        default=0.0, help_text="how far the water stands under the chart's level today, m"
    )
    rules = models.JSONField(
        null=True, blank=True, help_text="what the user read of its rules: WaterRules as JSON"
    )

    class Meta:
        ordering = ("name", "pk")

    def __str__(self) -> str:
        return self.name

    def utc_offset_min_at(self, moment: datetime) -> int:
        """Return local time less UTC at a moment, minutes: by the zone, summer time and all."""
        if not self.timezone:
            return self.utc_offset_min
        offset = moment.astimezone(ZoneInfo(self.timezone)).utcoffset()
        return self.utc_offset_min if offset is None else round(offset.total_seconds() / 60.0)


class Survey(models.Model):
    """Soundings of a water, as they came in: the chart is made from all of them."""

    water = models.ForeignKey(Water, on_delete=models.CASCADE, related_name="surveys")
    name = models.CharField(max_length=120)
    below_m = models.FloatField(help_text="how far the water stood under the chart's level, m")
    points = models.JSONField(help_text="[latitude, longitude, depth in m] each")
    added_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ("pk",)

    def __str__(self) -> str:
        return f"{self.name}, {len(self.points)} soundings"
