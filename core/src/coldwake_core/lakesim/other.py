"""Three more worlds: more bites, fish that follow other laws, a rule book that is reversed."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import replace

import numpy as np

from ..advice.method import method_of_the_hour
from ..constants import MPH_MPS
from .boat import COLOURS, LURES
from .standard import DEFAULT, Standard
from .world import DAY_MIN, Fate, Shown


class Lively(Standard):
    """The standard lake where all bite twice as often, and nothing else differs.

    The spread of the opening is hit every two hours a rod there, not every four: how much a day
    shows decides how much of it can be learnt.
    """

    parameters = replace(DEFAULT, hits_pm=2.0 * DEFAULT.hits_pm)


class OtherLaws(Standard):
    """Fish that strike from irritation: other laws than a product of tastes.

    The bite is on or off. The best dial counts most and the others little (a soft maximum, not a
    product). Speed has a threshold, above which all is well; flash has no best but frightens in
    clear water and helps in stain; colours come in families that rise and fall together with the
    light. Fish hug the bottom or the layer, whichever the day wants, and hook worse the faster the
    boat.
    """

    def __init__(self, seed: int) -> None:
        """Draw the day."""
        super().__init__(seed)
        draw = np.random.default_rng((seed, 21))
        self.on = _telegraph(draw, 40.0, 60.0)
        self.hugging = bool(draw.random() < 0.5)
        self.threshold = float(draw.uniform(0.9, 2.4) * MPH_MPS)
        self.clear_fright = float(draw.uniform(-1.5, 1.0))
        families = draw.normal(0.0, 0.7, 3)
        self.family = {
            c: float(families[i % 3] + draw.normal(0.0, 0.2)) for i, c in enumerate(COLOURS)
        }
        self.kind = dict(zip(LURES, draw.normal(0.0, 0.7, len(LURES)), strict=True))
        if self.hugging:
            bed = min(self.bottom_m - 0.8, 23.0)
            self.deep = np.clip(bed + 0.3 * (self.deep - self.deep.mean()), 0.8, 24.0)

    def tastes(self, minute: int, shown: Shown) -> float:
        """Return the log of how well a lure suits."""
        r, light = shown.recipe, float(self._light()[minute])
        clear = math.log(self.secchi_m / 2.5)
        parts = (
            2.0 / (1.0 + math.exp(-(r.speed_mps - self.threshold) / 0.12)) - 1.0,
            self.clear_fright * clear * (r.flash - 0.4),
            self.family[r.colour] * (0.5 + light),
            self.kind[r.lure],
            -0.25 * abs(math.log(max(r.setback_m, 1.0)) - self.setback) / self.setback_width,
        )
        soft = math.log(math.fsum(math.exp(3.0 * part) for part in parts) / len(parts)) / 3.0
        return 1.2 * soft + 0.35 * math.fsum(parts)

    def rates(self, minute: int, shown: Sequence[Shown]) -> list[float]:
        """Return how many hits a minute each lure can expect."""
        bite = 1.6 if self.on[minute] else 0.25
        return [rate * bite for rate in super().rates(minute, shown)]

    def fate(self, minute: int, shown: Shown) -> Fate:
        """Return what becomes of a hit on a lure: worse the faster."""
        fast = min(shown.recipe.speed_mps / (3.0 * MPH_MPS), 1.0)
        return Fate(hooked=self.hooked * (1.1 - 0.4 * fast), landed=self.landed)


class Reversed(Standard):
    """The rule book turned round: where it says slow they want fast; marks are of other fish."""

    def __init__(self, seed: int) -> None:
        """Draw the day."""
        super().__init__(seed)
        method = method_of_the_hour(species="trout", surface_degc=self.start_degc)
        middle = math.sqrt(method.speed_low_mps * method.speed_high_mps)
        # Mirrored about a mile and a half an hour.
        wander = self.speed - self.speed.mean()
        self.speed = math.log((1.5 * MPH_MPS) ** 2 / middle) + 0.5 * wander
        self.speed = np.clip(self.speed, math.log(0.8 * MPH_MPS), math.log(3.4 * MPH_MPS))
        low = min(self.bottom_m - 0.5, 24.0)
        band = 0.5 * (method.depth_top_m + min(method.depth_base_m, low))
        self.true_deep = np.clip(low - band + 0.5 * (self.deep - self.deep.mean()), 0.8, low)
        self.shallow_share = 0.0
        near, far = method.setback_low_m, method.setback_high_m
        self.setback = 2.0 * math.log(20.0) - math.log(math.sqrt(max(near, 2.0) * far))
        self.marked = np.clip(low - self.true_deep, 0.8, low)
        self.deep = self.true_deep

    def marks(self, minute: int, rng: np.random.Generator) -> list[float]:
        """Return the depths of the fish that the sonar shows: not those that bite."""
        self.deep = self.marked
        try:
            return super().marks(minute, rng)
        finally:
            self.deep = self.true_deep


def _telegraph(draw: np.random.Generator, on_min: float, off_min: float) -> list[bool]:
    state, found = bool(draw.random() < on_min / (on_min + off_min)), []
    for _ in range(DAY_MIN):
        if draw.random() < 1.0 / (on_min if state else off_min):
            state = not state
        found.append(state)
    return found
