"""The speed to build a spread for: where most of what suits works, with room for gusts."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Final

from ..advice.method import USUAL_MPH, Method
from ..checks import require_number
from ..constants import MPH_MPS
from ..gear.pieces import FASTEST_MPS, SLOWEST_MPS
from ..trip.now import Now
from .dress import Dress

_OFF_MIDDLE: Final = 0.1
"""What the edge of the method's band costs a rod (judged)."""


def opening_speed(
    now: Now, looks: Sequence[Dress], method: Method | None, rods: int,
    asked_mps: float | None,
) -> tuple[float, str]:
    """Return the speed to build for, and why.

    Parameters
    ----------
    now : Now
        The trip.
    looks : sequence of Dress
        What the box allows, the best first.
    method : Method or None
        Method of the hour.
    rods : int
        How many rods.
    asked_mps : float or None
        The user's own speed, m/s.

    Returns
    -------
    (float, str)
        Speed through water, m/s, and a sentence.

    Raises
    ------
    InvalidInputError
        If the user's own is no trolling speed.
    """
    if asked_mps is not None:
        require_number("speed_mps", asked_mps, low=SLOWEST_MPS, high=FASTEST_MPS, unit="m/s")
        return asked_mps, "The speed is your own."
    low, high = (
        (method.speed_low_mps, method.speed_high_mps) if method is not None
        else tuple(mph * MPH_MPS for mph in USUAL_MPH[now.trip.species])
    )
    middle, half = 0.5 * (low + high), max(0.5 * (high - low), 0.1)
    tenths = range(round(low / MPH_MPS * 10), round(high / MPH_MPS * 10) + 1)
    counts = {lure.id: lure.count for lure in now.state.outfit.lures}

    def worth(speed: float) -> float:
        """What the best looks for so many rods add up to, each lure as often as it is aboard."""
        total, left = 0.0, rods
        seen: set[str] = set()
        for look in looks:
            if left == 0:
                break
            if look.lure_id not in seen and look.works_at(speed):
                seen.add(look.lure_id)
                taken = min(counts[look.lure_id], left, 2)
                total += taken * look.score
                left -= taken
        return total - _OFF_MIDDLE * rods * ((speed - middle) / half) ** 2

    best = max((tenth / 10.0 * MPH_MPS for tenth in tenths), key=lambda v: (worth(v), -v))
    if method is None:
        return best, "Of the speeds that are usual for these fish the one at which most of what " \
                     "suits them works. No method of the hour speaks yet: read the surface " \
                     "temperature first."
    return best, f"{method.reason} ({method.school}.) The speed is the one in its band at which " \
                 "most of what suits works, with room for gusts."
