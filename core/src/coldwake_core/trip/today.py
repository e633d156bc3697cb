"""The day of the open trip: its plan, slid by what was read; and the method of the hour."""

from __future__ import annotations

from dataclasses import dataclass

from ..advice.departure import Departure, departure
from ..advice.method import Method, method_of_the_hour
from ..advice.phases import Phase, day_phases, phase_at
from ..water.forecast import SlidDay, SurfaceReading
from .now import Now

SURFACE_M = 1.0
"""A temperature read no deeper than this is the surface's."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Today:
    """The day as it stands, beside the day as it was planned.

    Parameters
    ----------
    day, before : SlidDay
        The forecast with the readings so far, and without.
    phases, planned : tuple of Phase
        Phases of the one and of the other.
    departure : Departure or None
        How they differ.
    """

    day: SlidDay
    before: SlidDay
    phases: tuple[Phase, ...]
    planned: tuple[Phase, ...]
    departure: Departure | None


def surface_readings(now: Now) -> tuple[SurfaceReading, ...]:
    """Return the surface temperatures of the record, in the order they were read.

    Parameters
    ----------
    now : Now
        The trip.

    Returns
    -------
    tuple of SurfaceReading
    """
    return tuple(
        SurfaceReading(at_s=r.at_s, temperature_degc=r.temperature_degc)
        for r in now.state.readings if r.depth_m <= SURFACE_M
    )


def today(now: Now) -> Today | None:
    """Return the day of a trip that took a plan along.

    Parameters
    ----------
    now : Now
        The trip.

    Returns
    -------
    Today or None
        None without a plan. Worked out once for what was read and chosen so far.
    """
    trip, state, plan = now.trip, now.state, now.state.plan
    if plan is None:
        return None
    readings = surface_readings(now)
    schools = state.schools.get("cold_morning"), state.schools.get("colour")
    # A tap changes none of it: the day is worked out anew only when something was read or chosen.
    found: Today | None
    of_plan, known, found = now.memo.get("today", (None, None, None))
    if of_plan is not plan or known != (readings, schools):
        before, day = SlidDay(plan.forecast), SlidDay(plan.forecast, readings)
        planned, phases = (
            day_phases(
                plan, of, species=trip.species, sun=trip.sun, bottom_m=trip.bottom_m,
                cold_school=schools[0], colour_school=schools[1],
            )
            for of in (before, day)
        )
        found = Today(
            day=day, before=before, phases=phases, planned=planned,
            departure=departure(before, readings, planned, phases),
        )
        now.memo["today"] = plan, (readings, schools), found
    return found


def phase_now(now: Now, now_s: float) -> Phase | None:
    """Return the phase of the plan that a moment is in.

    Parameters
    ----------
    now : Now
        The trip.
    now_s : float
        The moment, seconds since 1970-01-01 UTC.

    Returns
    -------
    Phase or None
        None without a plan, or outside its day.
    """
    day = today(now)
    return None if day is None else phase_at(day.phases, now_s)


def method_now(now: Now, now_s: float) -> Method | None:
    """Return the method of the hour: the plan's phase, or what the surface read calls for.

    Parameters
    ----------
    now : Now
        The trip.
    now_s : float
        The moment, seconds since 1970-01-01 UTC.

    Returns
    -------
    Method or None
        None where there is neither a plan for the hour nor a surface temperature.
    """
    phase = phase_now(now, now_s)
    if phase is not None:
        return phase.method
    surface = now.state.surface_degc
    if surface is None:
        return None
    return method_of_the_hour(
        species=now.trip.species, surface_degc=surface,
        cold_school=now.state.schools.get("cold_morning"),
    )
