"""A simulated day that somebody fishes: minute by minute, what the lake does to their lines."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any, Final

import numpy as np

from ..advice.shows import recipe_of
from ..errors import CoreError
from ..evidence.recipe import Recipe
from ..gear.setup import RodSetup, working_range
from ..record.state import RodState
from ..trip.now import Now
from .boat import COLOURS, LURES
from .day import BAIT_MIN, LOST_BY_HIT
from .river import River
from .standard import Standard
from .world import DAY_MIN, Shown, World

TURNED_S: Final = 180.0
"""A turn that nobody told the end of is over after so long (judged)."""
DOWN_S: Final = 60.0
"""A line that went out this short while ago is still on its way down (judged)."""
FIGHT_S: Final = 180.0
"""A fish is on for so long (judged)."""
HOOK_S: Final = 6.0
CLEAR_M: Final = 0.3
FLOWS_DEG: Final = 180.0
"""Whither the river of the practice flows, degrees."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Happening:
    """Something that happens on a practised day.

    Parameters
    ----------
    key : str
        The same whenever the same minute is played again.
    in_s : float
        How long after the minute began, s.
    type : str
        Of the event.
    payload : dict
        Of the event.
    """

    key: str
    in_s: float
    type: str
    payload: dict[str, Any]


@dataclass(frozen=True, slots=True, kw_only=True)
class Place:
    """Where the boat is in a minute.

    Parameters
    ----------
    bottom_m : float
        Depth under it, m.
    is_turning : bool
        Whether it is going round.
    share : float
        How far along its way, 0 to 1 from end to end.
    """

    bottom_m: float
    is_turning: bool
    share: float = 0.0


FISH_TYPES: Final = ("hit", "hooked", "landed", "lost", "cast_bite")
"""What fish do, of all that happens."""


def happenings(
    world: World, seed: int, now: Now, now_s: float, minute: int, place: Place,
    on_since_s: Mapping[str, float] | None = None,
) -> tuple[Happening, ...]:
    """Return what happens in a minute of a practised day.

    Parameters
    ----------
    world : World
        The day.
    seed : int
        What comes by chance hangs on it, on the minute and on the rod alone.
    now : Now
        The trip as it stands at the beginning of the minute.
    now_s : float
        That moment, seconds since 1970-01-01 UTC.
    minute : int
        Of the day, 0 to 479.
    place : Place
        Where the boat is.
    on_since_s : mapping of str to float, optional
        Rods that have a fish on and since when, s, where the record does not know because somebody
        taps it; by the record when left out.

    Returns
    -------
    tuple of Happening
        What the fish do, in order of time, and what is known of a river beforehand; instruments
        speak for themselves (``spoken``).
    """
    if isinstance(world, Standard):
        world.over(minute, place.share, place.bottom_m)
    found = []
    if isinstance(world, River) and now.state.current is None:
        found.append(Happening(
            key=f"{minute}-current", in_s=0.2, type="current_noted", payload={
                "speed_mps": round(world.current_mps, 2), "toward_deg": FLOWS_DEG,
            },
        ))
    rods = [now.state.rods[rod.id] for rod in now.state.outfit.rods if rod.id in now.state.rods]
    fishing = [
        (i, rod, shown) for i, rod in enumerate(rods)
        if (shown := _shown(now, now_s, seed, i, rod, place)) is not None
        and (on_since_s is None or rod.rod_id not in on_since_s)
    ]
    rates = world.rates(minute, [shown for *_, shown in fishing])
    for (i, rod, shown), rate in zip(fishing, rates, strict=True):
        luck = np.random.default_rng((seed, 7, minute, i)).random(3)
        if luck[0] >= 1.0 - math.exp(-rate):
            continue
        at_s = 5.0 + 40.0 * float(luck[2])
        found.append(_bite(rod.rod_id, minute, at_s, "hit"))
        if luck[1] < world.fate(minute, shown).hooked:
            found.append(_bite(rod.rod_id, minute, at_s + HOOK_S, "hooked"))
    found += _cast(world, seed, now, minute)
    for i, rod in enumerate(rods):
        if on_since_s is not None:
            on_s = on_since_s.get(rod.rod_id)
        else:
            on_s = rod.fish_on_s if rod.status == "fish_on" else None
        if on_s is not None and now_s - on_s >= FIGHT_S:
            found.append(_fought(world, seed, minute, i, rod))
    return tuple(sorted(found, key=lambda one: one.in_s))


def _bite(rod_id: str, minute: int, in_s: float, kind: str) -> Happening:
    return Happening(
        key=f"{minute}-{kind}-{rod_id}", in_s=in_s, type=kind, payload={"rod_id": rod_id}
    )


def _cast(world: World, seed: int, now: Now, minute: int) -> list[Happening]:
    """What a cast brings, where somebody stands and casts to a school of a river."""
    casts = now.state.castings
    if not isinstance(world, River) or not casts or casts[-1].end_s is not None:
        return []
    luck = np.random.default_rng((seed, 12, minute)).random(3)
    if luck[0] >= 1.0 - math.exp(-world.cast_rate(minute, casts[-1])):
        return []
    whats = ["hit"]
    if luck[1] < world.hooked:
        whats += ["hooked", "landed" if luck[2] < world.landed else "lost"]
    return [
        Happening(
            key=f"{minute}-cast-{what}", in_s=8.0 + 12.0 * n, type="cast_bite",
            payload={"what": what},
        )
        for n, what in enumerate(whats)
    ]


def _fought(world: World, seed: int, minute: int, i: int, rod: RodState) -> Happening:
    draw = np.random.default_rng((seed, 8, minute, i))
    # What was on the hook says nothing of how it is held.
    shown = Shown(recipe=_NOTHING, works=True, baited=True, turning="")
    if draw.random() >= world.fate(minute, shown).landed:
        return _bite(rod.rod_id, minute, 2.0, "lost")
    length = float(np.clip(draw.normal(0.38, 0.07), 0.2, 0.7))
    return Happening(
        key=f"{minute}-landed-{rod.rod_id}", in_s=2.0, type="landed",
        payload={"rod_id": rod.rod_id, "kept": False, "length_m": round(length, 2)},
    )


def marks_in(world: World, seed: int, minute: int, bottom_m: float) -> tuple[float, ...]:
    """Return the depths of the fish that the sonar shows in a minute of a practised day.

    Parameters
    ----------
    world : World
        The day.
    seed, minute : int
        What comes by chance hangs on them alone.
    bottom_m : float
        Depth under the boat, m.

    Returns
    -------
    tuple of float
        m; a fish at the bottom is not told from it.
    """
    shown = world.marks(minute, np.random.default_rng((seed, 11, minute)))
    return tuple(depth for depth in shown if depth < bottom_m - CLEAR_M)


_NOTHING: Final = Recipe(
    depth_m=1.0, speed_mps=1.0, setback_m=1.0, leader_m=None, flash=0.0, thump=0.0,
    colour=COLOURS[0], lure=next(iter(LURES)),
)


def _shown(
    now: Now, now_s: float, seed: int, i: int, rod: RodState, place: Place
) -> Shown | None:
    """What fish see of a rod; None while its lure is not in the water where they are."""
    if rod.status != "fishing" or rod.setup is None or rod.setting_m is None:
        return None
    if rod.soak_since_s is None or now_s - rod.soak_since_s < DOWN_S:
        return None
    shown = shown_by(now, rod.setup, rod.setting_m, now.speed_mps)
    if shown is None or shown.recipe.depth_m >= place.bottom_m - CLEAR_M:
        return None
    told = now.state.turns[-1] if now.state.turns else None
    turning = place.is_turning or (
        told is not None and now_s - told.start_s < TURNED_S
        and (told.end_s is None or now_s < told.end_s)
    )
    side = "" if not turning else "inside" if i % 2 else "outside"
    return replace(shown, baited=_is_baited(now, now_s, seed, i, rod), turning=side)


def shown_by(now: Now, setup: RodSetup, setting_m: float, speed_mps: float) -> Shown | None:
    """Return what fish see of a rod that is rigged and set in some way, on a straight course.

    Parameters
    ----------
    now : Now
        The trip.
    setup : RodSetup
        What is on it.
    setting_m : float
        The number set, m.
    speed_mps : float
        Through the water, m/s.

    Returns
    -------
    Shown or None
        None where that cannot be fished.
    """
    outfit = now.state.outfit
    try:
        works = working_range(outfit, setup)
        depth = now.lines.solved(setup, speed_mps, doubt="none").place(setting_m)[1].depth_m
        recipe = recipe_of(
            outfit, setup, depth_m=depth, setting_m=setting_m, speed_mps=speed_mps
        )
    except CoreError:
        return None
    return Shown(
        recipe=as_the_world_names(recipe), works=works.low_mps <= speed_mps <= works.high_mps,
        baited=True, turning="",
    )


def as_the_world_names(recipe: Recipe) -> Recipe:
    """Return a recipe under the names that a simulated world has tastes for.

    Parameters
    ----------
    recipe : Recipe
        As the box names colour and lure.

    Returns
    -------
    Recipe
        What the world does not know by name it takes for one that it knows: always the same one.
    """
    words = recipe.colour.lower().split()
    colour = next((word for word in words if word in COLOURS), None)
    lure = next((name for word, name in _LURES.items() if word in recipe.lure.lower()), None)
    return replace(
        recipe, colour=colour or _drawn(recipe.colour, COLOURS),
        lure=lure or _drawn(recipe.lure, tuple(LURES)),
    )


_LURES: Final = {
    "hoochie": "small hoochie", "worm": "small hoochie", "spoon": "thin spoon",
    "fly": "weighted fly", "minnow": "minnow plug", "plug": "minnow plug",
}


def _drawn(name: str, among: Sequence[str]) -> str:
    return among[int.from_bytes(name.encode(), "big") % len(among)]


def _is_baited(now: Now, now_s: float, seed: int, i: int, rod: RodState) -> bool:
    """Whether its bait is still on: half are gone in an hour or so, half at each hit."""
    if rod.setup is None or not rod.setup.bait_id or rod.bait_since_s is None:
        return True
    draw = np.random.default_rng((seed, 9, int(rod.bait_since_s) % 2**31, i))
    gone_min = BAIT_MIN * -math.log2(max(float(draw.random()), 1e-9))
    if now_s - rod.bait_since_s > 60.0 * gone_min:
        return False
    hits = sum(
        1 for at_s, rod_id, kind in now.state.bites
        if kind == "hit" and rod_id == rod.rod_id and at_s > rod.bait_since_s
    )
    return bool(all(draw.random(hits) >= LOST_BY_HIT)) if hits else True


@dataclass(frozen=True, slots=True, kw_only=True)
class Truth:
    """What was hidden of a day, at some minutes of it.

    Parameters
    ----------
    minutes : tuple of int
        Which.
    deep_m, shallow_m : tuple of float
        Where the fish held that hold, and those near the surface, m.
    shallow_share : float
        How many of them were near the surface, 0 to 1.
    bite : tuple of float
        How they bit, against the even bite of the day.
    speed_mps : tuple of float
        What they wanted, m/s.
    flash, thump : tuple of float
        On the mood ladder, 0 to 1.
    leader_m, setback_m : float
        What they wanted, m.
    colours, lures : tuple of str
        Best first.
    schools : tuple of float
        How far along the boat's way they lay, 0 to 1 from end to end.
    fall_m, current_mps : float
        How far a river fell overnight, m, and how fast it flows, m/s; 0 on a lake.
    """

    minutes: tuple[int, ...]
    deep_m: tuple[float, ...]
    shallow_m: tuple[float, ...]
    shallow_share: float
    bite: tuple[float, ...]
    speed_mps: tuple[float, ...]
    flash: tuple[float, ...]
    thump: tuple[float, ...]
    leader_m: float
    setback_m: float
    colours: tuple[str, ...]
    lures: tuple[str, ...]
    schools: tuple[float, ...]
    fall_m: float
    current_mps: float


def truth_of(world: Standard, until_min: int, every_min: int = 10) -> Truth:
    """Return what was hidden of a day.

    Parameters
    ----------
    world : Standard
        The day.
    until_min : int
        Up to which minute.
    every_min : int
        How many minutes lie between.

    Returns
    -------
    Truth
    """
    minutes = tuple(range(0, min(max(until_min, 1), DAY_MIN), every_min))

    def at(values: Any, low: float = -math.inf, high: float = math.inf) -> tuple[float, ...]:
        return tuple(float(min(max(values[minute], low), high)) for minute in minutes)

    return Truth(
        minutes=minutes, deep_m=at(world.deep), shallow_m=at(world.shallow),
        shallow_share=world.shallow_share, bite=tuple(math.exp(v) for v in at(world.bite)),
        speed_mps=tuple(math.exp(v) for v in at(world.speed)),
        flash=at(world.flash, 0.0, 1.0), thump=at(world.thump, 0.0, 1.0),
        leader_m=math.exp(world.leader), setback_m=math.exp(world.setback),
        colours=tuple(sorted(world.colour, key=lambda name: -world.colour[name])),
        lures=tuple(sorted(world.lure, key=lambda name: -world.lure[name])),
        schools=tuple(sorted(centre for centre, *_ in world.schools)),
        fall_m=world.fall_m if isinstance(world, River) else 0.0,
        current_mps=world.current_mps if isinstance(world, River) else 0.0,
    )
