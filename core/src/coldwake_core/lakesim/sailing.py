"""A boat that trolls along a contour of a chart, by laws of its own: a hand on the throttle that
wanders, gusts, turns with lines out, a current that carries it along.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, field
from itertools import pairwise
from typing import Any, Final

import numpy as np

from ..chart.features import Feature
from ..chart.grid import DepthGrid, GeoPoint, moved, offset_m
from ..decode import decode, encode
from ..survey.legs import LegsWish, plan_legs

TURN_M: Final = 45.0
"""Tightest turn with lines out (judged)."""
AHEAD_M: Final = 25.0


@dataclass
class Sailing:
    """A boat on its way along a path and back, again and again.

    Parameters
    ----------
    chart : DepthGrid
        The water.
    path : tuple of GeoPoint
        The way.
    seed : int
        What comes by chance.
    at : int
        Which place of the way it makes for.
    speed_mps : float
        Through the water, m/s; the hand on the throttle holds it.
    warm_degc : float
        Of the surface, degrees Celsius.
    current_mps, flows_deg : float
        Of the water over the ground, m/s and degrees from north.
    fish_m : float
        Depth of the schools that it passes, m.
    turn_m : float
        Radius of its turns, m.
    """

    chart: DepthGrid
    path: tuple[GeoPoint, ...]
    seed: int = 1
    at: int = 0
    speed_mps: float = 0.74
    warm_degc: float = 10.2
    current_mps: float = 0.0
    flows_deg: float = 0.0
    fish_m: float = 6.0
    turn_m: float = TURN_M
    place: GeoPoint = field(init=False)
    course_deg: float = field(init=False)
    _way: int = 1
    _gust: float = 0.0
    _round: list[GeoPoint] = field(default_factory=list)

    def __post_init__(self) -> None:
        self.rng = np.random.default_rng(self.seed)
        self._hand_mps = self.speed_mps
        self._school_s = 0.0
        self._mark_m: float | None = None
        self.place = self.path[0]
        east, north = offset_m(self.path[0], self.path[1])
        self.course_deg = math.degrees(math.atan2(east, north)) % 360.0

    def hold(self, speed_mps: float) -> None:
        """Set the throttle for another speed.

        Parameters
        ----------
        speed_mps : float
            Through the water, m/s.
        """
        self._hand_mps = speed_mps

    def turn_round(self) -> None:
        """Go back the way it came, on the deeper side."""
        if not self._round:
            self._way = -self._way
            self._begin_round()

    def kept(self) -> dict[str, Any]:
        """Return where it is on its way, to go on from another time.

        Returns
        -------
        dict
            JSON; ``resume`` takes it.
        """
        return {
            "place": encode(self.place), "course_deg": self.course_deg, "at": self.at,
            "way": self._way, "speed_mps": self.speed_mps,
            "round": [encode(place) for place in self._round],
        }

    def resume(self, kept: dict[str, Any]) -> None:
        """Go on from where it was.

        Parameters
        ----------
        kept : dict
            What ``kept`` returned.
        """
        self.place = decode(GeoPoint, kept["place"])
        self.course_deg, self.at, self._way = kept["course_deg"], kept["at"], kept["way"]
        self.speed_mps = kept["speed_mps"]
        self._round = [decode(GeoPoint, place) for place in kept["round"]]

    @property
    def share(self) -> float:
        """How far along its way it is, 0 to 1 from end to end."""
        return share_of(self.path, self.place)

    @property
    def is_turning(self) -> bool:
        """Whether it is on its way round."""
        return bool(self._round)

    def step(self, seconds: float) -> None:
        """Sail on.

        Parameters
        ----------
        seconds : float
            How long, s; a second or two at a time.
        """
        rng = self.rng
        self._gust += -0.05 * self._gust * seconds + rng.normal(0.0, 0.01) * math.sqrt(seconds)
        self.speed_mps += (self._hand_mps - self.speed_mps) * 0.02 * seconds
        self.speed_mps += rng.normal(0.0, 0.004)
        self.warm_degc += 2.2e-5 * seconds
        aim = self._aim()
        east, north = offset_m(self.place, aim)
        off = (math.degrees(math.atan2(east, north)) - self.course_deg + 180.0) % 360.0 - 180.0
        most = math.degrees(self.speed_mps * seconds / self.turn_m)
        self.course_deg = (self.course_deg + min(max(off, -most), most)) % 360.0
        place = moved(
            self.place, course_deg=self.ground_deg, distance_m=self.ground_mps * seconds
        )
        if self.chart.depth_m(place) is None:
            # A hand that sees the shore come gives way to no current: off it, to the way.
            self._round.clear()
            east, north = offset_m(self.place, self.path[self.at])
            self.course_deg = math.degrees(math.atan2(east, north)) % 360.0
            place = moved(
                self.place, course_deg=self.course_deg, distance_m=self.ground_mps * seconds
            )
        self.place = place
        self._pass_fish(seconds)

    def _pass_fish(self, seconds: float) -> None:
        """Over a school for a minute every ten, a fish under the beam every fifteen seconds."""
        self._mark_m = None
        self._school_s -= seconds
        if self._school_s < -540.0 * self.rng.uniform(0.5, 1.5):
            self._school_s = 60.0
        if self._school_s > 0.0 and self.rng.random() < seconds / 15.0:
            fish = self.rng.normal(self.fish_m, 1.2)
            self._mark_m = min(max(fish, 1.0), self.depth_m - 0.8)

    @property
    def _over_ground(self) -> tuple[float, float]:
        """Velocity over ground, m/s to the east and to the north."""
        own, flows = math.radians(self.course_deg), math.radians(self.flows_deg)
        ahead = max(self.speed_mps + self._gust, 0.1)
        return (
            ahead * math.sin(own) + self.current_mps * math.sin(flows),
            ahead * math.cos(own) + self.current_mps * math.cos(flows),
        )

    @property
    def ground_mps(self) -> float:
        """Speed over ground, m/s."""
        return math.hypot(*self._over_ground)

    @property
    def ground_deg(self) -> float:
        """Course over ground, degrees."""
        return math.degrees(math.atan2(*self._over_ground)) % 360.0

    @property
    def depth_m(self) -> float:
        """Depth of the bottom under it, m."""
        return self.chart.depth_m(self.place) or 0.0

    def _aim(self) -> GeoPoint:
        while self._round:
            if math.hypot(*offset_m(self.place, self._round[0])) >= AHEAD_M:
                return self._round[0]
            self._round.pop(0)
        while math.hypot(*offset_m(self.place, self.path[self.at])) < AHEAD_M:
            if not 0 <= self.at + self._way < len(self.path):
                self._way = -self._way
                self._begin_round()
                return self._round[0]
            self.at += self._way
        return self.path[self.at]

    def _begin_round(self) -> None:
        self._round = self._turn_back()
        # It meets its way again well past where it turned: what is behind is not aimed at.
        end = self.path[self.at]
        while 0 <= self.at + self._way < len(self.path) and (
            math.hypot(*offset_m(end, self.path[self.at])) < 4.0 * self.turn_m
        ):
            self.at += self._way

    def _turn_back(self) -> list[GeoPoint]:
        """Half a circle on the deeper side of the way, and on beside it until it meets it again."""
        wide_m = self.turn_m

        def round_by(side: float) -> list[GeoPoint]:
            return [
                moved(
                    moved(self.place, course_deg=self.course_deg + side, distance_m=wide * wide_m),
                    course_deg=self.course_deg, distance_m=on * wide_m,
                )
                for wide, on in ((1.0, 1.0), (2.0, 0.0), (2.0, -1.0))
            ]

        def shallowest(way: list[GeoPoint]) -> float:
            return min(self.chart.depth_m(place) or 0.0 for place in way)

        return max((round_by(90.0), round_by(-90.0)), key=shallowest)


def share_of(path: Sequence[GeoPoint], place: GeoPoint) -> float:
    """Return how far along a way a place lies.

    Parameters
    ----------
    path : sequence of GeoPoint
        The way, two places at least.
    place : GeoPoint
        The place.

    Returns
    -------
    float
        Of the way's place nearest to it, 0 to 1 from end to end.
    """
    so_far = [0.0]
    for one, other in pairwise(path):
        so_far.append(so_far[-1] + math.hypot(*offset_m(one, other)))
    nearest = min(range(len(path)), key=lambda i: math.hypot(*offset_m(path[i], place)))
    return so_far[nearest] / max(so_far[-1], 1e-9)


def place_at(path: Sequence[GeoPoint], share: float) -> GeoPoint:
    """Return the place of a way nearest to so much of it.

    Parameters
    ----------
    path : sequence of GeoPoint
        The way, two places at least.
    share : float
        How far along, 0 to 1 from end to end.

    Returns
    -------
    GeoPoint
    """
    return min(path, key=lambda place: abs(share_of(path, place) - share))


def along(
    chart: DepthGrid, depth_m: float, features: tuple[Feature, ...] = (), turn_m: float = TURN_M
) -> tuple[GeoPoint, ...]:
    """Return the longest turnable stretch along a depth.

    Parameters
    ----------
    chart : DepthGrid
        The water.
    depth_m : float
        Of the bottom, m.
    features : tuple of Feature
        Closed water and hazards, which it keeps clear of.
    turn_m : float
        Radius of a turn, m.

    Returns
    -------
    tuple of GeoPoint
    """
    wish = LegsWish(
        depth_m=depth_m, least_depth_m=0.75 * depth_m, radius_m=turn_m, speed_mps=0.75
    )
    return max(plan_legs(chart, wish, features), key=lambda leg: leg.length_m).places
