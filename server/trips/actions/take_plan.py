"""Give a trip that is under way a planned day: the evening's plan, or a better one at noon."""

from __future__ import annotations

import uuid
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta

from coldwake_core.errors import InvalidInputError, UnknownItemError
from coldwake_core.record.payloads import check_uuid
from plans.models import Plan

from ..models import Trip
from ..queries import trip_now_s
from .append_events import AppendEvents


@dataclass(frozen=True, kw_only=True)
class TakePlan:
    """A plan of its owner's for a trip: an event like all others, which can be undone."""

    trip: Trip
    event_id: object
    plan_id: object

    def execute(self) -> None:
        """Append it; raises CoreError naming what does not fit. Sent again, it is taken once."""
        key = uuid.UUID(check_uuid("plan_id", self.plan_id))
        event_id = check_uuid("id", self.event_id)
        plan = Plan.objects.filter(pk=key, owner_id=self.trip.owner_id).first()
        if plan is None:
            raise UnknownItemError("plan_id", self.plan_id, "one of your plans")
        if plan.water_id != self.trip.water_id or plan.species != self.trip.species:
            raise InvalidInputError(
                "plan_id", self.plan_id, "a plan for the water and species of this trip"
            )
        now_s = trip_now_s(self.trip)
        here = datetime.fromtimestamp(now_s, UTC) + timedelta(minutes=self.trip.utc_offset_min)
        if plan.day != here.date():
            raise InvalidInputError("plan_id", self.plan_id, f"a plan for {here.date()}, its day")
        AppendEvents(self.trip, [
            {"id": event_id, "at_s": now_s, "type": "day_planned", "payload": plan.document}
        ]).execute()
