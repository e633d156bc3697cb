"""A line in a steady turn: the whole tow turns about one centre, each piece on its own circle.

A line resists sideways motion along its whole length, so it curves inward behind the boat and its
lure keeps more of its speed than a rod of that length would. The equilibrium is the same as
straight ahead (weight, normal and tangential drag), in three dimensions and with the flow of each
piece's own circle; it is integrated from the towed end upward and shot on the radius of that end,
so that the upper end meets the rod tip.
"""

from __future__ import annotations

import math
from bisect import bisect_left
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from itertools import accumulate
from typing import Final, NamedTuple

from ..checks import require_number
from ..water.fresh import Water
from .bodies import EndLoad
from .catenary import air_span
from .downrigger import ClippedLine, DownriggerRig
from .drag import LineLaw
from .linerig import LineRig
from .pulls import NO_SHIFT, Shift, total_load
from .rigs import Rig
from .towed import Segment

TIGHTEST_M: Final = 2.0
SLACK_SHARE: Final = 0.3
"""A lure that goes at less than this share of the boat's speed hangs dead (judged)."""
_TOLERANCE: Final = 3e-4
_SHOT_M: Final = 0.002
"""The upper end has met the rod tip within this, m."""
_MOST_SHOTS: Final = 40
_MOST_STEPS: Final = 600
_ROUNDS: Final = 2
_FIRST_SHARE: Final = 0.5
"""First guess: lure's radius squared is the tip's less this share of the trail's square."""


class TurnPoint(NamedTuple):
    """A point of a line in a turn.

    Parameters
    ----------
    radius_m : float
        Radius of its circle, m.
    behind_rad : float
        Angle at the centre by which it follows the rod tip, rad.
    depth_m : float
        Below the surface, m; negative in the air.
    """

    radius_m: float
    behind_rad: float
    depth_m: float


@dataclass(frozen=True, slots=True, kw_only=True)
class TurnedLine:
    """A line in a steady turn.

    Parameters
    ----------
    lure : TurnPoint
        Where its lure is.
    ball : TurnPoint or None
        Where the ball is, or a weight on the line.
    path : tuple of TurnPoint
        From rod tip to lure.
    speed_mps : float
        The lure's own speed through water, m/s.
    is_slack : bool
        Whether the turn is too tight for it: the lure hangs dead, or no steady place was found.
    at_surface : bool
        Whether the lure is at the surface.
    cut_share : float
        How far it cuts the corner: the tip's radius squared less that of what is at the end of line
        or cable, over the square of the number; 1 for a rod without side resistance.
    """

    lure: TurnPoint
    ball: TurnPoint | None
    path: tuple[TurnPoint, ...]
    speed_mps: float
    is_slack: bool
    at_surface: bool
    cut_share: float


class _Node(NamedTuple):
    """A point of the curve: arc length, place (centre at the origin, z up), pull, and its slope."""

    arc: float
    x: float
    y: float
    z: float
    px: float
    py: float
    pz: float
    sx: float
    sy: float
    sz: float


class _NoPlaceError(Exception):
    """No radius of the lure's circle brings the upper end to the rod tip."""


_Pull = tuple[float, float, float]
"""A pull in the local directions outward, forward and up, N."""


def turn_line(
    rig: Rig, setting_m: float, *, speed_mps: float, water: Water, radius_m: float,
    tip_radius_m: float, shift: Shift = NO_SHIFT, cut_share: float = _FIRST_SHARE,
) -> TurnedLine:
    """Return how a line fares in a steady turn.

    Parameters
    ----------
    rig : LineRig or DownriggerRig
        The tackle.
    setting_m : float
        The number, m.
    speed_mps : float
        Boat's speed through water, m/s, > 0.
    water : Water
        Density and viscosity.
    radius_m : float
        Radius of the boat's circle, m, at least 2.
    tip_radius_m : float
        Radius of the circle of rod tip, board or boom's end, m, > 0.
    shift : Shift
        Departure of the inputs, as calibrated.
    cut_share : float
        How far it cut the corner in a turn nearly like this one, to begin from.

    Returns
    -------
    TurnedLine

    Raises
    ------
    InvalidInputError
        If a number cannot be.

    Notes
    -----
    ``dT/ds = w z - D`` with the tension as a vector ``T`` along the line and ``D`` the normal and
    tangential drag in the water's motion past the piece, ``-omega x r``; inertia is left out (v**2
    / (g r) is a thousandth). As the radius grows this becomes the straight solution. On a
    downrigger each setback is shot from its clip, and its pull acts on the cable there.

    References
    ----------
    Choo, Y., Casarella, M.J. (1972). Configuration of a towline attached to a vehicle moving in a
    circular path. J. Hydronautics 6, 51-57. From memory.
    """
    require_number("radius_m", radius_m, low=TIGHTEST_M, high=100_000.0, unit="m")
    require_number("tip_radius_m", tip_radius_m, above=0.0, high=100_000.0, unit="m")
    require_number("speed_mps", speed_mps, above=0.0, high=20.0, unit="m/s")
    rig.check_number(setting_m)
    turn = _Turn(speed_mps, water, radius_m, shift)
    try:
        if isinstance(rig, DownriggerRig):
            return _turn_downrigger(turn, rig, setting_m, tip_radius_m, cut_share)
        return _turn_line(turn, rig, setting_m, tip_radius_m, cut_share)
    except _NoPlaceError:
        centre = TurnPoint(0.0, 0.0, setting_m)
        return TurnedLine(
            lure=centre, ball=None, path=(), speed_mps=0.0, is_slack=True, at_surface=False,
            cut_share=cut_share,
        )


@dataclass(frozen=True, slots=True)
class _Turn:
    """The turn, and how a line is followed through it."""

    speed_mps: float
    water: Water
    radius_m: float
    shift: Shift

    def law(self, segment: Segment) -> LineLaw:
        return segment.law(self.speed_mps, self.water)

    def follow(
        self, segments: Sequence[Segment], laws: Sequence[LineLaw],
        hung: Sequence[Callable[[float], _Pull] | None], start: tuple[float, _Pull],
    ) -> list[_Node]:
        """The curve from the towed end, which stands on its circle at angle 0, upward.

        ``hung`` says for each stretch what pulls at its lower end, given the radius there.
        """
        radius, pull = start
        x, y, z, arc = radius, 0.0, 0.0, 0.0
        px, py, pz = pull
        nodes: list[_Node] = []
        for segment, law, more in zip(segments, laws, hung, strict=True):
            if more is not None:
                r = math.hypot(x, y)
                outward, forward, up = more(r)
                px += (outward * x - forward * y) / r
                py += (outward * y + forward * x) / r
                pz += up
            _follow_stretch(
                nodes, segment, law, self.radius_m, (arc, x, y, z, px, py, pz)
            )
            arc, x, y, z, px, py, pz = nodes[-1][:7]
        return nodes


def _follow_stretch(
    nodes: list[_Node], segment: Segment, law: LineLaw, radius_m: float, start: tuple[float, ...],
) -> None:
    """Append the nodes of one stretch: Bogacki & Shampine (1989), orders 3 and 2."""
    sqrt = math.sqrt
    inertial, viscous, onset, excess = law.inertial, law.viscous, law.onset, law.excess
    tangential, w, inverse_r = law.tangential, segment.weight_npm, 1.0 / radius_m

    def slope(
        x: float, y: float, px: float, py: float, pz: float
    ) -> tuple[float, float, float, float, float, float]:
        pull = sqrt(px * px + py * py + pz * pz)
        if pull < 1e-12:
            pull = 1e-12
        tx, ty, tz = px / pull, py / pull, pz / pull
        # The water's motion past the piece, over the boat's speed.
        ux, uy = y * inverse_r, -x * inverse_r
        along = ux * tx + uy * ty
        nx, ny, nz = ux - along * tx, uy - along * ty, -along * tz
        a = sqrt(nx * nx + ny * ny + nz * nz)
        # Drag over a: it hangs on speed times a alone, so the law at the boat's speed serves.
        drag = 0.0
        if a > 1e-12:
            drag = inertial * a + viscous * a ** 0.3333333333333333
            if a > onset:
                drag *= 1.0 + excess(a)
        rub = tangential * along * abs(along)
        return (
            tx, ty, tz, -drag * nx - rub * tx, -drag * ny - rub * ty, w - drag * nz - rub * tz
        )

    arc, x, y, z, px, py, pz = start
    done, length = 0.0, segment.length_m
    k1 = slope(x, y, px, py, pz)
    nodes.append(_Node(arc, x, y, z, px, py, pz, k1[3], k1[4], k1[5]))
    h = min(length, 0.05 * length + 0.05)
    for _ in range(_MOST_STEPS):
        if done + h > length * (1.0 - 1e-9):
            h = length - done
        b = 0.5 * h
        k2 = slope(x + b * k1[0], y + b * k1[1], px + b * k1[3], py + b * k1[4], pz + b * k1[5])
        b = 0.75 * h
        k3 = slope(x + b * k2[0], y + b * k2[1], px + b * k2[3], py + b * k2[4], pz + b * k2[5])
        c1, c2, c3 = h * 2.0 / 9.0, h / 3.0, h * 4.0 / 9.0
        nx = x + c1 * k1[0] + c2 * k2[0] + c3 * k3[0]
        ny = y + c1 * k1[1] + c2 * k2[1] + c3 * k3[1]
        nz = z + c1 * k1[2] + c2 * k2[2] + c3 * k3[2]
        qx = px + c1 * k1[3] + c2 * k2[3] + c3 * k3[3]
        qy = py + c1 * k1[4] + c2 * k2[4] + c3 * k3[4]
        qz = pz + c1 * k1[5] + c2 * k2[5] + c3 * k3[5]
        k4 = slope(nx, ny, qx, qy, qz)
        e1, e2, e3, e4 = -5.0 / 72.0, 1.0 / 12.0, 1.0 / 9.0, -1.0 / 8.0
        # Error of the direction, which is the error of the curve per metre.
        error = max(
            abs(e1 * k1[i] + e2 * k2[i] + e3 * k3[i] + e4 * k4[i]) for i in (0, 1, 2)
        )
        if error > _TOLERANCE:
            h *= max(0.2, 0.9 * (_TOLERANCE / error) ** 0.3333333333333333)
            continue
        done += h
        x, y, z, px, py, pz, k1 = nx, ny, nz, qx, qy, qz, k4
        nodes.append(_Node(arc + done, x, y, z, px, py, pz, k1[3], k1[4], k1[5]))
        if done >= length * (1.0 - 1e-9):
            return
        h *= min(4.0, 0.9 * (_TOLERANCE / error) ** 0.3333333333333333) if error > 0.0 else 4.0
    raise _NoPlaceError


def _between(a: _Node, b: _Node, share: float) -> _Node:
    """A point between two neighbouring nodes: cubic Hermite of place and pull."""
    h = b.arc - a.arc
    u, v = share, 1.0 - share
    h00, h10 = (1.0 + 2.0 * u) * v * v, u * v * v * h
    h01, h11 = u * u * (3.0 - 2.0 * u), -u * u * v * h
    ta = math.sqrt(a.px**2 + a.py**2 + a.pz**2)
    tb = math.sqrt(b.px**2 + b.py**2 + b.pz**2)

    def mix(ya: float, da: float, yb: float, db: float) -> float:
        return h00 * ya + h10 * da + h01 * yb + h11 * db

    return _Node(
        a.arc + share * h,
        mix(a.x, a.px / ta, b.x, b.px / tb), mix(a.y, a.py / ta, b.y, b.py / tb),
        mix(a.z, a.pz / ta, b.z, b.pz / tb),
        mix(a.px, a.sx, b.px, b.sx), mix(a.py, a.sy, b.py, b.sy), mix(a.pz, a.sz, b.pz, b.sz),
        a.sx, a.sy, a.sz,
    )


class _Top(NamedTuple):
    """Where a curve meets the surface, and the rod tip beyond it."""

    node: _Node
    below: int
    tip_x: float
    tip_y: float


def _surface(
    nodes: Sequence[_Node], out_m: float, tip_height_m: float, weights: Callable[[float], float]
) -> _Top | None:
    """Where the surface cuts a line of which so much is out; None where the lure skips.

    Of several answers the deepest, as straight ahead (`PaidOutLine.waterline`).
    """

    def beyond(node: _Node) -> tuple[float, float]:
        tension = math.sqrt(node.px**2 + node.py**2 + node.pz**2)
        span = air_span(
            height_m=tip_height_m, tension_n=tension,
            angle_rad=math.asin(max(-1.0, min(1.0, node.pz / tension))),
            weight_npm=weights(node.arc),
        )
        if span is None:
            return math.inf, 0.0
        return node.arc + span.length_m - out_m, span.forward_m

    high = beyond(nodes[-1])[0]
    for index in range(len(nodes) - 2, -1, -1):
        low = beyond(nodes[index])[0]
        if low <= 0.0 <= high and nodes[index + 1].arc > nodes[index].arc:
            a, b = nodes[index], nodes[index + 1]
            left, right = 0.0, 1.0
            node, ahead = b, 0.0
            for count in range(30):
                share = right - high * (right - left) / (high - low) if high < math.inf else 0.5
                if not left < share < right or count % 3 == 2:
                    share = 0.5 * (left + right)
                node = _between(a, b, share)
                miss, ahead = beyond(node)
                if abs(miss) < 1e-4:
                    break
                if miss > 0.0:
                    right, high = share, miss
                else:
                    left, low = share, miss
            flat = math.hypot(node.px, node.py)
            unit = (node.px / flat, node.py / flat) if flat > 0.0 else (0.0, 0.0)
            # A line that leaves the water under its own lure holds it up: the lure is afloat.
            return None if node.z <= 0.0 else _Top(
                node, index, node.x + ahead * unit[0], node.y + ahead * unit[1]
            )
        high = low
    return None


def _shoot(miss: Callable[[float], float], guess: float, most: float) -> float:
    """The radius of the towed end at which the upper end misses by nothing.

    Secant steps from a guess, kept between what is too small and what is too large.
    """
    least = low = 1e-3 * most
    high = most
    r = min(max(guess, 2.0 * low), high)
    last: tuple[float, float] | None = None
    for count in range(_MOST_SHOTS):
        value = miss(r)
        if abs(value) < _SHOT_M:
            return r
        if value > 0.0:
            high = min(high, r)
        else:
            low = max(low, r)
        if high - low < 1e-3:
            # Where a lure comes up to the surface the miss jumps over nothing: that is its place.
            if least < low and high < most:
                return r
            break
        step = value if last is None or value == last[1] else (
            value * (r - last[0]) / (value - last[1])
        )
        last = r, value
        r -= step
        if not low < r < high or count % 6 == 5:
            r = 0.5 * (low + high)
    raise _NoPlaceError


def _pull(load: EndLoad) -> _Pull:
    return (0.0, load.back_n, load.down_n)


def _turn_line(
    turn: _Turn, rig: LineRig, setting_m: float, tip_radius_m: float, cut_share: float
) -> TurnedLine:
    segments, hung = [], list[Callable[[float], _Pull] | None]()
    joint, left = rig.joint, setting_m
    for index, (material, length) in enumerate(rig.stretches_cut()):
        if left <= 1e-9:
            break
        segments.append(material.segment(
            min(length, left), water=turn.water, weight_factor=turn.shift.weight,
            drag_factor=turn.shift.line_drag, strum_factor=turn.shift.strumming,
        ))
        left -= length

        def weight(radius: float) -> _Pull:
            own = turn.speed_mps * radius / turn.radius_m
            return _pull(rig.hung_load(own, turn.water, turn.shift))

        hung.append(weight if index == joint else None)
    laws = [turn.law(segment) for segment in segments]
    ends = list(accumulate(segment.length_m for segment in segments))

    def in_air(arc: float) -> float:
        return segments[min(bisect_left(ends, arc), len(ends) - 1)].weight_air_npm

    def curve(radius: float) -> tuple[list[_Node], _Top | None]:
        own = turn.speed_mps * radius / turn.radius_m
        load = total_load(rig.bodies, own, turn.water, turn.shift)
        nodes = turn.follow(segments, laws, hung, (radius, _pull(load)))
        return nodes, _surface(nodes, setting_m, rig.tip_height_m, in_air)

    def afloat(radius: float) -> list[_Node]:
        """At the surface: the same line without weight, on the water all along."""
        own = turn.speed_mps * radius / turn.radius_m
        back = max(total_load(rig.bodies, own, turn.water, turn.shift).back_n, 1e-6)
        flat = [_weightless(segment) for segment in segments]
        return turn.follow(flat, laws, [None] * len(flat), (radius, (0.0, back, 0.0)))

    def miss(radius: float) -> float:
        top = curve(radius)[1]
        if top is None:
            last = afloat(radius)[-1]
            return math.hypot(last.x, last.y) - tip_radius_m
        return math.hypot(top.tip_x, top.tip_y) - tip_radius_m

    radius = _shoot(miss, _guess(tip_radius_m, setting_m, cut_share), tip_radius_m)
    nodes, top = curve(radius)
    if top is None:
        nodes = afloat(radius)
        last = nodes[-1]
        top = _Top(last, len(nodes) - 2, last.x, last.y)
    path = _path(nodes, top, -rig.tip_height_m)
    ball = None
    if rig.sinker is not None and rig.sinker.ahead_m < top.node.arc:
        at = next(node for node in nodes if node.arc >= rig.sinker.ahead_m * (1 - 1e-9))
        ball = _seen(at.x, at.y, top.node.z - at.z, top)
        ball = ball._replace(depth_m=ball.depth_m + rig.sinker.drop_m)
    share = (tip_radius_m**2 - radius**2) / setting_m**2
    return _turned(turn, path, ball, radius, share)


def _guess(outer_m: float, length_m: float, cut_share: float) -> float:
    return math.sqrt(max(outer_m**2 - cut_share * length_m**2, (0.1 * outer_m) ** 2))


def _weightless(segment: Segment) -> Segment:
    return Segment(
        length_m=segment.length_m, diameter_m=segment.diameter_m, weight_npm=0.0,
        drag_factor=segment.drag_factor,
    )


def _turn_downrigger(
    turn: _Turn, rig: DownriggerRig, setting_m: float, boom_radius_m: float, cut_share: float
) -> TurnedLine:
    lines = rig.lines()
    out_m = setting_m + rig.boom_height_m
    length = max(out_m, lines[-1].above_ball_m + 0.05)
    pulls: list[_Pull] = [(0.0, 0.0, 0.0)] * len(lines)
    at_clips = [boom_radius_m] * len(lines)
    setback: tuple[float, list[_Node]] = (boom_radius_m, [])
    ball_guess = _guess(boom_radius_m, setting_m, min(cut_share, 0.1))
    cable_nodes: list[_Node] = []
    surface: _Top | None = None
    for _ in range(_ROUNDS):
        for index, line in enumerate(lines):
            lure_radius, nodes = _turn_setback(turn, line, at_clips[index])
            pulls[index] = _local(nodes[-1])
            if line is rig.clipped:
                setback = lure_radius, nodes
        segments, hung = _cable(turn, rig, lines, pulls, length)
        laws = [turn.law(segment) for segment in segments]
        air = segments[0].weight_air_npm

        def curve(
            radius: float, segments: list[Segment] = segments, laws: list[LineLaw] = laws,
            hung: list[Callable[[float], _Pull] | None] = hung, air: float = air,
        ) -> tuple[list[_Node], _Top | None]:
            own = turn.speed_mps * radius / turn.radius_m
            ball = rig.ball.load(own, turn.water, drag_factor=turn.shift.body_drag)
            ball = EndLoad(ball.back_n, ball.down_n * turn.shift.weight)
            nodes = turn.follow(segments, laws, hung, (radius, _pull(ball)))
            return nodes, _surface(nodes, out_m, rig.boom_height_m, lambda arc: air)

        def miss(
            radius: float, curve: Callable[[float], tuple[list[_Node], _Top | None]] = curve
        ) -> float:
            _, top = curve(radius)
            # A ball that skips is drawn straight behind the boom.
            return 0.0 if top is None else math.hypot(top.tip_x, top.tip_y) - boom_radius_m

        ball_radius = _shoot(miss, ball_guess, boom_radius_m * 1.05)
        ball_guess = ball_radius
        cable_nodes, surface = curve(ball_radius)
        clips = [
            next(node for node in cable_nodes if node.arc >= line.above_ball_m * (1 - 1e-9))
            for line in lines
        ]
        at_clips = [math.hypot(clip.x, clip.y) for clip in clips]
    if surface is None:
        raise _NoPlaceError
    nodes, top = cable_nodes, surface
    own = lines.index(rig.clipped)
    lure_radius, own_nodes = setback
    ball = _seen(nodes[0].x, nodes[0].y, top.node.z, top)
    cable = _path(nodes, top, -rig.boom_height_m)
    clip = clips[own]
    clip_seen = _seen(clip.x, clip.y, top.node.z - clip.z, top)
    last = own_nodes[-1]
    # The setback's own angles run from its lure: turn them to where the clip is.
    ahead = math.atan2(last.y, last.x)
    line_path = tuple(
        TurnPoint(
            math.hypot(node.x, node.y), clip_seen.behind_rad + ahead - math.atan2(node.y, node.x),
            max(clip_seen.depth_m + last.z - node.z, 0.0),
        )
        for node in reversed(own_nodes)
    )
    above = tuple(
        point for point in cable if point.depth_m < clip_seen.depth_m
    )
    share = (boom_radius_m**2 - ball_guess**2) / setting_m**2
    return _turned(turn, (*above, *line_path), ball, lure_radius, share)


def _cable(
    turn: _Turn, rig: DownriggerRig, lines: Sequence[ClippedLine], pulls: Sequence[_Pull],
    length_m: float,
) -> tuple[list[Segment], list[Callable[[float], _Pull] | None]]:
    segments = rig.cable_segments(lines, turn.water, turn.shift, length_m)
    hung: list[Callable[[float], _Pull] | None] = [None]
    for line, pull in zip(lines, pulls, strict=True):

        def at(radius: float, line: ClippedLine = line, pull: _Pull = pull) -> _Pull:
            if line.slider is None:
                return pull
            own = turn.speed_mps * radius / turn.radius_m
            load = line.slider.load(own, turn.water, drag_factor=turn.shift.body_drag)
            return (
                pull[0], pull[1] + load.back_n, pull[2] + load.down_n * turn.shift.weight
            )

        hung.append(at)
    return segments, hung


def _turn_setback(
    turn: _Turn, line: ClippedLine, clip_radius_m: float
) -> tuple[float, list[_Node]]:
    """The circle of a clipped line's lure, and its curve up to the clip."""
    segment = line.line.segment(
        line.setback_m, water=turn.water, drag_factor=turn.shift.line_drag,
        strum_factor=turn.shift.strumming,
    )
    law = turn.law(segment)

    def curve(radius: float) -> list[_Node]:
        own = turn.speed_mps * radius / turn.radius_m
        load = total_load(line.bodies, own, turn.water, turn.shift)
        return turn.follow((segment,), (law,), (None,), (radius, _pull(load)))

    def miss(radius: float) -> float:
        top = curve(radius)[-1]
        return math.hypot(top.x, top.y) - clip_radius_m

    guess = _guess(clip_radius_m, line.setback_m, _FIRST_SHARE)
    radius = _shoot(miss, guess, clip_radius_m * 1.05)
    return radius, curve(radius)


def _local(node: _Node) -> _Pull:
    """The pull at a node in its own outward, forward and up directions."""
    r = math.hypot(node.x, node.y)
    return (
        (node.px * node.x + node.py * node.y) / r, (node.py * node.x - node.px * node.y) / r,
        node.pz,
    )


def _seen(x: float, y: float, depth_m: float, top: _Top) -> TurnPoint:
    """A point as it follows the rod tip."""
    behind = math.atan2(top.tip_y, top.tip_x) - math.atan2(y, x)
    return TurnPoint(math.hypot(x, y), behind % (2.0 * math.pi), depth_m)


def _path(nodes: Sequence[_Node], top: _Top, tip_depth_m: float) -> tuple[TurnPoint, ...]:
    tip = _seen(top.tip_x, top.tip_y, tip_depth_m, top)
    surface = _seen(top.node.x, top.node.y, 0.0, top)
    below = [
        _seen(node.x, node.y, top.node.z - node.z, top) for node in nodes[: top.below + 1]
    ]
    return (tip, surface, *reversed(below))


def _turned(
    turn: _Turn, path: tuple[TurnPoint, ...], ball: TurnPoint | None, radius_m: float,
    cut_share: float,
) -> TurnedLine:
    lure = path[-1]
    share = radius_m / turn.radius_m
    return TurnedLine(
        lure=lure, ball=ball, path=path, speed_mps=turn.speed_mps * share,
        is_slack=share < SLACK_SHARE, at_surface=lure.depth_m <= 0.0, cut_share=cut_share,
    )
