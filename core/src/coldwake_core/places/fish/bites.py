"""The latest bite of a rod with what is known of it, and the pass that is being made."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

from ...record.state import TripState
from ...record.told import Doing

TELL_S: Final = 600.0
"""For so long after a bite it is asked what it was like."""
MOMENT_S: Final = 60.0
"""What happened so shortly before a bite was what the line was doing (judged)."""
FASTER_MPS: Final = 0.04


@dataclass(frozen=True, slots=True, kw_only=True)
class BiteView:
    """The latest bite of a rod.

    Parameters
    ----------
    rod_id : str
        The rod.
    at_s : float
        When, seconds since 1970-01-01 UTC.
    was_lost : bool
        Whether the fish came off.
    felt, lost : str or None
        What was told of it.
    doing : Doing
        What the line was doing: as told, else as far as the record knows.
    """

    rod_id: str
    at_s: float
    was_lost: bool
    felt: str | None
    lost: str | None
    doing: str


@dataclass(frozen=True, slots=True, kw_only=True)
class PassView:
    """A pass through fish.

    Parameters
    ----------
    start_s : float
        When it began, seconds since 1970-01-01 UTC.
    end_s : float or None
        When it ended; None while it lasts.
    fish : int
        Fish marked on it.
    hits : int
        Hits on it, of all rods.
    """

    start_s: float
    end_s: float | None
    fish: int
    hits: int


def bites_now(state: TripState, now_s: float) -> tuple[BiteView, ...]:
    """Return the latest bite of each rod, as long as it is worth telling more of it.

    Parameters
    ----------
    state : TripState
        The trip.
    now_s : float
        Seconds since 1970-01-01 UTC.

    Returns
    -------
    tuple of BiteView
    """
    latest: dict[str, tuple[float, bool]] = {}
    over_s: dict[str, float] = {}
    for at_s, rod_id, kind in state.bites:
        before = latest.get(rod_id)
        if kind in ("hit", "hooked") and (before is None or kind == "hit" or before[1]):
            latest[rod_id] = at_s, False
        elif kind == "lost" and before is not None:
            latest[rod_id] = before[0], True
        over_s[rod_id] = at_s
    bites = []
    for rod_id, (at_s, was_lost) in latest.items():
        if not 0.0 <= now_s - over_s[rod_id] <= TELL_S:
            continue
        told = state.told.get((rod_id, at_s))
        bites.append(BiteView(
            rod_id=rod_id, at_s=at_s, was_lost=was_lost,
            felt=told.felt if told else None, lost=told.lost if told else None,
            doing=(told.doing if told else None) or line_doing(state, rod_id, at_s),
        ))
    return tuple(bites)


def line_doing(state: TripState, rod_id: str, at_s: float) -> Doing:
    """Return what a line was doing at a bite, as far as the record knows.

    Parameters
    ----------
    state : TripState
        The trip.
    rod_id : str
        The rod.
    at_s : float
        The bite, seconds since 1970-01-01 UTC.

    Returns
    -------
    Doing
        "steady" where nothing else is known.

    Notes
    -----
    Long-lined while a fish was on another rod; dropping within a minute of being let out, rising or
    dropping within one of being set anew; surging or easing within one of a change of speed.
    """
    playing: set[str] = set()
    for when, rod, kind in state.bites:
        if when >= at_s:
            break
        if kind == "hooked":
            playing.add(rod)
        elif kind in ("landed", "lost"):
            playing.discard(rod)
    if playing - {rod_id}:
        return "long_lined"
    stints = [s for s in state.stints if s.rod_id == rod_id and s.start_s <= at_s]
    if stints and at_s - stints[-1].start_s <= MOMENT_S:
        before = stints[-2] if len(stints) > 1 else None
        joined = before is not None and before.end_s == stints[-1].start_s
        if before is not None and joined and before.setting_m > stints[-1].setting_m:
            return "rising"
        if before is None or not joined or before.setting_m < stints[-1].setting_m:
            return "dropping"
    speeds = [(when, mps) for when, mps in state.speeds if when <= at_s]
    if len(speeds) > 1 and at_s - speeds[-1][0] <= MOMENT_S:
        change = speeds[-1][1] - speeds[-2][1]
        if abs(change) >= FASTER_MPS:
            return "surging" if change > 0.0 else "easing"
    return "steady"


def latest_pass(state: TripState, now_s: float) -> PassView | None:
    """Return the latest pass through fish, with what it brought.

    Parameters
    ----------
    state : TripState
        The trip.
    now_s : float
        Seconds since 1970-01-01 UTC.

    Returns
    -------
    PassView or None
        None before the first.
    """
    if not state.passes:
        return None
    last = state.passes[-1]
    end_s = now_s if last.end_s is None else last.end_s
    return PassView(
        start_s=last.start_s, end_s=last.end_s,
        fish=sum(m.mark.count for m in state.marks if last.start_s <= m.at_s <= end_s),
        hits=sum(
            1 for at_s, _, kind in state.bites if kind == "hit" and last.start_s <= at_s <= end_s
        ),
    )
