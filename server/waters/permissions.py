"""Whose water it is."""

from __future__ import annotations

from typing import Any

from rest_framework.exceptions import NotFound

from .models import Water


def own_water(user: Any, water_id: int) -> Water:
    """Return a water of the user's; raises NotFound for all others alike."""
    water = Water.objects.filter(pk=water_id, owner_id=user.pk).first()
    if water is None:
        raise NotFound("You have no such water.")
    return water
