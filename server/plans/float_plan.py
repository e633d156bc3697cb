"""A float plan to print or to send: as text, and as iCalendar (RFC 5545)."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta, timezone

from icalendar import Alarm, Calendar, Event

from coldwake_core.advice.safety import FloatPlan


def text_of(plan: FloatPlan, utc_offset_min: int) -> str:
    """Return it as plain text, times by the water's own clock."""
    zone = timezone(timedelta(minutes=utc_offset_min))

    def clock(at_s: float) -> str:
        return datetime.fromtimestamp(at_s, zone).strftime("%a %d %b %Y, %H:%M")

    lines = [
        "FLOAT PLAN", f"Who: {plan.who}", f"Boat: {plan.boat}", f"Water: {plan.water}",
        f"From: {plan.launch}", f"Out: {clock(plan.out_s)}", f"Back by: {clock(plan.back_s)}",
        f"If not back by then: {plan.call}",
    ]
    if plan.note:
        lines.append(f"Note: {plan.note}")
    lines.append(
        "If you cannot reach us an hour after that time, call for help: cold water does not wait."
    )
    return "\n".join(line for line in lines if not line.endswith(": "))


def ics_of(plan: FloatPlan, utc_offset_min: int, key: str) -> str:
    """Return it as an event that reminds whoever takes it at the hour of the return."""
    calendar = Calendar()
    calendar.add("prodid", "-//Cold Wake//float plan//EN")
    calendar.add("version", "2.0")
    event = Event()
    event.add("uid", f"{key}@coldwake")
    event.add("dtstamp", datetime.fromtimestamp(plan.out_s, UTC))
    event.add("dtstart", datetime.fromtimestamp(plan.out_s, UTC))
    event.add("dtend", datetime.fromtimestamp(plan.back_s, UTC))
    event.add("summary", f"On the water: {plan.water}")
    event.add("location", plan.launch or plan.water)
    event.add("description", text_of(plan, utc_offset_min))
    alarm = Alarm()
    alarm.add("action", "DISPLAY")
    alarm.add("description", f"Back from {plan.water}? If not: {plan.call}")
    alarm.add("trigger", timedelta(0), parameters={"RELATED": "END"})
    event.add_component(alarm)
    calendar.add_component(event)
    return str(calendar.to_ical(), "utf-8")
