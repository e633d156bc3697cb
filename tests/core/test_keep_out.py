"""Closed water and hazards on the water: where the boat is, where it heads, where it was."""

from __future__ import annotations

import math

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st
from shapely.geometry import Point, Polygon
from test_ahead import HERE
from trip_cases import at, event, session, trip_document

from coldwake_core.boat.reckoning import place_doubt
from coldwake_core.chart.features import Feature, beyond_m, may_reach
from coldwake_core.chart.grid import GeoPoint, moved
from coldwake_core.decode import decode, encode
from coldwake_core.errors import InvalidInputError
from coldwake_core.places.review.ledger import ledger
from coldwake_core.record.old import read_trip
from coldwake_core.record.trip import Trip

HOME = GeoPoint(**HERE)


def there(east_m=0.0, north_m=0.0):
    return moved(
        moved(HOME, course_deg=0.0, distance_m=north_m), course_deg=90.0, distance_m=east_m
    )


def feature(*places, kind="closed_ring", radius_m=50.0, key="f"):
    return Feature(
        id=key, name="Creek mouth", kind=kind, corners=tuple(there(*place) for place in places),
        radius_m=radius_m if kind != "closed_area" else 0.0, rule="no fishing within 50 m",
        origin="board at the ramp", entered_on="2026-04-01",
    )


corner = st.tuples(st.floats(-400, 400), st.floats(-400, 400))


@given(st.lists(corner, min_size=3, max_size=9, unique=True), corner)
def test_distance_to_an_area_is_what_shapely_makes_of_it(corners, place):
    shape = Polygon(corners)
    assume(shape.is_valid and shape.area > 100.0)
    point = Point(place)
    wanted = shape.exterior.distance(point) * (-1.0 if shape.contains(point) else 1.0)
    found = beyond_m(feature(*corners, kind="closed_area"), there(*place))
    # Both lie on a flat patch; theirs about the same place for all of it.
    assert found == pytest.approx(wanted, abs=0.5)


@given(
    st.lists(corner, min_size=3, max_size=6), corner, st.floats(0, 300),
    st.sampled_from(["closed_area", "closed_ring"]),
)
def test_the_box_never_hides_what_is_near(corners, place, within, kind):
    one = feature(*(corners if kind == "closed_area" else corners[:1]), kind=kind)
    if beyond_m(one, there(*place)) <= within:
        assert may_reach(one, there(*place), within)


def test_the_box_leaves_out_what_is_far_on_every_side():
    for course in (0.0, 90.0, 180.0, 270.0):
        far = moved(HOME, course_deg=course, distance_m=900.0)
        assert not may_reach(feature((0.0, 0.0)), far, 400.0)
        assert may_reach(feature((0.0, 0.0)), far, 850.0)


def fishing(*places, keep_out, out=True):
    """A boat under way at 1 m/s whose places were noted at minutes, each (minute, east, north)."""
    documents = [event("speed_changed", 1, speed_mps=1.0)]
    if out:
        documents.append(event("line_set", 2, rod_id="rod-3", setting_m=8.0))
    documents += [
        event("position_fixed", minute, **encode(there(east, north)), course_deg=0.0)
        for minute, east, north in places
    ]
    return session(*documents, keep_out=[encode(one) for one in keep_out])


def test_closed_water_ahead_is_told_with_the_time_that_is_left():
    # By hand: 300 m to the middle, 50 m of ring, and the doubt of a fresh place.
    near = fishing((10, 0, 0), keep_out=[feature((0.0, 300.0))]).view(at(10)).keep_out
    doubt = place_doubt(age_s=0.0, ground_mps=1.0).radius_m
    assert [one.state for one in near] == ["ahead"]
    assert near[0].in_m == pytest.approx(250.0 - doubt, abs=9.0)
    assert near[0].in_s == pytest.approx(near[0].in_m / 1.0)
    assert near[0].beyond_m == pytest.approx(250.0, abs=1.0)
    assert near[0].feature.rule == "no fishing within 50 m"


@pytest.mark.parametrize(("east", "north", "state"), [
    (0.0, 0.0, "inside"), (0.0, -48.0, "inside"), (0.0, -56.0, "may_be_inside"),
    (0.0, -200.0, "ahead"),
])
def test_inside_may_be_inside_and_ahead_are_told_apart(east, north, state):
    seen = fishing((10, east, north), keep_out=[feature((0.0, 0.0))]).view(at(10)).keep_out
    assert [one.state for one in seen] == [state]
    assert (seen[0].in_s == 0.0) == (state != "ahead")


@pytest.mark.parametrize(("east", "north"), [(0.0, 80.0), (120.0, -200.0), (0.0, -800.0)])
def test_nothing_is_said_of_what_is_behind_aside_or_far(east, north):
    # The doubt of a fresh place is 11 m, and it looks five minutes ahead: 300 m at 1 m/s.
    assert fishing((10, east, north), keep_out=[feature((0.0, 0.0))]).view(at(10)).keep_out == ()


def test_an_older_place_warns_earlier_and_a_lost_one_says_nothing():
    boat = fishing((10, 0, 0), keep_out=[feature((0.0, 400.0))])
    fresh, later = boat.view(at(11)).keep_out[0], boat.view(at(13)).keep_out[0]
    assert later.place_doubt_m > fresh.place_doubt_m
    # Two minutes on at 1 m/s it is 120 m nearer, and nearer still by what the doubt has grown.
    assert fresh.in_m - later.in_m > 120.0
    assert boat.view(at(60)).keep_out == ()


def test_the_nearest_comes_first_and_hazards_are_told_too():
    rock = feature((0.0, 120.0), kind="hazard", radius_m=20.0, key="rock")
    seen = fishing((10, 0, 0), keep_out=[feature((0.0, 250.0)), rock]).view(at(10)).keep_out
    assert [one.feature.id for one in seen] == ["rock", "f"]


def test_a_trip_that_is_over_says_nothing_more():
    boat = fishing((10, 0, 0), keep_out=[feature((0.0, 0.0))])
    assert boat.view(at(11)).keep_out
    boat.add(event("trip_ended", 12))
    assert boat.view(at(13)).keep_out == ()


def test_review_tells_when_lines_were_out_in_closed_water():
    ring = feature((0.0, 0.0))
    boat = fishing(
        (10, 0, -90), (12, 0, -40), (14, 0, 10), (16, 0, 80), (30, 0, 0), (50, 0, 0),
        keep_out=[ring, feature((0.0, 0.0), kind="hazard", key="rock")],
    )
    spells = ledger(boat.now, at(60)).inside
    # What lies between two places twenty minutes apart is not guessed.
    assert [(s.from_s, s.to_s) for s in spells] == [
        (at(12), at(14)), (at(30), at(30)), (at(50), at(50))
    ]
    assert spells[0].deepest_in_m == pytest.approx(40.0, abs=1.0)
    assert ledger(fishing((12, 0, 0), keep_out=[ring], out=False).now, at(60)).inside == ()


def test_only_what_a_boat_stays_out_of_is_taken_along():
    bar = {**encode(feature((0.0, 0.0))), "kind": "bar"}
    with pytest.raises(InvalidInputError) as refused:
        decode(Trip, trip_document(keep_out=[bar]))
    assert refused.value.field == "keep_out[0].kind"


def test_a_record_of_before_and_one_with_a_wrong_ring_are_read():
    assert read_trip(trip_document())[0].keep_out == ()
    wrong = {**encode(feature((0.0, 0.0))), "radius_m": -math.inf}
    trip, unread = read_trip(trip_document(keep_out=[wrong, encode(feature((0.0, 0.0)))]))
    assert len(trip.keep_out) == 1
    assert [one.id for one in unread] == ["trip.keep_out[0].radius_m"]
