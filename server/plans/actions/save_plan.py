"""Keep a planned day; sent again under its id, it is changed."""

from __future__ import annotations

import uuid
from dataclasses import dataclass
from typing import Any, Final

from django.db import transaction
from rest_framework.exceptions import NotFound

from coldwake_core.decode import encode
from coldwake_core.errors import InvalidInputError

from ..models import Plan
from ..permissions import own_water
from .plan_day import PlanDay, PlannedDay, read_day

MOST_PLANS: Final = 200


@dataclass(frozen=True, kw_only=True)
class SavePlan:
    """A plan of the user's."""

    owner: Any
    plan_id: uuid.UUID
    data: dict[str, Any]

    def execute(self) -> tuple[Plan, PlannedDay]:
        """Compute it and keep it; return it and the day."""
        plan = Plan.objects.filter(pk=self.plan_id).first()
        if plan is not None and plan.owner_id != self.owner.pk:
            raise NotFound("You have no such plan.")
        asked = {"rough": False, **self.data}
        water = own_water(self.owner, asked.get("water_id"))
        planned = PlanDay(water=water, data=asked).execute()
        with transaction.atomic():
            if plan is None:
                if Plan.objects.filter(owner_id=self.owner.pk).count() >= MOST_PLANS:
                    raise InvalidInputError(
                        "id", str(self.plan_id), f"one of {MOST_PLANS} plans: drop an old one"
                    )
                plan = Plan(pk=self.plan_id, owner_id=self.owner.pk)
            plan.water, plan.species = water, asked["species"]
            plan.day = read_day(asked["day"])
            # The hours as they were used: a day that was typed can be drawn on.
            plan.asked = {**asked, "hours": encode(planned.hours)}
            plan.document = encode(planned.plan)
            plan.save()
        return plan, planned
