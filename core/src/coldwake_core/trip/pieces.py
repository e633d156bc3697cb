"""The record in pieces: what each rod fished in each five minutes, at which speed, with what hits.

Cut where a line was set anew, where the speed changed, and at the bends of turns that were told;
what a rod did out of the water counts for nothing.
"""

from __future__ import annotations

from bisect import bisect_left, bisect_right
from collections import defaultdict
from collections.abc import Iterator
from dataclasses import dataclass
from operator import itemgetter
from typing import Final

from ..advice.shows import CLIPPED
from ..constants import MPH_MPS
from ..errors import CoreError
from ..evidence.bait import stint_minutes
from ..evidence.day_model import STEP_MIN
from ..gear.setup import RodSetup, rig_kind
from ..gear.tackle import Outfit
from ..record.state import Stint, Turn
from ..tow.turns import USUAL_RADIUS_M, Side, TipInTurn, turn_speed_share
from .now import Now

STEP_S = STEP_MIN * 60.0
MOST_STEPS = 288
"""A day and a night of five minutes; what was before is Review's."""
STEADY_MPS: Final = 0.15 * MPH_MPS
"""Less than this is a wheel's wobble, and no change: a hand goes by two tenths (judged)."""
BEND_S: Final = 60.0
"""A turn whose end nobody told counts for so long, one bend: what comes after may go the other way
(judged)."""
TURN_S: Final = 180.0
"""A turn whose end nobody told is over after this (judged); one that ended later was ended by the
next one's beginning."""


@dataclass(frozen=True, slots=True)
class Piece:
    """A rod fishing one thing within five minutes: with how many hits, and for how long."""

    rod_id: str
    setup: RodSetup
    setting_m: float
    speed_mps: float
    hits: int
    minutes: float


Step = tuple[tuple[Piece, ...], tuple[tuple[float, int], ...]]


def steps_of(now: Now, now_s: float) -> list[Step]:
    """Return the record cut at each five minutes since the start.

    Parameters
    ----------
    now : Now
        The trip.
    now_s : float
        The moment, seconds since 1970-01-01 UTC.

    Returns
    -------
    list of Step
        The pieces of each full five minutes, and its marks: how deep, m, and how many fish.
    """
    start, state = now.trip.started_at_s, now.state
    count = min(max(int((now_s - start) // STEP_S), 0), MOST_STEPS)
    pieces: list[list[Piece]] = [[] for _ in range(count)]
    marks: list[list[tuple[float, int]]] = [[] for _ in range(count)]
    hits: dict[str, list[float]] = defaultdict(list)
    for at_s, rod_id, kind in state.bites:
        if kind == "hit":
            hits[rod_id].append(at_s)
    for stint in state.stints:
        for index in _touched(stint, start, now_s, count):
            low = start + STEP_S * index
            first = max(low, stint.start_s)
            last = min(low + STEP_S, now_s if stint.end_s is None else stint.end_s)
            if last <= first:
                continue
            bites = hits[stint.rod_id]
            pieces[index] += [
                Piece(
                    stint.rod_id, stint.setup, stint.setting_m,
                    speed if toward is None else _in_turn(state.outfit, stint, speed, toward),
                    _between(bites, since, until, to_the_end=until == stint.end_s),
                    stint_minutes(
                        stint, since, until, looks=state.bait_looks.get(stint.rod_id, ()),
                        hits=bites,
                    ),
                )
                for begun, over, toward in _bends(state.turns, first, last)
                for since, until, speed in _even(state.speeds, now.speed_mps, begun, over)
            ]
    for timed in state.marks:
        index = int((timed.at_s - start) // STEP_S)
        if 0 <= index < count:
            marks[index].append((timed.mark.depth_m, timed.mark.count))
    # In one order, whichever of two devices spoke first.
    return [
        (tuple(sorted(p, key=lambda piece: (piece.rod_id, piece.setting_m))), tuple(sorted(m)))
        for p, m in zip(pieces, marks, strict=True)
    ]


def marks_since(now: Now, steps: int, now_s: float) -> tuple[tuple[float, int], ...]:
    """Return the marks since the last full five minutes.

    Parameters
    ----------
    now : Now
        The trip.
    steps : int
        How many full five minutes there are.
    now_s : float
        The moment, seconds since 1970-01-01 UTC.

    Returns
    -------
    tuple of (float, int)
        How deep, m, and how many fish.
    """
    begun = now.trip.started_at_s + STEP_S * steps
    return tuple(sorted(
        (timed.mark.depth_m, timed.mark.count)
        for timed in now.state.marks if begun <= timed.at_s <= now_s
    ))


def _bends(
    turns: list[Turn], first: float, last: float
) -> Iterator[tuple[float, float, Side | None]]:
    """A spell cut at the turns that were told: from, to, and toward which side it turned."""
    at = first
    for turn in turns:
        since = max(turn.start_s, at)
        over = turn.start_s + BEND_S
        if turn.end_s is not None and turn.end_s - turn.start_s <= TURN_S:
            over = turn.end_s
        until = min(over, last)
        if until > since:
            if since > at:
                yield at, since, None
            yield since, until, turn.toward
            at = until
    if last > at:
        yield at, last, None


def _even(
    speeds: list[tuple[float, float]], otherwise_mps: float, first: float, last: float
) -> Iterator[tuple[float, float, float]]:
    """A spell cut where the speed changed, with its mean: a wheel's wobble is no change."""
    at = bisect_right(speeds, first, key=itemgetter(0))
    # Before any speed was told, the first that was.
    steady = speeds[at - 1][1] if at else speeds[0][1] if speeds else otherwise_mps
    begun = since = first
    going, way = steady, 0.0
    for when, speed in speeds[at:bisect_left(speeds, last, key=itemgetter(0))]:
        way += going * (when - since)
        since, going = when, speed
        if abs(speed - steady) >= STEADY_MPS:
            if when > begun:
                yield begun, when, _mean(steady, way, when - begun)
            begun, steady, way = when, speed, 0.0
    way += going * (last - since)
    yield begun, last, _mean(steady, way, last - begun)


def _mean(steady_mps: float, way_m: float, time_s: float) -> float:
    mean = way_m / time_s
    # To a hundredth where it wobbled: what is solved for one spell serves the next.
    return steady_mps if abs(mean - steady_mps) < 1e-9 else round(mean, 2)


def _in_turn(outfit: Outfit, stint: Stint, speed_mps: float, toward: Side) -> float:
    """How fast a lure is pulled through a turn: inside slower, outside faster."""
    try:
        side_m = outfit.place(stint.setup.place_id).side_m
        clipped = rig_kind(outfit, stint.setup) in CLIPPED
    except CoreError:
        # Of what is no longer aboard nobody learns anything.
        return speed_mps
    tip = TipInTurn(radius_m=USUAL_RADIUS_M, toward=toward, aft_m=0.0, side_m=side_m)
    share = turn_speed_share(
        outward_m=tip.outward_m, trail_m=stint.setup.setback_m if clipped else stint.setting_m
    )
    # Turns of one boat are much alike: what it solves for one serves the next.
    return round(speed_mps * share, 2)


def _between(times: list[float], first: float, last: float, *, to_the_end: bool) -> int:
    # A stint ends with the bite that ended it: that one is its own.
    end = bisect_right(times, last) if to_the_end else bisect_left(times, last)
    return end - bisect_left(times, first)


def _touched(stint: Stint, start_s: float, now_s: float, count: int) -> range:
    end = now_s if stint.end_s is None else stint.end_s
    first = max(int((stint.start_s - start_s) // STEP_S), 0)
    return range(first, min(int((end - start_s) // STEP_S) + 1, count))
