"""Lures clipped to a cable above a ball: one line, or several stacked on the same cable."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace
from itertools import pairwise
from typing import Final

from ..checks import require_number
from ..errors import InvalidInputError
from ..water.fresh import Water
from .bodies import Ball, EndLoad, TowedBody
from .curve import LinePoint, TowedLine
from .linerig import NO_SHIFT, Placement, Shift, check_setting, seen_from_tip, total_load
from .materials import LineMaterial
from .paidout import PaidOutLine
from .towed import Segment, integrate_line

ROD_LINE_SHARE: Final = 0.5
"""Share of the drag of the line from clip to rod that the cable carries: a line held at both ends
hangs half its load on each."""
CLIP_ABOVE_BALL_M: Final = 0.3
"""The lowest clip sits just above the ball."""
_NEAREST_CLIPS_M: Final = 0.05
_CLIP_ROUNDS: Final = 4


@dataclass(frozen=True, slots=True, kw_only=True)
class ClippedLine:
    """A line clipped to a cable, or slid down it with a weight of its own.

    Parameters
    ----------
    line : LineMaterial
        Line from clip to lure, and from clip to rod.
    setback_m : float
        Line from clip to lure, m.
    bodies : tuple of TowedBody
        Lure and attractor.
    above_ball_m : float
        Cable between ball and clip, m.
    slider : Ball or None
        Weight of a line that slid down the cable by itself.
    """

    line: LineMaterial
    setback_m: float
    bodies: tuple[TowedBody, ...]
    above_ball_m: float = CLIP_ABOVE_BALL_M
    slider: Ball | None = None

    def check(self) -> None:
        """Raise InvalidInputError unless it could be clipped."""
        require_number("setback_m", self.setback_m, above=0.0, high=200.0, unit="m")
        require_number("above_ball_m", self.above_ball_m, above=0.0, high=100.0, unit="m")


@dataclass(frozen=True, slots=True, kw_only=True)
class DownriggerRig:
    """A cable with a ball and the lines clipped to it, seen for one of them.

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
    clipped : ClippedLine
        The line that is asked about.
    mates : tuple of ClippedLine
        Other lines on the same cable.
    """

    cable: LineMaterial
    cable_length_m: float
    ball: Ball
    boom_height_m: float
    clipped: ClippedLine
    mates: tuple[ClippedLine, ...] = ()

    @property
    def longest_m(self) -> float:
        """Greatest setting, m."""
        return self.cable_length_m - self.boom_height_m

    def _lines(self) -> list[ClippedLine]:
        return sorted((self.clipped, *self.mates), key=lambda line: line.above_ball_m)

    def check(self) -> None:
        """Raise InvalidInputError unless every line has a clip's place of its own."""
        lines = self._lines()
        for line in lines:
            line.check()
        for lower, upper in pairwise(lines):
            if upper.above_ball_m - lower.above_ball_m < _NEAREST_CLIPS_M:
                raise InvalidInputError(
                    "above_ball_m", upper.above_ball_m,
                    "a place of its own on the cable, 5 cm at least from the next clip",
                )
        if lines[-1].above_ball_m >= self.longest_m:
            raise InvalidInputError(
                "above_ball_m", lines[-1].above_ball_m,
                f"less than the {self.longest_m:.1f} m of cable", high=self.longest_m,
            )

    def check_number(self, setting_m: float) -> None:
        """Raise InvalidInputError unless this number can be set with the clip in the water.

        Parameters
        ----------
        setting_m : float
            Cable on the counter, m.
        """
        check_setting(setting_m, self.longest_m)
        above = self.clipped.above_ball_m
        if above > CLIP_ABOVE_BALL_M and setting_m <= above:
            raise InvalidInputError(
                "setting_m", round(setting_m, 2),
                f"more than the {above:.1f} m of cable between ball and clip, or the clip is dry",
                low=above, reason="clip",
            )

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

        Raises
        ------
        InvalidInputError
            If two lines share a clip's place, or one is clipped higher than the cable is long.

        Notes
        -----
        Each setback is solved first; its pull, with a slider's own weight, acts on the cable at
        its clip. Each line from clip to rod rides beside the cable above the clip, which carries
        half of its drag (ROD_LINE_SHARE). Lure and setback trail behind the clip and may run above
        or below it.
        """
        speed = max(speed_mps + shift.speed_mps, 0.0)
        lines = self._lines()
        self.check()
        setbacks = [_setback(line, speed, water, shift) for line in lines]
        ball = self.ball.load(speed, water, drag_factor=shift.body_drag)
        start = EndLoad(ball.back_n, ball.down_n * shift.weight)
        curve = integrate_line(
            self._segments(lines, setbacks, speed, water, shift), tension_n=start.tension_n,
            angle_rad=start.angle_rad, speed_mps=speed, water=water, tolerance=shift.tolerance,
        )
        air = self.cable.segment(1.0, water=water).weight_air_npm
        return SolvedDownrigger(
            rig=self, setback=setbacks[lines.index(self.clipped)],
            cable=PaidOutLine.build(
                curve, tip_height_m=self.boom_height_m, air_weights_npm=(air,) * (len(lines) + 1),
            ),
            clip=curve.at(self.clipped.above_ball_m),
        )

    def _segments(
        self, lines: list[ClippedLine], setbacks: list[TowedLine], speed_mps: float, water: Water,
        shift: Shift,
    ) -> list[Segment]:
        """The cable from the ball up, cut at each clip, with what pulls there."""
        marks = [0.0, *(line.above_ball_m for line in lines), self.cable_length_m]
        beside, hung = 0.0, EndLoad(0.0, 0.0)
        segments = []
        for index, (low, high) in enumerate(pairwise(marks)):
            if index > 0:
                line, top = lines[index - 1], setbacks[index - 1].points[-1]
                beside += ROD_LINE_SHARE * line.line.diameter_m / self.cable.diameter_m
                hung = EndLoad(
                    top.tension_n * math.cos(top.angle_rad),
                    top.tension_n * math.sin(top.angle_rad),
                )
                if line.slider is not None:
                    own = line.slider.load(speed_mps, water, drag_factor=shift.body_drag)
                    hung = hung + EndLoad(own.back_n, own.down_n * shift.weight)
            plain = self.cable.segment(
                high - low, water=water, drag_factor=shift.line_drag * (1.0 + beside)
            )
            segments.append(Segment(
                length_m=plain.length_m, diameter_m=plain.diameter_m, weight_npm=plain.weight_npm,
                drag_factor=plain.drag_factor, weight_air_npm=plain.weight_air_npm,
                hung_back_n=hung.back_n, hung_down_n=hung.down_n,
            ))
        return segments


def _setback(line: ClippedLine, speed_mps: float, water: Water, shift: Shift) -> TowedLine:
    load = total_load(line.bodies, speed_mps, water, shift)
    return integrate_line(
        (line.line.segment(line.setback_m, water=water, drag_factor=shift.line_drag),),
        tension_n=load.tension_n, angle_rad=load.angle_rad, speed_mps=speed_mps, water=water,
        tolerance=shift.tolerance,
    )


@dataclass(frozen=True, slots=True, kw_only=True)
class SolvedDownrigger:
    """A downrigger at a speed. ``clip`` is the clip's place on the cable, seen from the ball."""

    rig: DownriggerRig
    setback: TowedLine
    cable: PaidOutLine
    clip: LinePoint

    @property
    def longest_m(self) -> float:
        """Greatest setting, m."""
        return self.rig.longest_m

    @property
    def lure_below_ball_m(self) -> float:
        """Depth of the lure less that of the ball, m."""
        return self.setback.points[-1].up_m - self.clip.up_m

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
            If the setting is no length, more than the spool holds, or leaves the clip in the air.
        """
        self.rig.check_number(setting_m)
        found = self.cable.waterline(setting_m + self.rig.boom_height_m)
        if found is None:
            # Too little cable to put the ball under at this speed: it skips, and the lure with it.
            behind = math.sqrt(setting_m * (setting_m + 2.0 * self.rig.boom_height_m))
            trail = behind + self.setback.points[-1].forward_m
            return Placement(
                setting_m=setting_m, depth_m=0.0, trail_m=trail, at_surface=True,
                ball_depth_m=0.0, ball_trail_m=behind,
                paths=(
                    ((0.0, -self.rig.boom_height_m), (behind, 0.0)), ((behind, 0.0), (trail, 0.0)),
                ) if picture else (),
            )
        top, span = found
        ball_depth, ball_behind = top.up_m, top.forward_m + span.forward_m
        end = self.setback.points[-1]
        depth = ball_depth + self.lure_below_ball_m
        clip_behind = ball_behind - self.clip.forward_m
        paths: tuple[tuple[tuple[float, float], ...], ...] = ()
        if picture:
            cable = (
                (0.0, -self.rig.boom_height_m),
                *seen_from_tip(self.cable.line, top, behind_m=span.forward_m),
            )
            clip_depth = ball_depth - self.clip.up_m
            rear = clip_behind + end.forward_m
            line = tuple(
                (rear - p.forward_m, max(clip_depth + end.up_m - p.up_m, 0.0))
                for p in reversed(self.setback.points)
            )
            paths = (cable, line)
        return Placement(
            setting_m=setting_m, depth_m=max(depth, 0.0), trail_m=clip_behind + end.forward_m,
            at_surface=depth <= 0.0, ball_depth_m=ball_depth, ball_trail_m=ball_behind,
            paths=paths,
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


def stack_height_m(
    rig: DownriggerRig, speed_mps: float, water: Water, *, setting_m: float, depth_m: float
) -> float | None:
    """Return how far above the ball to clip a second line, with the counter left as it is.

    Parameters
    ----------
    rig : DownriggerRig
        The cable with its lines.
    speed_mps : float
        Speed through water, m/s.
    water : Water
        Density and viscosity.
    setting_m : float
        Cable on the counter, m.
    depth_m : float
        Wanted depth of this line's lure, m.

    Returns
    -------
    float or None
        Cable between ball and clip, m; None where the cable does not pass at that depth.

    Notes
    -----
    The clip's own pull moves with it, so the cable is solved again with the clip where it was
    found, until it stays there.
    """
    height: float | None = rig.clipped.above_ball_m
    for _ in range(_CLIP_ROUNDS):
        assert height is not None
        moved = replace(rig, clipped=replace(rig.clipped, above_ball_m=height))
        solved = moved.solve(speed_mps, water)
        ball = solved.cable.waterline(setting_m + rig.boom_height_m)
        if ball is None:
            return None
        clip_depth = depth_m - solved.setback.points[-1].up_m
        height = _arc_at_rise(solved.cable.line, ball[0].up_m - clip_depth)
        if clip_depth <= 0.0 or height is None or not CLIP_ABOVE_BALL_M <= height < rig.longest_m:
            return None
    return height


def _arc_at_rise(cable: TowedLine, rise_m: float) -> float | None:
    """Cable from the ball up to where it stands so much above it, m."""
    if not 0.0 < rise_m < cable.points[-1].up_m:
        return None
    low, high = 0.0, cable.length_m
    for _ in range(50):
        middle = 0.5 * (low + high)
        low, high = (middle, high) if cable.at(middle).up_m < rise_m else (low, middle)
    return 0.5 * (low + high)
