"""The standard world: every number it is drawn from stands here, with why.

Tastes are drawn afresh for each day from wide distributions. None of them is a rule of the advisor:
the speed that is wanted leans only loosely on the temperature, the depth on the layers, and colour,
leader, setback and lure are anybody's guess.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray

from ..constants import FOOT_M, INCH_M, MPH_MPS
from .boat import COLOURS, LURES
from .world import DAY_MIN, Fate, Seen, Shown

Array = NDArray[np.float64]


@dataclass(frozen=True, kw_only=True)
class Parameters:
    """What a day is drawn from: ranges are even, sds normal."""

    hits_pm: float = 0.06
    """Hits a minute of a lure that is right in all, over a school, in an even bite."""
    hits_sd: float = 0.5
    """How days differ, sd of the log."""
    bite_sd: float = 0.6
    bite_memory_min: float = 50.0
    """The bite of the hour: sd of its log, and how long it lasts."""
    lap_min: tuple[float, float] = (35.0, 60.0)
    """A lap of the boat's way passes each school once."""
    schools: tuple[int, int] = (2, 4)
    school_share: tuple[float, float] = (0.08, 0.2)
    """How much of a lap lies over one school; between them a fifth as many fish."""
    between: float = 0.2
    surface_degc: tuple[float, float] = (7.0, 19.0)
    warming_degc: tuple[float, float] = (0.2, 2.5)
    bottom_m: tuple[float, float] = (14.0, 40.0)
    secchi_m: tuple[float, float] = (0.8, 8.0)
    shallow_share: tuple[float, float] = (0.0, 0.45)
    """Active small fish near the surface; the others hold deeper."""
    depth_width_m: tuple[float, float] = (1.5, 4.5)
    depth_drift_m: float = 2.5
    depth_memory_min: float = 150.0
    """How far a school moves up and down in a day, and how fast it forgets."""
    below_width: float = 0.55
    """A lure under the fish is seen by few: the width below, as a share of that above."""
    speed_mph: tuple[float, float] = (0.9, 3.0)
    speed_lean: float = 0.35
    """How much the wanted speed leans on the temperature: colder is faster here as often as not."""
    speed_width: tuple[float, float] = (0.25, 0.6)
    """Width of the taste for speed, sd of the log."""
    speed_drift: float = 0.2
    speed_memory_min: float = 150.0
    taste_width: tuple[float, float] = (0.35, 1.0)
    """Width of the tastes for flash and thump, on a ladder from 0 to 1."""
    taste_drift: float = 0.2
    taste_memory_min: float = 200.0
    leader_in: tuple[float, float] = (8.0, 60.0)
    leader_width: tuple[float, float] = (0.8, 2.0)
    setback_ft: tuple[float, float] = (12.0, 180.0)
    setback_width: tuple[float, float] = (1.0, 2.5)
    colour_sd: float = 0.45
    light_sd: float = 0.3
    """How much a colour's worth turns with the light."""
    lure_sd: float = 0.4
    spun_out: float = 0.08
    """What is left of a lure that does not swim right."""
    bare_hook: float = 0.25
    turn_log: float = 0.3
    """How much a turn wakes followers, sd of the log, inside and outside each."""
    marks_seen: float = 0.35
    """Fish on the screen a minute over a school at 10 m; more where the cone is wider."""
    mark_noise_m: float = 0.5
    stray_marks: float = 0.25
    """Share of marks that are not the fish that bite: other kinds, bait, idle ones."""
    put_down: float = 0.05
    rests_min: float = 40.0
    """A minute over the middle of a school scares this share of it off; how fast they come back."""
    hooked: tuple[float, float] = (0.45, 0.8)
    landed: tuple[float, float] = (0.6, 0.9)


DEFAULT: Final = Parameters()


class Standard:
    """A lake that lies between what anglers say and what nobody knows."""

    parameters: Parameters = DEFAULT

    def __init__(self, seed: int) -> None:
        """Draw the day."""
        p, draw = self.parameters, np.random.default_rng((seed, 20))
        self.start_degc = float(draw.uniform(*p.surface_degc))
        self.warming = float(draw.uniform(*p.warming_degc))
        self.bottom_m = float(draw.uniform(*p.bottom_m))
        self.secchi_m = float(np.exp(draw.uniform(*np.log(p.secchi_m))))
        self.cloud = _walk(draw, 0.35, 120.0) + draw.uniform(0.1, 0.9)
        self.wind = 1.0 + 4.0 * draw.uniform() + _walk(draw, 1.0, 120.0)
        self.lap_min = float(draw.uniform(*p.lap_min))
        self.schools = [
            (
                float(draw.uniform()), float(draw.uniform(*p.school_share)),
                float(draw.uniform(0.5, 1.5)),
            )
            for _ in range(int(draw.integers(p.schools[0], p.schools[1] + 1)))
        ]
        self.way: dict[int, tuple[float, float]] = {}
        self.scared = [0.0] * len(self.schools)
        self.passed: dict[int, float] = {}
        self.level = float(np.log(p.hits_pm) + draw.normal(0.0, p.hits_sd))
        self.bite = _walk(draw, p.bite_sd, p.bite_memory_min)
        self._depths(draw)
        lean = (12.0 - self.start_degc) / 6.0 * p.speed_lean
        wanted = np.log(draw.uniform(*p.speed_mph) * MPH_MPS) * (1.0 - p.speed_lean)
        wanted += p.speed_lean * np.log(1.8 * MPH_MPS) + 0.5 * lean
        self.speed = wanted + _walk(draw, p.speed_drift, p.speed_memory_min)
        self.speed_width = float(draw.uniform(*p.speed_width))
        self.flash = draw.uniform() + _walk(draw, p.taste_drift, p.taste_memory_min)
        self.thump = draw.uniform() + _walk(draw, p.taste_drift, p.taste_memory_min)
        self.flash_width, self.thump_width = draw.uniform(*p.taste_width, size=2)
        self.leader = float(draw.uniform(*np.log(np.array(p.leader_in) * INCH_M)))
        self.leader_width = float(draw.uniform(*p.leader_width))
        self.setback = float(draw.uniform(*np.log(np.array(p.setback_ft) * FOOT_M)))
        self.setback_width = float(draw.uniform(*p.setback_width))
        self.colour = dict(zip(COLOURS, draw.normal(0.0, p.colour_sd, len(COLOURS)), strict=True))
        self.by_light = dict(zip(COLOURS, draw.normal(0.0, p.light_sd, len(COLOURS)), strict=True))
        self.lure = dict(zip(LURES, draw.normal(0.0, p.lure_sd, len(LURES)), strict=True))
        self.turn = {
            "": 0.0, "inside": float(draw.normal(0.0, p.turn_log)),
            "outside": float(draw.normal(0.0, p.turn_log)),
        }
        self.hooked = float(draw.uniform(*p.hooked))
        self.landed = float(draw.uniform(*p.landed))

    def _depths(self, draw: np.random.Generator) -> None:
        """Where the fish are: by the layers, by the light, and by themselves."""
        p = self.parameters
        cool = max(0.0, self.start_degc - 12.0) / 7.0
        holding = cool * draw.uniform(0.2, 0.7) * self.bottom_m + draw.uniform(1.0, 9.0)
        with_light = draw.normal(0.0, 2.0) * self._light()
        walk = _walk(draw, p.depth_drift_m, p.depth_memory_min)
        low = min(self.bottom_m - 0.5, 24.0)
        self.deep = np.clip(holding + with_light + walk, 0.8, low)
        self.shallow = np.clip(draw.uniform(0.5, 3.5) + 0.4 * walk, 0.3, low)
        self.shallow_share = float(draw.uniform(*p.shallow_share))
        self.depth_width = float(draw.uniform(*p.depth_width_m))

    def _light(self) -> Array:
        minutes = np.arange(DAY_MIN)
        return np.asarray(np.sin(np.pi * (minutes + 60.0) / (DAY_MIN + 120.0)))

    def seen(self, minute: int) -> Seen:
        """Return what anybody can see in a minute."""
        light = float(self._light()[minute])
        share = math.sin(0.5 * math.pi * min(minute / 420.0, 1.0))
        return Seen(
            surface_degc=self.start_degc + self.warming * share, sun_deg=55.0 * light,
            cloud=float(np.clip(self.cloud[minute], 0.0, 1.0)),
            wind_mps=float(max(self.wind[minute], 0.0)), secchi_m=self.secchi_m,
            bottom_m=self.bottom_m,
        )

    def over(self, minute: int, share: float, bottom_m: float) -> None:
        """Tell where a boat that somebody steers is: no lap of its own is sailed then.

        Minute by minute; of one that was told before the first word stands, but for its depth.

        Parameters
        ----------
        minute : int
            Of the day.
        share : float
            How far along its way, 0 to 1 from end to end.
        bottom_m : float
            Depth there, m.
        """
        if minute not in self.way:
            before = self.way.get(minute - 1)
            # Who lies still and casts lies off the school.
            self._pass(minute, [
                _bell((share - centre) / (0.5 * wide)) for centre, wide, _ in self.schools
            ], scares=before is None or before[0] != share)
        self.way[minute] = share, bottom_m

    def placed(self, minute: int, place: float) -> None:
        """Tell where on its lap the boat is in a minute, 0 to 1: minute by minute, from the first.

        Who never says is thought to go round and round, and to scare nothing.
        """
        self._pass(minute, self._near(place))

    def _pass(self, minute: int, near: Sequence[float], *, scares: bool = True) -> None:
        """Meet what is there, and scare some of it off."""
        p = self.parameters
        self.passed[minute] = self._crowd(near)
        for index, close in enumerate(near):
            put_down = p.put_down * close * (1.0 - self.scared[index]) if scares else 0.0
            self.scared[index] += put_down - self.scared[index] / p.rests_min

    def crowd_at(self, place: float) -> float:
        """Return how many fish are at a place of the lap now, 1 over a school none of them left."""
        return self._crowd(self._near(place))

    def _crowd(self, near: Sequence[float]) -> float:
        there = zip(near, self.schools, self.scared, strict=True)
        return max(
            self.parameters.between, *(close * s[2] * (1.0 - gone) for close, s, gone in there)
        )

    def _near(self, place: float) -> list[float]:
        """How far in each school a place of the lap is, 1 in its middle."""
        return [
            _bell(abs((place - centre + 0.5) % 1.0 - 0.5) / (0.5 * share))
            for centre, share, _ in self.schools
        ]

    def crowd(self, minute: int) -> float:
        """Return how many fish are under the boat, 1 over a school."""
        return self.passed.get(minute) or self.crowd_at(minute / self.lap_min)

    def marks(self, minute: int, rng: np.random.Generator) -> list[float]:
        """Return the depths, m, of the fish that the sonar shows in a minute."""
        p = self.parameters
        found = []
        for depth, share in self._groups(minute):
            # The cone is as wide as the fish is deep: few of those near the top are ever seen.
            rate = p.marks_seen * self.crowd(minute) * share * min(depth / 10.0, 2.5)
            for _ in range(rng.poisson(rate)):
                off = rng.normal(0.0, math.hypot(self.depth_width * 0.6, p.mark_noise_m))
                found.append(float(np.clip(depth + off, 0.3, self.bottom_m)))
        stray = p.marks_seen * p.stray_marks * min(self.bottom_m / 20.0, 1.5)
        found += [float(rng.uniform(0.5, self.bottom_m)) for _ in range(rng.poisson(stray))]
        return found

    def _groups(self, minute: int) -> tuple[tuple[float, float], ...]:
        """Depth and share of the fish that hold and of those near the surface."""
        return (
            (float(self.deep[minute]), 1.0 - self.shallow_share),
            (float(self.shallow[minute]), self.shallow_share),
        )

    def at_depth(self, minute: int, depth_m: float) -> float:
        """Return how many of the fish a lure at a depth is near, 0 to 1."""
        near = 0.0
        for depth, share in self._groups(minute):
            width = self.depth_width * (1.0 if depth_m <= depth else self.parameters.below_width)
            near += share * math.exp(-0.5 * ((depth_m - depth) / width) ** 2)
        return near

    def tastes(self, minute: int, shown: Shown) -> float:
        """Return the log of how well a lure suits, 0 at best but for colour and lure."""
        r, light = shown.recipe, float(self._light()[minute]) - 0.6
        found = -0.5 * ((math.log(r.speed_mps) - self.speed[minute]) / self.speed_width) ** 2
        found -= 0.5 * ((r.flash - self.flash[minute]) / self.flash_width) ** 2
        found -= 0.5 * ((r.thump - self.thump[minute]) / self.thump_width) ** 2
        if r.leader_m is not None:
            found -= 0.5 * ((math.log(r.leader_m) - self.leader) / self.leader_width) ** 2
        back = math.log(max(r.setback_m, 1.0))
        found -= 0.5 * ((back - self.setback) / self.setback_width) ** 2
        found += self.colour[r.colour] + light * self.by_light[r.colour] + self.lure[r.lure]
        return float(found)

    def rates(self, minute: int, shown: Sequence[Shown]) -> list[float]:
        """Return how many hits a minute each lure can expect."""
        p = self.parameters
        here = math.exp(self.level + self.bite[minute]) * self.crowd(minute)
        found = []
        for one in shown:
            rate = here * self.at_depth(minute, one.recipe.depth_m)
            rate *= math.exp(max(self.tastes(minute, one), -6.0) + self.turn[one.turning])
            if not one.works:
                rate *= p.spun_out
            if not one.baited:
                rate *= p.bare_hook
            found.append(rate)
        return found

    def fate(self, minute: int, shown: Shown) -> Fate:
        """Return what becomes of a hit on a lure."""
        return Fate(hooked=self.hooked, landed=self.landed)


def _bell(off: float) -> float:
    return math.exp(-0.5 * off * off)


def _walk(draw: np.random.Generator, sd: float, memory_min: float) -> Array:
    """A value that wanders about nothing through the day, minute by minute."""
    keep = math.exp(-1.0 / memory_min)
    steps = draw.normal(0.0, sd * math.sqrt(1.0 - keep**2), DAY_MIN)
    found = np.empty(DAY_MIN)
    value = draw.normal(0.0, sd)
    for i, step in enumerate(steps):
        value = keep * value + step
        found[i] = value
    return found
