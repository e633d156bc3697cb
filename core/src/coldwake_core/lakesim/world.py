"""What a world is: the small interface that any simulated lake answers to."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Protocol, runtime_checkable

import numpy as np

from ..evidence.recipe import Recipe

DAY_MIN = 480
"""Minutes of a day on the water."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Seen:
    """What anybody aboard can see.

    Parameters
    ----------
    surface_degc : float
        Surface temperature, degrees Celsius.
    sun_deg : float
        Height of the sun, degrees.
    cloud : float
        0 to 1.
    wind_mps : float
        Wind, m/s.
    secchi_m : float
        How clear the water is, m.
    bottom_m : float
        Depth under the boat, m.
    """

    surface_degc: float
    sun_deg: float
    cloud: float
    wind_mps: float
    secchi_m: float
    bottom_m: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Shown:
    """A lure as the fish meet it in one minute.

    Parameters
    ----------
    recipe : Recipe
        Depth, speed, setback, leader, flash, thump, colour, lure.
    works : bool
        Whether it swims as it should at this speed.
    baited : bool
        Whether its bait is on, where it wants bait.
    turning : {'', 'inside', 'outside'}
        On which side of a turn it is in this minute.
    """

    recipe: Recipe
    works: bool
    baited: bool
    turning: str


@dataclass(frozen=True, slots=True, kw_only=True)
class Fate:
    """What becomes of a hit: chances that it is hooked, and that a hooked fish is landed."""

    hooked: float
    landed: float


class World(Protocol):
    """One day on one lake, drawn from a seed: the same seed, the same day."""

    def __init__(self, seed: int) -> None:
        """Draw the day."""

    def seen(self, minute: int) -> Seen:
        """Return what anybody can see in a minute."""

    def marks(self, minute: int, rng: np.random.Generator) -> list[float]:
        """Return the depths, m, of the fish that the sonar shows in a minute."""

    def rates(self, minute: int, shown: Sequence[Shown]) -> list[float]:
        """Return how many hits a minute each lure can expect."""

    def fate(self, minute: int, shown: Shown) -> Fate:
        """Return what becomes of a hit on a lure."""


@runtime_checkable
class Steered(Protocol):
    """What a world has besides where somebody steers the boat; another needs none of it."""

    def over(self, minute: int, share: float, bottom_m: float) -> None:
        """Tell how far along its way the boat is, 0 to 1, and the depth there, m."""


@runtime_checkable
class Lapped(Protocol):
    """What a world has besides where the boat may turn round on its lap; another needs none of it.

    Attributes
    ----------
    lap_min : float
        Minutes of a lap.
    """

    lap_min: float

    def placed(self, minute: int, place: float) -> None:
        """Tell where on its lap the boat is, 0 to 1: minute by minute, from the first."""

    def crowd_at(self, place: float) -> float:
        """Return how many fish are at a place of the lap now, 1 over a school: an oracle's."""
