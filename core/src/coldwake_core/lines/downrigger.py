"""A lure clipped above a ball on a cable."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Final

from ..checks import require_number
from ..errors import InvalidInputError
from ..water.fresh import Water
from .bodies import Ball, EndLoad, TowedBody
from .curve import TowedLine
from .linerig import NO_SHIFT, Placement, Shift, check_setting, seen_from_tip, total_load
from .materials import LineMaterial
from .paidout import PaidOutLine
from .towed import integrate_line

ROD_LINE_SHARE: Final = 0.5
"""Share of the drag of the line from clip to rod that the cable carries: a line held at both ends
hangs half its load on each."""


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
        load = total_load(self.bodies, speed, water, shift)
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
        check_setting(setting_m, self.rig.longest_m)
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
                *seen_from_tip(self.cable.line, top, behind_m=span.forward_m),
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
