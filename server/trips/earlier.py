"""What a user's earlier trips have taught, for one that begins."""

from __future__ import annotations

import time
from datetime import datetime
from typing import Any

from coldwake_core.decode import decode, encode
from coldwake_core.evidence.likeness import DayMarks, likeness
from coldwake_core.record.earlier import MOST_DAYS, EarlierDay, ShownEarlier
from coldwake_core.record.planned import DayPlan
from coldwake_core.trip.learnt import taught
from coldwake_core.trip.today import surface_readings
from common.faults import write_down

from .models import Trip
from .queries import last_seq, trip_now

LEAST_LIKE = 0.05
MOST_LOOKED_AT = 60
VERSION = 3
"""Raised when lessons of before say less than those of now."""
OLDEST_READ = 2
"""Lessons of before are written otherwise."""
PATIENCE_S = 1.0
"""So long one request works lessons out, s; what an earlier version or fewer events taught stands
in for the rest, and the next request goes on."""


def earlier_days(
    owner: Any, *, species: str, water_name: str, started_at: datetime, plan: Any
) -> list[Any]:
    """Return the days most like the one that begins, as JSON of ``EarlierDay``."""
    today = DayMarks(
        day_of_year=float(started_at.timetuple().tm_yday),
        surface_degc=_planned_surface(plan), water=water_name,
        secchi_m=None if plan is None else plan["secchi_m"],
    )
    trips = Trip.objects.filter(
        owner_id=owner.pk, species=species, is_ended=True, is_practice=False
    )
    found = []
    until = None
    for trip in trips.exclude(started_at__gt=started_at)[:MOST_LOOKED_AT]:
        lesson, is_old = trip.taught, _is_old(trip)
        # At least one each time, so that none waits for ever.
        if is_old and (until is None or time.monotonic() < until):
            lesson = _worked_out(trip)
            until = until or time.monotonic() + PATIENCE_S
        if lesson is None or lesson.get("version", 0) < OLDEST_READ:
            continue
        like = likeness(today, DayMarks(
            day_of_year=float(trip.started_at.timetuple().tm_yday), water=trip.water_name,
            surface_degc=lesson["surface_degc"], secchi_m=lesson["secchi_m"],
        ))
        if like >= LEAST_LIKE and any(item["hits"] for item in lesson["shown"]):
            found.append(EarlierDay(
                name=trip.name, at_s=trip.started_at.timestamp(), like=like,
                shown=tuple(
                    decode(ShownEarlier, item, field="shown") for item in lesson["shown"]
                ),
            ))
    found.sort(key=lambda day: -day.like)
    return [encode(day) for day in found[:MOST_DAYS]]


def _is_old(trip: Trip) -> bool:
    kept = trip.taught or {}
    return (kept.get("seq"), kept.get("version")) != (last_seq(trip), VERSION)


def _worked_out(trip: Trip) -> dict[str, Any]:
    """Return what a trip taught, and keep it."""
    lesson: dict[str, Any] = {
        "seq": last_seq(trip), "version": VERSION, "shown": [], "surface_degc": None,
        "secchi_m": None,
    }
    try:
        now = trip_now(trip)
        last = trip.events.order_by("-at_s").values_list("at_s", flat=True).first()
        if last is not None:
            lesson["shown"] = [encode(item) for item in taught(now, last)]
        read = [reading.temperature_degc for reading in surface_readings(now)]
        lesson["surface_degc"] = sum(read) / len(read) if read else None
        plan = now.state.plan
        lesson["secchi_m"] = None if plan is None else plan.secchi_m
    except Exception as error:  # An old record must not keep a trip from beginning.
        write_down(error, "what an earlier trip taught could not be worked out")
    trip.taught = lesson
    trip.save(update_fields=["taught"])
    return lesson


def _planned_surface(plan: Any) -> float | None:
    if plan is None:
        return None
    hours = decode(DayPlan, plan, field="plan").forecast
    middle = len(hours.at_s) // 2
    return sum(member[middle][0] for member in hours.members_degc) / len(hours.members_degc)
