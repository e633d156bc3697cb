"""The decisions of a practised day that mattered most, each played from both sides."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import Final

from ..gear.setup import RodSetup
from ..record.state import Stint
from ..trip.now import Now
from .practice import shown_by
from .world import DAY_MIN, Shown, World

MOST_MIN: Final = 120
"""So long a decision is followed: later ones have their own say (judged)."""
STEP_MIN: Final = 5
TOGETHER_S: Final = 180.0
"""What is changed so close together is one decision (judged)."""
LEAST_HITS: Final = 0.1
"""What makes less of a difference did not matter (judged)."""
MOST: Final = 3


@dataclass(frozen=True, slots=True, kw_only=True)
class Side:
    """What a rod showed on one side of a decision.

    Parameters
    ----------
    rod_id : str
        The rod.
    depth_m, speed_mps, setback_m : float
        How deep, m, how fast, m/s, how far back, m.
    leader_m : float or None
        Leader behind an attractor, m.
    colour, lure : str
        Under the names that the day's fish know.
    """

    rod_id: str
    depth_m: float
    speed_mps: float
    setback_m: float
    leader_m: float | None
    colour: str
    lure: str


@dataclass(frozen=True, slots=True, kw_only=True)
class Decision:
    """Something that was changed, and what it was worth without luck.

    Parameters
    ----------
    minute : float
        Of the day.
    minutes : float
        How long it stood, or was followed.
    before, after : tuple of Side
        What the rods that it touched showed, as it was and as it became.
    stayed, changed : tuple of float
        Hits to be expected of these rods from then on, added up every STEP_MIN minutes: had all
        been left as it was, and as it was done.
    hits : int
        Hits that came, with luck.
    """

    minute: float
    minutes: float
    before: tuple[Side, ...]
    after: tuple[Side, ...]
    stayed: tuple[float, ...]
    changed: tuple[float, ...]
    hits: int

    @property
    def worth(self) -> float:
        """Hits that it gained, to be expected."""
        return self.changed[-1] - self.stayed[-1]


@dataclass(frozen=True, slots=True)
class _Rigged:
    """A rod's rigging, number and speed."""

    rod_id: str
    setup: RodSetup
    setting_m: float
    speed_mps: float


def decisions(
    world: World, now: Now, start_s: float, until_min: int,
    speeds: Sequence[tuple[float, float]] | None = None,
) -> tuple[Decision, ...]:
    """Return the decisions that mattered most, the weightiest first.

    Parameters
    ----------
    world : World
        The day, which knows what would have come of the other side too.
    now : Now
        The trip when it is over.
    start_s : float
        When the day began, seconds since 1970-01-01 UTC.
    until_min : int
        How long it was fished, min.
    speeds : sequence of (float, float), optional
        When which speed was set by hand, s and m/s: a wheel tells each wobble. By default all that
        were told.

    Returns
    -------
    tuple of Decision
        At most MOST.

    Notes
    -----
    A change of rigging, number or speed is followed until the same rods are changed again, for
    MOST_MIN at most. Bites come by chance; the world's rates do not: the two sides differ by the
    decision alone. Bait is taken as on, and turns as straight, on both.
    """
    end_s = start_s + 60.0 * min(until_min, DAY_MIN)
    held = tuple(now.state.speeds if speeds is None else speeds)
    found = [
        one for moment, pairs in _changes(now, end_s, held)
        if (one := _played(world, now, start_s, end_s, moment, pairs, held)) is not None
    ]
    found = [one for one in found if abs(one.worth) >= LEAST_HITS]
    return tuple(sorted(found, key=lambda one: -abs(one.worth))[:MOST])


Pair = tuple[_Rigged, _Rigged]
Speeds = tuple[tuple[float, float], ...]


def _changes(now: Now, end_s: float, held: Speeds) -> list[tuple[float, list[Pair]]]:
    """What was changed and when: rods changed together stand together, speeds touch all rods."""
    single: list[tuple[float, Pair]] = []
    for rod_id in {stint.rod_id for stint in now.state.stints}:
        stints = [stint for stint in now.state.stints if stint.rod_id == rod_id]
        for one, other in pairwise(stints):
            if (one.setup, one.setting_m) != (other.setup, other.setting_m):
                speed = _speed_at(now, other.start_s, held)
                single.append((other.start_s, (
                    _Rigged(rod_id, one.setup, one.setting_m, speed),
                    _Rigged(rod_id, other.setup, other.setting_m, speed),
                )))
    for (_, before), (at_s, speed) in pairwise(held):
        single += [
            (at_s, (
                _Rigged(stint.rod_id, stint.setup, stint.setting_m, before),
                _Rigged(stint.rod_id, stint.setup, stint.setting_m, speed),
            ))
            for stint in now.state.stints
            if before != speed
            and stint.start_s < at_s < (end_s if stint.end_s is None else stint.end_s)
        ]
    grouped: list[tuple[float, list[Pair]]] = []
    for at_s, pair in sorted(single, key=lambda one: one[0]):
        taken = [other[0].rod_id for other in grouped[-1][1]] if grouped else []
        if grouped and at_s - grouped[-1][0] <= TOGETHER_S and pair[0].rod_id not in taken:
            grouped[-1][1].append(pair)
        else:
            grouped.append((at_s, [pair]))
    return grouped


def _speed_at(now: Now, at_s: float, held: Speeds) -> float:
    return next((speed for moment, speed in reversed(held) if moment <= at_s), now.speed_mps)


def _played(
    world: World, now: Now, start_s: float, end_s: float, at_s: float, pairs: Sequence[Pair],
    held: Speeds,
) -> Decision | None:
    rods = {before.rod_id for before, _ in pairs}
    last_s = min(end_s, at_s + 60.0 * MOST_MIN, _next_s(now, rods, at_s, held))
    begin, end = int((at_s - start_s) // 60.0), int((last_s - start_s) // 60.0)
    sides = [
        (before, after, shown_by(now, before.setup, before.setting_m, before.speed_mps),
         shown_by(now, after.setup, after.setting_m, after.speed_mps))
        for before, after in pairs
    ]
    if begin < 0 or end - begin < STEP_MIN or any(None in side[2:] for side in sides):
        return None
    shown_before = [side[2] for side in sides if side[2] is not None]
    shown_after = [side[3] for side in sides if side[3] is not None]
    hits = sum(
        1 for moment, rod_id, kind in now.state.bites
        if kind == "hit" and rod_id in rods and at_s <= moment < last_s
    )
    return Decision(
        minute=(at_s - start_s) / 60.0, minutes=(last_s - at_s) / 60.0,
        before=tuple(_side(rod, shown) for (rod, *_), shown in zip(
            sides, shown_before, strict=True)),
        after=tuple(_side(side[1], shown) for side, shown in zip(
            sides, shown_after, strict=True)),
        stayed=_summed(world, begin, end, shown_before),
        changed=_summed(world, begin, end, shown_after), hits=hits,
    )


def _next_s(now: Now, rods: set[str], at_s: float, held: Speeds) -> float:
    """When one of these rods was changed again."""
    after = at_s + TOGETHER_S
    stints = [stint for stint in now.state.stints if stint.rod_id in rods]
    return min(
        [moment for moment, _ in held if moment > after]
        + [stint.start_s for stint in stints if stint.start_s > after and _is_new(stint, stints)],
        default=float("inf"),
    )


def _is_new(stint: Stint, stints: Sequence[Stint]) -> bool:
    """Whether it shows something else than the rod did before."""
    earlier = [
        one for one in stints if one.rod_id == stint.rod_id and one.start_s < stint.start_s
    ]
    if not earlier:
        return False
    last = max(earlier, key=lambda one: one.start_s)
    return (last.setup, last.setting_m) != (stint.setup, stint.setting_m)


def _side(rod: _Rigged, shown: Shown) -> Side:
    recipe = shown.recipe
    return Side(
        rod_id=rod.rod_id, depth_m=recipe.depth_m, speed_mps=recipe.speed_mps,
        setback_m=recipe.setback_m, leader_m=recipe.leader_m, colour=recipe.colour,
        lure=recipe.lure,
    )


def _summed(world: World, begin: int, end: int, shown: Sequence[Shown]) -> tuple[float, ...]:
    total, found = 0.0, [0.0]
    for minute in range(begin, min(end, DAY_MIN)):
        total += sum(world.rates(minute, shown))
        if (minute + 1 - begin) % STEP_MIN == 0 or minute + 1 == end:
            found.append(total)
    return tuple(found)
