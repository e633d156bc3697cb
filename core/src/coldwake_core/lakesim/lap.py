"""The boat's lap as ground that is passed: what was met on it, and whether to turn round."""

from __future__ import annotations

import math
from typing import Final

from ..advice.turning import AHEAD_MIN, turning_gain
from ..evidence.day_model import STEP_MIN
from ..evidence.ground import Ground
from .day import Aboard

TROLLED_M: Final = 43.0
"""What a boat trolls in a minute, m: 1.6 mph."""


def note_ground(ground: Ground, aboard: Aboard) -> float:
    """Note what was met on the last five minutes' way.

    Parameters
    ----------
    ground : Ground
        Takes it.
    aboard : Aboard
        What was met, and where.

    Returns
    -------
    float
        How many fish that way holds against the mean; 1 where the world has no lap.
    """
    since = max(aboard.minute - int(STEP_MIN), 0)
    way = [_on_lap(place, aboard.lap_min) for place in aboard.places[since:]]
    for at, (east, north) in enumerate(way, since):
        ground.pass_by(
            at_min=at, east_m=east, north_m=north, minutes=1.0,
            marks=sum(1 for when, _ in aboard.marks if when == at),
            hits=sum(1 for when, _ in aboard.hits if when == at),
        )
    held = ground.holds(at_min=aboard.minute, places=way)
    return math.fsum(held) / len(held) if held else 1.0


def gain_of_turning(ground: Ground, aboard: Aboard, rate_pm: float) -> float:
    """Return how many hits are to be gained by turning round on the lap.

    Parameters
    ----------
    ground : Ground
        What was met.
    aboard : Aboard
        Where the boat is, and which way it goes.
    rate_pm : float
        Hits a minute of all rods where as many fish are met as usual.

    Returns
    -------
    float
        0 where the world has no lap.
    """
    if not aboard.places:
        return 0.0
    here, step = aboard.places[-1], aboard.way / aboard.lap_min
    ahead, back = (
        ground.holds(at_min=aboard.minute, places=[
            _on_lap(here + way * step * i, aboard.lap_min) for i in range(1, AHEAD_MIN + 1)
        ])
        for way in (1, -1)
    )
    return turning_gain(rate_pm=rate_pm, ahead=ahead, back=back)


def _on_lap(place: float, lap_min: float) -> tuple[float, float]:
    """Where a place of a lap lies, m east and north of its middle: laps are taken for circles."""
    across_m = lap_min * TROLLED_M / (2.0 * math.pi)
    angle = 2.0 * math.pi * place
    return across_m * math.sin(angle), across_m * math.cos(angle)
