"""The bottom along the track, the chart, and the events about boards, tips and cables."""

from __future__ import annotations

import math
from typing import Any

import pytest
from geographiclib.geodesic import Geodesic
from tackle import demo_outfit
from trip_cases import at, event, session

from coldwake_core.advice.moves import next_move
from coldwake_core.boat.current import Current, ground_speed_on_course
from coldwake_core.chart.grid import DepthGrid, GeoPoint, moved, offset_m
from coldwake_core.constants import FOOT_M
from coldwake_core.decode import decode, encode
from coldwake_core.errors import InvalidInputError, UnknownItemError
from coldwake_core.places.fish import page

HERE = {"latitude_deg": 44.0, "longitude_deg": -115.0}
CELL_M = 20.0


def chart(depth_of: Any, rows: int = 60, columns: int = 9) -> dict[str, Any]:
    """A chart north of a line 200 m south of HERE; depth by metres north of HERE."""
    corner = moved(GeoPoint(**HERE), course_deg=180.0, distance_m=200.0)
    corner = moved(corner, course_deg=270.0, distance_m=80.0)
    return {
        "south_west": encode(corner),
        "cell_m": CELL_M,
        "rows": [[depth_of(row * CELL_M - 200.0)] * columns for row in range(rows)],
        "origin": "made up for a test",
    }


def ledge(north_m: float) -> float:
    """Twenty metres deep, then a bank of 8 m from 120 m north of HERE on."""
    return 20.0 if north_m < 120.0 else 8.0


def northward(minute: float = 10.0) -> dict[str, Any]:
    return event("position_fixed", minute, **HERE, course_deg=0.0)


def one_rigger(*more: dict[str, Any], depth: float = 12.0, **changes: Any):
    return session(
        event("speed_changed", 1, speed_mps=1.0),
        event("line_set", 2, rod_id="rod-3", setting_m=depth),
        *more,
        **changes,
    )


def test_chart_gives_back_its_cells_and_goes_straight_between_them():
    grid = decode(DepthGrid, chart(lambda north: 0.5 * north + 200.0))
    corner = grid.south_west
    assert grid.depth_m(corner) == pytest.approx(100.0)
    between = moved(corner, course_deg=0.0, distance_m=130.0)
    assert grid.depth_m(between) == pytest.approx(165.0, abs=0.01)
    assert grid.depth_m(moved(corner, course_deg=180.0, distance_m=5.0)) is None


def test_offsets_agree_with_the_geodesic():
    # Karney's geodesic on WGS84 (geographiclib) is the reference.
    start = GeoPoint(**HERE)
    there = moved(start, course_deg=63.0, distance_m=5000.0)
    line = Geodesic.WGS84.Inverse(
        start.latitude_deg, start.longitude_deg, there.latitude_deg, there.longitude_deg
    )
    assert line["s12"] == pytest.approx(5000.0, rel=5e-3)
    assert line["azi1"] == pytest.approx(63.0, abs=0.3)
    east, north = offset_m(start, there)
    assert (east**2 + north**2) ** 0.5 == pytest.approx(5000.0, rel=1e-6)


def test_ledge_is_called_in_time_for_the_ball():
    trip = one_rigger(northward(), chart=chart(ledge))
    view = trip.view(at(10)).ahead
    assert view.source == "chart"
    call = next(c for c in view.calls if c.rod_id == "rod-3")
    assert call.act == "raise"
    # The bank begins between 100 m (20 m deep) and 120 m (8 m); lure and ball near 12 m meet it
    # with 4 ft to spare once it is above 13.2 m, 111 m north: the boat makes 1 m/s.
    assert 105.0 < call.in_s < 135.0
    assert call.in_s == pytest.approx(call.in_m, rel=1e-6)
    assert call.bottom_m == pytest.approx(8.0)
    assert call.number.setting_m < 12.0


def test_nothing_is_tried_that_the_ledge_ahead_would_call_up_again(monkeypatch):
    asked = []
    monkeypatch.setattr(page, "next_move", lambda situation: (
        asked.append(situation), next_move(situation)
    )[1])
    for water in ({"chart": chart(ledge)}, {}):
        one_rigger(northward(), **water).view(at(10))
    (over_ledge,), (level,) = ([rod.trial_depths for rod in s.rods] for s in asked)
    top = min(ledge(north) for north in range(0, 400))
    assert max(level) > top
    # Clear of its top by the four feet that lures are kept off.
    assert max(over_ledge) <= top - 4.0 * FOOT_M


def depth_asked(trip: Any) -> tuple[str, float] | None:
    """Why and how deep the next move or habit sets a rod, m."""
    move = trip.view(at(10)).move
    line = None if move is None else move.answer.change.line_set
    return None if line is None else (move.basis, line.wanted_depth_m)


def test_a_shore_far_ahead_or_by_a_place_of_minutes_ago_forbids_no_depth():
    def far(north_m: float) -> float:
        """Level, and a shore 200 m north of HERE."""
        return 20.0 if north_m < 200.0 else 0.5

    marked = event("mark_seen", 9, depth_m=14.0, count=4)

    def asked(minute: float, fixed: float) -> tuple[str, float] | None:
        trip = one_rigger(northward(fixed), marked, depth=3.0, chart=chart(far))
        move = trip.view(at(minute)).move
        line = None if move is None else move.answer.change.line_set
        return None if line is None else (move.basis, line.wanted_depth_m)

    # More than three minutes off at 1 m/s the marks are fished; a minute and a half off they are
    # not; and not forbidden by where the boat would be by a place of more than two minutes ago.
    assert asked(10.0, 10.0) == ("marks", pytest.approx(13.4, abs=0.1))
    near = asked(11.9, 10.0)
    assert near is None or near[0] != "marks"
    assert asked(12.2, 10.0) == ("marks", pytest.approx(13.4, abs=0.1))


@pytest.mark.parametrize("school", ["weighed", "habits"])
def test_no_rod_is_set_to_marks_or_the_hours_depth_that_the_ledge_ahead_calls_up(school):
    top = min(ledge(north) for north in range(0, 400))
    say = event("school_chosen", 1, topic="advice", school=school)
    marked = event("mark_seen", 9, depth_m=14.0, count=4)
    # 62 °F: the method's band is 20 to 60 ft, its middle 12 m.
    warm = event("temperature_read", 2, temperature_degc=16.7, depth_m=0.3)
    for more, basis, wanted in (((marked,), "marks", 14.0), ((warm,), "school", 12.2)):
        level = depth_asked(one_rigger(say, northward(), *more, depth=3.0))
        # Level water: there they are, marks a little above.
        assert level is not None
        assert level[1] == pytest.approx(wanted, abs=0.7)
        assert school == "habits" or level[0] == basis
        ahead = depth_asked(one_rigger(say, northward(), *more, depth=3.0, chart=chart(ledge)))
        if basis == "marks":
            assert ahead is None or ahead[1] <= top - 4.0 * FOOT_M
        else:
            # As deep in the band as the ledge lets it, half a metre more off it.
            assert ahead is not None
            assert ahead[1] == pytest.approx(top - 4.0 * FOOT_M - 0.5)


def test_raising_as_called_silences_the_call():
    trip = one_rigger(northward(), chart=chart(ledge))
    call = trip.view(at(10)).ahead.calls[0]
    trip.add(event("line_set", 10.1, rod_id="rod-3", setting_m=call.number.setting_m))
    assert trip.view(at(10.2)).ahead.calls == ()


def test_boat_is_reckoned_on_from_its_fix():
    trip = one_rigger(northward(), chart=chart(ledge))
    soon, later = (trip.view(at(m)).ahead.calls[0].in_s for m in (10, 11))
    assert soon - later == pytest.approx(60.0, abs=10.0)


def test_longer_trail_meets_the_ledge_later():
    trip = one_rigger(northward(), chart=chart(ledge))
    near = trip.view(at(10)).ahead.calls[0].in_s
    trip.add(event("line_in", 10, rod_id="rod-3"))
    trip.add(event("line_set", 10, rod_id="rod-2", setting_m=60.0))
    far = [c for c in trip.view(at(10)).ahead.calls if c.rod_id == "rod-2"]
    assert far
    assert far[0].in_s > near


def test_old_fix_is_not_reckoned_on_from():
    trip = one_rigger(northward(), chart=chart(ledge))
    assert trip.view(at(11)).ahead.known
    assert not trip.view(at(40)).ahead.known


def test_sounding_moves_the_chart_to_todays_level():
    # Charted 20 m, sounded 17: the reservoir is 3 m down, and the bank stands at 5 m.
    trip = one_rigger(northward(), event("sounded", 10, bottom_m=17.0), chart=chart(ledge))
    view = trip.view(at(10)).ahead
    assert view.level_m == pytest.approx(-3.0, abs=0.01)
    assert view.calls[0].bottom_m == pytest.approx(5.0, abs=0.01)


def test_without_a_chart_the_sounding_is_taken_as_level():
    trip = one_rigger(event("sounded", 9, bottom_m=12.5))
    call = trip.view(at(9)).ahead.calls[0]
    assert trip.view(at(9)).ahead.source == "sounding"
    assert call.in_s == 0.0
    line = trip.view(at(9)).rods[2].line
    lowest = max(line.depth_m, line.ball_depth_m)
    assert call.by_m == pytest.approx(lowest + 4 * 0.3048 - 12.5, abs=1e-4)


def test_nothing_known_of_the_bottom_makes_no_call():
    assert one_rigger().view(at(10)).ahead is None


def test_clearance_is_over_the_bottom_under_each_lure_where_a_chart_tells():
    # Sounded 17 m where the chart has 20; by now the boat is over the bank, 5 m deep.
    trip = one_rigger(northward(), event("sounded", 10, bottom_m=17.0), chart=chart(ledge))
    rod = trip.view(at(14)).rods[2]
    assert rod.line.clearance_m == pytest.approx(5.0 - rod.line.ball_depth_m, abs=0.8)
    flat = one_rigger(event("sounded", 10, bottom_m=17.0)).view(at(14)).rods[2].line
    assert flat.clearance_m == pytest.approx(17.0 - max(flat.depth_m, flat.ball_depth_m))


def test_less_clearance_wanted_is_fewer_calls():
    trip = one_rigger(event("sounded", 9, bottom_m=13.2))
    assert [call.sure for call in trip.view(at(9.1)).ahead.calls] == ["near"]
    trip.add(event("clearance_chosen", 9, clearance_m=0.0))
    assert trip.view(at(9.1)).ahead.calls == ()


def test_bottom_tap_asks_for_the_cable_that_touches():
    trip = one_rigger(
        event("sounded", 9, bottom_m=15.0), event("bottom_tap", 9, rod_id="rod-3", on=True)
    )
    call = trip.view(at(10)).ahead.calls[0]
    assert (call.act, call.part) == ("let_down", "ball")
    trip.add(event("line_set", 10, rod_id="rod-3", setting_m=call.number.setting_m))
    assert trip.view(at(10.1)).ahead.calls == ()
    line = trip.view(at(10.1)).rods[2].line
    assert line.ball_depth_m == pytest.approx(15.0, abs=0.05)


def test_current_behind_brings_the_ledge_sooner():
    still = ground_speed_on_course(through_water_mps=1.0, course_deg=0.0, current=None)
    behind = Current(speed_mps=0.5, toward_deg=0.0)
    assert still == 1.0
    assert ground_speed_on_course(through_water_mps=1.0, course_deg=0.0, current=behind) == 1.5
    trip = one_rigger(northward(), chart=chart(ledge))
    slow = trip.view(at(10)).ahead.calls[0].in_s
    trip.add(event("current_noted", 10, speed_mps=0.5, toward_deg=0.0))
    assert trip.view(at(10)).ahead.calls[0].in_s == pytest.approx(slow / 1.5, rel=0.02)


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"latitude_deg": 120.0}, "latitude_deg"),
        ({"course_deg": 400.0}, "course_deg"),
        ({"longitude_deg": "here"}, "longitude_deg"),
    ],
)
def test_impossible_places_are_refused(change: dict[str, Any], field: str):
    with pytest.raises(InvalidInputError) as caught:
        one_rigger(event("position_fixed", 1, **{**HERE, "course_deg": 0.0, **change}))
    assert field in caught.value.field


def test_ragged_chart_is_refused():
    document = chart(ledge)
    document["rows"][3] = document["rows"][3][:-1]
    with pytest.raises(InvalidInputError, match=r"rows\[3\]"):
        decode(DepthGrid, document)


# --- tips, cables and boards -------------------------------------------------------------------


def boarded() -> dict[str, Any]:
    outfit = demo_outfit()
    for number, side in enumerate((8.0, 16.0, 24.0)):
        outfit["places"].append(
            {
                "id": f"board-{number}",
                "name": f"board {number}",
                "kind": "board",
                "side_m": side,
                "tip_height_m": 0.3,
            }
        )
    return outfit


def stack(rod_id: str, above_m: float, minute: float = 3.0, **more: Any) -> dict[str, Any]:
    return event(
        "rod_rigged",
        minute,
        **{
            "rod_id": rod_id,
            "place_id": "rigger-port",
            "line_id": "rigger-12",
            "lure_id": "thin-copper",
            "setback_m": 6.0,
            "above_ball_m": above_m,
            **more,
        },
    )


def test_stacked_line_follows_the_ball():
    trip = one_rigger(stack("rod-1", 4.0))
    trip.add(event("line_set", 4, rod_id="rod-1", setting_m=12.0))
    trip.add(event("line_set", 5, rod_id="rod-3", setting_m=15.0))
    rods = trip.state.rods
    assert rods["rod-1"].setting_m == 15.0
    views = {rod.id: rod for rod in trip.view(at(6)).rods}
    assert views["rod-1"].kind == "stacked"
    assert views["rod-1"].line.depth_m < views["rod-3"].line.depth_m
    assert views["rod-1"].line.number.above_ball_m == 4.0


def test_number_for_a_stacked_line_also_says_where_to_clip_it():
    trip = one_rigger(stack("rod-1", 4.0))
    trip.add(event("line_set", 4, rod_id="rod-1", setting_m=12.0))
    now = trip.where(rod_id="rod-1", setting_m=12.0)
    line = trip.number_for(rod_id="rod-1", depth_m=now.depth_m - 2.0)
    # Two metres shallower: about two metres of cable higher, the counter left where it is.
    assert line.clip_above_ball_m == pytest.approx(6.0, abs=0.1)


def test_two_lines_on_one_clip_are_refused():
    with pytest.raises(InvalidInputError, match="above_ball_m"):
        one_rigger(stack("rod-1", 0.0))


def test_slider_without_a_place_on_the_cable_is_refused():
    with pytest.raises(InvalidInputError, match="where on the cable"):
        one_rigger(stack("rod-1", 0.0, slider_kg=0.113))


def test_rod_tip_held_high_lifts_a_shallow_plug():
    trip = session(
        event("speed_changed", 1, speed_mps=0.8),
        event("line_set", 2, rod_id="rod-1", setting_m=30.0),
    )
    depths = []
    for minute, tip in enumerate(("low", "level", "high"), start=3):
        trip.add(event("tip_moved", minute, rod_id="rod-1", tip=tip))
        depths.append(trip.view(at(minute)).rods[0].line.depth_m)
    assert depths[0] > depths[1] > depths[2]


def test_tip_moved_while_the_line_is_in_counts_as_no_fishing():
    trip = session(
        event("line_set", 1, rod_id="rod-1", setting_m=30.0),
        event("line_in", 2, rod_id="rod-1"),
        event("tip_moved", 3, rod_id="rod-1", tip="high"),
    )
    (stint,) = [item for item in trip.state.stints if item.rod_id == "rod-1"]
    assert stint.end_s == at(2)


def test_tip_of_a_downrigger_rod_cannot_be_moved():
    with pytest.raises(InvalidInputError, match="holder"):
        one_rigger(event("tip_moved", 3, rod_id="rod-3", tip="high"))


def test_fresh_line_goes_innermost_and_the_others_slide_out():
    trip = session(outfit=boarded())
    for number, rod in enumerate(("rod-1", "rod-5", "rod-6")):
        trip.add(
            event(
                "rod_rigged",
                1,
                rod_id=rod,
                place_id=f"board-{number}",
                line_id="top-12",
                lure_id="minnow-silver",
            )
        )
        trip.add(event("line_set", 2, rod_id=rod, setting_m=40.0))
    trip.add(event("line_in", 3, rod_id="rod-6"))
    trip.add(event("board_reset", 4, rod_id="rod-6"))
    places = {rod: trip.state.rods[rod].setup.place_id for rod in ("rod-1", "rod-5", "rod-6")}
    assert places == {"rod-6": "board-0", "rod-1": "board-1", "rod-5": "board-2"}


def test_orders_let_boards_out_first_and_cables_last():
    trip = session(outfit=boarded())
    trip.add(
        event(
            "rod_rigged",
            1,
            rod_id="rod-1",
            place_id="board-2",
            line_id="top-12",
            lure_id="minnow-silver",
        )
    )
    orders = trip.orders()
    out = [step.rod_id for step in orders.out]
    assert out[0] == "rod-1"
    assert set(out[-2:]) == {"rod-3", "rod-4"}
    assert [step.rod_id for step in orders.back] == out[::-1]


def test_two_speeds_at_once_give_two_numbers():
    trip = one_rigger()
    slow, fast = trip.numbers_at(rod_id="rod-3", depth_m=10.0, speeds_mps=[0.6, 1.8])
    assert fast.line.number.setting_m > slow.line.number.setting_m
    assert slow.line.depth_m == pytest.approx(10.0, abs=1e-3)
    with pytest.raises(InvalidInputError, match="speeds_mps"):
        trip.numbers_at(rod_id="rod-3", depth_m=10.0, speeds_mps=[])


def test_speed_that_cannot_reach_says_how_deep_it_can():
    trip = session(event("speed_changed", 1, speed_mps=0.8))
    (found,) = trip.numbers_at(rod_id="rod-1", depth_m=15.0, speeds_mps=[0.8])
    assert found.line is None
    assert 0.0 < found.limit_m < 15.0


def test_sinking_plug_says_how_long_to_count():
    outfit = demo_outfit()
    outfit["lures"][0].update(mass_kg=0.016, lip="none")
    trip = session(event("speed_changed", 1, speed_mps=0.5), outfit=outfit)
    line = trip.number_for(rod_id="rod-1", depth_m=1.5)
    assert line.countdown_s == pytest.approx(1.5 / 0.3, rel=0.35)
    assert trip.number_for(rod_id="rod-3", depth_m=5.0).countdown_s is None


def test_tap_on_a_rod_that_is_not_aboard_is_refused():
    with pytest.raises(UnknownItemError, match="rod-99"):
        one_rigger(event("bottom_tap", 1, rod_id="rod-99", on=True))


def test_speed_only_tried_is_judged_over_the_charted_bottom():
    deep = one_rigger(
        northward(), bottom_m=20.0, chart=chart(lambda north: 20.0 if north > -5.0 else 9.0)
    )
    flat = deep.lines_tried(speed_mps=1.0)[0]
    charted = deep.lines_tried(speed_mps=1.0, now_s=at(10))[0]
    assert flat.clearance_m > 5.0
    # The ball trails a few metres behind the boat, over the 9 m that the chart has there.
    assert charted.clearance_m < 0.0
    assert charted.depth_m == flat.depth_m


def test_turn_grounds_a_ball_where_the_chart_is_shallow():
    opened = one_rigger(northward(), bottom_m=20.0, chart=chart(lambda north: 9.0))
    by_sounding = opened.manoeuvre(kind="u_turn", toward="port", radius_m=30.0)
    by_chart = opened.manoeuvre(kind="u_turn", toward="port", radius_m=30.0, now_s=at(10))
    assert by_sounding.grounded == ()
    assert by_chart.grounded == ("rod-3",)
    turn = opened.plan(course="port", radius_m=30.0, now_s=at(10))
    assert turn.rods[0].clearance_m < 0.0


def test_rate_of_turn_is_a_radius_at_this_speed():
    opened = one_rigger(northward())
    # 1 m/s and 2 degrees a second: the circle is 180 s long, its radius 180 / (2 pi) m.
    by_rate = opened.plan(course="starboard", rate_degps=2.0)
    assert by_rate.radius_m == pytest.approx(180.0 / 6.283185307, abs=1e-6)
    with pytest.raises(InvalidInputError) as caught:
        opened.plan(course="starboard", rate_degps=2.0, radius_m=20.0)
    assert caught.value.field == "rate_degps"
    with pytest.raises(InvalidInputError) as caught:
        opened.manoeuvre(kind="s_turn", toward="port")
    assert caught.value.field == "radius_m"


def test_chance_of_a_touch_takes_the_deeper_side_of_a_lopsided_band():
    # A leadcore's band reaches farther down than up. Over a bottom sounded this moment the chance
    # is that of a normal depth whose ninetieth per cent is the band's deep end.
    def seen(bottom_m: float):
        trip = session(
            event("speed_changed", 1, speed_mps=0.6),
            event("line_set", 2, rod_id="rod-5", setting_m=45.0),
            event("sounded", 9, bottom_m=bottom_m),
        )
        view = trip.view(at(9))
        return next(rod.line for rod in view.rods if rod.id == "rod-5"), view.ahead.calls

    line, _ = seen(40.0)
    below, above = line.deep_m - line.depth_m, line.depth_m - line.shallow_m
    assert below > 1.1 * above
    bottom = line.depth_m + 0.8
    _, calls = seen(bottom)
    (call,) = (found for found in calls if found.rod_id == "rod-5")
    expected = 0.5 * math.erfc(0.8 / (below / 1.2815516) / math.sqrt(2.0))
    assert call.chance == pytest.approx(expected, abs=0.01)
