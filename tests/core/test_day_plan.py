"""The day by phases: tied to temperature and light, sliding with what is read."""

from __future__ import annotations

from dataclasses import replace
from itertools import pairwise

import pytest
from day_cases import SUN, clock, planned, rising
from hypothesis import given, settings
from hypothesis import strategies as st
from trip_cases import event, session

from coldwake_core.advice.colour import COLOUR_SCHOOLS, colours_for
from coldwake_core.advice.method import method_of_the_hour
from coldwake_core.advice.phases import SHORT_S, day_phases, phase_at, show_at
from coldwake_core.advice.safety import WayHome, turn_back
from coldwake_core.constants import FOOT_M, degc_from_degf
from coldwake_core.decode import encode
from coldwake_core.errors import InvalidInputError
from coldwake_core.gear.setup import RodSetup
from coldwake_core.places.fish.page import fish_view
from coldwake_core.places.plan.day import day_view, today_view
from coldwake_core.places.plan.river import RiverDay, Shallow, river_view
from coldwake_core.record import payloads
from coldwake_core.spread.opening import PlannedRod
from coldwake_core.spread.planned import bar_reach
from coldwake_core.trip.numbers import LineNumber
from coldwake_core.water.forecast import SlidDay, SurfaceReading


def phases(plan=None, readings=(), **changes):
    plan = plan or planned()
    values = {"species": "trout", "sun": SUN, "bottom_m": 40.0, **changes}
    return day_phases(plan, SlidDay(plan.forecast, readings), **values)


def read(degf, hour):
    return SurfaceReading(at_s=clock(hour), temperature_degc=degc_from_degf(degf))


def test_phases_follow_the_surface_from_first_light_to_dark():
    cold, warm = phases()
    # 48 °F at 6, 5 °F in ten hours: 50 °F at 10, the end of the cold method.
    assert cold.method.id == "cover_water"
    assert warm.method.id == "trout_warming"
    assert cold.start_s == SUN.first_light_s
    assert warm.start_s == pytest.approx(clock(10), abs=600.0)
    assert warm.end_s == SUN.dark_s


def test_a_windy_day_keeps_the_morning_s_method():
    (only,) = phases(planned(rising(rise_degf=1.0)))
    assert only.method.id == "cover_water"


def test_both_schools_of_the_cold_morning():
    assert phases(cold_school="stay_slow")[0].method.id == "stay_slow"
    assert phases(species="kokanee")[0].method.id == "stay_slow"
    assert phases(species="kokanee", cold_school="cover_water")[0].method.id == "cover_water"


def test_a_colder_reading_slides_the_slow_phase_later_and_a_warmer_one_earlier():
    planned_day = planned(rising(spread_degf=2.0, members=9))
    as_planned = phases(planned_day)[1].start_s
    late = phases(planned_day, [read(47.0, 8.5)])[1].start_s
    early = phases(planned_day, [read(50.5, 8.5)])[1].start_s
    assert early < as_planned < late


def test_earliest_and_latest_lie_about_the_start():
    warm = phases(planned(rising(spread_degf=1.0, members=9)))[1]
    assert warm.earliest_s < warm.start_s < warm.latest_s


def test_the_surface_falling_after_its_warmest_is_a_phase_of_its_own():
    found = phases(planned(rising(fall=True)))
    assert [p.falling for p in found] == [False, False, True]
    # 53 at 16 o'clock and 0.3 °F less each hour: 0.2 °C under it at 17:12.
    assert found[2].start_s == pytest.approx(clock(17.2), abs=900.0)


def test_depths_come_from_the_column_where_a_temperature_is_followed():
    warm = planned(rising(start_degf=62.0, rise_degf=2.0, deep_degf=48.0))
    (deep,) = phases(warm)
    assert deep.method.id == "trout_deep"
    # Half past thirteen: about 63 °F on top, halfway to 48 at 5 m (55.6), 48 at 10 m.
    assert 0.3 * FOOT_M < deep.method.depth_top_m < 5.0
    assert 5.0 < deep.method.depth_base_m < 10.0
    assert "band" in deep.depth_words
    shallow = phases(warm, bottom_m=2.0)[0]
    assert shallow.method.depth_base_m <= 2.0


def test_colours_change_with_the_light_within_a_phase():
    cold = phases()[0]
    # The sun of the plan in hand: 55 - 8 |h - 13.25| degrees, over 25 from 9:30; held by the hour.
    assert [s.show.colours for s in cold.shows] == ["soft, quiet colours"]
    (whole,) = phases(planned(rising(rise_degf=1.0)))
    assert [s.show.colours for s in whole.shows] == [
        "soft, quiet colours", "flashier ones", "soft, quiet colours"
    ]
    assert whole.shows[1].from_s == pytest.approx(clock(10), abs=600.0)
    assert show_at(whole, clock(9)).colours == "soft, quiet colours"
    assert show_at(whole, clock(12)).colours == "flashier ones"
    seen = fish_view(held(planned(rising(rise_degf=1.0))).now, clock(12))
    assert seen.day.colours == "flashier ones"


def test_legs_of_a_phase_keep_its_lures_clear():
    cold, warm = phases()
    # Lures to 10 ft: a contour ten feet under them, 4 ft of water below them all along.
    assert cold.contour_m == pytest.approx(6.05, abs=0.01)
    assert cold.water_m == pytest.approx(10 * FOOT_M + 1.2)
    assert warm.contour_m > cold.contour_m
    assert cold.leg_mps > warm.leg_mps
    assert phases(bottom_m=4.0)[0].contour_m == 4.0


def test_legs_of_a_river_go_along_the_drop_that_its_method_asks_for():
    for phase, feet in zip(phases(species="striper"), ((4, 12), (5, 8)), strict=False):
        # The edge of a bar, with lures close to it: nothing is kept clear of the bed.
        assert (phase.water_m, phase.contour_m) == pytest.approx([f * FOOT_M for f in feet])
    assert phases(species="striper", bottom_m=2.0)[0].contour_m == 2.0


def test_phase_at_a_moment():
    found = phases()
    assert phase_at(found, clock(8)) == found[0]
    assert phase_at(found, clock(12)) == found[1]
    assert phase_at(found, clock(2)) is None


def test_a_forecast_of_another_day_has_no_phases():
    night = replace(
        SUN, first_light_s=clock(40), sunrise_s=clock(41), sunset_s=clock(50), dark_s=clock(51)
    )
    assert phases(sun=night) == ()


@settings(max_examples=60, deadline=None)
@given(
    st.lists(st.floats(40.0, 75.0), min_size=21, max_size=21),
    st.sampled_from(["trout", "kokanee", "striper"]),
)
def test_whatever_the_day_its_phases_join_and_none_is_short(degf, species):
    base = rising()
    day = replace(base, members_degc=(
        tuple((degc_from_degf(t), 8.0, 7.0, 6.0) for t in degf),
    ))
    found = phases(planned(day), species=species)
    assert found[0].start_s == SUN.first_light_s
    assert found[-1].end_s <= SUN.dark_s
    assert all(a.end_s == b.start_s for a, b in pairwise(found))
    assert len(found) == 1 or min(p.end_s - p.start_s for p in found) >= SHORT_S - 600.0
    for phase in found:
        assert 0.0 <= phase.method.depth_top_m <= phase.method.depth_base_m <= 40.0


@pytest.mark.parametrize(("school", "bright", "dull"), [
    ("soft_then_flash", "flashier ones", "flashier ones"),
    ("bright_metal", "metal", "painted or glow"),
    ("uv_in_silt", "any that shows", "UV-bright"),
    ("match_bait", "the colour of the bait", "the colour of the bait"),
])
def test_each_school_of_colours_says_its_own(school, bright, dull):
    # Common practice: everyone differs, and says so.
    high = {"elevation_deg": 50.0, "secchi_m": 5.0}
    assert colours_for(school, cloud=0.1, **high).colours == bright
    assert colours_for(school, cloud=0.9, **high).colours == dull
    assert colours_for(school, cloud=0.1, **high).school == COLOUR_SCHOOLS[school]


def test_colours_early_and_in_silt():
    low = colours_for("soft_then_flash", elevation_deg=10.0, cloud=0.1, secchi_m=5.0)
    assert low.colours.startswith("soft")
    silt = colours_for("uv_in_silt", elevation_deg=50.0, cloud=0.0, secchi_m=0.7)
    assert silt.colours == "UV-bright"
    with pytest.raises(InvalidInputError) as caught:
        colours_for("none", elevation_deg=50.0, cloud=0.0, secchi_m=0.7)
    assert caught.value.field == "colour_school"
    assert set(COLOUR_SCHOOLS) == set(payloads.COLOUR_SCHOOLS)


def view(readings=(), plan=None, **changes):
    values = {"species": "trout", "sun": SUN, "bottom_m": 40.0, **changes}
    return day_view(plan or planned(), readings=readings, **values)


def test_hours_show_both_bands_and_headings_across_the_sun():
    found = view(plan=planned(rising(start_degf=60.0, rise_degf=4.0, deep_degf=46.0)))
    noon = next(h for h in found.hours if h.at_s == clock(12))
    # The sun stands at 180: across it are east and west.
    assert noon.across_deg == (90.0, 270.0)
    assert next(h for h in found.hours if h.at_s == clock(3)).across_deg == ()
    assert noon.anglers[0].top_m < noon.anglers[0].base_m
    # The published band is the warmer one: it lies higher.
    assert noon.published[0].base_m < noon.anglers[0].base_m


def test_departure_names_what_slides():
    assert view().departure is None
    on = view([read(49.0, 8.0)]).departure
    assert on.text == "as planned"
    assert on.off_degc == pytest.approx(0.0, abs=1e-6)
    cold = view([read(46.0, 8.5)]).departure
    assert cold.off_degc < -1.0
    assert "slides" in cold.text
    assert cold.slid_to_s > cold.slid_from_s + 900.0
    assert cold.phase == "Slow down under the warming surface"
    never = view(
        [read(47.0, 15.0)], plan=planned(rising(rise_degf=2.6))
    ).departure
    assert never.off_degc < 0.0
    # Warmer than was thought: a phase comes that no plan had.
    warmer = view([read(50.5, 9.0)], plan=planned(rising(rise_degf=1.2))).departure
    assert warmer.text == "“Slow down under the warming surface”: not in the plan"
    assert warmer.slid_from_s is None


def test_cautions_hold_when_they_hold_and_not_before():
    calm = {c.kind: c for c in view().cautions}
    assert set(calm) == {"cold_water", "dark"}
    assert calm["dark"].from_s == SUN.sunset_s
    hours = planned().hours
    blown = planned(hours=tuple(
        replace(h, wind_mps=9.0) if h.at_s >= clock(14) else h for h in hours
    ))
    wind = next(c for c in view(plan=blown).cautions if c.kind == "wind")
    assert wind.from_s == clock(14)
    hot = planned(rising(start_degf=66.0, rise_degf=8.0))
    release = next(c for c in view(plan=hot).cautions if c.kind == "warm_release")
    # 66 to 74 °F in ten hours: 68 °F at 8:30.
    assert release.from_s == pytest.approx(clock(9))
    assert "warm_release" not in {c.kind for c in view(plan=hot, species="striper").cautions}
    assert "cold_water" not in {c.kind for c in view(plan=hot).cautions}


def test_turning_back_is_for_whatever_comes_first():
    def when(**changes):
        home = {"way_m": 3600.0, "home_mps": 2.0, **changes}
        times = {
            name: home.pop(name, usual)
            for name, usual in (("dark_s", clock(20)), ("wind_s", None))
        }
        return turn_back(started_s=clock(6), home=WayHome(**home), **times)

    # Half an hour to the ramp: home at half past seven in the evening, turned at seven.
    assert (when().at_s, when().home_s, when().why) == (clock(19), clock(19.5), "dark")
    blown = when(wind_s=clock(14))
    assert (blown.at_s, blown.why) == (clock(13.25), "wind")
    # Six hours of battery: four of them, and the way.
    spent = when(wind_s=clock(14), endurance_h=6.0)
    assert (spent.at_s, spent.why) == (clock(9.5), "fuel or battery")
    assert when(way_m=200_000.0).at_s == clock(6)
    with pytest.raises(InvalidInputError) as caught:
        when(dark_s=clock(5))
    assert caught.value.field == "dark_s"
    with pytest.raises(InvalidInputError, match="home_mps"):
        when(home_mps=0.0)
    with pytest.raises(InvalidInputError, match="endurance_h"):
        when(endurance_h=0.0)


def test_the_day_says_when_to_turn_back():
    assert view().turn_back.why == "dark"
    # Two hours' way at 2 m/s: two hours before the half hour before dark.
    far = view(home=WayHome(way_m=14_400.0, home_mps=2.0))
    assert far.turn_back.at_s == pytest.approx(SUN.dark_s - 1800.0 - 7200.0)
    assert far.way_m == 14_400.0
    blown = planned(hours=tuple(
        replace(h, wind_mps=9.0) if h.at_s >= clock(14) else h for h in planned().hours
    ))
    found = view(plan=blown).turn_back
    assert found.why == "wind"
    assert clock(13) < found.at_s < clock(13.75)


def test_thunder_is_warned_of_while_it_may_come_and_not_before():
    assert "thunder" not in {c.kind for c in view().cautions}
    chance = {clock(13): 0.2, clock(14): 0.4, clock(15): 0.5}
    struck = planned(hours=tuple(
        replace(h, thunder=chance.get(h.at_s, 0.0)) for h in planned().hours
    ))
    (said,) = [c for c in view(plan=struck).cautions if c.kind == "thunder"]
    assert (said.from_s, said.to_s) == (clock(14), clock(16))
    # Half an hour ashore before it, less the way home.
    found = view(plan=struck, home=WayHome(way_m=3600.0, home_mps=2.0)).turn_back
    assert (found.why, found.at_s) == ("thunder", clock(13))
    with pytest.raises(InvalidInputError, match="thunder"):
        planned(hours=(replace(planned().hours[0], thunder=1.5), *planned().hours[1:])).check()


def blown(mps, from_deg, forecast=None):
    hours = tuple(replace(h, wind_mps=mps, wind_from_deg=from_deg) for h in planned().hours)
    return view(plan=planned(forecast, hours=hours)).lake


def test_warm_water_piles_up_downwind():
    # Common practice. From the south-west it lies at the north-east end.
    found = blown(7.0, 225.0, rising(start_degf=66.0, rise_degf=3.0, deep_degf=46.0))
    assert (found.warm_end, found.cold_end) == ("north-east", "south-west")
    assert found.wedderburn is not None
    assert found.follows_s > 600.0
    assert found.stability_jpm2 > 0.0
    harder = blown(18.0, 225.0, rising(start_degf=66.0, rise_degf=3.0, deep_degf=46.0))
    assert harder.wedderburn < found.wedderburn
    assert "south-west" in harder.text
    calm = blown(1.0, 225.0)
    assert (calm.warm_end, calm.cold_end) == ("", "")
    mixed = blown(7.0, 0.0, rising(start_degf=46.0, rise_degf=0.0, deep_degf=46.0))
    assert mixed.wedderburn is None
    assert "south end" in mixed.text


def held(plan, *events):
    return session(*events, plan=encode(plan), sun=encode(SUN), bottom_m=40.0)


def temperature(degf, hour, depth_m=0.0):
    return event(
        "temperature_read", 60.0 * (hour - 6.0), temperature_degc=degc_from_degf(degf),
        depth_m=depth_m,
    )


def test_method_of_the_hour_on_fish_is_the_plan_s_phase():
    seen = fish_view(held(planned()).now, clock(8))
    assert seen.method.id == "cover_water"
    assert seen.surface_degc is None
    assert seen.day.until_s == pytest.approx(clock(10), abs=600.0)
    assert seen.day.next_name == "Slow down under the warming surface"
    later = fish_view(held(planned()).now, clock(11))
    assert later.method.id == "trout_warming"
    assert later.day.next_name is None
    # Outside the plan's day the surface that was read decides, as without a plan.
    night = held(planned(), temperature(52.0, 7.0))
    assert fish_view(night.now, clock(23)).method == method_of_the_hour(
        species="trout", surface_degc=degc_from_degf(52.0)
    )


def test_fish_says_when_the_day_has_left_the_plan():
    cold = fish_view(held(planned(), temperature(46.0, 8.5)).now, clock(9.6))
    assert cold.method.id == "cover_water"
    assert cold.day.off_degc == pytest.approx((46.0 - 49.25) / 1.8)
    assert "slides" in cold.day.departure
    assert cold.day.slid_to_s > clock(9.6)
    assert next(p.at_s for p in cold.day.expected) > clock(9.6)
    assert cold.day.planned[0].temperature_degc == pytest.approx(degc_from_degf(48.0))


def test_fish_shades_the_forecast_s_band_until_a_profile_is_read():
    warm = planned(rising(start_degf=62.0, rise_degf=2.0, deep_degf=48.0))
    seen = fish_view(held(warm).now, clock(12)).comfort
    assert seen.forecast
    assert len(seen.layers) == 1
    profile = [temperature(60.0, 8.0), temperature(46.0, 8.1, depth_m=10.0)]
    read_one = fish_view(held(warm, *profile).now, clock(12)).comfort
    assert not read_one.forecast
    assert read_one.layers != seen.layers


def test_today_on_the_bridge_follows_the_schools_of_the_trip():
    chosen = event("school_chosen", 60.0, topic="cold_morning", school="stay_slow")
    seen = today_view(held(planned(), chosen).now)
    assert seen.phases[0].method.id == "stay_slow"
    assert today_view(held(None).now) is None


HOUR = planned().hours[0]


@pytest.mark.parametrize(("changes", "field"), [
    ({"secchi_m": 0.0}, "secchi_m"), ({"hours": ()}, "hours"), ({"start_words": ""}, "start_words"),
    ({"hours": tuple(replace(HOUR, at_s=clock(h)) for h in range(50))}, "hours"),
])
def test_plan_that_cannot_be_is_named(changes, field):
    with pytest.raises(InvalidInputError) as caught:
        planned(**changes).check()
    assert caught.value.field == field


def test_oxygen_squeezes_the_layer_and_the_phase_s_depths():
    warm = rising(start_degf=70.0, rise_degf=4.0, deep_degf=54.0)
    open_water = view(plan=planned(warm))
    squeezed = view(plan=planned(warm, oxygen=((0.0, 9.0), (8.0, 8.0), (12.0, 2.0), (30.0, 0.5))))
    free, tight = open_water.hours[9].anglers, squeezed.hours[9].anglers
    # 5 mg/l stands half-way between 8 and 12 m: trout have nothing below it.
    assert tight[0].base_m == pytest.approx(10.0)
    assert free[0].base_m > tight[0].base_m
    assert squeezed.phases[0].method.depth_base_m <= 10.0
    assert "oxygen" in squeezed.phases[0].depth_words
    assert "oxygen" not in open_water.phases[0].depth_words


def test_oxygen_that_cannot_be_is_refused():
    for oxygen, field in (
        (((0.0, 9.0), (0.0, 8.0)), "oxygen[1].depth_m"), (((0.0, 40.0),), "oxygen[0].oxygen_mgpl"),
        (((-1.0, 4.0),), "oxygen[0].depth_m"),
    ):
        with pytest.raises(InvalidInputError) as caught:
            planned(oxygen=oxygen).check()
        assert caught.value.field == field


BARS = (
    Shallow(name="Long bar", kind="bar", depth_m=2.0),
    Shallow(name="V", kind="neck", depth_m=1.1),
)


def river(**known):
    plan = planned()
    return river_view(RiverDay(**known), plan, view(plan=plan).phases, BARS)


def test_a_river_is_run_faster_down_than_up():
    phase = view().phases[0].method
    ground = river(current_mps=0.4).ground[0]
    assert ground.slow.up_mps == pytest.approx(phase.speed_low_mps - 0.4)
    assert ground.fast.down_mps == pytest.approx(phase.speed_high_mps + 0.4)
    assert river(current_mps=3.9).ground[0].slow is None


def test_what_the_river_fell_is_taken_off_its_bars():
    today = river(fell_m=0.6)
    assert [s.name for s in today.shallows] == ["V", "Long bar"]
    assert [s.depth_m for s in today.shallows] == pytest.approx([0.5, 1.4])
    said = " ".join(today.words)
    # Common practice: falling water overnight loads the bars.
    assert "loads the bars" in said
    assert "Under two feet of water today: V." in said
    assert "loads the bars" not in " ".join(river(fell_m=0.0).words)
    assert "rose" in " ".join(river(fell_m=-0.3).words)
    assert river(fell_m=9.0).shallows[0].depth_m == 0.0
    with pytest.raises(InvalidInputError, match="current_mps"):
        river(current_mps=-1.0)


def test_lures_run_over_a_bar_work_its_top_or_plough_it():
    def rod(key: str, depth_m: float) -> PlannedRod:
        return PlannedRod(
            setup=RodSetup(rod_id=key, place_id="p", line_id="l", lure_id="x"), setting_m=20.0,
            number=LineNumber(kind="line_out", setting_m=20.0), depth_m=depth_m, words="",
            reasons=(),
        )

    reach = bar_reach(BARS[0], [rod("high", 0.5), rod("top", 1.6), rod("deep", 2.4)])
    # Two metres of water: a lure within two feet of the bottom works it.
    assert (reach.over, reach.near, reach.touch) == (("high",), ("top",), ("deep",))
