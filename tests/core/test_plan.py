"""The spread from above, tangles and safe turns."""

from __future__ import annotations

import math
import random

import pytest
from trip_cases import at, event, session

from coldwake_core.errors import InvalidInputError
from coldwake_core.tow.tangles import TOO_NEAR_M, likely_tangles, line_in_space


def straight(side: float, depth: float, behind: float = 30.0):
    return line_in_space(
        [(0.0, -1.0), (3.0, 0.0), (behind, depth)],
        tip_side_m=side,
        end_behind_m=behind,
        end_side_m=side,
    )


def test_lines_that_cross_at_one_depth_are_a_tangle():
    # One from port to starboard, the other the other way: they meet in the middle, at 15 m behind.
    path = [(0.0, 0.0), (30.0, 6.0)]
    lines = {
        "a": line_in_space(path, tip_side_m=-4.0, end_behind_m=30.0, end_side_m=4.0),
        "b": line_in_space(path, tip_side_m=4.0, end_behind_m=30.0, end_side_m=-4.0),
    }
    (tangle,) = likely_tangles(lines)
    assert tangle.rod_ids == ("a", "b")
    assert tangle.distance_m == pytest.approx(0.0, abs=1e-9)
    assert tangle.behind_m == pytest.approx(15.0, abs=0.1)


def test_lines_that_cross_one_over_the_other_are_none():
    lines = {
        "a": line_in_space(
            [(0.0, 0.0), (30.0, 1.0)], tip_side_m=-4.0, end_behind_m=30.0, end_side_m=4.0
        ),
        "b": line_in_space(
            [(0.0, 0.0), (30.0, 9.0)], tip_side_m=4.0, end_behind_m=30.0, end_side_m=-4.0
        ),
    }
    assert likely_tangles(lines) == ()


def test_board_line_may_be_met_far_from_the_boat_but_not_at_its_own_tip():
    # A board's clip 20 m out, and a line from the boat that streams under it: what lies by either
    # line's own tip is left out, and nothing else, however near the transom the other is.
    board = line_in_space(
        [(0.0, -0.3), (1.0, 0.0), (30.0, 1.0)], tip_side_m=20.0, end_behind_m=30.0, end_side_m=20.0
    )
    crossing = line_in_space(
        [(0.0, 0.0), (30.0, 0.6)], tip_side_m=0.0, end_behind_m=30.0, end_side_m=40.0
    )
    (tangle,) = likely_tangles({"a": board, "b": crossing})
    assert tangle.behind_m == pytest.approx(15.0, abs=1.5)
    short = line_in_space(
        [(0.0, 0.0), (1.5, 0.2)], tip_side_m=19.9, end_behind_m=1.5, end_side_m=19.9
    )
    assert likely_tangles({"a": board, "b": short}) == ()
    assert likely_tangles({"a": short, "b": board}) == ()
    # The end of one line over the middle of the other is as near as any other place.
    along = [(0.0, 0.0, 0.0), (10.0, 0.0, 3.0), (30.0, 0.0, 5.0)]
    ending = [(0.0, -8.0, 0.0), (9.0, -0.2, 3.0)]
    for lines in ({"a": along, "b": ending}, {"a": ending, "b": along}):
        (found,) = likely_tangles(lines)
        assert found.distance_m < 0.4
        assert found.behind_m == pytest.approx(9.0, abs=0.3)
    # Near the transom, but 20 m from either tip's side: the middle of both lines.
    under = [(-1.0, 20.0, 0.0), (0.0, 0.0, 0.5), (1.0, -20.0, 1.0)]
    over = [(-1.0, -20.0, 0.0), (0.0, 0.0, 0.6), (1.0, 20.0, 1.0)]
    assert likely_tangles({"a": under, "b": over})[0].distance_m < 0.2


def test_lines_side_by_side_are_a_tangle_only_when_near():
    assert likely_tangles({"a": straight(0.0, 5.0), "b": straight(2.0, 5.0)}) == ()
    found = likely_tangles({"a": straight(0.0, 5.0), "b": straight(0.3, 5.0)})
    assert found[0].distance_m == pytest.approx(0.3, abs=1e-6)


def test_distance_is_that_of_a_brute_search():
    # Independent: the least distance between fine samples of two random straight lines. Lines that
    # start well apart, so that the stretch by the tips, which is left out, is not the nearest.
    rng = random.Random(5)
    near = 0
    for _ in range(60):
        lines, points = {}, []
        for name, tip in (("a", -2.0), ("b", 2.0)):
            behind, side, depth = rng.uniform(20, 40), rng.uniform(-3, 3), rng.uniform(2, 9)
            lines[name] = line_in_space(
                [(0.0, 0.0), (behind, depth)], tip_side_m=tip, end_behind_m=behind, end_side_m=side
            )
            shares = [i / 300 for i in range(301)]
            points.append([(s * behind, tip + s * (side - tip), s * depth) for s in shares])
        brute = min(math.dist(p, q) for p in points[0] for q in points[1])
        found = likely_tangles(lines)
        assert bool(found) == (brute < TOO_NEAR_M) or abs(brute - TOO_NEAR_M) < 0.1
        if found:
            near += 1
            assert found[0].distance_m == pytest.approx(brute, abs=0.1)
    assert near >= 3


def out(*more):
    return session(
        event("speed_changed", 0, speed_mps=0.75),
        event("line_set", 1, rod_id="rod-1", setting_m=25.0),
        event("line_set", 1, rod_id="rod-5", setting_m=30.0),
        event("line_set", 1, rod_id="rod-4", setting_m=9.0),
        *more,
        bottom_m=40.0,
    )


def test_straight_ahead_lures_are_behind_their_tips():
    plan = out().plan(course="straight")
    assert {rod.rod_id for rod in plan.rods} == {"rod-1", "rod-4", "rod-5"}
    for rod in plan.rods:
        assert rod.place.side_m == rod.tip_side_m
        assert rod.depth_change_m == pytest.approx(0.0, abs=1e-9)
    assert plan.tangles == ()


def test_inside_weighted_line_sinks_and_inside_floating_plug_rises():
    # Common practice: inside lines slow and sink, a floating plug rises instead.
    by_id = {rod.rod_id: rod for rod in out().plan(course="starboard", radius_m=45.0).rods}
    assert by_id["rod-5"].speed_mps < 0.75
    assert by_id["rod-5"].depth_change_m > 0.15
    plug = {rod.rod_id: rod for rod in out().plan(course="port", radius_m=45.0).rods}["rod-1"]
    assert plug.speed_mps < 0.75
    assert plug.depth_change_m < 0.0
    # A plug follows its speed sooner than it travels its own trail; a leadcore takes most of that.
    assert 2.0 < plug.settle_s < 0.5 * 25.0 / 0.75
    assert by_id["rod-5"].settle_s > plug.settle_s


def test_short_downrigger_line_on_the_outside_speeds_up():
    rod = {r.rod_id: r for r in out().plan(course="port", radius_m=25.0).rods}["rod-4"]
    assert rod.speed_mps > 0.75


def test_too_tight_a_turn_leaves_a_long_line_slack():
    plan = out().plan(course="port", radius_m=8.0)
    assert {rod.rod_id: rod.place for rod in plan.rods}["rod-1"] is None


def test_tightest_turns_are_safe_and_the_next_tighter_is_not():
    opened = out()
    tightest = opened.tightest()
    for side in ("port", "starboard"):
        radius = getattr(tightest, side).radius_m
        plan = opened.plan(course=side, radius_m=radius)
        assert plan.tangles == ()
        assert all(rod.place is not None and rod.clearance_m > 0.0 for rod in plan.rods)
        tighter = opened.plan(course=side, radius_m=radius / 1.35)
        assert tighter.tangles or any(
            rod.place is None or rod.clearance_m <= 0.0 for rod in tighter.rods
        )


def test_tightest_turns_say_what_a_tighter_one_does():
    tightest = out().tightest()
    for turn in (tightest.port, tightest.starboard):
        assert turn.why.startswith("Rod ")
        assert turn.why.split(" would ")[1] in ("go slack", "catch", "touch bottom")


def test_wider_turn_in_which_lines_cross_is_told_beside_the_tightest():
    # A long line from starboard settles inside the short one from port, and crosses it on the way.
    crossing = session(
        event("speed_changed", 0, speed_mps=0.8),
        event("line_set", 1, rod_id="rod-1", setting_m=20.0),
        event("line_set", 1, rod_id="rod-6", setting_m=70.0),
        bottom_m=40.0,
    )
    turn = crossing.tightest().port
    assert turn.wider_m is not None
    assert turn.wider_m > turn.radius_m
    assert turn.wider_why == "Rod 1 and Rod 6 would catch"
    seen = crossing.plan(course="port", radius_m=turn.wider_m)
    assert [tangle.rod_ids for tangle in seen.tangles] == [("rod-1", "rod-6")]
    assert crossing.plan(course="port", radius_m=turn.radius_m).tangles == ()


def test_rod_that_touches_bottom_straight_ahead_blames_no_turn():
    # The ball's counter shows 9 m and its lure hangs a little lower: over 8 m it is down already.
    shallow = out(event("sounded", 2, bottom_m=8.0))
    assert any(rod.clearance_m <= 0.0 for rod in shallow.plan(course="straight").rods)
    assert shallow.tightest().port.radius_m is not None


def test_rod_meant_to_tap_the_bottom_does_not_widen_the_turn():
    bottom = event("sounded", 2, bottom_m=6.0)
    tapping = event("bottom_tap", 3, rod_id="rod-5", on=True)
    strict, tapped = out(bottom).tightest(), out(bottom, tapping).tightest()
    assert "Rod 5 would touch bottom" in (strict.port.why, strict.starboard.why)
    assert "Rod 5 would touch bottom" not in (tapped.port.why, tapped.starboard.why)


def test_shallow_water_makes_every_turn_wider():
    deep, shallow = (
        out(event("sounded", 2, bottom_m=bottom)).tightest().starboard.radius_m
        for bottom in (40.0, 5.6)
    )
    assert None not in (deep, shallow)
    assert shallow > deep


@pytest.mark.parametrize(
    ("course", "radius", "field"),
    [
        ("up", 30.0, "course"),
        ("port", None, "radius_m"),
        ("port", 1.0, "radius_m"),
        ("starboard", math.inf, "radius_m"),
    ],
)
def test_turns_that_cannot_be_are_named(course: str, radius: float | None, field: str):
    with pytest.raises(InvalidInputError) as caught:
        out().plan(course=course, radius_m=radius)
    assert caught.value.field == field


def test_current_gives_what_to_steer_both_ways():
    view = out(event("current_noted", 2, speed_mps=0.3, toward_deg=90.0)).view(at(5))
    assert (view.passes.up_mps, view.passes.down_mps) == pytest.approx((0.45, 1.05))
    assert out().view(at(5)).passes is None


def test_current_faster_than_the_boat_gives_no_speed_to_steer():
    view = out(event("current_noted", 2, speed_mps=1.2, toward_deg=90.0)).view(at(5))
    assert view.current.speed_mps == 1.2
    assert view.passes is None


@pytest.mark.parametrize(("speed", "toward"), [(-0.1, 0.0), (9.0, 0.0), (0.5, 400.0)])
def test_impossible_current_is_refused(speed: float, toward: float):
    with pytest.raises(InvalidInputError) as caught:
        out(event("current_noted", 2, speed_mps=speed, toward_deg=toward))
    assert caught.value.field in ("payload.speed_mps", "payload.toward_deg")


def test_line_is_drawn_as_it_curves_from_its_tip_to_its_lure():
    for course, radius in (("straight", None), ("port", 40.0)):
        for rod in out().plan(course=course, radius_m=radius).rods:
            assert rod.path[0].side_m == pytest.approx(rod.tip_side_m, abs=0.02)
            assert rod.path[-1] == rod.place
    # In a turn to port the middle of a long line lies outside the chord from tip to lure.
    rod = {r.rod_id: r for r in out().plan(course="port", radius_m=40.0).rods}["rod-5"]
    first, last = rod.path[0], rod.path[-1]
    bows = [
        (at.side_m - first.side_m) * last.behind_m
        - (last.side_m - first.side_m) * (at.behind_m - first.behind_m)
        for at in rod.path[1:-1]
    ]
    assert max(bows) > 5.0
    assert min(bows) > -1.0
