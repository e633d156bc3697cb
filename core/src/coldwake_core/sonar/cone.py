"""What a boat's sonar makes of a ball that trails."""

from __future__ import annotations

import math
from dataclasses import dataclass

from ..checks import require_number


@dataclass(frozen=True, slots=True, kw_only=True)
class Sounder:
    """Where the boat's sonar looks from, and how wide.

    Parameters
    ----------
    depth_m : float
        Transducer below the surface, m.
    ahead_m : float
        Transducer ahead of the transom, m; negative behind it.
    cone_deg : float
        Full angle of its cone, degrees.
    """

    depth_m: float = 0.3
    ahead_m: float = 0.3
    cone_deg: float = 20.0

    def check(self) -> None:
        """Raise InvalidInputError unless it could be mounted."""
        require_number("depth_m", self.depth_m, low=0.0, high=3.0, unit="m")
        require_number("ahead_m", self.ahead_m, low=-10.0, high=10.0, unit="m")
        require_number("cone_deg", self.cone_deg, low=4.0, high=120.0, unit="degrees")

    def shows(self, *, depth_m: float, behind_m: float) -> SonarView:
        """Return what the sonar makes of a ball.

        Parameters
        ----------
        depth_m : float
            True depth of the ball, m.
        behind_m : float
            Ball behind the transom, m.

        Returns
        -------
        SonarView

        Notes
        -----
        A sounder shows the slant range from its transducer as depth; seen from there the ball
        stands off the axis by the angle whose tangent is its distance behind over its depth below.
        """
        below, behind = depth_m - self.depth_m, behind_m + self.ahead_m
        return SonarView(
            reads_m=math.hypot(below, behind) + self.depth_m,
            seen=math.atan2(abs(behind), max(below, 0.0)) <= math.radians(0.5 * self.cone_deg),
        )


@dataclass(frozen=True, slots=True, kw_only=True)
class SonarView:
    """What a sounder makes of a ball: the depth it reads, m, and whether it sees it at all."""

    reads_m: float
    seen: bool
