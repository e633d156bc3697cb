"""What a mark on the screen means: time in the cone, and not the size of a fish."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Final, Literal

from ..checks import require_number
from ..errors import InvalidInputError
from .cone import Sounder

Look = Literal["dot", "dash", "arch", "worm"]
DOT_PINGS: Final = 2.0
DASH_PINGS: Final = 6.0
WORM_S: Final = 8.0
"""Pings of a dot and of a dash, and seconds from which an arch is drawn out to a worm (judged, from
"a dot at 40 mph, an arch near 10, a long worm at 1 mph or adrift")."""


@dataclass(frozen=True, slots=True, kw_only=True)
class MarkMeaning:
    """What a fish that crosses the middle of the cone leaves on the screen.

    Parameters
    ----------
    width_m : float
        Width of the water that is seen at its depth, m.
    seconds : float
        How long it is in the cone, s.
    pings : float
        How many pings meet it.
    arch_m : float
        How much deeper its ends read than its middle, m.
    look : {'dot', 'dash', 'arch', 'worm'}
        What it looks like.
    """

    width_m: float
    seconds: float
    pings: float
    arch_m: float
    look: Look


def mark_of(
    sounder: Sounder, *, depth_m: float, speed_mps: float, pings_ps: float
) -> MarkMeaning:
    """Return what a fish that stands still leaves on the screen as the boat passes over it.

    Parameters
    ----------
    sounder : Sounder
        The boat's.
    depth_m : float
        Depth of the fish, m.
    speed_mps : float
        Speed over it, m/s.
    pings_ps : float
        Pings a second.

    Returns
    -------
    MarkMeaning

    Raises
    ------
    InvalidInputError
        If the fish is not under the transducer, or there is no such speed or rate.

    Notes
    -----
    With h the depth below the transducer and b half its cone's angle: width 2 h tan(b), time that
    over the speed, ends deeper by h (1 / cos(b) - 1).

    References
    ----------
    Simmonds, E.J. & MacLennan, D.N. (2005). Fisheries Acoustics, 2nd ed. Blackwell.
    """
    sounder.check()
    require_number("depth_m", depth_m, low=0.0, high=300.0, unit="m")
    require_number("speed_mps", speed_mps, above=0.0, high=40.0, unit="m/s")
    require_number("pings_ps", pings_ps, above=0.0, high=200.0)
    below = depth_m - sounder.depth_m
    if below <= 0.0:
        raise InvalidInputError("depth_m", depth_m, "deeper than the transducer")
    half = math.radians(0.5 * sounder.cone_deg)
    width = 2.0 * below * math.tan(half)
    seconds = width / speed_mps
    pings = seconds * pings_ps
    look: Look = "worm" if seconds >= WORM_S else "arch"
    if pings <= DASH_PINGS:
        look = "dot" if pings <= DOT_PINGS else "dash"
    return MarkMeaning(
        width_m=width, seconds=seconds, pings=pings,
        arch_m=below * (1.0 / math.cos(half) - 1.0), look=look,
    )


def off_axis_m(
    sounder: Sounder, *, depth_m: float, speed_mps: float, seconds: float
) -> float | None:
    """Return how far off the axis a fish stood that was in the cone for a time.

    Parameters
    ----------
    sounder : Sounder
        The boat's.
    depth_m : float
        Depth of the fish, m.
    speed_mps : float
        Speed over it, m/s.
    seconds : float
        How long it was on the screen, s.

    Returns
    -------
    float or None
        Metres to one side or the other; None where it was on longer than any fish that stands
        still: it swam along, or it is no fish.

    Notes
    -----
    The chord of a circle: 2 sqrt(r^2 - d^2) is the way in the cone. A half arch says only that the
    fish came or went by the edge: anything between the axis and r.
    """
    require_number("seconds", seconds, low=0.0, high=3600.0)
    whole = mark_of(sounder, depth_m=depth_m, speed_mps=speed_mps, pings_ps=1.0)
    radius, way = 0.5 * whole.width_m, seconds * speed_mps
    if way > whole.width_m * (1.0 + 1e-9):
        return None
    return math.sqrt(max(radius**2 - 0.25 * way**2, 0.0))


def trace_of(
    sounder: Sounder, *, depth_m: float, speed_mps: float, pings_ps: float, aside_m: float = 0.0
) -> tuple[tuple[float, float], ...]:
    """Return what each ping draws of a fish that stands still.

    Parameters
    ----------
    sounder : Sounder
        The boat's.
    depth_m : float
        Depth of the fish, m.
    speed_mps : float
        Speed past it, m/s.
    pings_ps : float
        Pings a second.
    aside_m : float
        How far it stands off the boat's track, m.

    Returns
    -------
    tuple of (float, float)
        Seconds from the nearest point, and the depth that is read there, m; at most 600 pings. None
        where the cone does not reach it.

    Notes
    -----
    Slant range by Pythagoras, plus the transducer's depth.
    """
    whole = mark_of(sounder, depth_m=depth_m, speed_mps=speed_mps, pings_ps=pings_ps)
    require_number("aside_m", aside_m, low=0.0, high=200.0, unit="m")
    radius = 0.5 * whole.width_m
    if aside_m > radius:
        return ()
    half = math.sqrt(radius**2 - aside_m**2) / speed_mps
    below = depth_m - sounder.depth_m
    count = min(int(2.0 * half * pings_ps), 599)
    times = [-half + 2.0 * half * i / count for i in range(count + 1)] if count else [0.0]
    return tuple(
        (t, math.sqrt(below**2 + aside_m**2 + (speed_mps * t) ** 2) + sounder.depth_m)
        for t in times
    )
