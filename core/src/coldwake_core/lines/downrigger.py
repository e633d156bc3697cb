"""Lures clipped to a cable above a ball: one line, or several stacked on the same cable."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from itertools import pairwise
from typing import Final

from ..checks import require_number
from ..errors import InvalidInputError, NoSolutionError, TooDeepError, TooShallowError
from ..water.fresh import Water
from . import assumed
from .bodies import Ball, EndLoad, TowedBody
from .curve import LinePoint, TowedLine
from .linerig import Placement, Target, check_setting, seen_from_tip, strumming_share
from .materials import LineMaterial
from .paidout import PaidOutLine
from .pulls import (
    NO_SHIFT,
    WATER_TOLERANCE,
    Shift,
    Slopes,
    add_pulls,
    load_slopes,
    total_load,
    weight_slopes,
)
from .slopes import Goal, line_slopes, surface_slopes
from .towed import Segment, integrate_line

CLIP_ABOVE_BALL_M: Final = 0.3
"""The lowest clip sits just above the ball."""
LEAST_BALL_M: Final = 0.05
"""A ball this deep is just under water: its cable is not let out less than that."""
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

    def lines(self) -> list[ClippedLine]:
        """Return all lines on the cable, the lowest clip first.

        Returns
        -------
        list of ClippedLine
        """
        return sorted((self.clipped, *self.mates), key=lambda line: line.above_ball_m)

    def check(self) -> None:
        """Raise InvalidInputError unless every line has a clip's place of its own."""
        lines = self.lines()
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

    def solve(
        self, speed_mps: float, water: Water, shift: Shift = NO_SHIFT, *,
        reach_m: float | None = None, tolerance: float = WATER_TOLERANCE,
    ) -> SolvedDownrigger:
        """Return the rig at a speed.

        Parameters
        ----------
        speed_mps : float
            Speed through water, m/s, >= 0.
        water : Water
            Density and viscosity.
        shift : Shift
            Departure of the inputs.
        reach_m : float, optional
            No higher number than this will be asked about, m; the whole cable when left out.
        tolerance : float
            Error allowed per step of the integration.

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
        half of its drag (assumed.ROD_LINE_SHARE). Lure and setback trail behind the clip and may
        run above or below it.
        """
        require_number("boom_height_m", self.boom_height_m, low=0.0, high=10.0, unit="m")
        speed = max(speed_mps + shift.speed_mps, 0.0)
        lines = self.lines()
        self.check()
        length = self.cable_length_m
        if reach_m is not None:
            # The clips need their cable even where it is dry.
            highest = max(reach_m + self.boom_height_m, lines[-1].above_ball_m + _NEAREST_CLIPS_M)
            length = min(length, highest)
        setback_segments = [_setback_segment(line, water, shift) for line in lines]
        setbacks = []
        for line, segment in zip(lines, setback_segments, strict=True):
            load = total_load(line.bodies, speed, water, shift)
            setbacks.append(integrate_line(
                (segment,), tension_n=load.tension_n, angle_rad=load.angle_rad, speed_mps=speed,
                water=water, tolerance=tolerance,
            ))
        ball = self.ball.load(speed, water, drag_factor=shift.body_drag)
        start = EndLoad(ball.back_n, ball.down_n * shift.weight)
        segments = self.cable_segments(lines, water, shift, length)
        for index, (line, setback) in enumerate(zip(lines, setbacks, strict=True)):
            hung = _hung(line, setback, speed, water, shift)
            segments[index + 1] = replace(
                segments[index + 1], hung_back_n=hung.back_n, hung_down_n=hung.down_n
            )
        curve = integrate_line(
            segments, tension_n=start.tension_n, angle_rad=start.angle_rad, speed_mps=speed,
            water=water, tolerance=tolerance,
        )
        air = self.cable.segment(1.0, water=water).weight_air_npm
        return SolvedDownrigger(
            rig=self, speed_mps=speed, water=water, shift=shift, segments=tuple(segments),
            setback_segments=tuple(setback_segments), setbacks=tuple(setbacks),
            own=lines.index(self.clipped),
            cable=PaidOutLine(
                line=curve, tip_height_m=self.boom_height_m, longest_m=self.cable_length_m,
                air_weights_npm=(air,) * (len(lines) + 1),
            ),
            clip=curve.at(self.clipped.above_ball_m),
        )

    def cable_segments(
        self, lines: Sequence[ClippedLine], water: Water, shift: Shift, length_m: float
    ) -> list[Segment]:
        """Return the cable from the ball up, cut at each clip, without what pulls there.

        Parameters
        ----------
        lines : sequence of ClippedLine
            The lines on it, the lowest clip first.
        water : Water
            Density and viscosity.
        shift : Shift
            Departure of the inputs.
        length_m : float
            Cable from the ball up that matters, m.

        Returns
        -------
        list of Segment
            Each with the drag of the lines that ride beside it.
        """
        marks = [0.0, *(line.above_ball_m for line in lines), length_m]
        beside = 0.0
        segments = []
        for index, (low, high) in enumerate(pairwise(marks)):
            if index > 0:
                beside += (
                    assumed.ROD_LINE_SHARE.value
                    * lines[index - 1].line.diameter_m / self.cable.diameter_m
                )
            segments.append(self.cable.segment(
                high - low, water=water, drag_factor=shift.line_drag * (1.0 + beside),
                strum_factor=shift.strumming,
            ))
        return segments


def _hung(
    line: ClippedLine, setback: TowedLine, speed_mps: float, water: Water, shift: Shift
) -> EndLoad:
    """What pulls on the cable at a clip: the setback, and the weight of a line that slid down."""
    top = setback.points[-1]
    hung = EndLoad(
        top.tension_n * math.cos(top.angle_rad), top.tension_n * math.sin(top.angle_rad)
    )
    if line.slider is None:
        return hung
    own = line.slider.load(speed_mps, water, drag_factor=shift.body_drag)
    return hung + EndLoad(own.back_n, own.down_n * shift.weight)


def _setback_segment(line: ClippedLine, water: Water, shift: Shift) -> Segment:
    return line.line.segment(
        line.setback_m, water=water, drag_factor=shift.line_drag, strum_factor=shift.strumming
    )


@dataclass(frozen=True, slots=True, kw_only=True)
class SolvedDownrigger:
    """A downrigger at a speed.

    Parameters
    ----------
    rig : DownriggerRig
        The rig.
    speed_mps : float
        Speed through water it was solved at, m/s.
    water : Water
        Density and viscosity.
    shift : Shift
        Departure of the inputs it was solved with.
    segments : tuple of Segment
        The cable, cut at each clip.
    setback_segments : tuple of Segment
        The setbacks, lowest clip first.
    setbacks : tuple of TowedLine
        Their curves.
    own : int
        Which of them is asked about.
    cable : PaidOutLine
        Curve of the cable.
    clip : LinePoint
        The own clip's place on it, seen from the ball.
    """

    rig: DownriggerRig
    speed_mps: float
    water: Water
    shift: Shift
    segments: tuple[Segment, ...]
    setback_segments: tuple[Segment, ...]
    setbacks: tuple[TowedLine, ...]
    own: int
    cable: PaidOutLine
    clip: LinePoint

    @property
    def setback(self) -> TowedLine:
        """Curve of the setback that is asked about."""
        return self.setbacks[self.own]

    def slopes(self, setting_m: float, *, of: Target = "lure") -> Slopes | None:
        """Return what each input does to the depth with a number on the counter.

        Parameters
        ----------
        setting_m : float
            Cable on the counter, m.
        of : {'lure', 'ball', 'ball_trail'}
            Depth of the lure, depth of the ball, or the ball's distance behind the boom's end.

        Returns
        -------
        dict of str to float, or None
            None where ball or lure is at the surface.
        """
        found = self.cable.waterline(setting_m + self.rig.boom_height_m)
        if found is None or found[0].up_m + self.lure_below_ball_m <= 0.0:
            return None
        top = found[0]
        # The lure's depth is the clip's and its fall below that: the cable counts from the clip up.
        above = self.clip.arc_m if of == "lure" else 0.0
        goal = Goal(0.0, 1.0) if of == "ball_trail" else Goal(above_m=above)
        laws = [segment.law(self.speed_mps, self.water) for segment in self.segments]
        by_angle, by_tension, by_out = surface_slopes(
            top, tip_height_m=self.rig.boom_height_m, air_weight_npm=self.cable.air_weights_npm[0],
            stretch=self.segments[-1], law=laws[-1], goal=goal,
        )
        line = line_slopes(
            self.cable.line, self.segments, laws, top=top, by_angle=by_angle,
            by_tension=by_tension, goal=goal,
        )
        slopes: Slopes = {
            "line_drag": line.line_drag, "strumming": line.strumming, "weight": line.weight,
            "speed_mps": line.speed / max(self.speed_mps, 1e-6), "setting": by_out * setting_m,
        }
        add_pulls(
            slopes, line.pulls[0],
            weight_slopes(self.rig.ball, self.speed_mps, self.water, self.shift), self.speed_mps,
        )
        for index, clipped in enumerate(self.rig.lines()):
            self._add_setback(slopes, index, clipped, line.pulls[index + 1], of)
        return slopes

    def lag_s(self, setting_m: float) -> float:
        """Return how long the lure's depth takes to follow a change of speed.

        Parameters
        ----------
        setting_m : float
            Cable on the counter, m.

        Returns
        -------
        float
            Time in which the lure travels its own trail, s: a ball moves little, and its setback
            swings up or down behind it.
        """
        place = self.place(setting_m, picture=False)
        return place.trail_m / max(self.speed_mps, 1e-6)

    def sinking(self) -> Slopes:
        """Return in what direction of its inputs a lure that runs at the surface would sink.

        Returns
        -------
        dict of str to float
            With the clip just under water, by its number; the rest of no account.
        """
        return {"setting": 1.0}

    def _add_setback(
        self, slopes: Slopes, index: int, clipped: ClippedLine, pull: tuple[float, float],
        of: Target,
    ) -> None:
        """What a setback's inputs do: by its pull on the cable, and by its own fall if asked."""
        curve, segment = self.setbacks[index], self.setback_segments[index]
        end = curve.points[-1]
        s, c = math.sin(end.angle_rad), math.cos(end.angle_rad)
        own = of == "lure" and index == self.own
        below = line_slopes(
            curve, (segment,), (segment.law(self.speed_mps, self.water),), top=end,
            by_angle=end.tension_n * (pull[1] * c - pull[0] * s),
            by_tension=pull[0] * c + pull[1] * s, goal=Goal() if own else Goal(0.0),
        )
        slopes["line_drag"] += below.line_drag
        slopes["strumming"] += below.strumming
        slopes["speed_mps"] += below.speed / max(self.speed_mps, 1e-6)
        add_pulls(
            slopes, below.pulls[0],
            load_slopes(clipped.bodies, self.speed_mps, self.water, self.shift), self.speed_mps,
        )
        if clipped.slider is not None:
            add_pulls(
                slopes, pull,
                weight_slopes(clipped.slider, self.speed_mps, self.water, self.shift),
                self.speed_mps,
            )

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
            strumming=strumming_share(
                self.cable.line, top,
                [segment.law(self.speed_mps, self.water) for segment in self.segments],
            ) if picture else None,
            beyond_law=self.rig.ball.is_beyond_law(self.speed_mps, self.water),
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
        below = self.lure_below_ball_m
        shallowest = max(below, 0.0) + LEAST_BALL_M
        if depth_m < shallowest:
            raise TooShallowError(
                "cannot be held so shallow: with the ball just under water it runs at "
                f"{shallowest:.1f} m", field="depth_m", limit=shallowest,
            )
        try:
            setting = self.cable.out_for_height(depth_m - below) - self.rig.boom_height_m
        except NoSolutionError as error:
            # The limit is the ball's: what the lure does there is what was asked.
            limit = max((error.limit or 0.0) + below, 0.0)
            deep = isinstance(error, TooDeepError)
            raise type(error)(
                "cannot be reached at this speed: deepest is " f"{limit:.1f} m" if deep else
                f"cannot be held so shallow at this speed: shallowest is {limit:.1f} m",
                field="depth_m", limit=limit,
            ) from error
        dry = self.rig.clipped.above_ball_m
        if dry > CLIP_ABOVE_BALL_M and setting <= dry:
            limit = self.place(dry * (1.0 + 1e-6), picture=False).depth_m
            raise TooShallowError(
                f"cannot be held so shallow: its clip would be dry; shallowest is {limit:.1f} m",
                field="depth_m", limit=limit,
            )
        return setting


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
        Cable between ball and clip, m; None where the cable does not pass at that depth, or
        where another line is clipped.

    Notes
    -----
    The clip's own pull moves with it, so the cable is solved again with the clip where it was
    found, until it stays there. On the way it may pass another clip: it is then tried beside it.
    """
    height: float | None = rig.clipped.above_ball_m
    for _ in range(_CLIP_ROUNDS):
        assert height is not None
        tried = _beside_mates(rig, height)
        moved = replace(rig, clipped=replace(rig.clipped, above_ball_m=tried))
        solved = moved.solve(speed_mps, water)
        ball = solved.cable.waterline(setting_m + rig.boom_height_m)
        if ball is None:
            return None
        clip_depth = depth_m - solved.setback.points[-1].up_m
        height = _arc_at_rise(solved.cable.line, ball[0].up_m - clip_depth)
        if clip_depth <= 0.0 or height is None or not CLIP_ABOVE_BALL_M <= height < rig.longest_m:
            return None
    assert height is not None
    return height if height == _beside_mates(rig, height) else None


def _beside_mates(rig: DownriggerRig, height_m: float) -> float:
    """Nearest place at or above a height on the cable that no other clip takes, m."""
    for mate in sorted(line.above_ball_m for line in rig.mates):
        if abs(height_m - mate) < _NEAREST_CLIPS_M:
            # A hair more, or rounding makes it too near again.
            height_m = mate + 1.001 * _NEAREST_CLIPS_M
    return height_m


def _arc_at_rise(cable: TowedLine, rise_m: float) -> float | None:
    """Cable from the ball up to where it stands so much above it, m."""
    if not 0.0 < rise_m < cable.points[-1].up_m:
        return None
    low, high = 0.0, cable.length_m
    for _ in range(50):
        middle = 0.5 * (low + high)
        low, high = (middle, high) if cable.at(middle).up_m < rise_m else (low, middle)
    return 0.5 * (low + high)
