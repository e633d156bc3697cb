"""From hit to net: where fish are lost, told from luck."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final, Literal

from ..checks import require_number
from .rates import incomplete_beta

USUAL_HOOKED: Final = 0.5
"""Under a half of the hits hooked, something is to be mended (judged: nips are hits too)."""
USUAL_LANDED: Final = 0.8
"""A good landing ratio is about 80 % (common practice)."""
FEW_LANDED: Final = 0.65
"""A ratio that is well under the good one (judged)."""
SURE: Final = 0.9
_STEPS: Final = 200

FunnelVerdict = Literal["too_early", "good", "few_hooked", "few_landed"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Funnel:
    """Hits, fish hooked and fish landed, of which a hooked fish that is still on is none yet.

    Parameters
    ----------
    hits, hooked, landed, lost : int
        Counts; hooked are those whose fight is over or goes on.
    """

    hits: int
    hooked: int
    landed: int
    lost: int

    def check(self) -> None:
        """Raise InvalidInputError unless they are counts."""
        for name in ("hits", "hooked", "landed", "lost"):
            require_number(name, getattr(self, name), low=0)


@dataclass(frozen=True, slots=True, kw_only=True)
class FunnelJudged:
    """What a funnel says.

    Parameters
    ----------
    verdict : FunnelVerdict
        "too early" is the usual one.
    few_hooked, few_landed : float
        Probability that less than a half of the hits are hooked, and that less than 65 % of the
        fish hooked are landed, in the long run.
    """

    verdict: FunnelVerdict
    few_hooked: float
    few_landed: float


def judge_funnel(funnel: Funnel) -> FunnelJudged:
    """Return where fish are lost, if it can be told.

    Parameters
    ----------
    funnel : Funnel
        What was counted.

    Returns
    -------
    FunnelJudged

    Raises
    ------
    InvalidInputError
        If a count is negative.

    Notes
    -----
    Both shares have Beta priors that expect what is usual, two fish strong: Beta(1.2, 0.8) for
    hooked, Beta(1.6, 0.4) for landed. Said from a probability of 0.9 on, the earlier step first.

    References
    ----------
    Gelman, A. et al. (2013). Bayesian Data Analysis, 3rd ed., 2.4: binomial data with a beta prior.
    From memory.
    """
    funnel.check()
    missed = max(funnel.hits - funnel.hooked, 0)
    few_hooked = incomplete_beta(a=1.2 + funnel.hooked, b=0.8 + missed, x=USUAL_HOOKED)
    few_landed = incomplete_beta(
        a=2.0 * USUAL_LANDED + funnel.landed, b=2.0 * (1.0 - USUAL_LANDED) + funnel.lost,
        x=FEW_LANDED,
    )
    verdict: FunnelVerdict = "too_early"
    if few_hooked >= SURE:
        verdict = "few_hooked"
    elif few_landed >= SURE:
        verdict = "few_landed"
    elif few_landed <= 1.0 - SURE and few_hooked <= 1.0 - SURE:
        verdict = "good"
    return FunnelJudged(verdict=verdict, few_hooked=few_hooked, few_landed=few_landed)


def lands_less(one: Funnel, other: Funnel) -> float:
    """Return how probable it is that fewer of the fish hooked are landed in one than in another.

    Parameters
    ----------
    one, other : Funnel
        Rigs with a weight to lever on, say, and those without.

    Returns
    -------
    float
        P(share landed of one < share landed of the other).

    Notes
    -----
    Both with the prior of ``judge_funnel``; the integral of the one's distribution over the other's
    by the midpoint rule in 200 steps.
    """
    a, b = 2.0 * USUAL_LANDED, 2.0 * (1.0 - USUAL_LANDED)
    below = [
        incomplete_beta(a=a + one.landed, b=b + one.lost, x=k / _STEPS) for k in range(_STEPS + 1)
    ]
    above = [
        incomplete_beta(a=a + other.landed, b=b + other.lost, x=k / _STEPS)
        for k in range(_STEPS + 1)
    ]
    return sum(
        0.5 * (below[k] + below[k + 1]) * (above[k + 1] - above[k]) for k in range(_STEPS)
    )
