"""What to begin with: what earned hits on days like the one that comes, and how it is known."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Final

from ..evidence.likeness import DayMarks, likeness
from ..gear.setup import RigKind
from .digest import Spell

RULE_BOOK_MIN: Final = 120.0
"""So many rod-minutes at the usual rate stand beside what each recipe earned itself: two hours,
the first that common practice gives a lure before it is judged (judged)."""
LEAST_MIN: Final = 20.0
"""A recipe that fished less on all days together is not proposed."""
LEAST_LIKE: Final = 0.02
EACH: Final = 2
"""Proposals of each kind of rig."""


@dataclass(frozen=True, slots=True, kw_only=True)
class PastDay:
    """A day that has been.

    Parameters
    ----------
    marks : DayMarks
        What it is likened by.
    month : int
        1 to 12.
    name : str
        What the trip was called.
    spells : tuple of Spell
        What was shown, and what came of it.
    """

    marks: DayMarks
    month: int
    name: str
    spells: tuple[Spell, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class Beginning:
    """Something to begin with on a kind of rig.

    Parameters
    ----------
    kind : RigKind
        On which.
    lure, colour, attractor : str
        What.
    leader_m : float or None
        Leader, m.
    depth_m, setback_m, speed_mps : float
        In the middle of how it fished on these days, m and m/s.
    rate : float
        Hits a rod-hour to expect, drawn toward the usual rate.
    hits : int
        Hits that it had, on however like a day.
    minutes : float
        Rod-minutes that it fished.
    days : int
        On how many days.
    of_water, of_month, of_rule_book : float
        Shares of what is known of it that come from this water, from this month, and from no
        more than the usual rate of all.
    """

    kind: RigKind
    lure: str
    colour: str
    attractor: str
    leader_m: float | None
    depth_m: float
    setback_m: float
    speed_mps: float
    rate: float
    hits: int
    minutes: float
    days: int
    of_water: float
    of_month: float
    of_rule_book: float


@dataclass(frozen=True, slots=True, kw_only=True)
class LikeDay:
    """A day like the one that comes.

    Parameters
    ----------
    name, water : str
        What it was called, and where.
    day_of_year : float
        When.
    surface_degc : float or None
        Its surface, degrees Celsius.
    like : float
        How like, 0 to 1.
    hits : int
        Hits of all rods.
    minutes : float
        Rod-minutes of all rods.
    """

    name: str
    water: str
    day_of_year: float
    surface_degc: float | None
    like: float
    hits: int
    minutes: float


def like_days(today: DayMarks, days: Iterable[PastDay]) -> tuple[LikeDay, ...]:
    """Return the days that are like one, the likest first.

    Parameters
    ----------
    today : DayMarks
        The day that comes.
    days : iterable of PastDay
        Those that have been, of the same fish.

    Returns
    -------
    tuple of LikeDay
    """
    found = [
        LikeDay(
            name=day.name, water=day.marks.water, day_of_year=day.marks.day_of_year,
            surface_degc=day.marks.surface_degc, like=likeness(today, day.marks),
            hits=sum(spell.hits for spell in day.spells),
            minutes=sum(spell.minutes for spell in day.spells),
        )
        for day in days
    ]
    return tuple(sorted(
        (day for day in found if day.like >= LEAST_LIKE), key=lambda day: -day.like
    ))


def begin_with(today: DayMarks, month: int, days: Sequence[PastDay]) -> tuple[Beginning, ...]:
    """Return what to begin with, by kind of rig, the best first.

    Parameters
    ----------
    today : DayMarks
        The day that comes.
    month : int
        Its month, 1 to 12.
    days : sequence of PastDay
        Those that have been, of the same fish.

    Returns
    -------
    tuple of Beginning
        Empty where no day is like it.

    Notes
    -----
    Each spell counts by how like its day was. A recipe's rate is drawn toward the usual one of all
    by RULE_BOOK_MIN at that rate, a gamma prior of its mean: what fished a quarter of an hour and
    had a hit is not proposed before what has earned its name.

    References
    ----------
    .. [1] Gelman, A. et al. (2013). Bayesian Data Analysis, 3rd ed., 2.6: Poisson rates with gamma
       priors. From memory.
    """
    sums: dict[tuple[RigKind, str, str, str], list[tuple[float, PastDay, Spell]]] = (
        defaultdict(list)
    )
    hits = minutes = 0.0
    for day in days:
        like = likeness(today, day.marks)
        if like < LEAST_LIKE:
            continue
        for spell in day.spells:
            sums[spell.kind, spell.lure, spell.colour, spell.attractor].append((like, day, spell))
            hits += like * spell.hits
            minutes += like * spell.minutes
    usual = hits / minutes if minutes > 0.0 else 0.0
    found = [
        _beginning(rows, usual, today.water, month) for rows in sums.values()
        if sum(spell.minutes for *_, spell in rows) >= LEAST_MIN
    ]
    found.sort(key=lambda one: (-one.rate, -one.minutes))
    return tuple(
        one for i, one in enumerate(found)
        if sum(before.kind == one.kind for before in found[:i]) < EACH
    )


def _beginning(
    rows: list[tuple[float, PastDay, Spell]], usual: float, water: str, month: int
) -> Beginning:
    told = [(like * spell.minutes, like, day, spell) for like, day, spell in rows]
    weight = sum(row[0] for row in told)
    whole = weight + RULE_BOOK_MIN
    first = rows[0][2]
    leaders = [(weight, spell.leader_m) for weight, *_, spell in told if spell.leader_m is not None]
    return Beginning(
        kind=first.kind, lure=first.lure, colour=first.colour, attractor=first.attractor,
        leader_m=_middle(leaders) if leaders else None,
        depth_m=_middle([(w, spell.depth_m) for w, *_, spell in told]),
        setback_m=_middle([(w, spell.setback_m) for w, *_, spell in told]),
        speed_mps=_middle([(w, spell.speed_mps) for w, *_, spell in told]),
        rate=60.0 * (
            sum(like * spell.hits for _, like, _, spell in told) + usual * RULE_BOOK_MIN
        ) / whole,
        hits=sum(spell.hits for *_, spell in told),
        minutes=sum(spell.minutes for *_, spell in told),
        days=len({id(day) for _, _, day, _ in told}),
        of_water=sum(w for w, _, day, _ in told if day.marks.water == water) / whole,
        of_month=sum(w for w, _, day, _ in told if day.month == month) / whole,
        of_rule_book=RULE_BOOK_MIN / whole,
    )


def _middle(rows: list[tuple[float, float]]) -> float:
    """The weighted median."""
    ordered, half = sorted(rows, key=lambda row: row[1]), 0.5 * sum(row[0] for row in rows)
    seen = 0.0
    for weight, value in ordered:
        seen += weight
        if seen >= half:
            return value
    return ordered[-1][1]
