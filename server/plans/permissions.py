"""Whose plan and whose water it is."""

from __future__ import annotations

import uuid
from typing import Any

from rest_framework.exceptions import NotFound

from coldwake_core.errors import UnknownItemError
from waters.models import Water

from .models import Plan


def own_plan(user: Any, plan_id: uuid.UUID) -> Plan:
    """Return a plan of the user's; raises NotFound for all others alike."""
    plan = Plan.objects.filter(pk=plan_id, owner_id=user.pk).select_related("water").first()
    if plan is None:
        raise NotFound("You have no such plan.")
    return plan


def own_water(user: Any, water_id: object) -> Water:
    """Return a water of the user's; raises UnknownItemError for all others alike."""
    water = None
    if isinstance(water_id, int) and not isinstance(water_id, bool) and 0 < water_id < 2**53:
        water = Water.objects.filter(pk=water_id, owner_id=user.pk).first()
    if water is None:
        raise UnknownItemError("water_id", water_id, "one of your waters")
    return water
