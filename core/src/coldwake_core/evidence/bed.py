"""The bed that a boat has fished over: how deep it usually is, and how shallow it comes again."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

FISHED_MIN: Final = 60.0
"""What was sounded in so many minutes is the ground that is fished (judged)."""
SHALLOW_SHARE: Final = 0.2
"""A lure may touch over the shallowest fifth of it, and no more (judged)."""


@dataclass(frozen=True, slots=True)
class BedFished:
    """Depth of the water, m: ``usual_m`` on the whole, ``shallow_m`` where a fifth is less."""

    usual_m: float
    shallow_m: float


def bed_of(soundings_m: Sequence[float]) -> BedFished:
    """Return what soundings say of the bed.

    Parameters
    ----------
    soundings_m : sequence of float
        Depths of the water, m, evenly in time; at least one.

    Returns
    -------
    BedFished
    """
    in_order = sorted(soundings_m)
    return BedFished(
        usual_m=math.fsum(in_order) / len(in_order),
        shallow_m=in_order[int(SHALLOW_SHARE * (len(in_order) - 1))],
    )
