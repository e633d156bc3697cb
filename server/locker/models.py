"""Outfits: a boat with its places, rods, lines and tackle."""

from __future__ import annotations

from django.conf import settings
from django.db import models

from coldwake_core.decode import decode
from coldwake_core.gear.tackle import Outfit as CoreOutfit


class Outfit(models.Model):
    """Everything aboard one boat. A trip takes a copy, so later changes do not rewrite it."""

    owner = models.ForeignKey(
        settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="outfits"
    )
    name = models.CharField(max_length=120)
    data = models.JSONField(help_text="coldwake_core.gear.tackle.Outfit as JSON, SI units")

    class Meta:
        ordering = ("name", "pk")

    def __str__(self) -> str:
        return self.name

    def core(self) -> CoreOutfit:
        """Return it as the core knows it; raises InvalidInputError when it is not sound."""
        return decode(CoreOutfit, self.data, field="outfit")
