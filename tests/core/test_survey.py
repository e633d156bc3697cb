"""Charts from soundings, and legs along them: never in closed water, never tighter than asked."""

from __future__ import annotations

import math

import numpy as np
import pytest
from geographiclib.geodesic import Geodesic
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from coldwake_core.chart.features import Feature, Features, first_crossing
from coldwake_core.chart.grid import DepthGrid, GeoPoint, moved
from coldwake_core.constants import FOOT_M
from coldwake_core.errors import InvalidInputError
from coldwake_core.survey.legs import LegsWish, contour_lines, plan_legs, shore_lines
from coldwake_core.survey.soundings import Sounding, grid_soundings, look_at

HERE = GeoPoint(latitude_deg=44.0, longitude_deg=-105.0)


def at(east_m, north_m):
    return moved(
        moved(HERE, course_deg=0.0, distance_m=north_m), course_deg=90.0, distance_m=east_m
    )


def plane(count=400, seed=1, slope=0.02):
    """A bottom that falls to the east, sounded here and there: 5 m and 2 cm a metre."""
    rng = np.random.default_rng(seed)
    return [
        Sounding(place=at(e, n), depth_m=5.0 + slope * e)
        for e, n in rng.uniform(0.0, 800.0, (count, 2))
    ]


def bowl(side=61, cell_m=20.0, deepest=30.0):
    """A round lake on a grid: depth falls as a paraboloid, land outside."""
    middle = 0.5 * (side - 1)
    rows = []
    for r in range(side):
        row = []
        for c in range(side):
            depth = deepest * (1.0 - ((r - middle) ** 2 + (c - middle) ** 2) / (0.9 * middle) ** 2)
            row.append(depth if depth > 0.0 else None)
        rows.append(tuple(row))
    return DepthGrid(south_west=HERE, cell_m=cell_m, rows=tuple(rows))


def ring(east_m, north_m, radius_m, kind="closed_ring"):
    return Feature(
        id=f"{kind}{east_m:.0f}{north_m:.0f}", name="x", kind=kind, corners=(at(east_m, north_m),),
        radius_m=radius_m, rule="closed", origin="a board", entered_on="2026-04-01",
    )


def wish(**changes):
    return LegsWish(**{
        "depth_m": 12.0, "least_depth_m": 5.0, "radius_m": 30.0, "speed_mps": 0.8, **changes
    })


def metres(a, b):
    """By the geodesic of the ellipsoid, and not by the code under test."""
    return Geodesic.WGS84.Inverse(
        a.latitude_deg, a.longitude_deg, b.latitude_deg, b.longitude_deg
    )["s12"]


def test_a_plane_comes_back_as_a_plane():
    chart = grid_soundings(plane(), cell_m=20.0)
    for east, north in ((200.0, 300.0), (400.0, 400.0), (600.0, 150.0)):
        assert chart.grid.depth_m(at(east, north)) == pytest.approx(5.0 + 0.02 * east, abs=0.02)


def test_doubt_grows_away_from_the_soundings():
    soundings = [s for s in plane() if metres(s.place, at(400.0, 400.0)) > 150.0]
    chart = grid_soundings(soundings, cell_m=20.0)
    doubt = {
        (r, c): d for r, row in enumerate(chart.doubt_m) for c, d in enumerate(row) if d is not None
    }
    assert min(doubt.values()) == pytest.approx(0.3, abs=0.03)
    hole = chart.doubt_m[20][20]
    assert hole > 3.0 * min(doubt.values())
    # 150 m from any sounding on a slope of 2 cm a metre: sqrt(0.3^2 + (0.02 * 150 / 2)^2).
    assert hole == pytest.approx(math.hypot(0.3, 0.01 * 150.0), rel=0.35)


def test_what_is_odd_is_said_before_it_is_taken():
    deep = max(s.depth_m for s in plane())
    known = {"known_at": at(400.0, 400.0), "known_deepest_m": deep}
    assert look_at(plane(), **known).oddities == ()
    spiked = plane()
    spiked[17] = Sounding(place=spiked[17].place, depth_m=95.0)
    odd = look_at(spiked, **known).oddities
    assert [(o.kind, o.count, o.rows) for o in odd] == [("spikes", 1, (18,))]
    feet = [Sounding(place=s.place, depth_m=s.depth_m / FOOT_M) for s in plane()]
    assert [o.kind for o in look_at(feet, **known).oddities] == ["feet"]
    swapped = [
        Sounding(
            place=GeoPoint(
                latitude_deg=-s.place.longitude_deg - 60.0, longitude_deg=s.place.latitude_deg
            ),
            depth_m=s.depth_m,
        )
        for s in plane()
    ]
    there = GeoPoint(latitude_deg=44.0, longitude_deg=45.0)
    exchanged = look_at(swapped, known_at=there, known_deepest_m=deep)
    assert [o.kind for o in exchanged.oddities] == ["swapped"]
    assert [o.kind for o in look_at(plane(), known_at=there).oddities] == ["elsewhere"]
    double = [*plane(), plane()[0]]
    assert [(o.kind, o.count) for o in look_at(double, **known).oddities] == [("double", 2)]


def test_a_spike_is_left_out_of_the_chart_and_doubles_are_averaged():
    spiked = plane()
    spiked[17] = Sounding(place=spiked[17].place, depth_m=95.0)
    chart = grid_soundings(spiked, cell_m=20.0)
    assert max(d for row in chart.grid.rows for d in row if d is not None) < 25.0
    twice = [Sounding(place=s.place, depth_m=s.depth_m + k) for s in plane() for k in (0.0, 1.0)]
    averaged = grid_soundings(twice, cell_m=20.0).grid.depth_m(at(400.0, 400.0))
    assert averaged == pytest.approx(13.5, abs=0.05)


def test_a_shore_ends_the_water_and_an_island_stands_in_it():
    def box(low, high):
        return (at(low, low), at(high, low), at(high, high), at(low, high))

    bottom = plane()
    open_water = grid_soundings(bottom, cell_m=20.0)
    chart = grid_soundings(bottom, cell_m=20.0, shores=[box(100.0, 700.0), box(380.0, 480.0)])

    def depth(of, east, north):
        return of.grid.depth_m(at(east, north))

    assert depth(open_water, 60.0, 400.0) == pytest.approx(6.2, abs=0.1)
    assert depth(chart, 60.0, 400.0) == 0.0
    assert depth(chart, 430.0, 430.0) == 0.0
    # Far from any shore as it was sounded; by the shore the bottom comes up to nothing.
    assert depth(chart, 560.0, 250.0) == pytest.approx(depth(open_water, 560.0, 250.0), abs=0.3)
    assert depth(chart, 690.0, 250.0) < 0.5 * depth(open_water, 690.0, 250.0)
    lines = shore_lines(chart.grid)
    assert len(lines) == 2
    around = sorted(float(np.hypot(*np.diff(line, axis=0).T).sum()) for line in lines)
    assert around == pytest.approx([4 * 100.0, 4 * 600.0], rel=0.2)


def test_a_shore_beside_the_soundings_is_refused():
    far = [at(3000.0, 0.0), at(3100.0, 0.0), at(3100.0, 100.0)]
    with pytest.raises(InvalidInputError, match="shore"):
        grid_soundings(plane(), cell_m=20.0, shores=[far])


def test_level_of_the_day_is_taken_off():
    high = grid_soundings(plane(), cell_m=20.0, level_m=2.0).grid
    assert high.depth_m(at(400.0, 400.0)) == pytest.approx(11.0, abs=0.05)


def test_a_few_soundings_are_judged_by_those_beside_them():
    right = Sounding(place=at(403.0, 404.0), depth_m=9.0)
    wrong = Sounding(place=at(603.0, 604.0), depth_m=90.0)
    alone = look_at([right], beside=plane())
    assert (alone.count, alone.spacing_m, alone.oddities) == (1, 0.0, ())
    looked = look_at([right, wrong], beside=plane())
    (odd,) = looked.oddities
    assert (odd.kind, odd.count, odd.rows) == ("spikes", 1, (2,))
    with pytest.raises(InvalidInputError):
        look_at([right], beside=plane()[:5])


@pytest.mark.parametrize("soundings", [
    [], plane()[:5], [Sounding(place=at(10.0 * i, 0.0), depth_m=5.0) for i in range(20)],
    [*plane(), Sounding(place=GeoPoint(latitude_deg=-44.0, longitude_deg=12.0), depth_m=3.0)],
])
def test_soundings_that_make_no_chart_are_told(soundings):
    with pytest.raises(InvalidInputError) as caught:
        grid_soundings(soundings)
    assert caught.value.field == "soundings"


def test_a_chart_is_lowered_and_made_coarser():
    lake = bowl()
    low = lake.lowered(5.0)
    assert low.rows[30][30] == pytest.approx(25.0)
    assert sum(d is None for row in low.rows for d in row) > sum(
        d is None for row in lake.rows for d in row
    )
    assert lake.lowered(0.0) is lake
    small = lake.coarser(1000)
    assert len(small.rows) * len(small.rows[0]) <= 1000
    assert small.cell_m == 40.0
    assert small.depth_m(at(600.0, 600.0)) == pytest.approx(lake.depth_m(at(600.0, 600.0)), abs=0.3)
    assert lake.coarser(10_000) is lake


def test_contour_of_a_bowl_is_a_circle():
    # Depth 12 of 30: (1 - 12/30) of the radius squared; the radius is 0.9 of half the side.
    (line,) = contour_lines(bowl(), 12.0)
    radius = np.hypot(line[:, 0] - 600.0, line[:, 1] - 600.0)
    assert radius == pytest.approx(0.9 * 600.0 * math.sqrt(0.6), rel=0.01)


def test_a_leg_goes_once_round_a_round_lake():
    (leg,) = plan_legs(bowl(), wish())
    around = 2.0 * math.pi * 0.9 * 600.0 * math.sqrt(0.6)
    assert leg.length_m == pytest.approx(around, rel=0.02)
    assert leg.minutes == pytest.approx(around / 0.8 / 60.0, rel=0.02)
    assert leg.shallowest_m == pytest.approx(12.0, abs=0.4)
    total = sum(metres(a, b) for a, b in zip(leg.places, leg.places[1:], strict=False))
    assert total == pytest.approx(leg.length_m, rel=0.01)


def test_no_leg_is_tighter_than_the_spread_may_turn():
    for radius in (30.0, 120.0, 250.0):
        for leg in plan_legs(bowl(), wish(radius_m=radius)):
            assert leg.tightest_m >= 0.9 * radius
    with pytest.raises(InvalidInputError) as caught:
        plan_legs(bowl(side=21, cell_m=15.0), wish(radius_m=300.0))
    assert caught.value.field == "depth_m"


def test_a_weave_goes_up_and_down_the_bank():
    (leg,) = plan_legs(bowl(), wish(weave_m=20.0))
    assert leg.shallowest_m < 11.0
    assert leg.deepest_m > 13.0
    assert "weaving" in leg.why


def test_sun_and_wind_are_told_and_the_leg_is_run_into_the_wind():
    lines = DepthGrid(
        south_west=HERE, cell_m=20.0,
        rows=tuple(tuple(0.6 * c for c in range(60)) for _ in range(60)),
    )
    # Contours run north and south: across a sun in the east.
    (east,) = plan_legs(lines, wish(sun_deg=90.0))
    assert east.across_sun == pytest.approx(1.0)
    (south,) = plan_legs(lines, wish(sun_deg=180.0))
    assert south.across_sun == 0.0
    (leg,) = plan_legs(lines, wish(wind_from_deg=0.0, wind_mps=5.0))
    assert leg.into_wind == pytest.approx(1.0)
    assert leg.places[-1].latitude_deg > leg.places[0].latitude_deg
    (back,) = plan_legs(lines, wish(wind_from_deg=180.0, wind_mps=5.0))
    assert back.places[-1].latitude_deg < back.places[0].latitude_deg
    (dark,) = plan_legs(lines, wish())
    assert dark.across_sun == 0.0


def test_a_hazard_and_a_ring_cut_a_leg():
    whole = plan_legs(bowl(), wish())[0].length_m
    rock = ring(600.0 + 0.9 * 600.0 * math.sqrt(0.6), 600.0, 100.0, kind="hazard")
    cut = plan_legs(bowl(), wish(), [rock])
    assert sum(leg.length_m for leg in cut) == pytest.approx(whole - 202.0, abs=15.0)
    closed = ring(600.0 + 0.9 * 600.0 * math.sqrt(0.6), 600.0, 100.0)
    kept = plan_legs(bowl(), wish(margin_m=50.0), [closed])
    assert sum(leg.length_m for leg in kept) == pytest.approx(whole - 303.0, abs=20.0)


@settings(max_examples=40, deadline=None, suppress_health_check=[HealthCheck.too_slow])
@given(
    seed=st.integers(0, 10_000), east=st.floats(100.0, 1100.0), north=st.floats(100.0, 1100.0),
    radius=st.floats(20.0, 300.0), margin=st.floats(0.0, 80.0), depth=st.floats(3.0, 20.0),
    weave=st.sampled_from([0.0, 15.0]),
)
def test_no_leg_lies_in_closed_water_on_any_chart(seed, east, north, radius, margin, depth, weave):
    rng = np.random.default_rng(seed)
    bumps = [(rng.uniform(0, 60, 2), rng.uniform(4, 20), rng.uniform(-12, 12)) for _ in range(6)]
    rows = []
    for r in range(61):
        row = []
        for c in range(61):
            d = 12.0 + sum(
                h * math.exp(-((r - p[1]) ** 2 + (c - p[0]) ** 2) / w**2) for p, w, h in bumps
            )
            row.append(d if d > 0.0 else None)
        rows.append(tuple(row))
    chart = DepthGrid(south_west=HERE, cell_m=20.0, rows=tuple(rows))
    closed = ring(east, north, radius)
    try:
        legs = plan_legs(
            chart, wish(depth_m=depth, least_depth_m=2.0, margin_m=margin, weave_m=weave), [closed]
        )
    except InvalidInputError as error:
        assert error.field == "depth_m"
        return
    for leg in legs:
        for place in leg.places:
            assert metres(place, closed.corners[0]) >= radius + margin - 2.0
            under = chart.depth_m(place)
            assert under is not None
            assert under >= 1.7


def square(*corners):
    return tuple(GeoPoint(latitude_deg=lat, longitude_deg=lon) for lat, lon in corners)


def test_a_polygon_that_crosses_itself_is_named():
    good = square((0, 0), (0, 1), (1, 1), (1, 0))
    crossed = square((0, 0), (1, 1), (0, 1), (1, 0))
    assert first_crossing(good) is None
    assert first_crossing(crossed) == (0, 2)
    values = {
        "id": "a", "name": "Bay", "kind": "closed_area", "rule": "closed", "origin": "a board",
        "entered_on": "2026-04-01",
    }
    Feature(corners=good, **values).check()
    with pytest.raises(InvalidInputError, match="sides 1 and 3") as caught:
        Feature(corners=crossed, **values).check()
    assert caught.value.field == "corners"


@pytest.mark.parametrize(("changes", "field"), [
    ({"radius_m": 0.0}, "radius_m"), ({"rule": ""}, "rule"), ({"origin": ""}, "origin"),
    ({"entered_on": "spring"}, "entered_on"), ({"corners": ()}, "corners"), ({"name": ""}, "name"),
    ({"corners": (GeoPoint(latitude_deg=99.0, longitude_deg=0.0),)}, "corners[0].latitude_deg"),
])
def test_closed_water_says_by_whose_rule_and_where(changes, field):
    good = ring(0.0, 0.0, 100.0)
    good.check()
    values = {
        name: getattr(good, name)
        for name in ("id", "name", "kind", "corners", "radius_m", "rule", "origin", "entered_on")
    }
    with pytest.raises(InvalidInputError) as caught:
        Feature(**{**values, **changes}).check()
    assert caught.value.field == field


def test_two_features_of_one_id_are_refused():
    with pytest.raises(InvalidInputError) as caught:
        Features(features=(ring(0.0, 0.0, 10.0), ring(0.0, 0.0, 10.0))).check()
    assert caught.value.field == "features[1].id"


@pytest.mark.parametrize(("changes", "field"), [
    ({"depth_m": 0.0}, "depth_m"), ({"radius_m": 1.0}, "radius_m"),
    ({"speed_mps": 0.0}, "speed_mps"),
    ({"least_depth_m": 13.0}, "least_depth_m"), ({"sun_deg": 400.0}, "sun_deg"),
    ({"margin_m": math.inf}, "margin_m"), ({"weave_m": -1.0}, "weave_m"),
])
def test_legs_that_cannot_be_wished_for_are_named(changes, field):
    with pytest.raises(InvalidInputError) as caught:
        plan_legs(bowl(), wish(**changes))
    assert caught.value.field == field
