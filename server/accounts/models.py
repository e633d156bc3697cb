"""Who sails with whom."""

from __future__ import annotations

from django.conf import settings
from django.db import models


class Crew(models.Model):
    """Somebody who may record on the trip that a skipper has open."""

    skipper = models.ForeignKey(
        settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="crew"
    )
    member = models.ForeignKey(
        settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="skippers"
    )

    class Meta:
        ordering = ("pk",)
        constraints = [
            models.UniqueConstraint(fields=("skipper", "member"), name="once_in_a_crew"),
            models.CheckConstraint(
                condition=~models.Q(skipper=models.F("member")), name="nobody_is_their_own_crew"
            ),
        ]

    def __str__(self) -> str:
        return f"{self.member} with {self.skipper}"
