"""Weights on the line, dropper rigs, stacked lines, fitted plugs."""

from __future__ import annotations

import math

import pytest
from hypothesis import assume, example, given
from hypothesis import strategies as st
from tackle import COLD, DODGER_5, FLOATING_MINNOW, HOOCHIE, STRIPER_PLUG, TIP_M

from coldwake_core.constants import FOOT_M, GRAVITY_MPS2, MPH_MPS, OUNCE_KG, POUND_KG
from coldwake_core.errors import InvalidInputError, NoSolutionError
from coldwake_core.gear.plugs import generic_plug, plug_catalogue
from coldwake_core.lines.bodies import Ball, plug_body
from coldwake_core.lines.doubt import solve_with_doubt
from coldwake_core.lines.downrigger import ClippedLine, DownriggerRig, stack_height_m
from coldwake_core.lines.linerig import LineRig, Sinker
from coldwake_core.lines.materials import MATERIALS
from coldwake_core.lines.plugfit import DivePoint, fit_plug
from coldwake_core.lines.towed import Segment, integrate_line
from coldwake_core.water.fresh import Water

speeds = st.floats(0.3, 2.2)


def weighted(ounces: float, *, ahead_m: float = 1.5, drop_m: float = 0.0) -> LineRig:
    return LineRig(
        stretches=((MATERIALS["mono-12"], 120.0),),
        bodies=(DODGER_5, HOOCHIE),
        tip_height_m=TIP_M,
        sinker=Sinker(ball=Ball(mass_kg=ounces * OUNCE_KG), ahead_m=ahead_m, drop_m=drop_m),
    )


def clipped(above_m: float, setback_m: float = 6.0, slider: Ball | None = None) -> ClippedLine:
    return ClippedLine(
        line=MATERIALS["mono-12"],
        setback_m=setback_m,
        bodies=(HOOCHIE,),
        above_ball_m=above_m,
        slider=slider,
    )


def cable(asked: ClippedLine, *mates: ClippedLine, pounds: float = 10.0) -> DownriggerRig:
    return DownriggerRig(
        cable=MATERIALS["cable-steel-150"],
        cable_length_m=60.0,
        ball=Ball(mass_kg=pounds * POUND_KG),
        boom_height_m=0.8,
        clipped=asked,
        mates=mates,
    )


def test_weight_at_a_joint_obeys_the_balance_of_forces():
    # Still water, weightless line pulled 30 degrees up with 2 N, then 1 N hung at 10 m:
    # above it 2 cos 30 back and 2 sin 30 + 1 down, by hand: angle atan2(2, 1.7320508).
    thin = {"diameter_m": 1e-4, "weight_npm": 0.0}
    line = integrate_line(
        [Segment(length_m=10.0, **thin), Segment(length_m=5.0, hung_down_n=1.0, **thin)],
        tension_n=2.0,
        angle_rad=math.radians(30.0),
        speed_mps=0.0,
        water=COLD,
    )
    top = line.points[-1]
    assert top.tension_n == pytest.approx(math.hypot(1.7320508, 2.0), rel=1e-6)
    assert top.angle_rad == pytest.approx(math.atan2(2.0, 1.7320508), rel=1e-6)
    assert top.up_m == pytest.approx(5.0 + 5.0 * math.sin(math.atan2(2.0, 1.7320508)), rel=1e-6)


@given(speed=speeds, ounces=st.floats(0.5, 7.0), more=st.floats(0.2, 2.0))
def test_heavier_weight_on_the_line_is_never_shallower(speed: float, ounces: float, more: float):
    depths = [weighted(o).solve(speed, COLD).place(30.0).depth_m for o in (ounces, ounces + more)]
    assert depths[1] >= depths[0] - 1e-6


@given(
    speed=speeds,
    ounces=st.floats(0.5, 8.0),
    setting=st.floats(8.0, 110.0),
    drop=st.sampled_from([0.0, 0.6]),
)
def test_inverse_of_forward_is_the_line_for_a_weighted_one(
    speed: float, ounces: float, setting: float, drop: float
):
    solved = weighted(ounces, drop_m=drop).solve(speed, COLD)
    place = solved.place(setting)
    assume(not place.at_surface and place.depth_m > 0.05)
    assert solved.setting_for(place.depth_m) == pytest.approx(setting, rel=1e-3, abs=1e-2)


def test_dropper_carries_its_weight_below_the_slider():
    place = weighted(6.0, drop_m=0.6).solve(0.6, COLD).place(25.0)
    slider, weight = place.paths[1]
    assert weight[1] == pytest.approx(place.ball_depth_m)
    assert math.dist(slider, weight) == pytest.approx(0.6, rel=1e-9)
    assert weight[1] > slider[1]
    assert place.ball_trail_m < place.trail_m


def test_four_ounces_take_a_dodger_far_deeper_than_half_an_ounce():
    at = {o: weighted(o).solve(1.3 * MPH_MPS, COLD).place(100 * FOOT_M).depth_m for o in (0.5, 4.0)}
    assert at[4.0] > 1.5 * at[0.5] > 0.0


def test_weight_beyond_the_line_is_refused():
    with pytest.raises(InvalidInputError, match="ahead_m"):
        LineRig(
            stretches=((MATERIALS["mono-12"], 20.0),),
            bodies=(HOOCHIE,),
            tip_height_m=1.0,
            sinker=Sinker(ball=Ball(mass_kg=0.05), ahead_m=25.0),
        ).solve(0.7, COLD)


@pytest.mark.parametrize("pounds", [0.0, -1.0, 500.0, math.nan])
def test_impossible_ball_is_refused(pounds: float):
    with pytest.raises(InvalidInputError, match="mass_kg"):
        Ball(mass_kg=pounds * POUND_KG)


def test_lead_lighter_than_water_is_refused():
    with pytest.raises(InvalidInputError, match="density_kgpm3"):
        Ball(mass_kg=1.0, density_kgpm3=900.0)


def test_stacked_lure_at_rest_hangs_from_its_clip():
    # At rest cable and setback hang straight: counter 20, clip 5 above the ball, setback 6 below.
    place = cable(clipped(5.0), clipped(0.3)).solve(0.0, COLD).place(20.0)
    assert place.depth_m == pytest.approx(20.0 - 5.0 + 6.0, rel=1e-3)
    assert place.ball_depth_m == pytest.approx(20.0, rel=1e-6)


@given(speed=speeds, above=st.floats(0.5, 12.0), setting=st.floats(14.0, 50.0))
def test_second_line_on_the_cable_runs_above_the_first(speed: float, above: float, setting: float):
    low, high = clipped(0.3), clipped(0.3 + above)
    first = cable(low, high).solve(speed, COLD).place(setting)
    second = cable(high, low).solve(speed, COLD).place(setting)
    assert second.ball_depth_m == pytest.approx(first.ball_depth_m, rel=1e-9)
    assert 0.0 < first.depth_m - second.depth_m <= above + 1e-6


def test_second_line_trails_the_ball_farther_back():
    alone = cable(clipped(0.3)).solve(1.5, COLD).place(40.0)
    both = cable(clipped(0.3), clipped(6.0)).solve(1.5, COLD).place(40.0)
    assert both.ball_depth_m < alone.ball_depth_m


def test_sliders_own_weight_pulls_the_cable_straighter_than_its_line_alone():
    slid = cable(clipped(0.3), clipped(6.0, slider=Ball(mass_kg=4 * OUNCE_KG)))
    plain = cable(clipped(0.3), clipped(6.0))
    depths = [rig.solve(1.5, COLD).place(40.0).ball_depth_m for rig in (plain, slid)]
    assert depths[1] > depths[0]


@given(speed=speeds, depth=st.floats(3.0, 20.0))
def test_height_of_a_second_clip_puts_its_lure_at_the_depth(speed: float, depth: float):
    rig = cable(clipped(5.0), clipped(0.3))
    height = stack_height_m(rig, speed, COLD, setting_m=30.0, depth_m=depth)
    assume(height is not None)
    moved = cable(clipped(height), clipped(0.3))
    assert moved.solve(speed, COLD).place(30.0).depth_m == pytest.approx(depth, abs=0.02)


def test_where_another_line_is_clipped_there_is_no_place_for_a_second():
    rig = cable(clipped(5.0), clipped(3.0))
    taken = cable(clipped(3.0), clipped(3.06)).solve(0.7, COLD).place(30.0).depth_m
    assert stack_height_m(rig, 0.7, COLD, setting_m=30.0, depth_m=taken) is None
    free = stack_height_m(rig, 0.7, COLD, setting_m=30.0, depth_m=taken - 1.0)
    assert free == pytest.approx(4.0, abs=0.1)


@example(speed=2.2, depth=14.955555555555556)
@given(speed=speeds, depth=st.floats(10.0, 30.0))
def test_a_search_that_passes_another_clip_goes_on(speed: float, depth: float):
    rig = cable(clipped(5.0), clipped(0.3))
    height = stack_height_m(rig, speed, COLD, setting_m=30.0, depth_m=depth)
    assert height is None or abs(height - 0.3) >= 0.05


def test_two_lines_cannot_share_a_clip():
    with pytest.raises(InvalidInputError, match="above_ball_m"):
        cable(clipped(3.0), clipped(3.01)).solve(0.7, COLD)


def test_clip_above_the_water_is_refused():
    with pytest.raises(InvalidInputError, match="clip is dry"):
        cable(clipped(8.0), clipped(0.3)).solve(0.7, COLD).place(6.0)


@given(speed=st.floats(0.9, 2.2), length=st.floats(15.0, 100.0))
def test_thinner_line_is_never_shallower_for_a_plug(speed: float, length: float):
    depths = [
        LineRig(stretches=((MATERIALS[line], 120.0),), bodies=(STRIPER_PLUG,), tip_height_m=TIP_M)
        .solve(speed, COLD)
        .place(length)
        .depth_m
        for line in ("mono-20", "mono-12", "mono-6")
    ]
    assert depths[0] <= depths[1] + 1e-3
    assert depths[1] <= depths[2] + 1e-3


def test_plug_levels_off_with_line_out():
    solved = LineRig(
        stretches=((MATERIALS["mono-12"], 200.0),), bodies=(FLOATING_MINNOW,), tip_height_m=TIP_M
    ).solve(0.8, COLD)
    depths = [solved.place(m).depth_m for m in (15.0, 30.0, 60.0, 120.0, 190.0)]
    gains = [b - a for a, b in zip(depths, depths[1:], strict=False)]
    # Deeper, at an ever smaller gain for each metre, toward the plateau.
    per_metre = [g / m for g, m in zip(gains, (15, 30, 60, 70), strict=True)]
    assert all(b < a for a, b in zip(per_metre, per_metre[1:], strict=False))


TRUE_POINTS = tuple(
    DivePoint(out_m=out, depth_m=1.0, material_id="mono-10", speed_mps=0.9)
    for out in (15.0, 25.0, 40.0)
)


def made_points(lip_factor: float) -> tuple[DivePoint, ...]:
    """Points made with a body whose lip is that much larger, by the rig itself."""
    generic = plug_body(length_m=0.09, mass_kg=0.0088, lip="medium")
    extra = (lip_factor - 1.0) * generic.down_area_m2
    body = type(generic)(
        mass_kg=generic.mass_kg,
        volume_m3=generic.volume_m3,
        drag_area_m2=generic.drag_area_m2 + extra,
        down_area_m2=generic.down_area_m2 + extra,
    )
    made = []
    for point in TRUE_POINTS:
        rig = LineRig(
            stretches=((MATERIALS["mono-10"], point.out_m),), bodies=(body,), tip_height_m=1.0
        )
        depth = rig.solve(0.9, Water.at_degc(15.0)).place(point.out_m).depth_m
        made.append(DivePoint(out_m=point.out_m, depth_m=depth, speed_mps=0.9))
    return tuple(made)


@pytest.mark.parametrize("factor", [0.6, 1.0, 1.7])
def test_printed_points_give_back_the_lip_that_made_them(factor: float):
    fitted = fit_plug(length_m=0.09, mass_kg=0.0088, lip="medium", points=made_points(factor))
    assert fitted.lip_factor == pytest.approx(factor, rel=0.1)
    assert max(abs(miss) for miss in fitted.misses_m) < 0.1


def test_more_points_leave_less_doubt():
    points = made_points(1.3)
    spreads = [
        fit_plug(length_m=0.09, mass_kg=0.0088, lip="medium", points=points[:n]).lip_spread
        for n in (1, 2, 3)
    ]
    assert spreads[0] > spreads[1] > spreads[2] > 0.0


def test_point_deeper_than_its_line_is_refused():
    with pytest.raises(InvalidInputError, match="of line out"):
        fit_plug(
            length_m=0.09,
            mass_kg=0.009,
            lip="deep",
            points=(DivePoint(out_m=10.0, depth_m=11.0),),
        )


def test_lipless_plug_and_six_points_are_refused():
    point = DivePoint(out_m=30.0, depth_m=3.0)
    with pytest.raises(InvalidInputError, match="lip"):
        fit_plug(length_m=0.09, mass_kg=0.009, lip="none", points=(point,))
    with pytest.raises(InvalidInputError, match=r"1 to 5"):
        fit_plug(length_m=0.09, mass_kg=0.009, lip="deep", points=(point,) * 6)


def test_catalogue_dives_deeper_with_a_bigger_lip_at_every_size():
    for size in (2.0, 2.75, 3.5, 4.5, 5.0):
        depths = []
        for lip in ("small", "medium", "deep"):
            rig = LineRig(
                stretches=((MATERIALS["mono-10"], 60.0),),
                bodies=(generic_plug(length_in=size, lip=lip).body(),),
                tip_height_m=1.0,
            )
            depths.append(rig.solve(0.9, COLD).place(30.0).depth_m)
        assert depths[0] < depths[1] < depths[2]


def test_catalogue_has_no_key_twice_and_only_sinking_plugs_count_down():
    plugs = plug_catalogue()
    assert len({plug.id for plug in plugs}) == len(plugs)
    for plug in plugs:
        plug.check()
        assert (plug.countdown_s(3.0, COLD) is not None) == plug.name.startswith("Sinking")


def test_sinking_minnow_of_the_catalogue_runs_where_practice_has_it():
    # Common practice: sinking minnow 2-3 ft on a troll, about 1 ft/s when stopped.
    plug = generic_plug(length_in=2.75, lip="none", sinking=True)
    rig = LineRig(
        stretches=((MATERIALS["mono-8"], 60.0),), bodies=(plug.body(),), tip_height_m=TIP_M
    )
    assert 2.0 < rig.solve(1.8 * MPH_MPS, COLD).place(100 * FOOT_M).depth_m / FOOT_M < 3.0
    assert plug.countdown_s(10 * FOOT_M, COLD) == pytest.approx(10.0, rel=0.35)


def test_ball_in_still_water_weighs_what_it_should():
    # 10 lb of lead less its water: 4.536 kg (1 - 999.7/11340) g = 40.56 N.
    load = Ball(mass_kg=10 * POUND_KG).load(0.0, COLD)
    assert load.down_n == pytest.approx(4.535924 * (1 - 999.7 / 11340) * GRAVITY_MPS2, rel=1e-4)


def test_depth_out_of_reach_of_a_weight_says_how_deep_it_gets():
    with pytest.raises(NoSolutionError, match="deepest is"):
        weighted(0.5).solve(1.5, COLD).setting_for(60.0)


@given(
    speed=st.floats(0.05, 3.0),
    setting=st.floats(7.0, 55.0),
    ounces=st.floats(0.3, 16.0),
    ahead=st.floats(0.1, 8.0),
    drop=st.floats(0.0, 1.5),
)
def test_no_weighted_line_gives_nonsense(
    speed: float, setting: float, ounces: float, ahead: float, drop: float
):
    place, estimate = solve_with_doubt(
        weighted(ounces, ahead_m=ahead, drop_m=drop), speed, COLD
    ).place(setting)
    numbers = [place.depth_m, place.trail_m, estimate.doubt_m]
    numbers += [number for path in place.paths for point in path for number in point]
    assert all(math.isfinite(number) for number in numbers)
    assert 0.0 <= place.depth_m <= setting
    assert estimate.doubt_m >= 0.0


@given(
    speed=st.floats(0.05, 3.0),
    setting=st.floats(15.0, 55.0),
    above=st.floats(0.4, 14.0),
    slider=st.floats(0.02, 0.3),
    pounds=st.floats(3.0, 15.0),
)
def test_no_stacked_line_gives_nonsense(
    speed: float, setting: float, above: float, slider: float, pounds: float
):
    rig = cable(clipped(above, slider=Ball(mass_kg=slider)), clipped(0.3), pounds=pounds)
    place, estimate = solve_with_doubt(rig, speed, COLD).place(setting)
    numbers = [place.depth_m, place.trail_m, place.ball_depth_m, estimate.doubt_m]
    assert all(math.isfinite(number) for number in numbers)
    assert place.ball_depth_m <= setting + 1e-6
    assert estimate.doubt_m >= 0.0


@given(speed=st.floats(0.4, 1.6), shape=st.sampled_from(["torpedo", "disc"]))
def test_shaped_weight_trails_less_than_a_round_ball(speed: float, shape: str):
    round_ball = Ball(mass_kg=10 * POUND_KG).load(speed, COLD)
    shaped = Ball(mass_kg=10 * POUND_KG, shape=shape).load(speed, COLD)
    assert 0.0 < shaped.back_n < round_ball.back_n
    assert shaped.down_n == round_ball.down_n
