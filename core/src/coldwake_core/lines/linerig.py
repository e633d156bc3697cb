"""A lure on a line: the tackle as one thing that turns a number into a depth and back."""

from __future__ import annotations

import math
from dataclasses import dataclass, field, replace
from typing import Final

from ..checks import require_number
from ..errors import InvalidInputError
from ..water.fresh import Water
from .bodies import Ball, EndLoad, TowedBody
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
        Depth of a downrigger's ball, or of a weight on the line, m.
    ball_trail_m : float or None
        Distance of it behind the tip or boom, m.
    paths : tuple of tuple of (float, float)
        What the side view draws: lines of (behind the tip, below the surface) points, m; the
        first runs from tip to towed end.
    """

    setting_m: float
    depth_m: float
    trail_m: float
    at_surface: bool
    ball_depth_m: float | None = None
    ball_trail_m: float | None = None
    paths: tuple[tuple[tuple[float, float], ...], ...] = field(default=())


@dataclass(frozen=True, slots=True, kw_only=True)
class Sinker:
    """A weight on the line ahead of lure and attractor: in line, or on a drop line from a slider.

    Parameters
    ----------
    ball : Ball
        The weight.
    ahead_m : float
        Line from the attractor (or the lure alone) up to it, m: the bumper of a dropper rig.
    drop_m : float
        Drop line from the slider to the weight, m; 0 for a weight in line.
    """

    ball: Ball
    ahead_m: float
    drop_m: float = 0.0

    def check(self) -> None:
        """Raise InvalidInputError unless it could be tied."""
        require_number("ahead_m", self.ahead_m, above=0.0, high=30.0, unit="m")
        require_number("drop_m", self.drop_m, low=0.0, high=3.0, unit="m")


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
    sinker : Sinker or None
        A weight on the line.
    """

    stretches: tuple[tuple[LineMaterial, float], ...]
    bodies: tuple[TowedBody, ...]
    tip_height_m: float
    sinker: Sinker | None = None

    @property
    def longest_m(self) -> float:
        """Greatest setting, m."""
        return math.fsum(length for _, length in self.stretches)

    def check(self) -> None:
        """Raise InvalidInputError unless the weight fits on the line."""
        self._stretches()

    def check_number(self, setting_m: float) -> None:
        """Raise InvalidInputError unless this number can be set.

        Parameters
        ----------
        setting_m : float
            Line out from the rod tip, m.
        """
        check_setting(setting_m, self.longest_m)

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
            for material, length in self._stretches()
        ]
        hung = None
        if self.sinker is not None:
            hung = self.sinker.ball.load(speed, water, drag_factor=shift.body_drag)
            hung = EndLoad(hung.back_n, hung.down_n * shift.weight)
            at = self._joint()
            segments[at] = replace(
                segments[at], hung_back_n=hung.back_n, hung_down_n=hung.down_n
            )
        curve = integrate_line(
            segments, tension_n=load.tension_n, angle_rad=load.angle_rad, speed_mps=speed,
            water=water, tolerance=shift.tolerance,
        )
        return SolvedLine(
            paid_out=PaidOutLine.build(
                curve, tip_height_m=self.tip_height_m,
                air_weights_npm=tuple(segment.weight_air_npm for segment in segments),
            ),
            sinker=self.sinker, hung=hung,
        )

    def _stretches(self) -> list[tuple[LineMaterial, float]]:
        """The stretches, cut in two where a weight is tied."""
        if self.sinker is None:
            return list(self.stretches)
        self.sinker.check()
        cut, left = [], self.sinker.ahead_m
        for material, length in self.stretches:
            if 0.0 < left < length:
                cut += [(material, left), (material, length - left)]
            else:
                cut.append((material, length))
            left -= length
        if left >= 0.0:
            raise InvalidInputError(
                "ahead_m", self.sinker.ahead_m, f"less than the {self.longest_m:.1f} m of line"
            )
        return cut

    def _joint(self) -> int:
        """Index of the stretch whose lower end carries the weight."""
        assert self.sinker is not None
        below = 0.0
        for index, (_, length) in enumerate(self._stretches()):
            if below >= self.sinker.ahead_m * (1 - 1e-12):
                return index
            below += length
        raise AssertionError("a weight beyond the line is refused before")


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
    """A line rig at a speed. ``hung`` is the pull of the weight on it, if there is one."""

    paid_out: PaidOutLine
    sinker: Sinker | None = None
    hung: EndLoad | None = None

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
        trail = top.forward_m + span.forward_m
        weight = self._weight(top, trail)
        paths: tuple[tuple[tuple[float, float], ...], ...] = ()
        if picture:
            start = ((0.0, -self.paid_out.tip_height_m),)
            paths = (start + seen_from_tip(self.paid_out.line, top, behind_m=span.forward_m),)
            if weight is not None and self.sinker is not None and self.sinker.drop_m > 0.0:
                paths += (weight,)
        return Placement(
            setting_m=setting_m, depth_m=top.up_m, trail_m=trail, at_surface=False, paths=paths,
            ball_depth_m=None if weight is None else weight[1][1],
            ball_trail_m=None if weight is None else weight[1][0],
        )

    def _weight(
        self, top: LinePoint, trail_m: float
    ) -> tuple[tuple[float, float], tuple[float, float]] | None:
        """Slider and weight, behind the tip and below the surface; None while it is in the air."""
        if self.sinker is None or self.hung is None or self.sinker.ahead_m >= top.arc_m:
            return None
        slider = self.paid_out.line.at(self.sinker.ahead_m)
        behind, below = trail_m - slider.forward_m, top.up_m - slider.up_m
        # The drop line is short: straight along the pull of its weight.
        drop, angle = self.sinker.drop_m, self.hung.angle_rad
        return (behind, below), (
            behind + drop * math.cos(angle), below + drop * math.sin(angle)
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
            high=longest_m, reason="reel",
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
