"""Lines in turns against solutions written anew: steady in angles, and in time as masses."""

from __future__ import annotations

import math

import pytest
import reference
import reference_turn
from hypothesis import given, settings
from hypothesis import strategies as st
from tackle import (
    COLD,
    DODGER_4,
    FLOATING_MINNOW,
    FLY,
    HEAVY_SPOON,
    HOOCHIE,
    LEADER_M,
    downrigger,
    flat,
    leadcore,
)

from coldwake_core.constants import COLOUR_M, MPH_MPS, OUNCE_KG, POUND_KG
from coldwake_core.errors import InvalidInputError
from coldwake_core.lines.bodies import Ball
from coldwake_core.lines.downrigger import ClippedLine, DownriggerRig
from coldwake_core.lines.linerig import LineRig, Sinker
from coldwake_core.lines.materials import MATERIALS
from coldwake_core.lines.pulls import Shift
from coldwake_core.lines.turn import TurnedLine, turn_line
from coldwake_core.tow.manoeuvre import Towed, chain, heading_along, lagged, unfold

SPEED = 1.5 * MPH_MPS
DROPPER = LineRig(
    stretches=((MATERIALS["mono-15"], 120.0),),
    bodies=(DODGER_4, HOOCHIE),
    tip_height_m=1.2,
    sinker=Sinker(ball=Ball(mass_kg=3 * OUNCE_KG), ahead_m=1.5, drop_m=0.4),
)
STACK = DownriggerRig(
    cable=MATERIALS["cable-steel-150"],
    cable_length_m=60.0,
    ball=Ball(mass_kg=10 * POUND_KG),
    boom_height_m=0.8,
    clipped=ClippedLine(
        line=MATERIALS["mono-12"],
        setback_m=10.0,
        bodies=(DODGER_4, HOOCHIE),
        above_ball_m=4.0,
        slider=Ball(mass_kg=0.2),
    ),
    mates=(ClippedLine(line=MATERIALS["mono-12"], setback_m=6.0, bodies=(FLOATING_MINNOW,)),),
)
FOUR_COLOURS = LEADER_M + 4 * COLOUR_M
WEIGHTED = {"leadcore": (leadcore(), FOUR_COLOURS), "dropper": (DROPPER, 30.0)}
RIGS = {
    **WEIGHTED,
    "minnow": (flat("mono-12", FLOATING_MINNOW), 30.0),
    "fly": (flat("mono-8", FLY), 45.0),
    "spoon": (flat("mono-10", HEAVY_SPOON), 30.0),
    "ball": (downrigger(), 13.0),
    "stack": (STACK, 15.0),
}
BARE = {
    "leadcore": (
        [(reference.LEADER, reference.FLUORO_12), (4 * reference.COLOUR, reference.LEAD_18)],
        reference.total(reference.DODGER_5, reference.HOOCHIE),
    ),
    "minnow": ([(30.0, reference.MONO_12)], reference.MINNOW),
    "fly": ([(45.0, reference.MONO_8)], reference.FLY),
    "spoon": ([(30.0, reference.MONO_10)], reference.HEAVY_SPOON),
}


def turned(name: str, radius: float, inward: float = 0.0) -> TurnedLine:
    rig, out = RIGS[name]
    return turn_line(
        rig, out, speed_mps=SPEED, water=COLD, radius_m=radius, tip_radius_m=radius - inward
    )


@pytest.mark.parametrize("name", RIGS)
def test_wide_turn_is_the_straight_tow(name: str):
    rig, out = RIGS[name]
    straight = rig.solve(SPEED, COLD).place(out)
    wide = turned(name, 20_000.0)
    assert wide.lure.depth_m == pytest.approx(straight.depth_m, rel=1e-3)
    assert wide.speed_mps == pytest.approx(SPEED, rel=1e-4)
    assert wide.lure.behind_rad * 20_000.0 == pytest.approx(straight.trail_m, rel=1e-3)
    if straight.ball_depth_m is not None and name != "dropper":
        assert wide.ball.depth_m == pytest.approx(straight.ball_depth_m, rel=1e-3)


@pytest.mark.parametrize("inward", [6.0, 0.0, -6.0])
@pytest.mark.parametrize("radius", [30.0, 50.0, 100.0])
@pytest.mark.parametrize("name", BARE)
def test_every_kind_of_line_agrees_with_the_three_dimensional_reference(
    name: str, radius: float, inward: float
):
    stretches, pull = BARE[name]
    found = turned(name, radius, inward)
    if found.at_surface:
        # The reference has no surface: only the plug on the inside of the tightest comes up.
        assert (name, radius, inward) == ("minnow", 30.0, 6.0)
        return
    assert not found.is_slack
    depth, share, lure_radius = reference_turn.steady(
        stretches,
        pull,
        out=RIGS[name][1],
        height=1.2,
        v=SPEED,
        radius=radius,
        tip_radius=radius - inward,
    )
    assert found.lure.depth_m == pytest.approx(depth, rel=0.01, abs=0.02)
    assert found.speed_mps / SPEED == pytest.approx(share, abs=2e-3)
    assert found.lure.radius_m == pytest.approx(lure_radius, abs=0.1)


@settings(max_examples=25)
@given(
    name=st.sampled_from(["leadcore", "dropper", "minnow", "ball"]),
    radius=st.floats(35.0, 100.0),
    apart=st.floats(1.0, 6.0),
)
def test_inside_slows_and_sinks_outside_speeds_up_and_rises(
    name: str, radius: float, apart: float
):
    # Common practice; a floating plug rises inside instead.
    inner, middle, outer = (turned(name, radius, side) for side in (apart, 0.0, -apart))
    assert inner.speed_mps < middle.speed_mps < outer.speed_mps
    depths = [line.lure.depth_m for line in (inner, middle, outer)]
    if name == "minnow":
        assert depths == sorted(depths)
    else:
        assert depths[0] > depths[1] > depths[2]


def test_outside_leadcore_goes_faster_than_the_boat_and_runs_shallower_than_straight():
    # The sign that a rigid rod gets wrong: four colours, six metres outside, on a 50 m turn.
    straight = leadcore().solve(SPEED, COLD).place(FOUR_COLOURS).depth_m
    outer = turned("leadcore", 50.0, -6.0)
    assert outer.speed_mps > SPEED
    assert outer.lure.depth_m < 0.95 * straight
    inner = turned("leadcore", 50.0, 6.0)
    assert not inner.is_slack
    assert 1.1 * straight < inner.lure.depth_m < 1.5 * straight


def test_path_is_as_long_as_the_line_and_runs_from_tip_to_lure():
    line = turned("leadcore", 40.0)
    places = [
        (p.radius_m * math.cos(p.behind_rad), p.radius_m * math.sin(p.behind_rad), p.depth_m)
        for p in line.path
    ]
    length = math.fsum(math.dist(a, b) for a, b in zip(places, places[1:], strict=False))
    assert length == pytest.approx(FOUR_COLOURS, rel=0.01)
    assert places[0] == pytest.approx((40.0, 0.0, -1.2), abs=0.02)
    assert line.path[-1] == line.lure


def test_setback_hangs_from_its_clip_in_a_turn():
    line = turned("stack", 25.0)
    rig, out = RIGS["stack"]
    straight = rig.solve(SPEED, COLD).place(out)
    # The clip is 4 m above the ball and the lure within a setback of it.
    assert abs(line.lure.depth_m - straight.depth_m) < 1.5
    assert line.ball.depth_m == pytest.approx(straight.ball_depth_m, abs=0.3)
    assert line.ball.radius_m < 25.0
    assert line.lure.radius_m < line.ball.radius_m


def test_heavier_drag_cuts_the_corner_less():
    # A line that the water holds more firmly follows its tip's path more closely.
    rig, out = RIGS["leadcore"]
    cuts = [
        turn_line(
            rig,
            out,
            speed_mps=SPEED,
            water=COLD,
            radius_m=60.0,
            tip_radius_m=60.0,
            shift=Shift(line_drag=factor),
        ).cut_share
        for factor in (0.5, 1.0, 2.0)
    ]
    assert cuts == sorted(cuts, reverse=True)
    assert 0.1 < cuts[2] < cuts[0] < 0.6


def test_far_too_tight_a_turn_leaves_a_long_line_slack():
    assert turned("leadcore", 12.0, 4.0).is_slack
    assert not turned("leadcore", 30.0).is_slack
    assert not turned("ball", 12.0).is_slack


def test_floating_plug_that_slows_comes_up_and_stays_up():
    inner = turned("minnow", 30.0, 6.0)
    assert inner.at_surface
    assert inner.lure.depth_m == 0.0
    assert 0.3 < inner.speed_mps / SPEED < 0.9


@pytest.mark.parametrize(
    ("field", "change"),
    [
        ("radius_m", {"radius_m": 1.0}),
        ("tip_radius_m", {"tip_radius_m": 0.0}),
        ("speed_mps", {"speed_mps": 0.0}),
    ],
)
def test_impossible_turns_are_named(field: str, change: dict[str, float]):
    good = {"radius_m": 40.0, "tip_radius_m": 40.0, "speed_mps": SPEED}
    with pytest.raises(InvalidInputError) as caught:
        turn_line(leadcore(), 40.0, water=COLD, **(good | change))
    assert caught.value.field == field


# The speeds at which depths are looked up, over the boat's; any that bracket the turn will do.
SHARES = (0.5, 0.7, 0.85, 1.0, 1.15)


def straight_depth(rig: LineRig, out: float, speed: float) -> float:
    return rig.solve(speed, COLD).place(out).depth_m


@pytest.mark.parametrize(
    ("name", "kind", "radius"), [("leadcore", "s_turn", 30.0), ("minnow", "u_turn", 45.0)]
)
def test_unfolding_turn_agrees_with_a_line_of_masses_in_time(name: str, kind: str, radius: float):
    rig, out = RIGS[name]
    straight = rig.solve(SPEED, COLD).place(out)
    steady = turned(name, radius)
    share = (radius**2 - steady.lure.radius_m**2) / straight.trail_m**2
    shots = unfold(
        {"a": Towed(aft_m=0.0, side_m=0.0, links_m=chain(straight.trail_m, share))},
        kind=kind,
        toward="port",
        radius_m=radius,
        speed_mps=SPEED,
    )
    # Depth follows a speed between the lure's and the tip's with the line's own lag.
    mix = 0.7 if name == "leadcore" else 0.1
    targets = []
    for shot in shots:
        own, tip = shot.speeds_mps["a"], shot.tip_speeds_mps["a"]
        targets.append(straight_depth(rig, out, own + mix * (tip - own)))
    step = shots[1].at_s - shots[0].at_s
    lag = rig.solve(SPEED, COLD).lag_s(out)
    depths = lagged([straight.depth_m], targets, step_s=step, lag_s=lag)

    lead_in, run = 90.0, 0.05
    course = [(0.0, 0.0)]
    total = (math.pi if kind == "u_turn" else 4 * math.pi / 3) * radius
    for index in range(int(total / run) + 1):
        heading = heading_along(kind, toward="port", radius_m=radius, run_m=(index + 0.5) * run)
        x, y = course[-1]
        course.append((x + run * math.sin(heading), y + run * math.cos(heading)))
    last = heading_along(kind, toward="port", radius_m=radius, run_m=total)

    def tip_at(t: float) -> tuple[float, float]:
        s = SPEED * (t - lead_in)
        if s < 0.0:
            return 0.0, s
        index = int(s / run)
        if index >= len(course) - 1:
            past, (x, y) = s - (len(course) - 1) * run, course[-1]
            return x + past * math.sin(last), y + past * math.cos(last)
        (x, y), (x1, y1), part = course[index], course[index + 1], s / run - index
        return x + part * (x1 - x), y + part * (y1 - y)

    stretches, pull = BARE[name]
    seen = reference_turn.in_time(
        stretches,
        pull,
        out=out,
        height=1.2,
        tip_at=tip_at,
        until=lead_in + shots[-1].at_s,
        times=[lead_in + shot.at_s for shot in shots],
        nodes=12,
        stiffness=40.0,
        mass_scale=25.0,
    )
    for shot, depth, (x, y, deep) in zip(shots, depths, seen, strict=True):
        boat_x, boat_y = tip_at(lead_in + shot.at_s)
        heading = heading_along(kind, toward="port", radius_m=radius, run_m=SPEED * shot.at_s)
        dx, dy = x - boat_x, y - boat_y
        behind = -(dx * math.sin(heading) + dy * math.cos(heading))
        side = dx * math.cos(heading) - dy * math.sin(heading)
        assert shot.lure("a") == pytest.approx((behind, side), abs=1.5)
        # A tenth, or seven inches of a shallow plug.
        assert depth == pytest.approx(deep, rel=0.1, abs=0.18)


@pytest.mark.parametrize(
    ("name", "expected_s"),
    # A line of masses after a step of speed from 1.5 to 1.0 mph: 63 % of the change after so long.
    [("minnow", 10.0), ("leadcore", 58.0), ("dropper", 40.0)],
)
def test_lag_is_near_what_a_line_of_masses_takes(name: str, expected_s: float):
    rig, out = RIGS[name]
    lag = rig.solve(1.25 * MPH_MPS, COLD).lag_s(out)
    assert lag == pytest.approx(expected_s, rel=0.25)


@given(trail=st.floats(1.0, 100.0), share=st.floats(0.13, 1.0))
def test_chain_is_as_long_as_the_line_and_cuts_the_corner_as_told(trail: float, share: float):
    links = chain(trail, share)
    assert math.fsum(links) == pytest.approx(trail)
    assert math.fsum(link**2 for link in links) == pytest.approx(share * trail**2, rel=1e-6)
    assert all(link > 0.0 for link in links)
