"""A river in spring: stripers on the edges of bars and in the necks, near the bottom."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import replace
from typing import Final

import numpy as np

from ..constants import OUNCE_KG
from ..record.casting import sunk_m
from ..record.state import Casting
from .boat import RIVER_LURES
from .standard import DEFAULT, Parameters, Standard
from .world import Shown

OFF_BOTTOM_M: Final = 0.4
"""How far above the bottom they hold (judged: near bottom is common practice)."""
EDGE_SHARE: Final = 0.07
"""How much of the way lies along one bar (judged)."""
HIDDEN: Final = 0.7
"""How good the one is that nothing on the chart tells of, against a bar (judged)."""
CAST_PM: Final = 0.15
"""Hits a minute of one who casts right to a school that was found (judged)."""
SINK_WIDTH_M: Final = 0.5
HEAVY_FROM_MPS: Final = 0.3
"""A current from which the heavier lure is needed (judged)."""
LIGHT_KG: Final = 0.375 * OUNCE_KG
HEAVY_KG: Final = 0.5 * OUNCE_KG
"""Swimbaits, the heavier in current (common practice)."""


class River(Standard):
    """A reach with bars: fish hold by the bottom there, however deep it is, and want plugs fast.

    Depth is told from the bottom up; the water fell overnight, which loads the bars.
    """

    parameters: Parameters = replace(
        DEFAULT, hits_pm=0.09, surface_degc=(13.0, 18.0), bottom_m=(2.0, 2.8),
        shallow_share=(0.0, 0.05), depth_width_m=(0.4, 0.8), depth_drift_m=0.15,
        speed_mph=(3.2, 4.4), speed_lean=0.0, speed_width=(0.15, 0.3), speed_drift=0.08,
        setback_ft=(70.0, 110.0), setback_width=(0.8, 1.6), marks_seen=1.2, between=0.1,
    )

    def __init__(self, seed: int) -> None:
        """Draw the day."""
        super().__init__(seed)
        draw = np.random.default_rng((seed, 31))
        self.fall_m = float(draw.uniform(0.0, 0.5))
        self.current_mps = float(draw.uniform(0.15, 0.5))
        self.hidden = float(draw.uniform(0.1, 0.9))
        wander = self.deep - self.deep.mean()
        self.deep = np.clip(self.bottom_m - OFF_BOTTOM_M + wander, 0.8, self.bottom_m - 0.15)

    def lay(self, bars: Sequence[tuple[float, float]]) -> None:
        """Put the schools where the bars are, and one where no feature tells of it.

        Parameters
        ----------
        bars : sequence of (float, float)
            Share of the way at which one lies, 0 to 1, and how good it is: a neck is better.
        """
        loaded = 1.0 + self.fall_m
        self.schools = [
            (share, EDGE_SHARE, good * loaded) for share, good in (*bars, (self.hidden, HIDDEN))
        ]
        self.scared = [0.0] * len(self.schools)

    def _lift(self, minute: int) -> float:
        """How much deeper the bottom is here than where depths are told from, m."""
        return self.way[minute][1] - self.bottom_m if minute in self.way else 0.0

    def at_depth(self, minute: int, depth_m: float) -> float:
        """Return how many of the fish a lure at a depth is near, 0 to 1."""
        return super().at_depth(minute, depth_m - self._lift(minute))

    def tastes(self, minute: int, shown: Shown) -> float:
        """Return the log of how well a lure suits: river plugs are plugs."""
        if shown.recipe.lure in RIVER_LURES:
            shown = replace(shown, recipe=replace(shown.recipe, lure="minnow plug"))
        return super().tastes(minute, shown)

    def marks(self, minute: int, rng: np.random.Generator) -> list[float]:
        """Return the depths, m, of the fish that the sonar shows in a minute."""
        lift = self._lift(minute)
        return [max(depth + lift, 0.3) for depth in super().marks(minute, rng)]

    def cast_rate(self, minute: int, cast: Casting) -> float:
        """Return how many hits a minute one who casts can expect.

        Parameters
        ----------
        minute : int
            Of the day.
        cast : Casting
            Weight, count-down and retrieve.

        Returns
        -------
        float
            Most with the weight that the current asks, let sink to where they hold, and slowly.
        """
        bottom = self.bottom_m + self._lift(minute)
        off = sunk_m(cast.count_s, bottom) - (bottom - OFF_BOTTOM_M)
        wanted = HEAVY_KG if self.current_mps >= HEAVY_FROM_MPS else LIGHT_KG
        weight = math.exp(-0.5 * (math.log(cast.weight_kg / wanted) / 0.3) ** 2)
        slow = 1.0 if cast.retrieve == "slow" else 0.4
        near = math.exp(-0.5 * (off / SINK_WIDTH_M) ** 2)
        here = self.crowd(minute) * math.exp(self.bite[minute])
        return CAST_PM * here * near * weight * slow
