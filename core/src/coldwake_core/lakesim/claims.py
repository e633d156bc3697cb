"""Are stated probabilities what they say? The advisor's claims against the truth of the minute."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from .bench import load_world
from .boat import recipe_of
from .day import Aboard, Change, play
from .policies import Advisor
from .world import Shown, World

EVERY: Final = 13
"""Of the options that were not taken every thirteenth is held against the truth."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Claim:
    """What was said of an option, and whether it truly earned more than what was out."""

    probability: float
    true: bool
    taken: bool


class Watched(Advisor):
    """The advisor, with somebody behind it who knows the truth and keeps it."""

    def begin(self, aboard: Aboard, world: World) -> None:
        """Start the day."""
        super().begin(aboard, world)
        self.world = world
        self.claims: list[Claim] = []

    def decide(self, aboard: Aboard) -> Change | None:
        """Choose as the advisor does, and keep what it said."""
        change = super().decide(aboard)
        now = {str(i): recipe_of(rod, aboard.speed_mps) for i, rod in enumerate(aboard.rods)}
        for number, weighed in enumerate(self.weighed):
            taken = number == 0 and change is not None and not change.turn_round
            if not taken and number % EVERY:
                continue
            before = [now[rod] for rod, _ in weighed.option.after]
            after = [recipe for _, recipe in weighed.option.after]
            rates = self.world.rates(aboard.minute, [
                Shown(recipe=recipe, works=True, baited=True, turning="")
                for recipe in (*before, *after)
            ])
            half = len(before)
            self.claims.append(Claim(
                probability=weighed.better,
                true=math.fsum(rates[half:]) > math.fsum(rates[:half]), taken=taken,
            ))
        return change


def claims_of(path: str, seeds: Sequence[int]) -> list[Claim]:
    """Return all claims of some days.

    Parameters
    ----------
    path : str
        The world, ``module:Class``.
    seeds : sequence of int
        The days.

    Returns
    -------
    list of Claim
    """
    world, found = load_world(path), []
    for seed in seeds:
        watched = Watched()
        play(world(seed), watched, seed)
        found += watched.claims
    return found


@dataclass(frozen=True, slots=True, kw_only=True)
class Tenth:
    """Claims between two probabilities: how many, their mean, and how many of them were true."""

    low: float
    count: int
    stated: float
    true: float


def tenths_of(claims: Sequence[Claim]) -> list[Tenth]:
    """Return the claims by tenths of their probability.

    Parameters
    ----------
    claims : sequence of Claim
        The claims.

    Returns
    -------
    list of Tenth
        Those that hold any.
    """
    found = []
    for tenth in range(10):
        inside = [c for c in claims if min(int(c.probability * 10.0), 9) == tenth]
        if inside:
            found.append(Tenth(
                low=tenth / 10.0, count=len(inside),
                stated=math.fsum(c.probability for c in inside) / len(inside),
                true=sum(c.true for c in inside) / len(inside),
            ))
    return found
