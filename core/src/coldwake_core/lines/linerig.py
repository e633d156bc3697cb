"""A lure on a line: the tackle as one thing that turns a number into a depth and back."""

from __future__ import annotations

import math
from dataclasses import dataclass, field
from typing import Final

from ..checks import require_number
from ..errors import InvalidInputError
from ..water.fresh import Water
from .bodies import EndLoad, TowedBody
from .curve import LinePoint, TowedLine
from .materials import LineMaterial
from .paidout import PaidOutLine
from .towed import CURVE_TOLERANCE, integrate_line


@dataclass(frozen=True, slots=True, kw_only=True)
class Shift:
    """A departure of the inputs from their stated values, used to carry doubt.

    Parameters
    ----------
    speed_mps : float
        Added to the speed, m/s.
    line_drag, body_drag, body_lift, weight : float
        Factors on the line's normal drag, the body's drag, its lip or plate force, and the weight
        of line and ball.
    coarse : bool
        Whether it serves only to see what a change does, which need not be as fine as a value.
    """

    speed_mps: float = 0.0
    line_drag: float = 1.0
    body_drag: float = 1.0
    body_lift: float = 1.0
    weight: float = 1.0
    coarse: bool = False

    @property
    def tolerance(self) -> float:
        """Integration error allowed, rad and m per m."""
        return 50.0 * CURVE_TOLERANCE if self.coarse else CURVE_TOLERANCE


NO_SHIFT: Final = Shift()


@dataclass(frozen=True, slots=True, kw_only=True)
class Placement:
    """Where a lure is with a number set.

    Parameters
    ----------
    setting_m : float
        The number: line out, leader and leadcore out, or cable on the counter, m.
    depth_m : float
        Depth of the lure below the surface, m, >= 0.
    trail_m : float
        Distance of the lure behind the rod tip or boom, m.
    at_surface : bool
        Whether the lure is at the surface: it floats, or skips.
    ball_depth_m : float or None
        Depth of the downrigger ball, m.
    paths : tuple of tuple of (float, float)
        What the side view draws: lines of (behind the tip, below the surface) points, m; the
        first runs from tip to towed end.
    """

    setting_m: float
    depth_m: float
    trail_m: float
    at_surface: bool
    ball_depth_m: float | None = None
    paths: tuple[tuple[tuple[float, float], ...], ...] = field(default=())


@dataclass(frozen=True, slots=True, kw_only=True)
class LineRig:
    """A lure on a line: flat line, diving plug on a flat line, or leadcore.

    Parameters
    ----------
    stretches : tuple of (LineMaterial, float)
        Materials and lengths, m, from lure to reel; the last ends at the spool.
    bodies : tuple of TowedBody
        Lure, attractor and weights at the end.
    tip_height_m : float
        Height of the rod tip above the water, m.
    """

    stretches: tuple[tuple[LineMaterial, float], ...]
    bodies: tuple[TowedBody, ...]
    tip_height_m: float

    @property
    def longest_m(self) -> float:
        """Greatest setting, m."""
        return math.fsum(length for _, length in self.stretches)

    def solve(self, speed_mps: float, water: Water, shift: Shift = NO_SHIFT) -> SolvedLine:
        """Return the rig at a speed: every depth for every length in one computation.

        Parameters
        ----------
        speed_mps : float
            Speed through water, m/s, >= 0.
        water : Water
            Density and viscosity.
        shift : Shift
            Departure of the inputs.

        Returns
        -------
        SolvedLine
        """
        speed = max(speed_mps + shift.speed_mps, 0.0)
        load = total_load(self.bodies, speed, water, shift)
        segments = [
            material.segment(
                length, water=water, weight_factor=shift.weight, drag_factor=shift.line_drag
            )
            for material, length in self.stretches
        ]
        curve = integrate_line(
            segments, tension_n=load.tension_n, angle_rad=load.angle_rad, speed_mps=speed,
            water=water, tolerance=shift.tolerance,
        )
        return SolvedLine(
            paid_out=PaidOutLine.build(
                curve, tip_height_m=self.tip_height_m,
                air_weights_npm=tuple(segment.weight_air_npm for segment in segments),
            )
        )


def total_load(
    bodies: tuple[TowedBody, ...], speed_mps: float, water: Water, shift: Shift = NO_SHIFT
) -> EndLoad:
    """Return the pull of all that is at the end of a line.

    Parameters
    ----------
    bodies : tuple of TowedBody
        Lure, attractor and weights.
    speed_mps : float
        Speed through water, m/s.
    water : Water
        Density and viscosity.
    shift : Shift
        Departure of the inputs.

    Returns
    -------
    EndLoad
    """
    load = EndLoad(0.0, 0.0)
    for body in bodies:
        load = load + body.load(
            speed_mps, water, drag_factor=shift.body_drag, lift_factor=shift.body_lift
        )
    return load


@dataclass(frozen=True, slots=True, kw_only=True)
class SolvedLine:
    """A line rig at a speed."""

    paid_out: PaidOutLine

    @property
    def longest_m(self) -> float:
        """Greatest setting, m."""
        return self.paid_out.longest_m

    @property
    def deepest_m(self) -> float:
        """Greatest depth of the lure, m."""
        return self.paid_out.deepest_m

    def place(self, setting_m: float, *, picture: bool = True) -> Placement:
        """Return where the lure is with so much line out.

        Parameters
        ----------
        setting_m : float
            Line out from the rod tip, m, > 0 and no more than the reel holds.
        picture : bool
            Whether to make the path for the side view.

        Returns
        -------
        Placement

        Raises
        ------
        InvalidInputError
            If the setting is no length or more than the reel holds.
        """
        check_setting(setting_m, self.paid_out.longest_m)
        found = self.paid_out.waterline(setting_m)
        if found is None or found[0].up_m <= 0.0:
            # Nothing pulls it under: the lure rides at the surface at the end of a taut line.
            height = min(self.paid_out.tip_height_m, setting_m)
            trail = math.sqrt(setting_m**2 - height**2)
            return Placement(
                setting_m=setting_m, depth_m=0.0, trail_m=trail, at_surface=True,
                paths=(((0.0, -height), (trail, 0.0)),) if picture else (),
            )
        top, span = found
        paths: tuple[tuple[tuple[float, float], ...], ...] = ()
        if picture:
            start = ((0.0, -self.paid_out.tip_height_m),)
            paths = (start + seen_from_tip(self.paid_out.line, top, behind_m=span.forward_m),)
        return Placement(
            setting_m=setting_m, depth_m=top.up_m, trail_m=top.forward_m + span.forward_m,
            at_surface=False, paths=paths,
        )

    def setting_for(self, depth_m: float) -> float:
        """Return the line out that puts the lure at a depth.

        Parameters
        ----------
        depth_m : float
            Wanted depth of the lure, m, > 0.

        Returns
        -------
        float
            Line out, m.

        Raises
        ------
        NoSolutionError
            If it cannot be reached at this speed.
        """
        require_number("depth_m", depth_m, above=0.0, high=300.0, unit="m")
        return self.paid_out.out_for_height(depth_m)


def check_setting(setting_m: float, longest_m: float) -> None:
    """Raise InvalidInputError unless a reel holds this much line.

    Parameters
    ----------
    setting_m : float
        The number, m.
    longest_m : float
        What the reel holds, m.
    """
    require_number("setting_m", setting_m, above=0.0, unit="m")
    if setting_m > longest_m * (1 + 1e-9):
        raise InvalidInputError(
            "setting_m", round(setting_m, 2), f"<= {longest_m:.1f} m, which is what the reel holds",
            high=longest_m,
        )


def seen_from_tip(
    line: TowedLine, top: LinePoint, *, behind_m: float
) -> tuple[tuple[float, float], ...]:
    """Return a line as the side view draws it, from the surface down to the towed end.

    Parameters
    ----------
    line : TowedLine
        The curve.
    top : LinePoint
        Where the surface cuts it.
    behind_m : float
        How far behind the tip that is, m.

    Returns
    -------
    tuple of (float, float)
        Behind the tip, m, and below the surface, m.
    """
    below = [point for point in line.points if point.arc_m < top.arc_m]
    drawn = [(behind_m, 0.0)]
    drawn += [
        (behind_m + top.forward_m - point.forward_m, top.up_m - point.up_m)
        for point in reversed(below)
    ]
    return tuple(drawn)
