"""Rigs: a rod's whole tackle as one thing that turns a number into a depth and back."""

from __future__ import annotations

import math
from dataclasses import dataclass, field
from typing import Final

from ..checks import require_number
from ..constants import COLOUR_M
from ..errors import InvalidInputError
from ..water.fresh import Water
from .bodies import Ball, EndLoad, TowedBody
from .materials import LineMaterial
from .paidout import PaidOutLine
from .towed import CURVE_TOLERANCE, LinePoint, TowedLine, integrate_line

ROD_LINE_SHARE: Final = 0.5
"""Share of the drag of the line from clip to rod that the cable carries: a line held at both ends
hangs half its load on each."""

_SLACK_LINE_N = 1e-6


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
    """

    speed_mps: float = 0.0
    line_drag: float = 1.0
    body_drag: float = 1.0
    body_lift: float = 1.0
    weight: float = 1.0

    @property
    def tolerance(self) -> float:
        """Integration error allowed, rad and m per m: a change need not be as fine as a value."""
        return CURVE_TOLERANCE if self == NO_SHIFT else 50.0 * CURVE_TOLERANCE


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
        load = _total(self.bodies, speed, water, shift)
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


def _total(bodies: tuple[TowedBody, ...], speed: float, water: Water, shift: Shift) -> EndLoad:
    load = EndLoad(0.0, 0.0)
    for body in bodies:
        load = load + body.load(
            speed, water, drag_factor=shift.body_drag, lift_factor=shift.body_lift
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
        _check_setting(setting_m, self.paid_out.longest_m)
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
            paths = (start + _path(self.paid_out.line, top, behind_m=span.forward_m),)
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


def _check_setting(setting_m: float, longest_m: float) -> None:
    require_number("setting_m", setting_m, above=0.0, unit="m")
    if setting_m > longest_m * (1 + 1e-9):
        raise InvalidInputError(
            "setting_m", round(setting_m, 2), f"<= {longest_m:.1f} m, which is what the reel holds",
            high=longest_m,
        )


def _path(line: TowedLine, top: LinePoint, *, behind_m: float) -> tuple[tuple[float, float], ...]:
    """Return (behind the tip, below the surface) from the surface down to the towed end."""
    below = [point for point in line.points if point.arc_m < top.arc_m]
    drawn = [(behind_m, 0.0)]
    drawn += [
        (behind_m + top.forward_m - point.forward_m, top.up_m - point.up_m)
        for point in reversed(below)
    ]
    return tuple(drawn)


@dataclass(frozen=True, slots=True, kw_only=True)
class DownriggerRig:
    """A lure on a setback of line clipped above a ball on a cable.

    Parameters
    ----------
    cable : LineMaterial
        Cable.
    cable_length_m : float
        Cable on the spool, m.
    ball : Ball
        The weight.
    boom_height_m : float
        Height of the boom's end above the water, m; the counter is zeroed with the ball at the
        surface.
    line : LineMaterial
        Line from clip to lure, and from clip to rod.
    setback_m : float
        Line from clip to lure, m.
    clip_above_ball_m : float
        Height of the clip above the ball, m.
    bodies : tuple of TowedBody
        Lure and attractor.
    """

    cable: LineMaterial
    cable_length_m: float
    ball: Ball
    boom_height_m: float
    line: LineMaterial
    setback_m: float
    bodies: tuple[TowedBody, ...]
    clip_above_ball_m: float = 0.3

    @property
    def longest_m(self) -> float:
        """Greatest setting, m."""
        return self.cable_length_m - self.boom_height_m

    def solve(self, speed_mps: float, water: Water, shift: Shift = NO_SHIFT) -> SolvedDownrigger:
        """Return the rig at a speed.

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
        SolvedDownrigger

        Notes
        -----
        The setback is solved first; its pull at the clip is added to the ball's. The line from
        clip to rod rides beside the cable, which carries half of its drag (ROD_LINE_SHARE). Lure
        and setback trail behind the clip and may run above or below it. The clip is taken to sit
        at the ball for the force and above it for the depth: the cable is taut there.
        """
        speed = max(speed_mps + shift.speed_mps, 0.0)
        load = _total(self.bodies, speed, water, shift)
        setback = integrate_line(
            (self.line.segment(self.setback_m, water=water, drag_factor=shift.line_drag),),
            tension_n=load.tension_n, angle_rad=load.angle_rad, speed_mps=speed, water=water,
            tolerance=shift.tolerance,
        )
        clip = setback.points[-1]
        ball = self.ball.load(speed, water, drag_factor=shift.body_drag)
        pull = EndLoad(
            ball.back_n + clip.tension_n * math.cos(clip.angle_rad),
            ball.down_n * shift.weight + clip.tension_n * math.sin(clip.angle_rad),
        )
        rod_line = ROD_LINE_SHARE * self.line.diameter_m / self.cable.diameter_m
        segment = self.cable.segment(
            self.cable_length_m, water=water, drag_factor=shift.line_drag * (1.0 + rod_line)
        )
        cable = integrate_line(
            (segment,), tension_n=pull.tension_n, angle_rad=pull.angle_rad, speed_mps=speed,
            water=water, tolerance=shift.tolerance,
        )
        return SolvedDownrigger(
            rig=self, setback=setback,
            cable=PaidOutLine.build(
                cable, tip_height_m=self.boom_height_m,
                air_weights_npm=(segment.weight_air_npm,),
            ),
        )


@dataclass(frozen=True, slots=True, kw_only=True)
class SolvedDownrigger:
    """A downrigger at a speed."""

    rig: DownriggerRig
    setback: TowedLine
    cable: PaidOutLine

    @property
    def longest_m(self) -> float:
        """Greatest setting, m."""
        return self.rig.longest_m

    @property
    def lure_below_ball_m(self) -> float:
        """Depth of the lure less that of the ball, m."""
        return self.setback.points[-1].up_m - self.rig.clip_above_ball_m

    @property
    def deepest_m(self) -> float:
        """Greatest depth of the lure, m."""
        return self.cable.deepest_m + self.lure_below_ball_m

    def place(self, setting_m: float, *, picture: bool = True) -> Placement:
        """Return where lure and ball are with a number on the counter.

        Parameters
        ----------
        setting_m : float
            Cable on the counter, m, zeroed with the ball at the surface.
        picture : bool
            Whether to make the paths for the side view.

        Returns
        -------
        Placement

        Raises
        ------
        InvalidInputError
            If the setting is no length or more than the spool holds.
        """
        _check_setting(setting_m, self.rig.longest_m)
        found = self.cable.waterline(setting_m + self.rig.boom_height_m)
        if found is None:
            raise InvalidInputError("setting_m", setting_m, "enough cable to put the ball under")
        top, span = found
        ball_depth, ball_behind = top.up_m, top.forward_m + span.forward_m
        end = self.setback.points[-1]
        depth = ball_depth + self.lure_below_ball_m
        paths: tuple[tuple[tuple[float, float], ...], ...] = ()
        if picture:
            cable = (
                (0.0, -self.rig.boom_height_m),
                *_path(self.cable.line, top, behind_m=span.forward_m),
            )
            clip_depth = ball_depth - self.rig.clip_above_ball_m
            rear = ball_behind + end.forward_m
            line = tuple(
                (rear - p.forward_m, max(clip_depth + end.up_m - p.up_m, 0.0))
                for p in reversed(self.setback.points)
            )
            paths = (cable, line)
        return Placement(
            setting_m=setting_m, depth_m=max(depth, 0.0), trail_m=ball_behind + end.forward_m,
            at_surface=depth <= 0.0, ball_depth_m=ball_depth, paths=paths,
        )

    def setting_for(self, depth_m: float) -> float:
        """Return the counter reading that puts the LURE at a depth.

        Parameters
        ----------
        depth_m : float
            Wanted depth of the lure, m, > 0.

        Returns
        -------
        float
            Cable on the counter, m.

        Raises
        ------
        NoSolutionError
            If it cannot be reached at this speed.
        """
        require_number("depth_m", depth_m, above=0.0, high=300.0, unit="m")
        ball_depth = max(depth_m - self.lure_below_ball_m, 0.05)
        return self.cable.out_for_height(ball_depth) - self.rig.boom_height_m


Rig = LineRig | DownriggerRig
Solved = SolvedLine | SolvedDownrigger


@dataclass(frozen=True, slots=True)
class LeadcoreNumber:
    """Leadcore out as it is counted on the water.

    Parameters
    ----------
    colours : int
        Whole colours out.
    rest_m : float
        Length beyond them, m.
    backing_m : float
        Backing out once the whole core is, m.
    """

    colours: int
    rest_m: float
    backing_m: float


def leadcore_number(setting_m: float, *, leader_m: float, core_m: float) -> LeadcoreNumber:
    """Return the colours that a length of line out shows.

    Parameters
    ----------
    setting_m : float
        Line out from the rod tip, leader included, m.
    leader_m : float
        Leader ahead of the lure, m.
    core_m : float
        Leadcore on the reel, m.

    Returns
    -------
    LeadcoreNumber

    Examples
    --------
    >>> leadcore_number(6.0 + 3 * 9.144, leader_m=6.0, core_m=91.44).colours
    3
    """
    core_out = min(max(setting_m - leader_m, 0.0), core_m)
    # A hand cannot set two inches of leadcore: just short of a colour is that colour.
    colours = int((core_out + 0.05) / COLOUR_M)
    return LeadcoreNumber(
        colours=colours,
        rest_m=max(core_out - colours * COLOUR_M, 0.0),
        backing_m=max(setting_m - leader_m - core_m, 0.0),
    )
