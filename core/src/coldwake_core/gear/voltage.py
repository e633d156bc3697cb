"""Voltage of a downrigger's cable in the water: the electrolysis test, and what is made of it."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final, Literal

from ..checks import require_number

VoltageVerdict = Literal["negative", "low", "good", "high"]
GOOD_LOW_V: Final = 0.5
GOOD_HIGH_V: Final = 0.8
"""With the boat's metal as ground, at trolling speed (common practice)."""
SCHOOLS: Final = (
    "One school holds that a negative cable drives fish off and mends it before the first line; "
    "another that it matters little. A reading costs a minute."
)


@dataclass(frozen=True, slots=True, kw_only=True)
class VoltageReading:
    """What a reading says.

    Parameters
    ----------
    volts : float
        Cable against the boat's metal, V.
    verdict : VoltageVerdict
        Below, inside or above what is wanted.
    words : str
        What to do.
    """

    volts: float
    verdict: VoltageVerdict
    words: str


def check_volts(volts: object) -> float:
    """Return a voltage that a cable in fresh water can show.

    Parameters
    ----------
    volts : object
        What came in, V.

    Returns
    -------
    float

    Raises
    ------
    InvalidInputError
        If it is none.
    """
    return require_number("volts", volts, low=-15.0, high=15.0, unit="V")


def read_voltage(volts: float) -> VoltageReading:
    """Return what a cable's voltage says.

    Parameters
    ----------
    volts : float
        Cable against the boat's metal, at trolling speed, V.

    Returns
    -------
    VoltageReading

    Raises
    ------
    InvalidInputError
        If it is no voltage of a cable.

    Examples
    --------
    >>> read_voltage(0.65).verdict
    'good'
    """
    check_volts(volts)
    if volts < 0.0:
        return VoltageReading(
            volts=volts, verdict="negative",
            words="Negative: look for reversed leads on an electric unit, then a bad ground.",
        )
    if volts < GOOD_LOW_V:
        return VoltageReading(
            volts=volts, verdict="low", words="Positive but low: check anodes and the ground."
        )
    if volts <= GOOD_HIGH_V:
        return VoltageReading(volts=volts, verdict="good", words="As it should be.")
    return VoltageReading(
        volts=volts, verdict="high",
        words="High: look for a current leaking from a pump, a light or the motor.",
    )
