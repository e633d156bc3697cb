"""Turns: their radius, and how the boat sees what goes round with it."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Final, Literal

from ..checks import require_number
from ..errors import InvalidInputError

Side = Literal["port", "starboard"]

TIGHTEST_M: Final = 2.0
USUAL_RADIUS_M: Final = 30.0
"""A turn with lines out, where nobody says how wide (judged)."""
CUT_SHARE: Final = 0.12
CUT_TRAIL_M: Final = 60.0
"""A lure so far back cuts corners: it loses this share of its speed in an S-turn of the usual
width, a shorter trail as much less (``manoeuvre.unfold``)."""


def turn_radius_m(*, speed_mps: float, rate_degps: float) -> float:
    """Return the radius of a turn from speed and rate of turn.

    Parameters
    ----------
    speed_mps : float
        Speed through water, m/s, > 0.
    rate_degps : float
        Rate of turn, degrees a second, > 0.

    Returns
    -------
    float
        Radius, m.

    References
    ----------
    Bowditch, N. The American Practical Navigator, the chapter on manoeuvring: radius from speed and
    rate of turn. From memory.

    Examples
    --------
    >>> round(turn_radius_m(speed_mps=1.0, rate_degps=360 / 6.283185307), 6)
    1.0
    """
    require_number("speed_mps", speed_mps, above=0.0, high=20.0, unit="m/s")
    require_number("rate_degps", rate_degps, above=0.0, high=90.0, unit="degrees/s")
    return speed_mps / math.radians(rate_degps)


def asked_radius_m(
    *, speed_mps: float, radius_m: float | None, rate_degps: float | None
) -> float | None:
    """Return the radius of a turn asked for by its radius or by its rate.

    Parameters
    ----------
    speed_mps : float
        Speed through water, m/s.
    radius_m : float or None
        Radius, m.
    rate_degps : float or None
        Rate of turn, degrees a second.

    Returns
    -------
    float or None
        Radius, m; None where neither is given.

    Raises
    ------
    InvalidInputError
        If both are given, or the rate cannot be.
    """
    if rate_degps is None:
        return radius_m
    if radius_m is not None:
        raise InvalidInputError("rate_degps", rate_degps, "left out where a radius is given")
    return turn_radius_m(speed_mps=speed_mps, rate_degps=rate_degps)


def turn_speed_share(*, outward_m: float, trail_m: float) -> float:
    """Return how fast a lure is pulled in a turn of the usual width, as a share of the boat.

    Parameters
    ----------
    outward_m : float
        How far its tip or board stands to the outer side, m; negative inside.
    trail_m : float
        How far it trails, m.

    Returns
    -------
    float
        0 for a tip at the centre of the turn or beyond it.

    Notes
    -----
    The tip goes round its own circle, R + outward_m, and the lure behind it cuts the corner: within
    0.08 of the mean over an S-turn as it unfolds, for trails up to 60 m.
    """
    tip = max(1.0 + outward_m / USUAL_RADIUS_M, 0.0)
    return tip * (1.0 - CUT_SHARE * min(trail_m / CUT_TRAIL_M, 1.0))


@dataclass(frozen=True, slots=True, kw_only=True)
class PlanPoint:
    """A place seen from above, from the boat's stern.

    Parameters
    ----------
    behind_m : float
        Behind the stern, m.
    side_m : float
        To starboard, m.
    """

    behind_m: float
    side_m: float


@dataclass(frozen=True, slots=True, kw_only=True)
class TipInTurn:
    """A rod tip, board or boom's end in a turn.

    Parameters
    ----------
    radius_m : float
        Radius of the boat's circle, m.
    toward : {'port', 'starboard'}
        The side turned to.
    aft_m, side_m : float
        Its place: behind the transom and to starboard, m.
    """

    radius_m: float
    toward: Side
    aft_m: float
    side_m: float

    @property
    def outward_m(self) -> float:
        """How far it stands to the outer side of the boat, m; negative inside."""
        # Turning to starboard, a tip to starboard is nearer the centre.
        return self.side_m if self.toward == "port" else -self.side_m

    @property
    def tip_radius_m(self) -> float:
        """Radius of its own circle, m."""
        return math.hypot(self.radius_m + self.outward_m, self.aft_m)

    @property
    def is_beyond_centre(self) -> bool:
        """Whether the centre of the turn lies between it and the boat."""
        return self.radius_m + self.outward_m <= 0.0

    def from_boat(self, *, radius_m: float, behind_rad: float) -> PlanPoint:
        """Return where the boat sees a point that follows this tip round.

        Parameters
        ----------
        radius_m : float
            Radius of the point's circle, m.
        behind_rad : float
            Angle at the centre by which it follows the tip, rad.

        Returns
        -------
        PlanPoint

        Examples
        --------
        >>> tip = TipInTurn(radius_m=50.0, toward="port", aft_m=0.0, side_m=3.0)
        >>> tip.from_boat(radius_m=53.0, behind_rad=0.0)
        PlanPoint(behind_m=0.0, side_m=3.0)
        """
        angle = behind_rad + math.atan2(self.aft_m, self.radius_m + self.outward_m)
        outward = radius_m * math.cos(angle) - self.radius_m
        return PlanPoint(
            behind_m=radius_m * math.sin(angle),
            side_m=outward if self.toward == "port" else -outward,
        )
