"""Where fish were met: how many more than elsewhere a place holds, by what was passed there."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import Final

REACH_M: Final = 90.0
"""A place speaks for what lies so far around it, sd of a bell (judged: two minutes of trolling)."""
MEMORY_MIN: Final = 120.0
"""After so many minutes what was met says six tenths less of what is there (judged)."""
HIT_MARKS: Final = 2.0
"""A hit tells of so many fish as these marks do (judged)."""
SCHOOLED: Final = 0.6
"""Shape of a gamma prior of how many fish a place holds against the mean: they come in schools."""


@dataclass(slots=True)
class Ground:
    """What was passed, piece by piece of the boat's way.

    Notes
    -----
    Fish met at a place are Poisson with a mean that is the day's times what the place holds, and
    that is Gamma(SCHOOLED, SCHOOLED) before anything is met: its mean afterwards is
    ``(SCHOOLED + met) / (SCHOOLED + expected)``, with what was met nearby and lately counted by a
    bell in the distance and an exponential in the time.

    References
    ----------
    Gelman, A. et al. (2013). Bayesian Data Analysis, 3rd ed., 2.6: Poisson counts with a gamma
    prior. From memory.
    """

    _pieces: list[tuple[float, float, float, float, float]] = field(default_factory=list)
    _met: float = 0.0
    _minutes: float = 0.0

    def pass_by(
        self, *, at_min: float, east_m: float, north_m: float, minutes: float, marks: int, hits: int
    ) -> None:
        """Note what was met on a piece of way.

        Parameters
        ----------
        at_min : float
            When, minutes of any clock that all calls share.
        east_m, north_m : float
            Where, m from any place that all calls share.
        minutes : float
            How long it was, > 0.
        marks, hits : int
            Fish seen on the sonar, and hits on all rods.
        """
        met = marks + HIT_MARKS * hits
        self._pieces.append((at_min, east_m, north_m, minutes, met))
        self._met += met
        self._minutes += minutes

    def holds(self, *, at_min: float, places: Sequence[tuple[float, float]]) -> list[float]:
        """Return how many fish places hold, against the mean of all that was passed.

        Parameters
        ----------
        at_min : float
            The present.
        places : sequence of (float, float)
            East and north, m.

        Returns
        -------
        list of float
            1 where nothing is known.
        """
        if not self._met:
            return [1.0] * len(places)
        usual = self._met / self._minutes
        aged = [
            (e, n, minutes * usual * math.exp(-(at_min - at) / MEMORY_MIN), met and met
             * math.exp(-(at_min - at) / MEMORY_MIN))
            for at, e, n, minutes, met in self._pieces
        ]
        found = []
        for east, north in places:
            told = expected = 0.0
            for e, n, due, met in aged:
                off2 = ((e - east) ** 2 + (n - north) ** 2) / REACH_M**2
                if off2 < 16.0:
                    near = math.exp(-0.5 * off2)
                    told += near * met
                    expected += near * due
            found.append((SCHOOLED + told) / (SCHOOLED + expected))
        return found
