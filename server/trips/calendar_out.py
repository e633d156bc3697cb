"""Somebody's trips and planned days as a calendar (RFC 5545)."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta
from typing import Any, Final

from django.db.models import Max
from icalendar import Calendar, Event

from plans.models import Plan

from .models import Trip

MOST_HOURS: Final = 18
"""A trip that was never ended, or whose record was mended weeks later, was no longer than this."""


def calendar_of(owner: Any, now: datetime) -> bytes:
    """Return it: each trip from its start to its last entry, each planned day as a whole day.

    Places are by name, and no bite stands in it: calendars are shared more easily than is thought.
    """
    calendar = Calendar()
    calendar.add("prodid", "-//Cold Wake//trips//EN")
    calendar.add("version", "2.0")
    trips = Trip.objects.filter(owner_id=owner.pk, is_practice=False).only(
        "id", "name", "water_name", "species", "started_at", "is_ended", "clock_shift_s"
    ).annotate(last_s=Max("events__at_s"))
    for trip in trips:
        event = Event()
        event.add("uid", f"{trip.pk}@coldwake")
        event.add("dtstamp", now)
        event.add("dtstart", trip.started_at)
        event.add("dtend", _end(trip, now))
        event.add("summary", f"{trip.name}: {trip.species}")
        event.add("location", trip.water_name)
        calendar.add_component(event)
    plans = Plan.objects.filter(owner_id=owner.pk).select_related("water").defer("document")
    for plan in plans:
        event = Event()
        event.add("uid", f"{plan.pk}@coldwake")
        event.add("dtstamp", now)
        event.add("dtstart", plan.day)
        event.add("dtend", plan.day + timedelta(days=1))
        event.add("summary", f"Planned: {plan.species}")
        event.add("location", plan.water.name)
        event.add("status", "TENTATIVE")
        calendar.add_component(event)
    return bytes(calendar.to_ical())


def _end(trip: Any, now: datetime) -> datetime:
    least: datetime = trip.started_at + timedelta(minutes=1)
    if not trip.is_ended:
        last = now - timedelta(seconds=trip.clock_shift_s)
    else:
        last = least if trip.last_s is None else datetime.fromtimestamp(trip.last_s, UTC)
    return min(max(last, least), least + timedelta(hours=MOST_HOURS))
