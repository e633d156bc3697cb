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

OWN_SD: Final = 0.44
"""How far a rod differs from those beside it by itself, standard deviation of the log ratio: 0.4
for the rod and 0.4 shared by five others (judged)."""
SURE_OF_CHANGE: Final = 0.9
SURE_OF_HARM: Final = 0.93
"""From these on a change is said to have helped, or to have made it worse. It is looked at again
and again, and what was said at any look is remembered; a bite that comes on makes a dry rod look
worse than it is, so more is asked there. Measured: docs/advice.md, tests/core/test_verdict.py."""
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


def compare_with_control(*, before: Sides, after: Sides) -> RateComparison:
    """Return how probable it is that a change helped, the clock taken out.

    Parameters
    ----------
    before, after : Sides
        What was counted up to the change and since.

    Returns
    -------
    RateComparison
        P(effect > 0); "too early" unless both sides are long enough and it is beyond
        SURE_OF_CHANGE, or SURE_OF_HARM the other way.

    Notes
    -----
    With ``a`` the changed rods' own level, N(0, OWN_SD), and ``d`` the effect, N(0, EFFECT_SD), the
    changed rods' share of the hits is binomial with log odds ``log r + a`` before and
    ``log r + a + d`` after, ``r`` being the ratio of rod-minutes (conditional Poisson
    comparison: Przyborowski & Wilenski 1940, from memory). Both are integrated on a grid of 0.1.

    References
    ----------
    Przyborowski, J., Wilenski, H. (1940). Homogeneity of results in testing samples from Poisson
    series. Biometrika 31, 313-323. From memory.
    """
    if not (before.is_enough() and after.is_enough()):
        return RateComparison(probability=0.5, verdict="too_early")
    own = _likelihood(before, _OWN)
    total = _likelihood(after, _SUM)
    all_of_it = up = 0.0
    for index, share_before in enumerate(own):
        weight = share_before * _normal(_OWN[index] / OWN_SD)
        for other, share_after in enumerate(total):
            # Steps of the effect: the middles of the two grids stand 20 apart.
            steps = other - index - 20
            part = weight * share_after * _EFFECT[abs(steps)]
            all_of_it += part
            up += part if steps > 0 else 0.5 * part if steps == 0 else 0.0
    probability = up / all_of_it
    verdict: Verdict = "too_early"
    if probability >= SURE_OF_CHANGE:
        verdict = "better"
    elif probability <= 1.0 - SURE_OF_HARM:
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
