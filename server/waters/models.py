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
