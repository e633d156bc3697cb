"""A day in short, for the season: what each rod showed for how long, and what came of it."""

from __future__ import annotations

from bisect import bisect_right
from collections import defaultdict
from dataclasses import dataclass, replace
from typing import Final

from ..advice.cures import kind_aboard
from ..advice.shows import recipe_of
from ..errors import CoreError
from ..gear.setup import RigKind
from ..places.review.ledger import Handled, handled
from ..record.state import Stint
from ..trade import Species
from ..trip.now import Now
from ..trip.today import surface_readings

HOUR_S: Final = 3600.0
LEAST_S: Final = 30.0
"""What lasted for less was a line on its way down (judged)."""
OLD_S: Final = 3.0 * HOUR_S
"""A surface that was read longer before or after says nothing of a moment (judged)."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Spell:
    """A rod fishing one recipe within one hour of the clock.

    Parameters
    ----------
    minutes : float
        For how long, min.
    hour : int
        Local hour, 0 to 23.
    kind : RigKind
        Kind of rig.
    depth_m, speed_mps, setback_m : float
        How it fished, m and m/s.
    leader_m : float or None
        Leader behind an attractor, m.
    warm_degc : float or None
        Surface temperature then, degrees Celsius.
    lure, colour, attractor : str
        Names; an empty attractor is none.
    hits, hooked, landed : int
        What came of it.
    """

    minutes: float
    hour: int
    kind: RigKind
    depth_m: float
    speed_mps: float
    setback_m: float
    leader_m: float | None
    warm_degc: float | None
    lure: str
    colour: str
    attractor: str
    hits: int = 0
    hooked: int = 0
    landed: int = 0


@dataclass(frozen=True, slots=True, kw_only=True)
class Caught:
    """A fish in the net, trolled or cast.

    Parameters
    ----------
    at_s : float
        When, seconds since 1970-01-01 UTC by the trip's clock.
    species : Species
        What it was.
    kept : bool
        Whether it was kept.
    length_m : float or None
        How long, m.
    """

    at_s: float
    species: Species
    kept: bool
    length_m: float | None


@dataclass(frozen=True, slots=True, kw_only=True)
class DayDigest:
    """A day in short.

    Parameters
    ----------
    spells : tuple of Spell
        In order of time and rod.
    caught : tuple of Caught
        In order of time.
    warm_first_degc, warm_last_degc : float or None
        First and last surface temperature read, degrees Celsius.
    marks_m : float or None
        Middle depth of the sonar marks, m.
    cast_hits, cast_landed : int
        What was cast to and not trolled.
    handled : tuple of Handled
        What each kind of rig cost and earned.
    """

    spells: tuple[Spell, ...]
    caught: tuple[Caught, ...]
    warm_first_degc: float | None
    warm_last_degc: float | None
    marks_m: float | None
    cast_hits: int = 0
    cast_landed: int = 0
    handled: tuple[Handled, ...] = ()


def digest(now: Now, now_s: float) -> DayDigest:
    """Return a trip in short.

    Parameters
    ----------
    now : Now
        The trip as it stands.
    now_s : float
        The moment up to which, seconds since 1970-01-01 UTC; its end where it has ended.

    Returns
    -------
    DayDigest
    """
    state = now.state
    warm = [(r.at_s, r.temperature_degc) for r in surface_readings(now)]
    by_rod: dict[str, list[tuple[float, Spell]]] = defaultdict(list)
    for stint in state.stints:
        for start_s, spell in _spells(now, stint, now_s, warm):
            by_rod[stint.rod_id].append((start_s, spell))
    for at_s, rod_id, kind in state.bites:
        if kind in ("hit", "hooked", "landed"):
            _count(by_rod[rod_id], at_s, "hits" if kind == "hit" else kind)
    marks = sorted(timed.mark.depth_m for timed in state.marks)
    ordered = sorted(
        ((start_s, rod_id, spell) for rod_id, rows in by_rod.items() for start_s, spell in rows),
        key=lambda row: row[:2],
    )
    return DayDigest(
        spells=tuple(spell for *_, spell in ordered),
        caught=tuple(
            Caught(at_s=f.at_s, species=f.species, kept=f.kept, length_m=f.length_m)
            for f in sorted(state.landed, key=lambda fish: fish.at_s)
        ),
        warm_first_degc=warm[0][1] if warm else None,
        warm_last_degc=warm[-1][1] if warm else None,
        marks_m=marks[len(marks) // 2] if marks else None,
        cast_hits=sum(cast.hits for cast in state.castings),
        cast_landed=sum(cast.landed for cast in state.castings), handled=handled(now, now_s),
    )


def _spells(
    now: Now, stint: Stint, now_s: float, warm: list[tuple[float, float]]
) -> list[tuple[float, Spell]]:
    """The stint cut at the full hours of the clock at the water."""
    end_s = now_s if stint.end_s is None else min(stint.end_s, now_s)
    kind = kind_aboard(now.state, stint.setup)
    offset_s = 60.0 * now.trip.utc_offset_min
    found: list[tuple[float, Spell]] = []
    begin_s = stint.start_s
    while kind is not None and begin_s < end_s:
        hour = int((begin_s + offset_s) // HOUR_S)
        last_s = min((hour + 1) * HOUR_S - offset_s, end_s)
        if last_s - begin_s >= LEAST_S:
            spell = _spell(now, stint, kind, (begin_s, last_s), warm)
            if spell is not None:
                found.append((begin_s, replace(spell, hour=hour % 24)))
        begin_s = last_s
    return found


def _spell(
    now: Now, stint: Stint, kind: RigKind, span: tuple[float, float],
    warm: list[tuple[float, float]],
) -> Spell | None:
    begin_s, last_s = span
    speed = mean_speed(now, begin_s, last_s)
    outfit = now.state.outfit
    try:
        depth = now.lines.solved(stint.setup, speed, doubt="none").place(stint.setting_m)[1].depth_m
        recipe = recipe_of(
            outfit, stint.setup, depth_m=depth, setting_m=stint.setting_m, speed_mps=speed
        )
        attractor = stint.setup.attractor_id
        named = outfit.attractor(attractor).name if attractor else ""
    except CoreError:
        return None  # what is no longer understood of an old record counts for nothing
    return Spell(
        minutes=(last_s - begin_s) / 60.0, hour=0, kind=kind, depth_m=recipe.depth_m,
        speed_mps=speed, setback_m=recipe.setback_m, leader_m=recipe.leader_m,
        warm_degc=warm_at(warm, 0.5 * (begin_s + last_s)), lure=recipe.lure,
        colour=recipe.colour, attractor=named,
    )


def mean_speed(now: Now, begin_s: float, end_s: float) -> float:
    """Return the boat's speed over a while, by how long each was held.

    Parameters
    ----------
    now : Now
        The trip.
    begin_s, end_s : float
        From when to when, seconds since 1970-01-01 UTC.

    Returns
    -------
    float
        m/s.
    """
    speeds = now.state.speeds
    first = bisect_right(speeds, begin_s, key=lambda row: row[0])
    held = speeds[first - 1][1] if first else now.speed_mps
    at_s, total = begin_s, 0.0
    for changed_s, speed in speeds[first:]:
        if changed_s >= end_s:
            break
        total += held * (changed_s - at_s)
        at_s, held = changed_s, speed
    return (total + held * (end_s - at_s)) / (end_s - begin_s)


def warm_at(warm: list[tuple[float, float]], at_s: float) -> float | None:
    """Return the surface temperature about a moment.

    Parameters
    ----------
    warm : list of (float, float)
        Times, s, and what was read, degrees Celsius.
    at_s : float
        The moment, s.

    Returns
    -------
    float or None
        None where nobody read it within three hours.
    """
    near = min(warm, key=lambda row: abs(row[0] - at_s), default=None)
    return None if near is None or abs(near[0] - at_s) > OLD_S else near[1]


def _count(rows: list[tuple[float, Spell]], at_s: float, name: str) -> None:
    """A bite belongs to what its rod fished last: it may be told when the line is in already."""
    index = bisect_right(rows, at_s, key=lambda row: row[0]) - 1
    if index >= 0:
        start_s, spell = rows[index]
        rows[index] = start_s, replace(spell, **{name: getattr(spell, name) + 1})
