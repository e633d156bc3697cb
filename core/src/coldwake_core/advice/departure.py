"""How a day differs from its plan, and what follows."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from ..water.forecast import SlidDay, SurfaceReading
from .phases import Phase, phase_at

AWAY_DEGC: Final = 0.6
"""So far from its forecast the surface has left the plan (judged: 1 °F)."""
SLIDES_S: Final = 900.0
"""A phase that begins this much earlier or later has slid (judged)."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Departure:
    """How the day differs from its plan.

    Parameters
    ----------
    off_degc : float
        Surface read less surface planned, degrees Celsius.
    text : str
        In a sentence.
    phase, slid_from_s, slid_to_s
        The next phase that slides by it, and its start before and now; None where none does.
    """

    off_degc: float
    text: str
    phase: str | None
    slid_from_s: float | None
    slid_to_s: float | None


def departure(
    before: SlidDay, readings: Sequence[SurfaceReading], planned: tuple[Phase, ...],
    now: tuple[Phase, ...],
) -> Departure | None:
    """Return how the day differs from its plan.

    Parameters
    ----------
    before : SlidDay
        The forecast without readings.
    readings : sequence of SurfaceReading
        What was read.
    planned, now : tuple of Phase
        Phases as planned and as they stand.

    Returns
    -------
    Departure or None
        None until something was read within the forecast's hours.
    """
    times = before.forecast.at_s
    inside = [r for r in readings if times[0] <= r.at_s <= times[-1]]
    if not inside:
        return None
    latest = max(inside, key=lambda r: r.at_s)
    off = latest.temperature_degc - before.surface(latest.at_s).middle
    current = phase_at(now, latest.at_s)
    coming = [p for p in now if p.start_s > latest.at_s]
    slid = None
    for phase in coming:
        old = next(
            (p for p in planned if p.method.id == phase.method.id and p.falling == phase.falling),
            None,
        )
        if old is None or abs(old.start_s - phase.start_s) >= SLIDES_S:
            slid = (phase, old)
            break
    missing = [
        p for p in planned
        if p.start_s > latest.at_s and not any(q.method.id == p.method.id for q in now)
    ]
    if abs(off) < AWAY_DEGC and slid is None and not missing:
        text = "as planned"
    elif missing and slid is None:
        text = f"{_name(missing[0])}: not today as it stands"
    elif slid is None:
        text = f"{_name(current)} holds" if current else "no phase of the plan moves"
    elif slid[1] is None:
        text = f"{_name(slid[0])}: not in the plan"
    else:
        text = f"{_name(slid[0])} slides"
    return Departure(
        off_degc=off, text=text, phase=None if slid is None else slid[0].method.name,
        slid_from_s=None if slid is None or slid[1] is None else slid[1].start_s,
        slid_to_s=None if slid is None else slid[0].start_s,
    )


def _name(phase: Phase | None) -> str:
    return "" if phase is None else f"“{phase.method.name}”"
