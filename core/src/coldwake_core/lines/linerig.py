"""A lure on a line: the tackle as one thing that turns a number into a depth and back."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, field, replace
from itertools import pairwise
from typing import Final, Literal

from ..checks import require_number
from ..errors import InvalidInputError
from ..water.fresh import Water
from .bodies import Ball, EndLoad, TowedBody
from .curve import LinePoint, TowedLine
from .drag import LineLaw
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
from .slopes import DEPTH, Goal, line_slopes, surface_slopes
from .towed import Segment, integrate_line

Target = Literal["lure", "ball", "ball_trail"]


_STEADY: Final = 0.02
_LITTLE_M: Final = 0.05
"""A depth that changes less than this with the whole speed has no lag to speak of, m."""


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
    strumming : float or None
        By how much strumming raises the normal drag of the line (the cable), on the mean; None
        where it was not asked.
    beyond_law : bool
        Whether its ball goes faster than its drag is known for.
    """

    setting_m: float
    depth_m: float
    trail_m: float
    at_surface: bool
    ball_depth_m: float | None = None
    ball_trail_m: float | None = None
    paths: tuple[tuple[tuple[float, float], ...], ...] = field(default=())
    strumming: float | None = None
    beyond_law: bool = False


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
        self.stretches_cut()

    def check_number(self, setting_m: float) -> None:
        """Raise InvalidInputError unless this number can be set.

        Parameters
        ----------
        setting_m : float
            Line out from the rod tip, m.
        """
        check_setting(setting_m, self.longest_m)

    def solve(
        self, speed_mps: float, water: Water, shift: Shift = NO_SHIFT, *,
        reach_m: float | None = None, tolerance: float = WATER_TOLERANCE,
    ) -> SolvedLine:
        """Return the rig at a speed: every depth for every length in one computation.

        Parameters
        ----------
        speed_mps : float
            Speed through water, m/s, >= 0.
        water : Water
            Density and viscosity.
        shift : Shift
            Departure of the inputs.
        reach_m : float, optional
            No more line out than this will be asked about, m; the whole reel when left out.
        tolerance : float
            Error allowed per step of the integration.

        Returns
        -------
        SolvedLine
        """
        require_number("tip_height_m", self.tip_height_m, low=0.0, high=10.0, unit="m")
        speed = max(speed_mps + shift.speed_mps, 0.0)
        load = total_load(self.bodies, speed, water, shift)
        stretches, joint = self.stretches_cut(), self.joint
        reach = self.longest_m if reach_m is None else reach_m
        segments = []
        for index, (material, length) in enumerate(stretches):
            if reach <= 1e-9:
                break
            segment = material.segment(
                min(length, reach), water=water, weight_factor=shift.weight,
                drag_factor=shift.line_drag, strum_factor=shift.strumming,
            )
            reach -= length
            if index == joint:
                hung = self.hung_load(speed, water, shift)
                segment = replace(segment, hung_back_n=hung.back_n, hung_down_n=hung.down_n)
            segments.append(segment)
        curve = integrate_line(
            segments, tension_n=load.tension_n, angle_rad=load.angle_rad, speed_mps=speed,
            water=water, tolerance=tolerance,
        )
        return SolvedLine(
            rig=self, speed_mps=speed, water=water, shift=shift, segments=tuple(segments),
            paid_out=PaidOutLine(
                line=curve, tip_height_m=self.tip_height_m, longest_m=self.longest_m,
                air_weights_npm=tuple(segment.weight_air_npm for segment in segments),
            ),
        )

    def hung_load(self, speed_mps: float, water: Water, shift: Shift) -> EndLoad:
        """Return the pull of the weight on the line.

        Parameters
        ----------
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
        assert self.sinker is not None
        hung = self.sinker.ball.load(speed_mps, water, drag_factor=shift.body_drag)
        return EndLoad(hung.back_n, hung.down_n * shift.weight)

    def stretches_cut(self) -> list[tuple[LineMaterial, float]]:
        """Return the stretches, cut in two where a weight is tied.

        Returns
        -------
        list of (LineMaterial, float)
            Materials and lengths, m, from lure to reel.
        """
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

    @property
    def joint(self) -> int | None:
        """Index of the stretch whose lower end carries the weight."""
        if self.sinker is None:
            return None
        below = 0.0
        for index, (_, length) in enumerate(self.stretches_cut()):
            if below >= self.sinker.ahead_m * (1 - 1e-12):
                return index
            below += length
        raise AssertionError("a weight beyond the line is refused before")


def strumming_share(line: TowedLine, top: LinePoint, laws: Sequence[LineLaw]) -> float:
    """Return by how much strumming raises the normal drag of the line in the water, on the mean.

    Parameters
    ----------
    line : TowedLine
        The curve.
    top : LinePoint
        Where the surface cuts it.
    laws : sequence of LineLaw
        Drag of its stretches.

    Returns
    -------
    float
        0 where nothing strums; 0.5 for half as much drag again.
    """
    total, stretch = 0.0, 0
    for index, (a, b) in enumerate(pairwise(line.points)):
        while stretch + 1 < len(line.breaks) and index >= line.breaks[stretch + 1]:
            stretch += 1
        end = min(b.arc_m, top.arc_m)
        if end > a.arc_m:
            law = laws[stretch]
            ends = [law.excess(abs(math.sin(point.angle_rad))) for point in (a, b)]
            total += 0.5 * (ends[0] + ends[1]) * (end - a.arc_m)
    return total / top.arc_m if top.arc_m > 0.0 else 0.0


@dataclass(frozen=True, slots=True, kw_only=True)
class SolvedLine:
    """A line rig at a speed.

    Parameters
    ----------
    rig : LineRig
        The rig.
    speed_mps : float
        Speed through water it was solved at, m/s.
    water : Water
        Density and viscosity.
    shift : Shift
        Departure of the inputs it was solved with.
    segments : tuple of Segment
        Its stretches.
    paid_out : PaidOutLine
        Its curve.
    """

    rig: LineRig
    speed_mps: float
    water: Water
    shift: Shift
    segments: tuple[Segment, ...]
    paid_out: PaidOutLine

    @property
    def _laws(self) -> tuple[LineLaw, ...]:
        return tuple(segment.law(self.speed_mps, self.water) for segment in self.segments)

    def slopes(self, setting_m: float, *, of: Target = "lure") -> Slopes | None:
        """Return what each input does to the depth with so much line out.

        Parameters
        ----------
        setting_m : float
            Line out from the rod tip, m.
        of : {'lure', 'ball', 'ball_trail'}
            Depth of the lure, depth of a weight on the line, or its distance behind the tip.

        Returns
        -------
        dict of str to float, or None
            None where the lure is at the surface.
        """
        found = self.paid_out.waterline(setting_m)
        if found is None or found[0].up_m <= 0.0:
            return None
        top = found[0]
        sinker = self.rig.sinker
        above = 0.0 if of == "lure" or sinker is None else sinker.ahead_m
        goal = Goal(above_m=above) if of != "ball_trail" else Goal(0.0, 1.0, above)
        laws = self._laws
        at = self._stretch_at(top)
        by_angle, by_tension, by_out = surface_slopes(
            top, tip_height_m=self.rig.tip_height_m,
            air_weight_npm=self.segments[at].weight_air_npm, stretch=self.segments[at],
            law=laws[at], goal=goal,
        )
        line = line_slopes(
            self.paid_out.line, self.segments, laws, top=top, by_angle=by_angle,
            by_tension=by_tension, goal=goal,
        )
        slopes: Slopes = {
            "line_drag": line.line_drag, "strumming": line.strumming, "weight": line.weight,
            "speed_mps": line.speed / max(self.speed_mps, 1e-6), "setting": by_out * setting_m,
        }
        add_pulls(
            slopes, line.pulls[0],
            load_slopes(self.rig.bodies, self.speed_mps, self.water, self.shift), self.speed_mps,
        )
        joint = self.rig.joint
        if sinker is not None and joint is not None and joint < len(self.segments):
            add_pulls(
                slopes, line.pulls[joint],
                weight_slopes(sinker.ball, self.speed_mps, self.water, self.shift),
                self.speed_mps,
            )
        return slopes

    def lag_s(self, setting_m: float) -> float:
        """Return how long the lure's depth takes to follow a change of speed.

        Parameters
        ----------
        setting_m : float
            Line out from the rod tip, m.

        Returns
        -------
        float
            Mean time, s: about two thirds of the change are done by then.

        Notes
        -----
        While the speed changes slowly the line moves through the positions of its steady solutions,
        and the drag of that motion holds its depth back; the lag is that depth over the change of
        depth, to first order in the rate. Where depth hardly changes with speed, or the lure is at
        the surface, it is the time in which the lure travels its own trail.
        """
        place = self.place(setting_m, picture=False)
        travel = place.trail_m / max(self.speed_mps, 1e-6)
        found = self.paid_out.waterline(setting_m)
        faster_mps = self.speed_mps * (1.0 + _STEADY)
        faster = self.rig.solve(faster_mps, self.water, self.shift, reach_m=setting_m)
        there = faster.paid_out.waterline(setting_m)
        if found is None or there is None or place.at_surface:
            return travel
        (top, span), (top_1, span_1) = found, there
        step = faster_mps - self.speed_mps
        by_speed = (top_1.up_m - top.up_m) / step
        ahead, above = (
            (top.forward_m + span.forward_m) - (top_1.forward_m + span_1.forward_m),
            top.up_m - top_1.up_m,
        )

        def motion(arc_m: float) -> tuple[float, float]:
            """Forward and up of a point, m per m/s."""
            reach = min(top.arc_m, top_1.arc_m)
            a = self.paid_out.line.at(min(arc_m, reach))
            b = faster.paid_out.line.at(min(arc_m, reach))
            return (
                (b.forward_m - a.forward_m + ahead) / step, (b.up_m - a.up_m + above) / step
            )

        def drift(arc_m: float, angle_rad: float) -> float:
            forward, up = motion(arc_m)
            return up * math.cos(angle_rad) - forward * math.sin(angle_rad)

        laws, at = self._laws, self._stretch_at(top)
        by_angle, by_tension, _ = surface_slopes(
            top, tip_height_m=self.rig.tip_height_m,
            air_weight_npm=self.segments[at].weight_air_npm, stretch=self.segments[at],
            law=laws[at], goal=DEPTH,
        )
        line = line_slopes(
            self.paid_out.line, self.segments, laws, top=top, by_angle=by_angle,
            by_tension=by_tension, drift=drift,
        )
        loads = load_slopes(self.rig.bodies, self.speed_mps, self.water, self.shift)
        held = line.drift + self._held(line.pulls[0], loads, motion(0.0))
        joint, sinker = self.rig.joint, self.rig.sinker
        if sinker is not None and joint is not None and joint < len(self.segments):
            loads = weight_slopes(sinker.ball, self.speed_mps, self.water, self.shift)
            held += self._held(line.pulls[joint], loads, motion(sinker.ahead_m))
        if abs(by_speed) * self.speed_mps < _LITTLE_M:
            return travel
        lag = -held / by_speed
        return min(lag, 3.0 * travel) if lag > 0.0 else travel

    def _held(
        self, pull: tuple[float, float], loads: dict[str, EndLoad], motion: tuple[float, float]
    ) -> float:
        """What the drag of a body's own motion does to the depth, m per m/s2."""
        speed = max(self.speed_mps, 1e-6)
        forward, up = motion
        faster, drag = loads["speed"], loads["body_drag"].back_n
        return (
            pull[0] * faster.back_n * forward / speed
            + pull[1] * (faster.down_n * forward + drag * up) / speed
        )

    def sinking(self) -> Slopes:
        """Return what each input does to the pull down at the end, N: what would sink it.

        Returns
        -------
        dict of str to float
        """
        slopes: Slopes = {}
        loads = load_slopes(self.rig.bodies, self.speed_mps, self.water, self.shift)
        add_pulls(slopes, (0.0, 1.0), loads, self.speed_mps)
        return slopes

    def _stretch_at(self, top: LinePoint) -> int:
        starts = [self.paid_out.line.points[first].arc_m for first in self.paid_out.line.breaks]
        return max(index for index, arc in enumerate(starts) if arc <= top.arc_m)

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
            sinker = self.rig.sinker
            if weight is not None and sinker is not None and sinker.drop_m > 0.0:
                paths += (weight,)
        return Placement(
            setting_m=setting_m, depth_m=top.up_m, trail_m=trail, at_surface=False, paths=paths,
            ball_depth_m=None if weight is None else weight[1][1],
            ball_trail_m=None if weight is None else weight[1][0],
            strumming=strumming_share(self.paid_out.line, top, self._laws) if picture else None,
            beyond_law=self.rig.sinker is not None
            and self.rig.sinker.ball.is_beyond_law(self.speed_mps, self.water),
        )

    def _weight(
        self, top: LinePoint, trail_m: float
    ) -> tuple[tuple[float, float], tuple[float, float]] | None:
        """Slider and weight, behind the tip and below the surface; None while it is in the air."""
        sinker, joint = self.rig.sinker, self.rig.joint
        if sinker is None or joint is None or sinker.ahead_m >= top.arc_m:
            return None
        slider = self.paid_out.line.at(sinker.ahead_m)
        behind, below = trail_m - slider.forward_m, top.up_m - slider.up_m
        # The drop line is short: straight along the pull of its weight.
        joint_at = self.segments[joint]
        drop = sinker.drop_m
        angle = math.atan2(joint_at.hung_down_n, joint_at.hung_back_n)
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
