"""What the instruments of a simulated boat say, as NMEA 0183 sentences."""

from __future__ import annotations

import functools
from collections.abc import Iterator
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Final

import numpy as np

from ..chart.grid import moved
from .sailing import Sailing

KNOT_MPS: Final = 1852.0 / 3600.0
TRANSDUCER_M: Final = 0.4
FIX_SD_M: Final = 1.5
WHEEL_SD_MPS: Final = 0.03
DEPTH_SD_M: Final = 0.04
WARM_SD_DEGC: Final = 0.03
"""How far receiver, wheel, sounder and thermometer are off from second to second (judged)."""
SHALLOWEST_MARK_M: Final = 0.3


@dataclass(frozen=True, slots=True, kw_only=True)
class Around:
    """What is around a boat at a moment.

    Parameters
    ----------
    depth_m : float
        Of the bottom, m.
    surface_degc : float
        Surface temperature, degrees Celsius.
    mark_m : float or None
        Depth of the fish under the beam, m.
    """

    depth_m: float
    surface_degc: float
    mark_m: float | None


def sentence(body: str) -> str:
    """Return a sentence with its frame and checksum.

    Parameters
    ----------
    body : str
        What stands between ``$`` and ``*``.

    Returns
    -------
    str
        With its line end.

    References
    ----------
    NMEA 0183: the checksum is the exclusive or of all characters of the body. From memory.
    """
    check = functools.reduce(lambda sum_, char: sum_ ^ ord(char), body, 0)
    return f"${body}*{check:02X}\r\n"


def says(boat: Sailing, around: Around, now_s: float, rng: np.random.Generator) -> Iterator[str]:
    """Return what a boat's instruments say at a moment.

    Parameters
    ----------
    boat : Sailing
        The boat.
    around : Around
        What is around it.
    now_s : float
        The moment, seconds since 1970-01-01 UTC.
    rng : numpy.random.Generator
        By how much they are off.

    Returns
    -------
    iterator of str
        Place, course and speed over ground, speed through the water, depth, temperature, and a
        mark where there is one (``$PCWK``, our own).
    """
    told = datetime.fromtimestamp(now_s, UTC)
    clock, day = f"{told:%H%M%S}", f"{told:%d%m%y}"
    fix = moved(
        boat.place, course_deg=rng.uniform(0.0, 360.0), distance_m=abs(rng.normal(0.0, FIX_SD_M))
    )
    yield sentence(
        f"GPRMC,{clock},A,{_angle(fix.latitude_deg, 2, 'NS')},"
        f"{_angle(fix.longitude_deg, 3, 'EW')},{boat.ground_mps / KNOT_MPS:.2f},"
        f"{boat.ground_deg:.1f},{day},,,A"
    )
    wheel = max(boat.speed_mps + rng.normal(0.0, WHEEL_SD_MPS), 0.0) / KNOT_MPS
    yield sentence(f"IIVHW,,T,{boat.course_deg:.1f},M,{wheel:.2f},N,{wheel * 1.852:.2f},K")
    under = around.depth_m - TRANSDUCER_M + rng.normal(0.0, DEPTH_SD_M)
    yield sentence(f"SDDPT,{max(under, 0.0):.2f},{TRANSDUCER_M:.1f}")
    yield sentence(f"IIMTW,{around.surface_degc + rng.normal(0.0, WARM_SD_DEGC):.1f},C")
    if around.mark_m is not None and around.mark_m > SHALLOWEST_MARK_M:
        yield sentence(f"PCWK,{around.mark_m:.1f}")


def _angle(degrees: float, whole: int, letters: str) -> str:
    size = abs(degrees)
    return (
        f"{int(size):0{whole}d}{60.0 * (size % 1.0):07.4f},{letters[0 if degrees >= 0.0 else 1]}"
    )
