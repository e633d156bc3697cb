"""S-turns, U-turns and a side wind."""

from __future__ import annotations

import math
from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st
from trip_cases import event, session

from coldwake_core.errors import InvalidInputError
from coldwake_core.places.above.spread import streaming_rad
from coldwake_core.tow.manoeuvre import Towed, chain, heading_along, lagged, unfold


def turned(
    trail_m: float,
    kind: str = "u_turn",
    radius_m: float = 40.0,
    side_m: float = 0.0,
    links: tuple[float, ...] = (),
):
    return unfold(
        {"a": Towed(aft_m=0.0, side_m=side_m, links_m=links or (trail_m,))},
        kind=kind,
        toward="port",
        radius_m=radius_m,
        speed_mps=1.0,
    )


@given(
    trail=st.floats(2.0, 60.0),
    radius=st.floats(10.0, 80.0),
    side=st.floats(-5.0, 5.0),
    share=st.floats(0.13, 1.0),
)
def test_line_is_as_long_at_every_moment(trail: float, radius: float, side: float, share: float):
    # A taut line that is pulled all the way through a turn to one side keeps every link's length.
    for shot in turned(trail, radius_m=radius, side_m=side, links=chain(trail, share)):
        joints = shot.joints["a"]
        assert joints[0] == pytest.approx((0.0, side), abs=1e-9)
        length = math.fsum(math.dist(a, b) for a, b in pairwise(joints))
        assert length <= trail + 1e-6
        assert shot.speeds_mps["a"] >= 0.0


def test_line_of_many_links_follows_its_tips_path():
    # Eight links cut the corner an eighth as much as one: r^2 = R^2 - sum of squares.
    rigid, supple = (
        turned(24.0, links=links)[20].speeds_mps["a"] for links in ((24.0,), (3.0,) * 8)
    )
    assert rigid < supple
    assert supple == pytest.approx(math.sqrt(40.0**2 - 8 * 9.0) / 40.0, abs=0.01)


def test_boat_goes_round_its_circles_and_where_it_is_is_told():
    # A half circle of 40 m to port ends two radii to port, then runs 0.7 of the line back.
    round_about = turned(20.0)
    assert (round_about[0].ahead_m, round_about[0].starboard_m) == (0.0, 0.0)
    assert round_about[-1].starboard_m == pytest.approx(-80.0, abs=0.1)
    assert round_about[-1].ahead_m == pytest.approx(-14.0, abs=0.1)
    # A weave of four arcs of 60 degrees comes out on its old line: 4 R sin 60 and the run on.
    weave = turned(20.0, "s_turn")
    assert min(shot.starboard_m for shot in weave) == pytest.approx(-40.0, abs=0.5)
    assert weave[-1].starboard_m == pytest.approx(0.0, abs=0.1)
    assert weave[-1].ahead_m == pytest.approx(160.0 * math.sin(math.pi / 3.0) + 14.0, abs=0.2)


def test_u_turn_ends_on_the_opposite_heading_with_the_line_astern():
    last = turned(20.0)[-1]
    assert last.turned_deg == pytest.approx(-180.0)
    # A tractrix forgets the turn over its own length: 0.7 of it leaves half of the angle.
    assert last.lure("a")[0] > 15.0


def test_s_turn_comes_back_to_the_old_course():
    shots = turned(15.0, kind="s_turn")
    assert min(shot.turned_deg for shot in shots) < -45.0
    assert max(shot.turned_deg for shot in shots) > 45.0
    assert shots[-1].turned_deg == pytest.approx(0.0, abs=1e-6)


def test_speed_in_a_long_turn_is_that_of_the_settled_tractrix():
    # After turning far longer than the trail the lure runs on r = sqrt(R^2 - b^2): R 40, b 24 gives
    # 32, and 0.8 of the boat's speed (3-4-5 triangle).
    shots = turned(24.0)
    inside = [shot.speeds_mps["a"] for shot in shots if 130.0 < -shot.turned_deg < 179.0]
    assert min(inside) == pytest.approx(0.8, abs=0.04)


def test_inside_line_slows_and_outside_line_speeds_up():
    def slowest(side: float) -> float:
        return min(shot.speeds_mps["a"] for shot in turned(10.0, radius_m=20.0, side_m=side))

    assert slowest(-6.0) < slowest(6.0)


def test_short_weave_slows_a_line_less_than_a_long_turn():
    weave = min(s.speeds_mps["a"] for s in turned(30.0, kind="s_turn", radius_m=32.0))
    long_turn = min(s.speeds_mps["a"] for s in turned(30.0, kind="u_turn", radius_m=32.0))
    assert weave > long_turn


def test_headings_of_the_weave():
    def at(run: float) -> float:
        return math.degrees(heading_along("s_turn", toward="starboard", radius_m=10.0, run_m=run))

    bend = math.radians(60) * 10
    assert at(bend) == pytest.approx(60.0)
    assert at(3 * bend) == pytest.approx(-60.0)
    assert at(4 * bend) == pytest.approx(0.0)


def test_lag_reaches_two_thirds_in_its_own_time():
    # 1 - 1/e = 0.632.
    values = lagged([0.0], [1.0] * 10, step_s=1.0, lag_s=10.0)
    assert values[-1] == pytest.approx(1 - math.exp(-1.0))
    assert lagged([0.0], [1.0], step_s=1.0, lag_s=0.0) == [1.0]


@pytest.mark.parametrize(
    ("field", "change"),
    [("kind", {"kind": "loop"}), ("toward", {"toward": "up"}), ("radius_m", {"radius_m": 1.0})],
)
def test_impossible_turns_are_refused(field: str, change: dict[str, object]):
    good = {"kind": "s_turn", "toward": "port", "radius_m": 30.0}
    with pytest.raises(InvalidInputError, match=field):
        session().manoeuvre(**{**good, **change})


def spread():
    return session(
        event("speed_changed", 1, speed_mps=0.8),
        event("line_set", 2, rod_id="rod-1", setting_m=45.0),
        event("line_set", 2, rod_id="rod-3", setting_m=9.0),
        event("line_set", 2, rod_id="rod-5", setting_m=25.0),
    )


def test_manoeuvre_starts_from_the_straight_tow():
    trip = spread()
    straight = {rod.rod_id: rod for rod in trip.plan(course="straight").rods}
    first = trip.manoeuvre(kind="s_turn", toward="port", radius_m=30.0).frames[0]
    for rod in first.rods:
        assert rod.place.behind_m == pytest.approx(straight[rod.rod_id].place.behind_m, abs=0.6)
        assert rod.place.side_m == pytest.approx(straight[rod.rod_id].place.side_m, abs=0.3)
        assert rod.depth_m == pytest.approx(straight[rod.rod_id].depth_m, rel=0.02)


def test_ball_keeps_its_depth_while_a_leadcore_sinks_inside_a_tight_turn():
    trip = spread()
    frames = trip.manoeuvre(kind="u_turn", toward="starboard", radius_m=15.0).frames

    def change(rod_id: str) -> float:
        return max(
            (rod.depth_change_m for frame in frames for rod in frame.rods if rod.rod_id == rod_id),
            key=abs,
        )

    assert abs(change("rod-3")) < 0.6
    assert change("rod-5") > 1.0


def test_tight_u_turn_tangles_and_a_wide_one_does_not():
    trip = session(
        event("speed_changed", 1, speed_mps=0.8),
        event("line_set", 2, rod_id="rod-1", setting_m=45.0),
        event("line_set", 2, rod_id="rod-6", setting_m=55.0),
    )
    counts = [
        len(trip.manoeuvre(kind="u_turn", toward="port", radius_m=r).tangles) for r in (8.0, 200.0)
    ]
    assert counts[0] > counts[1] == 0


def test_side_wind_streams_every_lure_to_one_side():
    trip = spread()
    calm, windy = trip.plan(course="straight"), trip.plan(course="straight", leeway_deg=20.0)
    for before, after in zip(calm.rods, windy.rods, strict=True):
        assert after.place.side_m > before.place.side_m
        assert after.place.behind_m < before.place.behind_m
        assert after.depth_m == before.depth_m


def test_shallow_line_streams_less_than_a_deep_one_in_a_side_wind():
    # The skin of the lake drifts with the boat: 3 % of the wind against a small boat's 10 %.
    deep, shallow = (streaming_rad(math.radians(10.0), depth) for depth in (10.0, 0.0))
    assert math.degrees(deep) == pytest.approx(10.0, abs=0.01)
    assert math.degrees(shallow) == pytest.approx(7.0)


def test_leeway_beyond_reason_is_refused():
    with pytest.raises(InvalidInputError, match="leeway_deg"):
        spread().plan(course="straight", leeway_deg=80.0)
