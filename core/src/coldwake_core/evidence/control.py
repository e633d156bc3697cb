"""Did a change help, or did they just start biting? The rods that were not changed tell.

Given the total of hits, the changed rods' share of them is binomial whatever the clock does: the
bite that comes on for all drops out.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final, Literal

from .rates import Exposure

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
NO_DIFFERENCE: Final = 0.92
"""From this probability on that what was changed earns neither twice nor half of what it did, no
difference is seen (judged; how often it is said of a real one: docs/advice.md)."""
TWICE: Final = math.log(2.0)
AHEAD_MIN: Final = (5, 10, 15, 20, 30, 45, 60, 90, 120, 180, 240)
"""So many more minutes are asked whether they will tell."""
_STEP: Final = 0.1
_OWN: Final = [(index - 16) * _STEP for index in range(33)]
_SUM: Final = [(index - 36) * _STEP for index in range(73)]


Told = Literal["better", "no_difference", "worse", "too_early"]


@dataclass(frozen=True, slots=True, kw_only=True)
class ChangeComparison:
    """What can be said of a change.

    Parameters
    ----------
    probability : float
        That it helped at all.
    alike : float
        Probability that it earns neither twice nor half of what was before.
    verdict : Told
        In words; "too early" is the usual one.
    """

    probability: float
    alike: float
    verdict: Told


TOO_EARLY: Final = ChangeComparison(probability=0.5, alike=0.0, verdict="too_early")


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
) -> ChangeComparison:
    """Return how probable it is that a change helped, the clock taken out.

    Parameters
    ----------
    before, after : Sides
        What was counted up to the change and since.
    changed_rods, control_rods : int
        How many rods were changed, and how many were not.

    Returns
    -------
    ChangeComparison
        "too early" unless both sides are long enough, and it is beyond what ``sure_of`` asks, the
        one way or the other, or beyond NO_DIFFERENCE.

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
        return TOO_EARLY
    return _told(_weigh(before, after, changed_rods, control_rods), changed_rods, control_rods)


def minutes_to_tell(
    *, before: Sides, after: Sides, changed_rods: int = 1, control_rods: int = 5
) -> float | None:
    """Return how many more minutes of fishing it takes until something can be said of a change.

    Parameters
    ----------
    before, after : Sides
        What was counted up to the change and since.
    changed_rods, control_rods : int
        How many rods were changed, and how many were not.

    Returns
    -------
    float or None
        One of AHEAD_MIN; None where they do not tell either, or a side is too short to go by.

    Notes
    -----
    All rods go on hitting as they have since the change: what then is to be expected is counted as
    if it had come.
    """
    if not (before.is_enough() and after.is_enough()):
        return None

    def is_told(minutes: float) -> bool:
        changed, control = changed_rods * minutes, control_rods * minutes
        then = _Counts(
            changed=after.changed.hits * (1.0 + changed / after.changed.minutes),
            changed_min=after.changed.minutes + changed,
            control=after.control.hits * (1.0 + control / after.control.minutes),
            control_min=after.control.minutes + control,
        )
        weighed = _weigh(before, then, changed_rods, control_rods)
        return _told(weighed, changed_rods, control_rods).verdict != "too_early"

    # What is told with more of the same stays told: halving finds the first.
    low, high = 0, len(AHEAD_MIN)
    while low < high:
        middle = (low + high) // 2
        low, high = (low, middle) if is_told(AHEAD_MIN[middle]) else (middle + 1, high)
    return float(AHEAD_MIN[low]) if low < len(AHEAD_MIN) else None


@dataclass(frozen=True, slots=True, kw_only=True)
class _Counts:
    """Hits and rod-minutes, such as are to be expected: no whole numbers."""

    changed: float
    changed_min: float
    control: float
    control_min: float

    @classmethod
    def of(cls, sides: Sides) -> _Counts:
        return cls(
            changed=sides.changed.hits, changed_min=sides.changed.minutes,
            control=sides.control.hits, control_min=sides.control.minutes,
        )


def _weigh(
    before: Sides, after: Sides | _Counts, changed_rods: int, control_rods: int
) -> tuple[float, float]:
    """P(effect > 0) and P(neither twice nor half)."""
    spread = own_sd(changed_rods, control_rods)
    since = _Counts.of(after) if isinstance(after, Sides) else after
    own, total = _likelihood(_Counts.of(before), _OWN), _likelihood(since, _SUM)
    all_of_it = up = alike = 0.0
    for index, share_before in enumerate(own):
        weight = share_before * _normal(_OWN[index] / spread)
        for other, share_after in enumerate(total):
            # Steps of the effect: the middles of the two grids stand 20 apart.
            steps = other - index - 20
            part = weight * share_after * _EFFECT[abs(steps)]
            all_of_it += part
            up += part if steps > 0 else 0.5 * part if steps == 0 else 0.0
            alike += part * _ALIKE[abs(steps)]
    return up / all_of_it, alike / all_of_it


def _told(
    weighed: tuple[float, float], changed_rods: int, control_rods: int
) -> ChangeComparison:
    probability, alike = weighed
    helped, harmed = sure_of(changed_rods, control_rods)
    verdict: Told = "too_early"
    if probability >= helped:
        verdict = "better"
    elif probability <= 1.0 - harmed:
        verdict = "worse"
    elif alike >= NO_DIFFERENCE:
        verdict = "no_difference"
    return ChangeComparison(probability=probability, alike=alike, verdict=verdict)


def _normal(z: float) -> float:
    return math.exp(-0.5 * z * z)


# How much of a cell of the grid lies within a doubling.
_ALIKE: Final = [
    min(max(TWICE / _STEP - steps + 0.5, 0.0), 1.0) for steps in range(len(_OWN) + len(_SUM))
]
_EFFECT: Final = [_normal(steps * _STEP / EFFECT_SD) for steps in range(len(_OWN) + len(_SUM))]


def _likelihood(counts: _Counts, levels: Sequence[float]) -> list[float]:
    """Likelihood of the split of the hits at each log ratio of rates, the greatest being 1."""
    logs = [_log_share(counts, level) for level in levels]
    most = max(logs)
    return [math.exp(log - most) for log in logs]


def _log_share(counts: _Counts, level: float) -> float:
    """Log likelihood of the split of the hits at a log ratio of rates."""
    odds = level + math.log(counts.changed_min / counts.control_min)
    return -(
        counts.changed * math.log1p(math.exp(-odds))
        + counts.control * math.log1p(math.exp(odds))
    )
