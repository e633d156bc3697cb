"""What a boat listens to."""

from __future__ import annotations

from django.conf import settings
from django.db import models


class Listening(models.Model):
    """What somebody's boat listens to, the source that is believed first first."""

    owner = models.OneToOneField(
        settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="listening"
    )
    sources = models.JSONField(
        default=list, blank=True,
        help_text="coldwake_core.boat.instruments.Source as JSON, SI units",
    )

    class Meta:
        ordering = ("pk",)

    def __str__(self) -> str:
        return f"{len(self.sources)} sources of {self.owner}"
