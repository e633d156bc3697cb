"""Fish that hold by the bed: depths are told from it, however it rises and falls under the boat."""

from __future__ import annotations

import math
from dataclasses import replace
from typing import Any

import pytest
from advised import fishing, situation
from test_ahead import HERE, chart
from trip_cases import at, event, session

from coldwake_core.advice import moves as moves_module
from coldwake_core.advice.candidates import method_depth_m, method_depth_moves
from coldwake_core.advice.choice import weigh_options
from coldwake_core.advice.marks import lowest_m
from coldwake_core.advice.method import band_in, method_of_the_hour
from coldwake_core.advice.shows import thumb_of
from coldwake_core.advice.tries import LINES_OUT_M, PLUG_CLEAR_M
from coldwake_core.chart.grid import GeoPoint, moved
from coldwake_core.constants import FOOT_M, MPH_MPS
from coldwake_core.evidence.bed import bed_of
from coldwake_core.evidence.day_model import DayModel
from coldwake_core.evidence.recipe import Recipe
from coldwake_core.lakesim.boat import RIVER_BOX, depth_of
from coldwake_core.lakesim.day import Aboard, Outing, opening, play
from coldwake_core.lakesim.policies import Advisor, Fixed
from coldwake_core.lakesim.river import River
from coldwake_core.lakesim.steps import steps_of
from coldwake_core.places.rig.bench import check_spread
from coldwake_core.record.earlier import EarlierDay, ShownEarlier
from coldwake_core.spread.wanted import wanted_depths
from coldwake_core.trip import learnt as learnt_module
from coldwake_core.trip.beds import bed_between, bed_fished
from coldwake_core.trip.learnt import learnt
from coldwake_core.trip.today import method_now

DEEPEST_M = 3.0


def plug(depth_m: float, bed_m: float | None = DEEPEST_M, mph: float = 3.8) -> Recipe:
    return Recipe(
        depth_m=depth_m, bed_m=bed_m, speed_mps=mph * MPH_MPS, setback_m=26.0, leader_m=None,
        flash=0.3, thump=0.5, colour="perch", lure="river plug",
    )


def model(species: Any = "striper", deepest_m: float = DEEPEST_M) -> DayModel:
    method = method_of_the_hour(species=species, surface_degc=16.0)
    return DayModel(deepest_m=deepest_m, thumb=thumb_of(method, species, deepest_m))


def rate(one: DayModel, shown: Recipe) -> float:
    return one.log_rate(one.terms(shown))[0]


@pytest.mark.parametrize("species", ["striper", "trout"])
def test_a_hit_near_the_bed_speaks_for_lures_near_the_bed_of_other_water(species):
    one = model(species)
    for _ in range(12):
        one.pass_time()
        one.count(one.terms(plug(1.0, 2.2)), 0, 5.0)
        one.count(one.terms(plug(1.8, 2.2)), 1, 5.0)
    # Where it is 3 m deep as high over the bed, and as deep.
    by_the_bed = rate(one, plug(2.6, 3.0)) - rate(one, plug(1.8, 3.0))
    assert (by_the_bed > 0.2) == (species == "striper")
    assert (rate(one, plug(1.8, 2.2)) == pytest.approx(rate(one, plug(2.6, 3.0)))) == (
        species == "striper"
    )


def test_marks_over_a_bed_that_rises_and_falls_tell_of_one_place():
    together, apart = model(), model()
    together.mark([(2.5, 1), (2.5, 1)], beds_m=[3.0, 3.0])
    apart.mark([(2.5, 1), (1.7, 1)], beds_m=[3.0, 2.2])
    for depth_m in (1.0, 2.0, 2.5):
        assert rate(apart, plug(depth_m)) == pytest.approx(rate(together, plug(depth_m)))
    assert rate(apart, plug(2.4)) - rate(apart, plug(1.2)) > 0.3


def test_over_a_bed_that_nobody_knows_nothing_is_learnt_of_depth():
    one, fresh = model(), model()
    one.mark([(1.0, 3)])
    for _ in range(6):
        one.count(one.terms(plug(1.0, None)), 1, 5.0)
    apart = [rate(of, plug(2.5)) - rate(of, plug(1.0)) for of in (one, fresh)]
    assert apart[0] == pytest.approx(apart[1], abs=0.02)
    # Nor from earlier days, of which no bed is kept.
    day = EarlierDay(name="May", at_s=at(-9e4), like=1.0, shown=tuple(
        ShownEarlier(
            depth_m=depth_m, speed_mps=1.7, setback_m=26.0, leader_m=None, flash=0.3, thump=0.5,
            colour="perch", lure="river plug", bait="", scent="", hits=hits, minutes=200.0,
        ) for depth_m, hits in ((1.0, 9), (2.5, 0))
    ))
    remembers = model()
    remembers.remember([day], 1.0)
    assert rate(remembers, plug(2.5)) - rate(remembers, plug(1.0)) == pytest.approx(
        apart[1], abs=0.05
    )


@pytest.mark.parametrize("bottom_m", [2.0, 3.0, 6.0])
def test_the_rule_for_a_river_is_told_from_its_bed(bottom_m):
    method = method_of_the_hour(species="striper", surface_degc=16.0)
    thumb = thumb_of(method, "striper", bottom_m)
    # A foot or two over it: plugs tick along there (common practice).
    assert thumb.depth_base_m == pytest.approx(bottom_m - FOOT_M)
    assert 1.0 < (bottom_m - thumb.depth_top_m) / FOOT_M < 3.0
    assert thumb.by_the_bed
    assert thumb.speed_agreed


@pytest.mark.parametrize(("surface_degc", "feet"), [(10.0, (4, 12)), (16.0, (5, 8))])
def test_a_river_s_method_says_how_near_the_bed_and_in_how_much_water(surface_degc, feet):
    method = method_of_the_hour(species="striper", surface_degc=surface_degc)
    # A plug is started in 5 to 8 ft of water and works near bottom there (common practice).
    water = (method.depth_top_m / FOOT_M, method.depth_base_m / FOOT_M)
    assert water == pytest.approx(feet)
    near = (method.off_bed_low_m / FOOT_M, method.off_bed_high_m / FOOT_M)
    assert near == pytest.approx((1, 2), abs=0.4)
    top, base = band_in(method, 6.0)
    assert (6.0 - base, 6.0 - top) == pytest.approx((method.off_bed_low_m, method.off_bed_high_m))
    assert band_in(method, 0.2) == (0.0, 0.0)
    trout = method_of_the_hour(species="trout", surface_degc=surface_degc)
    assert band_in(trout, 6.0) == (trout.depth_top_m, trout.depth_base_m)


def test_a_rod_is_sent_to_the_bed_where_none_runs_near_it():
    river = method_of_the_hour(species="striper", surface_degc=16.0)
    near = method_depth_m(river, 6.0, 6.0)
    assert near is not None
    assert 1.0 < (6.0 - near) / FOOT_M < 2.3
    # Where the bed comes up ahead it is not sent there, nor half as deep.
    assert method_depth_m(river, 5.0, 6.0) is None


@pytest.mark.parametrize(("runs_at_m", "sent"), [(2.0, True), (5.5, False)])
def test_five_to_eight_feet_are_the_river_s_and_not_the_lure_s(runs_at_m, sent, monkeypatch):
    asked = situation(fishing(species="striper", bottom_m=6.0, degf=60.0), 20, monkeypatch)
    near = method_depth_m(asked.method, asked.lowest_m, asked.bed_m)
    rods = tuple(
        replace(rod, depth_m=runs_at_m, reachable={near: 30.0}) for rod in asked.rods
    )
    moves = list(method_depth_moves(replace(asked, rods=rods, bands=())))
    assert [m.answer.change.line_set.wanted_depth_m for m in moves] == ([near] if sent else [])


def test_the_opening_spread_of_a_river_runs_near_its_bed_and_a_lake_s_does_not():
    def wanted(species: Any) -> list[float]:
        held = session(event("temperature_read", 0, temperature_degc=16.0), species=species,
                       bottom_m=6.0)
        found = wanted_depths(held.now.state, method_now(held.now, at(1)), at(1))
        return [item.depth_m for item in found]

    assert wanted("striper")
    assert all(1.0 <= (6.0 - depth_m) / FOOT_M < 2.5 for depth_m in wanted("striper"))
    assert min(wanted("trout")) < 5.0


def test_the_card_of_a_river_rod_that_was_never_out_gives_numbers_near_the_bed():
    held = session(event("temperature_read", 0, temperature_degc=16.0), species="striper",
                   bottom_m=3.0)
    asked = [depth_m for item in check_spread(held.now).card_depths for depth_m in item.depths_m]
    assert asked
    assert all(0.9 <= (3.0 - depth_m) / FOOT_M < 2.5 for depth_m in asked)


@pytest.mark.parametrize(
    ("species", "over_ft", "called"),
    [("striper", 1.0, False), ("striper", -0.5, True), ("trout", 1.0, True)],
)
def test_a_plug_that_ticks_along_a_river_s_bed_is_no_alarm(species, over_ft, called):
    def trip(bottom_m: float):
        return session(
            event("speed_changed", 0, speed_mps=1.7),
            event("line_set", 1, rod_id="rod-1", setting_m=26.0),
            event("sounded", 9, bottom_m=bottom_m), species=species, bottom_m=bottom_m,
        ).view(at(10))

    runs_m = trip(6.0).rods[0].line.depth_m
    view = trip(runs_m + over_ft * FOOT_M)
    assert bool(view.ahead.calls) == called
    if not called:
        # Some lines are less sure than that, and may well touch.
        assert view.rods[0].line.deep_m > runs_m + over_ft * FOOT_M
    for call in view.ahead.calls:
        # As far as it takes, and no more than to where it ticks along.
        assert call.by_m > 0.0
        assert species == "trout" or call.by_m < 2.5 * FOOT_M


def test_who_asks_for_room_over_a_river_s_bed_gets_it():
    held = session(species="striper", bottom_m=6.0)
    assert (held.now.state.clearance_m, lowest_m(held.now.state, 6.0)) == (0.0, 6.0)
    held.add(event("clearance_chosen", 1, clearance_m=1.0))
    assert lowest_m(held.now.state, 6.0) == 5.0
    assert session(species="trout").now.state.clearance_m == pytest.approx(4.0 * FOOT_M)


@pytest.mark.parametrize("species", ["trout", "kokanee"])
def test_lakes_keep_their_bands_and_their_schools(species):
    method = method_of_the_hour(species=species, surface_degc=12.0)
    thumb = thumb_of(method, species, 20.0)
    assert (thumb.depth_top_m, thumb.depth_base_m) == (method.depth_top_m, method.depth_base_m)
    assert not thumb.by_the_bed
    assert not thumb.speed_agreed


def test_a_speed_that_all_schools_agree_on_is_not_left_after_five_dry_minutes():
    """3.7 mph lies in the band of an active river: nobody slows down because nothing bit yet."""
    one = model()
    for depth_m in (1.5, 1.7, 2.0, 2.5):
        one.count(one.terms(plug(depth_m, mph=3.7)), 0, 5.0)
    slower = [
        (one.terms(plug(d, mph=3.3)), one.terms(plug(d, mph=3.7))) for d in (1.5, 1.7, 2.0, 2.5)
    ]
    assert one.better(slower) < 0.5
    # A trout's cold morning has two schools: there it is anybody's guess.
    assert one._wanted["speed"].trust > 0.75 > model("trout")._wanted["speed"].trust


def test_the_bed_is_its_mean_and_what_a_fifth_of_it_comes_up_to():
    bed = bed_of([3.0, 2.0, 4.0, 1.0, 5.0, 6.0])
    assert bed.usual_m == pytest.approx(3.5)
    assert bed.shallow_m == 2.0
    assert bed_of([2.5]) == bed_of([2.5, 2.5])


def reach(*more: dict[str, Any], bottom_m: float = 3.0, **changes: Any):
    return session(
        event("temperature_read", 0, temperature_degc=16.0),
        event("speed_changed", 0, speed_mps=1.7),
        *more, species="striper", bottom_m=bottom_m, **changes,
    )


def test_a_spell_s_bed_is_what_was_sounded_in_it_or_last_before():
    held = reach(
        event("sounded", 6, bottom_m=2.0), event("sounded", 8, bottom_m=3.0),
        event("sounded", 21, bottom_m=2.2),
    )
    found = [bed_between(held.now, at(m), at(m + 5)) for m in (0, 5, 10, 20)]
    assert found == pytest.approx([3.0, 2.5, 3.0, 2.2])


def charted(*more: dict[str, Any], bed: Any = None) -> Any:
    """Up a river that is charted: 3 m deep, and 2 m from 120 m north of HERE on."""
    return reach(
        *(event("position_fixed", minute, **place, course_deg=0.0) for minute, place in (
            (2, north(0.0)), (7, north(100.0)), (8, north(200.0)), (12, north(300.0)),
        )), *more, chart=chart(bed or (lambda metres: 3.0 if metres < 120.0 else 2.0)),
        bottom_m=9.0,
    )


def north(metres: float) -> dict[str, float]:
    there = moved(GeoPoint(**HERE), course_deg=0.0, distance_m=metres)
    return {"latitude_deg": there.latitude_deg, "longitude_deg": there.longitude_deg}


def beds(held: Any) -> list[float]:
    return [bed_between(held.now, at(m), at(m + 5)) for m in (0, 5, 10, 15)]


def test_where_no_sounder_tells_the_chart_says_how_deep_the_bed_was():
    assert beds(charted()) == pytest.approx([3.0, 2.5, 2.0, 9.0])
    # The river stands 0.4 m lower than it was charted: sounded at the first place.
    low = event("sounded", 3, bottom_m=2.6)
    assert beds(charted(low)) == pytest.approx([2.6, 2.1, 1.6, 2.6])
    # By the last place before it, not by the first.
    up = [event("position_fixed", m, **north(200.0), course_deg=0.0) for m in (2.4, 2.8)]
    assert beds(charted(*up, event("sounded", 3, bottom_m=2.6)))[1] == pytest.approx(3.1)
    # Not by one that was noted minutes ago.
    assert beds(charted(event("sounded", 5.5, bottom_m=2.6)))[2] == pytest.approx(2.0)
    # Sounded an hour from any place it says nothing of the chart.
    lost = event("sounded", -60, bottom_m=2.6)
    assert beds(charted(lost))[:3] == pytest.approx([3.0, 2.5, 2.0])
    # What was sounded in a spell is surer than the chart.
    assert beds(charted(low, event("sounded", 11, bottom_m=5.0)))[2] == 5.0


def test_a_bed_never_stands_above_the_water_nor_beside_the_chart():
    shoal = charted(event("sounded", 3, bottom_m=0.4))
    assert beds(shoal)[2] == 0.0
    beside = charted(bed=lambda metres: 3.0 if metres < 120.0 else None)
    assert beds(beside)[2] == 0.0
    off = reach(event("position_fixed", 2, latitude_deg=10.0, longitude_deg=10.0, course_deg=0.0),
                chart=chart(lambda _: 3.0), bottom_m=9.0)
    assert beds(off)[0] == 9.0


def test_the_bed_that_is_fished_leaves_out_the_ramp_and_what_is_an_hour_old():
    held = reach(
        event("sounded", 0.5, bottom_m=1.0), event("sounded", 30, bottom_m=2.0),
        event("line_set", 31, rod_id="rod-5", setting_m=20.0),
        event("sounded", 62, bottom_m=3.0), bottom_m=4.0,
    )
    assert bed_fished(held.now, at(20)).usual_m == 1.0
    assert bed_fished(held.now, at(41)) == bed_of([2.0, 2.0])
    assert bed_fished(held.now, at(62.5)).shallow_m == 2.0
    assert bed_fished(held.now, at(150)) == bed_of([3.0])


def test_a_trip_on_a_river_learns_by_its_bed_and_a_late_sounding_is_learnt_in_its_place():
    fished = [
        event("sounded", 1, bottom_m=2.2), event("line_set", 2, rod_id="rod-5", setting_m=20.0),
        *(event("mark_seen", m, depth_m=1.8, count=3) for m in (3, 4, 6)),
    ]
    told = reach(*fished)

    def deeper(held: Any, minute: float = 15.0) -> float:
        one = learnt(held.now, at(minute))
        return rate(one, plug(2.6, 3.0)) - rate(one, plug(1.2, 3.0))

    # Marks 0.4 m off a bed of 2.2 m say as high over 3 m; off one of 3 m they are 1.2 m.
    late = reach(*fished[1:])
    before = deeper(late)
    assert deeper(told) > before + 0.2
    late.add(event("sounded", 1, bottom_m=2.2))
    assert deeper(late) == pytest.approx(deeper(told))
    # Marks of the running five minutes by the bed that was sounded last.
    told.add(event("sounded", 15.5, bottom_m=3.0))
    told.add(event("mark_seen", 16, depth_m=1.2, count=8))
    assert deeper(told, 17.0) < deeper(told, 15.9) - 0.2


def test_plugs_are_let_out_no_further_than_where_the_bed_comes_up_again(monkeypatch):
    def lengths(**changes: Any) -> dict[float, float]:
        beds = [
            event("sounded", m, bottom_m=1.2 if m < 16 else 4.5) for m in range(2, 57, 5)
        ]
        held = fishing(event("line_set", 1.5, rod_id="rod-1", setting_m=12.0), *beds, **changes)
        asked = situation(held, 58, monkeypatch)
        assert 3.0 < asked.bed_m < 4.5
        return next(rod for rod in asked.rods if rod.rod_id == "rod-1").lengths

    river, lake = lengths(species="striper", bottom_m=4.5), lengths(bottom_m=4.5)
    assert 0 < len(river) < len(LINES_OUT_M["striper"])
    assert all(depth_m <= 1.2 - PLUG_CLEAR_M for depth_m in river.values())
    # Over a lake nobody goes round and round the shallows.
    assert any(depth_m > 1.2 - PLUG_CLEAR_M for depth_m in lake.values())


def test_a_simulated_river_s_plugs_stay_clear_of_what_was_passed():
    river = River(3)
    rods, speed = opening(river.seen(0), RIVER_BOX)
    seen = replace(river.seen(0), bottom_m=3.0)
    state = Aboard(
        minute=60, seen=seen, rods=rods, speed_mps=speed, out_until=[0.0] * 4, box=RIVER_BOX,
        beds=[2.2] * 20 + [3.0] * 40,
    )
    lines = [c.rods[0][1] for c in steps_of(state) if c.kind in ("setback", "lure")]
    assert lines
    assert all(depth_of(rod, speed) < 2.2 - PLUG_CLEAR_M for rod in lines)
    state.beds = [2.2] * 5 + [3.0] * 55
    assert any(
        depth_of(c.rods[0][1], speed) > 2.2 - PLUG_CLEAR_M for c in steps_of(state)
        if c.kind in ("setback", "lure")
    )


def test_advice_on_a_river_earns_more_than_changing_nothing():
    def hits(policy: type) -> int:
        found = 0
        for seed in range(500, 508):
            world = River(seed)
            world.lay([(0.3, 1.0), (0.7, 1.6)])
            way = [(abs((i / 40.0) % 2.0 - 1.0), 2.6 + 0.4 * math.sin(i / 9.0)) for i in range(480)]
            found += play(
                world, policy(), seed, outing=Outing(box=RIVER_BOX, rods=4, way=way)
            ).hits
        return found

    assert hits(Advisor) > 1.05 * hits(Fixed)


def test_a_late_sounding_of_a_lake_has_nothing_learnt_anew(monkeypatch):
    taught, teach = [], learnt_module._teach
    monkeypatch.setattr(
        learnt_module, "_teach", lambda *what: (taught.append(1), teach(*what))
    )

    def again(species: str) -> int:
        held = fishing(event("sounded", 12, bottom_m=18.0), species=species)
        learnt(held.now, at(61))
        once = len(taught)
        held.add(event("sounded", 21, bottom_m=15.0))
        learnt(held.now, at(61))
        return len(taught) - once

    assert again("trout") == 0
    assert again("striper") > 0


def test_hits_of_a_trip_on_a_river_speak_for_lures_as_near_the_bed():
    def near(bottom_m: float) -> float:
        # The plug runs some 3 ft deep.
        held = fishing(
            *(event("hit", minute, rod_id="rod-1") for minute in range(10, 50, 4)),
            *(event("sounded", minute, bottom_m=bottom_m) for minute in (2, 30)),
            event("line_set", 3, rod_id="rod-1", setting_m=26.0),
            species="striper", bottom_m=6.0,
        )
        one = learnt(held.now, at(51))
        return rate(one, plug(5.7, 6.0)) - rate(one, plug(1.0, 6.0))

    assert near(1.2) > near(6.0) + 0.3


def test_what_is_weighed_is_held_against_the_bed_as_it_usually_was(monkeypatch):
    weighed: list[Recipe] = []

    def kept(model: Any, now: Any, options: Any, minutes_left: float) -> Any:
        weighed.extend(now.values())
        weighed.extend(recipe for option in options for _, recipe in option.after)
        return weigh_options(model, now, options, minutes_left)

    monkeypatch.setattr(moves_module, "weigh_options", kept)
    held = fishing(
        *(event("sounded", m, bottom_m=4.0 + (m > 20)) for m in range(2, 40, 4)), species="striper"
    )
    asked = situation(held, 41, monkeypatch)
    assert 4.0 < asked.bed_m < 5.0
    assert len(weighed) > 12
    assert {recipe.bed_m for recipe in weighed} == {asked.bed_m}
