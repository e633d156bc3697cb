"""A small day: a few hours on a small lake where fish want one colour at one depth."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Final

import numpy as np

from ..evidence.recipe import Recipe
from ..lakesim.world import Fate, Seen, Shown

BASE_PMIN: Final = 0.2
"""Hits a minute on the lure they want, of hungry fish in an hour like the others (judged)."""
WRONG: Final = 0.22
"""What a wrong colour, or a wrong depth, leaves of it."""
DEPTHS_M: Final = (3.0, 8.0, 14.0)
COLOURS: Final = ("pink", "silver", "copper", "black")
_SHOWN: Final = Recipe(
    depth_m=DEPTHS_M[0], speed_mps=0.65, setback_m=15.0, leader_m=0.4, flash=0.5, thump=0.5,
    colour=COLOURS[0], lure="small hoochie",
)


def shown(colour: str, depth_m: float) -> Shown:
    """Return a lure that swims right, as the fish of a small day meet it.

    Parameters
    ----------
    colour : str
        Its colour.
    depth_m : float
        How deep it runs, m.

    Returns
    -------
    Shown
    """
    return Shown(
        recipe=replace(_SHOWN, colour=colour, depth_m=depth_m), works=True, baited=True, turning=""
    )


@dataclass(frozen=True, slots=True)
class SmallDay:
    """A world of its own (docs/lakesim.md), drawn from a seed."""

    seed: int

    @property
    def wanted(self) -> tuple[str, float]:
        """Colour and depth, m, that its fish want."""
        draw = np.random.default_rng((self.seed, 1)).integers(0, (len(COLOURS), len(DEPTHS_M)))
        return COLOURS[draw[0]], DEPTHS_M[draw[1]]

    def seen(self, minute: int) -> Seen:
        """Return what anybody can see in a minute."""
        return Seen(
            surface_degc=11.0, sun_deg=30.0, cloud=0.3, wind_mps=1.0, secchi_m=4.0, bottom_m=20.0
        )

    def marks(self, minute: int, rng: np.random.Generator) -> list[float]:
        """Return the depths, m, of the fish that the sonar shows in a minute: it stays silent."""
        return []

    def clock(self, minute: int) -> float:
        """Return how they bite in a half hour, against the others."""
        draw = np.random.default_rng((self.seed, 2, minute // 30)).random()
        return float(np.exp(1.2 * draw - 0.5))

    def rates(self, minute: int, shown: Sequence[Shown]) -> list[float]:
        """Return how many hits a minute each lure can expect."""
        colour, depth = self.wanted
        return [
            BASE_PMIN * self.clock(minute) * (1.0 if one.recipe.colour == colour else WRONG)
            * (1.0 if abs(one.recipe.depth_m - depth) < 1.0 else WRONG) * one.works
            for one in shown
        ]

    def fate(self, minute: int, shown: Shown) -> Fate:
        """Return what becomes of a hit on a lure."""
        return Fate(hooked=0.7, landed=0.8)
