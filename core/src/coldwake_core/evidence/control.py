"""Did a change help, or did they just start biting? The rods that were not changed tell.

Given the total of hits, the changed rods' share of them is binomial whatever the clock does: the
bite that comes on for all drops out.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from .rates import Exposure, RateComparison, Verdict

ROD_SD: Final = 0.4
"""How far a rod differs from those beside it by itself, standard deviation of the log (judged)."""
SURE_OF_CHANGE: Final = (0.89, 0.928)
SURE_OF_HARM: Final = (0.93, 0.95)
"""From these on a change is said to have helped, or to have made it worse: of one rod beside five,
and of three beside three. It is looked at again and again, and what was said at any look is
remembered; more rods see more, and swing further. A bite that comes on makes a dry rod look worse
than it is, so more is asked there. Measured: docs/advice.md, tests/core/test_verdict.py."""
EFFECT_SD: Final = 0.6
"""How much changes do, standard deviation of the log rate (judged): most do little."""
LEAST_MIN: Final = 20.0
"""Rod-minutes that each side needs before anything is said of a change."""
_STEP: Final = 0.1
_OWN: Final = [(index - 16) * _STEP for index in range(33)]
_SUM: Final = [(index - 36) * _STEP for index in range(73)]


@dataclass(frozen=True, slots=True, kw_only=True)
class Sides:
    """Hits and rod-minutes of one stretch of time.

    Parameters
    ----------
    changed : Exposure
        The rods that were changed.
    control : Exposure
        Those that were not, fishing beside them.
    """

    changed: Exposure
    control: Exposure

    def is_enough(self) -> bool:
        """Return whether both kinds of rods fished for LEAST_MIN at least.

        Returns
        -------
        bool
        """
        return min(self.changed.minutes, self.control.minutes) >= LEAST_MIN


def own_sd(changed_rods: int, control_rods: int) -> float:
    """Return how far some rods differ from some others by themselves.

    Parameters
    ----------
    changed_rods, control_rods : int
        How many there are, >= 1.

    Returns
    -------
    float
        Standard deviation of the log ratio: of means of rods that differ by ROD_SD each.

    References
    ----------
    Gelman, A. et al. (2013). Bayesian Data Analysis, 3rd ed., 5.4: means of exchangeable normal
    effects. From memory.
    """
    return ROD_SD * math.sqrt(1.0 / changed_rods + 1.0 / control_rods)


def sure_of(changed_rods: int, control_rods: int) -> tuple[float, float]:
    """Return from which probability on a change is said to have helped, or to have harmed.

    Parameters
    ----------
    changed_rods, control_rods : int
        How many there are, >= 1.

    Returns
    -------
    (float, float)
        Between those of one rod beside five and of three beside three, and on beyond, by how many
        rods tell in earnest: 1 / (1 / changed + 1 / control).
    """
    telling = 1.0 / (1.0 / changed_rods + 1.0 / control_rods)
    share = (telling - 5.0 / 6.0) / (1.5 - 5.0 / 6.0)
    helped, harmed = (
        min(low + (high - low) * max(share, 0.0), 0.98)
        for low, high in (SURE_OF_CHANGE, SURE_OF_HARM)
    )
    return helped, harmed


def compare_with_control(
    *, before: Sides, after: Sides, changed_rods: int = 1, control_rods: int = 5
) -> RateComparison:
    """Return how probable it is that a change helped, the clock taken out.

    Parameters
    ----------
    before, after : Sides
        What was counted up to the change and since.
    changed_rods, control_rods : int
        How many rods were changed, and how many were not.

    Returns
    -------
    RateComparison
        P(effect > 0); "too early" unless both sides are long enough and it is beyond what
        ``sure_of`` asks, the one way or the other.

    Notes
    -----
    With ``a`` the changed rods' own level, N(0, ``own_sd``), and ``d`` the effect, N(0, EFFECT_SD),
    the changed rods' share of the hits is binomial with log odds ``log r + a`` before and
    ``log r + a + d`` after, ``r`` being the ratio of rod-minutes (conditional Poisson
    comparison: Przyborowski & Wilenski 1940, from memory). Both are integrated on a grid of 0.1.

    References
    ----------
    Przyborowski, J., Wilenski, H. (1940). Homogeneity of results in testing samples from Poisson
    series. Biometrika 31, 313-323. From memory.
    """
    if not (before.is_enough() and after.is_enough()):
        return RateComparison(probability=0.5, verdict="too_early")
    spread = own_sd(changed_rods, control_rods)
    own = _likelihood(before, _OWN)
    total = _likelihood(after, _SUM)
    all_of_it = up = 0.0
    for index, share_before in enumerate(own):
        weight = share_before * _normal(_OWN[index] / spread)
        for other, share_after in enumerate(total):
            # Steps of the effect: the middles of the two grids stand 20 apart.
            steps = other - index - 20
            part = weight * share_after * _EFFECT[abs(steps)]
            all_of_it += part
            up += part if steps > 0 else 0.5 * part if steps == 0 else 0.0
    probability = up / all_of_it
    verdict: Verdict = "too_early"
    helped, harmed = sure_of(changed_rods, control_rods)
    if probability >= helped:
        verdict = "better"
    elif probability <= 1.0 - harmed:
        verdict = "worse"
    return RateComparison(probability=probability, verdict=verdict)


def _normal(z: float) -> float:
    return math.exp(-0.5 * z * z)


_EFFECT: Final = [_normal(steps * _STEP / EFFECT_SD) for steps in range(len(_OWN) + len(_SUM))]


def _likelihood(sides: Sides, levels: Sequence[float]) -> list[float]:
    """Likelihood of the split of the hits at each log ratio of rates, the greatest being 1."""
    logs = [_log_share(sides, level) for level in levels]
    most = max(logs)
    return [math.exp(log - most) for log in logs]


def _log_share(sides: Sides, level: float) -> float:
    """Log likelihood of the split of the hits at a log ratio of rates."""
    odds = level + math.log(sides.changed.minutes / sides.control.minutes)
    return -(
        sides.changed.hits * math.log1p(math.exp(-odds))
        + sides.control.hits * math.log1p(math.exp(odds))
    )
