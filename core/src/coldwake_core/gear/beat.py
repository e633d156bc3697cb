"""The tip's beat: a blade's swing grows with speed, and tells the speed at depth."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Final

from ..checks import require_number
from ..errors import InvalidInputError

FEWEST_BEATS: Final = 6
"""Fewer say too little: the count is out by up to one at either end."""
COUNT_SPREAD: Final = 0.5
"""Standard deviation of a count of beats between a first and a last one (judged)."""
MODEL_SPREAD: Final = 0.05
"""Departure of a swing from strict proportion over a blade's working range (judged)."""
_QUANTILE: Final = 1.2815515655446004


@dataclass(frozen=True, slots=True, kw_only=True)
class Beat:
    """A count of the tip's nods at a known speed: beside the boat.

    Parameters
    ----------
    beats : int
        Beats counted.
    seconds : float
        Over how long, s.
    speed_mps : float
        Speed through water then, m/s.
    """

    beats: int
    seconds: float
    speed_mps: float

    def check(self) -> None:
        """Raise InvalidInputError unless it could be counted by hand."""
        check_count(self.beats, self.seconds)
        require_number("speed_mps", self.speed_mps, low=0.1, high=4.5, unit="m/s")

    @property
    def rate_hz(self) -> float:
        """Beats a second."""
        return self.beats / self.seconds


@dataclass(frozen=True, slots=True, kw_only=True)
class SpeedAtDepth:
    """A speed read from a beat.

    Parameters
    ----------
    speed_mps : float
        Speed through water where the blade is, m/s.
    doubt_mps : float
        Half-width of the 80 % band, m/s.
    """

    speed_mps: float
    doubt_mps: float


def check_count(beats: object, seconds: object) -> None:
    """Raise InvalidInputError unless beats were counted that a hand can count.

    Parameters
    ----------
    beats : object
        How many.
    seconds : object
        Over how long, s.
    """
    counted = require_number("beats", beats, low=FEWEST_BEATS, high=500)
    over = require_number("seconds", seconds, above=0.0, high=300.0, unit="s")
    if counted / over > 15.0:
        raise InvalidInputError("beats", beats, "at most 15 a second: nobody counts faster")


def predicted_rate_hz(reference: Beat, speed_mps: float) -> float:
    """Return the beat to expect at another speed.

    Parameters
    ----------
    reference : Beat
        What was counted beside the boat.
    speed_mps : float
        Speed through water, m/s, >= 0.

    Returns
    -------
    float
        Beats a second.

    Notes
    -----
    A body that sheds or flutters at a Strouhal number ``St = f L / V`` that hardly changes over
    its range beats in proportion to speed, whatever its length (Strouhal 1878; Hoerner 1965, ch. 3;
    from memory). The user's own count sets the constant, so no blade needs one in a table.

    Examples
    --------
    >>> predicted_rate_hz(Beat(beats=20, seconds=10.0, speed_mps=0.6), 0.9)
    3.0
    """
    require_number("speed_mps", speed_mps, low=0.0, high=10.0, unit="m/s")
    return reference.rate_hz * speed_mps / reference.speed_mps


def speed_from_beat(reference: Beat, *, beats: int, seconds: float) -> SpeedAtDepth:
    """Return the speed at which a blade swings, from its beat now.

    Parameters
    ----------
    reference : Beat
        What was counted beside the boat.
    beats : int
        Beats counted now.
    seconds : float
        Over how long, seconds.

    Returns
    -------
    SpeedAtDepth

    Raises
    ------
    InvalidInputError
        If the count is no count.
    """
    check_count(beats, seconds)
    speed = reference.speed_mps * (beats / seconds) / reference.rate_hz
    relative = math.sqrt(
        (COUNT_SPREAD / beats) ** 2 + (COUNT_SPREAD / reference.beats) ** 2 + MODEL_SPREAD**2
    )
    return SpeedAtDepth(speed_mps=speed, doubt_mps=_QUANTILE * relative * speed)
