"""A day on a simulated lake: the boat laps, lines are reset, bait is lost, fish hit.

It goes by the minute. What comes by chance hangs on the day's seed, the minute and the rod alone,
so that two policies that do the same on the same day catch the same.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, field, replace
from typing import Final, Protocol

import numpy as np

from ..advice.tries import RESET_MIN
from ..constants import FOOT_M, MPH_MPS
from ..errors import InvalidInputError
from ..evidence.bed import FISHED_MIN, BedFished, bed_of
from ..evidence.recipe import Recipe
from .boat import LAKE_BOX, RIVER_BOX, Box, Look, RodState, at_depth, lure_named, recipe_of, works
from .world import DAY_MIN, Lapped, Seen, Shown, Steered, World

DECIDE_MIN: Final = 5
BAIT_MIN: Final = 70.0
"""Minutes after which half of all soft baits are gone (judged)."""
BAIT_CHECK_MIN: Final = 25
LOST_BY_HIT: Final = 0.5
CHECK_OUT_MIN: Final = 2
FISH_OUT_MIN: Final = 4
"""Minutes a rod is out of the water with a fish, and to look at its bait (judged)."""
ROUND_MIN: Final = 2
"""Minutes to turn round with lines out: no fish are passed in them (judged)."""
TURN_EVERY_MIN: Final = 12
TURN_MIN: Final = 1


@dataclass(frozen=True, slots=True, kw_only=True)
class Change:
    """What a policy does: rods as they are then, a speed, minutes out of the water, a turn."""

    kind: str
    rods: tuple[tuple[int, RodState], ...] = ()
    speed_mps: float | None = None
    cost_min: float = 0.0
    costs_min: tuple[float, ...] = ()
    turn_round: bool = False


@dataclass(frozen=True, slots=True, kw_only=True)
class Outing:
    """With what somebody fishes, and along which way.

    Parameters
    ----------
    box : Box
        What is aboard.
    rods : int
        How many rods, as far as there are.
    way : sequence of (float, float)
        Where a boat is that somebody steers, minute by minute, the last stands on: how far along
        its way, 0 to 1, and the depth there, m. Empty for the world's own lap.
    """

    box: Box = LAKE_BOX
    rods: int = 6
    way: Sequence[tuple[float, float]] = ()


USUAL: Final = Outing()


@dataclass(slots=True)
class Aboard:
    """What anybody aboard knows: a policy sees this and nothing else.

    ``places`` is where on the lap it was in each minute, ``way`` which way it goes and ``lap_min``
    how long a lap is; without a lap they are empty and 0. ``beds`` is how deep the water was in
    each minute, m.
    """

    minute: int
    seen: Seen
    rods: list[RodState]
    speed_mps: float
    out_until: list[float]
    hits: list[tuple[int, int]] = field(default_factory=list)
    marks: list[tuple[int, float]] = field(default_factory=list)
    fished: list[list[tuple[int, Recipe]]] = field(default_factory=list)
    places: list[float] = field(default_factory=list)
    beds: list[float] = field(default_factory=list)
    way: int = 1
    lap_min: float = 0.0
    box: Box = LAKE_BOX

    def bed(self) -> BedFished:
        """Return the bed of the last hour, or the one here before any was passed."""
        return bed_of(self.beds[-int(FISHED_MIN):] or [self.seen.bottom_m])

    def recipes(self) -> list[Recipe]:
        """Return what each rod shows here."""
        return [
            replace(recipe_of(rod, self.speed_mps), bed_m=self.seen.bottom_m) for rod in self.rods
        ]


class Policy(Protocol):
    """Somebody who fishes: asked every five minutes for at most one change."""

    name: str

    def begin(self, aboard: Aboard, world: World) -> None:
        """Start the day; only an oracle may look at the world."""

    def decide(self, aboard: Aboard) -> Change | None:
        """Return one change, or None to go on fishing."""


@dataclass(frozen=True, slots=True, kw_only=True)
class DayResult:
    """What came of a day: counts, how long the policy thought, s, and with how many rods."""

    hits: int
    hooked: int
    landed: int
    changes: int
    decide_s: float
    rods: int


def opening(seen: Seen, box: Box = LAKE_BOX) -> tuple[list[RodState], float]:
    """Return an opening spread: different depths, lures and looks, at a speed in between.

    Parameters
    ----------
    seen : Seen
        For the depth of the bottom.
    box : Box
        What is aboard: on a river four top lines with plugs.

    Returns
    -------
    (list of RodState, float)
        The rods and the speed, m/s.
    """
    if box is RIVER_BOX:
        return [
            RodState(
                kind="flat", setback_m=out, setting_m=out,
                look=Look(lure=box.lures[lip], colour=colour, attractor="none", leader_m=0.76),
            )
            for lip, colour, out in (
                (0, "perch", 26.0), (1, "silver", 20.0), (0, "white", 32.0),
                (0, "chartreuse", 20.0),
            )
        ], 3.7 * MPH_MPS
    speed = 1.6 * MPH_MPS
    wanted = [
        ("downrigger", Look(lure="small hoochie", colour="pink", attractor="small dodger",
                            leader_m=0.25), 12.0, 6.0),
        ("downrigger", Look(lure="thin spoon", colour="silver", attractor="none",
                            leader_m=0.76), 24.0, 10.0),
        ("leadcore", Look(lure="small hoochie", colour="orange", attractor="small dodger",
                          leader_m=0.46), 1.0, 5.0),
        ("leadcore", Look(lure="thin spoon", colour="copper", attractor="small willow leaf",
                          leader_m=0.76), 1.0, 8.0),
        ("flat", Look(lure="minnow plug", colour="perch", attractor="none", leader_m=0.76), 30.0,
         None),
        ("flat", Look(lure="weighted fly", colour="black", attractor="none", leader_m=0.76), 45.0,
         None),
    ]
    rods = []
    for kind, look, back, depth in wanted:
        rod = RodState(kind=kind, look=look, setback_m=back, setting_m=back)  # type: ignore[arg-type]
        if depth is not None:
            deepest = min(depth, seen.bottom_m - 4.0 * FOOT_M)
            rod = at_depth(replace(rod, setting_m=5.0), speed, deepest) or rod
        rods.append(rod)
    return rods, speed


def play(
    world: World, policy: Policy, seed: int, *, clock: Callable[[], float] | None = None,
    until_min: int = DAY_MIN, outing: Outing = USUAL,
) -> DayResult:
    """Fish a day.

    Parameters
    ----------
    world : World
        The day.
    policy : Policy
        Who fishes it.
    seed : int
        What comes by chance.
    clock : callable, optional
        A clock, s, to say how long the policy thinks.
    until_min : int
        After how many minutes it goes home.
    outing : Outing
        With what, and along which way.

    Returns
    -------
    DayResult

    Raises
    ------
    InvalidInputError
        If a way is given that the world cannot be told of.
    """
    chance = np.random.default_rng((seed, 7))
    way = outing.way
    steered = world if isinstance(world, Steered) and way else None
    if way and steered is None:
        raise InvalidInputError("outing", "a way", "none: this world has a lap of its own")
    rods, speed = opening(world.seen(0), outing.box)
    rods = _some(rods, outing.rods)
    count = len(rods)
    luck = chance.random((DAY_MIN, count, 4))
    aboard = Aboard(
        minute=0, seen=world.seen(0), rods=rods, speed_mps=speed, out_until=[0.0] * count,
        fished=[[] for _ in range(count)], box=outing.box,
    )
    bait_on = [True] * count
    bait_seen = [0] * count
    lap = world if isinstance(world, Lapped) and not way else None
    aboard.lap_min = lap.lap_min if lap else 0.0
    place, round_until = 0.0, 0
    tally = [0, 0, 0]
    changes, spent = 0, 0.0
    if way:
        # Who goes up and down a reach knows how deep it is.
        aboard.seen = replace(aboard.seen, bottom_m=max(bottom_m for _, bottom_m in way))
    policy.begin(aboard, world)
    for minute in range(min(until_min, DAY_MIN)):
        aboard.minute, aboard.seen = minute, world.seen(minute)
        if steered is not None:
            share, bottom_m = way[min(minute, len(way) - 1)]
            steered.over(minute, share, bottom_m)
            aboard.seen = replace(aboard.seen, bottom_m=bottom_m)
        aboard.beds.append(aboard.seen.bottom_m)
        if minute and minute % DECIDE_MIN == 0:
            begun = clock() if clock else 0.0
            change = policy.decide(aboard)
            spent += clock() - begun if clock else 0.0
            if change is not None:
                changes += 1
                _carry_out(aboard, change, bait_on, bait_seen)
                if change.turn_round:
                    aboard.way, round_until = -aboard.way, minute + ROUND_MIN
        if lap is not None:
            if minute and minute >= round_until:
                place = (place + aboard.way / lap.lap_min) % 1.0
            lap.placed(minute, place)
            aboard.places.append(place)
        marks_rng = np.random.default_rng((seed, 11, minute))
        aboard.marks += [(minute, depth) for depth in world.marks(minute, marks_rng)]
        turning = minute < round_until or (minute % TURN_EVERY_MIN < TURN_MIN and minute > 0)
        recipes = aboard.recipes()
        shown = []
        for index, rod in enumerate(aboard.rods):
            bait = lure_named(rod.look.lure).bait
            if bait and bait_on[index] and luck[minute, index, 3] < 1.0 - 0.5 ** (1.0 / BAIT_MIN):
                bait_on[index] = False
            if bait and minute - bait_seen[index] >= BAIT_CHECK_MIN:
                aboard.out_until[index] = max(aboard.out_until[index], minute + CHECK_OUT_MIN)
                bait_on[index], bait_seen[index] = True, minute
            side = "" if not turning else "inside" if index % 2 else "outside"
            shown.append(Shown(
                recipe=recipes[index], works=works(rod.look, aboard.speed_mps),
                baited=bait_on[index] or not bait, turning=side,
            ))
        in_water = [
            i for i in range(count)
            if aboard.out_until[i] <= minute and recipes[i].depth_m < aboard.seen.bottom_m - 0.3
        ]
        rates = world.rates(minute, [shown[i] for i in in_water])
        for index, rate in zip(in_water, rates, strict=True):
            aboard.fished[index].append((minute, recipes[index]))
            if luck[minute, index, 0] < 1.0 - np.exp(-rate):
                tally[0] += 1
                aboard.hits.append((minute, index))
                fate = world.fate(minute, shown[index])
                if luck[minute, index, 3] < LOST_BY_HIT:
                    bait_on[index] = False
                if luck[minute, index, 1] < fate.hooked:
                    tally[1] += 1
                    aboard.out_until[index] = minute + FISH_OUT_MIN
                    bait_on[index], bait_seen[index] = True, minute
                    tally[2] += int(luck[minute, index, 2] < fate.landed)
    return DayResult(
        hits=tally[0], hooked=tally[1], landed=tally[2], changes=changes, decide_s=spent,
        rods=count,
    )


def _some(rods: Sequence[RodState], most: int) -> list[RodState]:
    """So many of the rods, of each kind one first."""
    of_its_kind = [
        sum(1 for other in rods[:i] if other.kind == rod.kind) for i, rod in enumerate(rods)
    ]
    kept = sorted(range(len(rods)), key=lambda i: (of_its_kind[i], i))[:most]
    return [rods[i] for i in sorted(kept)]


def _carry_out(
    aboard: Aboard, change: Change, bait_on: list[bool], bait_seen: list[int]
) -> None:
    if change.speed_mps is not None:
        aboard.speed_mps = change.speed_mps
    costs = change.costs_min or (change.cost_min,) * len(change.rods)
    for (index, rod), cost in zip(change.rods, costs, strict=True):
        aboard.rods[index] = rod
        if cost > 0.0:
            aboard.out_until[index] = max(aboard.out_until[index], aboard.minute + cost)
            bait_on[index], bait_seen[index] = True, aboard.minute


def reset_min(rod: RodState) -> float:
    """Return how long a rod is out of the water to be set anew.

    Parameters
    ----------
    rod : RodState
        The rod.

    Returns
    -------
    float
        Minutes.
    """
    return RESET_MIN[rod.kind]
