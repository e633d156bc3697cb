"""The season: a day in short, hits an hour along an axis, and what to begin with."""

from __future__ import annotations

from datetime import date

import pytest
from hypothesis import given
from hypothesis import strategies as st
from trip_cases import START_S, event, session

from coldwake_core.constants import FOOT_M, MPH_MPS
from coldwake_core.errors import InvalidInputError
from coldwake_core.evidence.likeness import DayMarks
from coldwake_core.rig_rules.law import WaterRules
from coldwake_core.season.begin import PastDay, begin_with, like_days
from coldwake_core.season.bites import bites_of, light_at
from coldwake_core.season.digest import Caught, Spell, digest
from coldwake_core.season.kept import kept_over
from coldwake_core.season.trends import AXES, rate_interval, trend


def spell(minutes=60.0, hits=0, **changes):
    return Spell(**{
        "minutes": minutes, "hour": 7, "kind": "flat", "depth_m": 2.0, "speed_mps": 0.7,
        "setback_m": 30.0, "leader_m": None, "warm_degc": 9.0, "lure": "thin spoon",
        "colour": "copper", "attractor": "", "hits": hits, **changes,
    })


def shortened(*documents, until_min=600.0):
    return digest(session(*documents).now, START_S + 60.0 * until_min)


FISHED = (
    event("speed_changed", 0, speed_mps=0.6),
    event("temperature_read", 0, temperature_degc=8.0, depth_m=0.0),
    event("line_set", 30, rod_id="rod-1", setting_m=30.0),
    event("speed_changed", 70, speed_mps=1.0),
    event("temperature_read", 100, temperature_degc=10.0, depth_m=0.0),
    event("hit", 110, rod_id="rod-1"),
    event("hooked", 110.5, rod_id="rod-1"),
    event("landed", 115, rod_id="rod-1", kept=True, length_m=0.4),
)


def test_a_day_is_cut_at_the_full_hours_and_bites_go_to_what_fished():
    day = shortened(*FISHED)
    # Out at 6:30, on at 7:50: half an hour before seven, fifty and a half after, until it was on.
    assert [(s.hour, round(s.minutes, 1)) for s in day.spells] == [(6, 30.0), (7, 50.5)]
    first, second = day.spells
    assert (first.hits, first.hooked, first.landed) == (0, 0, 0)
    assert (second.hits, second.hooked, second.landed) == (1, 1, 1)
    # 0.6 m/s for ten minutes of the second hour, then 1.0 for forty and a half.
    assert first.speed_mps == pytest.approx(0.6)
    assert second.speed_mps == pytest.approx((0.6 * 10 + 1.0 * 40.5) / 50.5)
    assert first.warm_degc == 8.0
    assert second.warm_degc == 10.0
    assert second.setback_m == pytest.approx(30.0)
    # A lipped minnow dives deeper when it is pulled faster.
    assert second.depth_m > first.depth_m > 0.0
    assert [(f.species, f.kept, f.length_m) for f in day.caught] == [("trout", True, 0.4)]
    assert (day.warm_first_degc, day.warm_last_degc) == (8.0, 10.0)


def test_a_line_that_is_out_counts_until_now_and_a_surface_read_long_ago_says_nothing():
    day = shortened(*FISHED[:3], until_min=310.0)
    assert sum(s.minutes for s in day.spells) == pytest.approx(280.0)
    assert [s.warm_degc for s in day.spells] == [8.0, 8.0, 8.0, None, None, None][
        : len(day.spells)
    ]


def test_marks_and_cast_fish_are_told_apart_from_trolled_ones():
    day = shortened(
        *(event("mark_seen", i, depth_m=depth) for i, depth in enumerate((6.0, 9.0, 18.0))),
        event("casting_begun", 20, weight_kg=0.03, count_s=8.0, retrieve="steady"),
        event("cast_bite", 21, what="hit"),
        event("cast_bite", 22, what="landed", kept=True, length_m=0.5),
    )
    assert day.marks_m == 9.0
    assert (day.spells, day.cast_hits, day.cast_landed) == ((), 1, 1)


@pytest.mark.parametrize(("hits", "sure", "low", "high"), [
    # Garwood 1936, table of 95 % and 99 % limits of a Poisson count.
    (0, 0.95, 0.0, 3.689), (1, 0.95, 0.0253, 5.572), (5, 0.95, 1.623, 11.668),
    (10, 0.95, 4.795, 18.390), (10, 0.99, 3.717, 21.398),
])
def test_the_interval_is_the_published_one(hits, sure, low, high):
    found = rate_interval(hits, 60.0, sure)
    assert found == (pytest.approx(low, abs=2e-3), pytest.approx(high, abs=2e-3))


def test_numbers_are_cut_on_the_reader_s_scale():
    spells = [
        spell(warm_degc=(f - 32.0) / 1.8, depth_m=feet * FOOT_M, speed_mps=mph * MPH_MPS)
        for f, feet, mph in ((48.0, 5.0, 1.4), (49.9, 9.9, 1.59), (50.0, 10.0, 1.6))
    ]
    bars = trend(spells, "temperature", "us").bars
    assert [(round(b.low * 1.8 + 32.0), b.minutes) for b in bars] == [(48, 120.0), (50, 60.0)]
    bars = trend(spells, "depth", "us").bars
    assert [(round(b.low / FOOT_M), round(b.high / FOOT_M)) for b in bars] == [(5, 10), (10, 15)]
    bars = trend(spells, "speed", "us").bars
    assert [(round(b.low / MPH_MPS, 1), b.minutes) for b in bars] == [(1.4, 120.0), (1.6, 60.0)]
    assert [b.low for b in trend(spells, "temperature", "metric").bars] == [8.0, 9.0, 10.0]


def test_what_stands_apart_is_said_and_what_three_fish_say_is_not():
    plenty = [spell(600.0, 20, colour="pink"), spell(600.0, 3, colour="silver")]
    found = trend(plenty, "colour", "us")
    assert (found.bars[found.best].name, found.said) == ("pink", "stands_apart")
    # By hand: 20 hits in ten rod-hours.
    assert found.bars[found.best].rate == pytest.approx(2.0)
    assert found.probability > 0.99
    few = [spell(400.0, 3, colour="pink"), spell(400.0, 1, colour="silver")]
    assert trend(few, "colour", "us").said == "nothing"
    short = [spell(20.0, 3, colour="pink"), spell(900.0, 1, colour="silver")]
    found = trend(short, "colour", "us")
    assert (found.said, found.best) == ("too_little", None)
    assert [bar.is_thin for bar in found.bars] == [False, True]


def test_the_best_of_many_must_be_better_than_the_best_of_two():
    # The same ten hits against the same rate beside it: picked from two it leans, picked from
    # ten it may be the luckiest.
    two = [spell(400.0, 10, colour="a"), spell(400.0, 5, colour="b")]
    ten = [spell(400.0, 10, colour="a"), *(spell(400.0, 5, colour=f"b{i}") for i in range(9))]
    assert trend(two, "colour", "us").said == "leans"
    assert trend(ten, "colour", "us").said == "nothing"
    # A name however often is still one of two.
    again = [spell(400.0, 10, colour="a"), *(spell(40.0, 1, colour="b") for _ in range(5))]
    assert len(trend(again, "colour", "us").bars) == 2


@given(st.lists(st.tuples(
    st.floats(1.0, 500.0), st.integers(0, 9), st.floats(0.0, 30.0), st.sampled_from("abc"),
), max_size=30), st.sampled_from(AXES), st.sampled_from(["us", "metric"]))
def test_no_minute_and_no_hit_is_lost_between_the_bars(rows, axis, units):
    spells = [
        spell(minutes, hits, depth_m=number, warm_degc=number if number > 3.0 else None,
              leader_m=number if number > 9.0 else None, colour=name)
        for minutes, hits, number, name in rows
    ]
    found = trend(spells, axis, units)
    assert sum(b.minutes for b in found.bars) + found.unknown_min == pytest.approx(
        sum(s.minutes for s in spells)
    )
    for bar in found.bars:
        assert bar.rate_low <= bar.rate <= bar.rate_high


def test_an_axis_that_is_none_is_refused():
    with pytest.raises(InvalidInputError, match="axis"):
        trend([], "luck", "us")


TODAY = DayMarks(day_of_year=100.0, surface_degc=9.0, secchi_m=None, water="Tarn")


def past(day_of_year=100.0, degc=9.0, water="Tarn", month=4, *spells):
    return PastDay(
        marks=DayMarks(
            day_of_year=day_of_year, surface_degc=degc, secchi_m=None, water=water
        ),
        month=month, name="x", spells=spells,
    )


def test_what_earned_hits_on_days_like_this_goes_first_and_says_whence():
    days = [
        past(100.0, 9.0, "Tarn", 4, spell(300.0, 10, lure="spoon"), spell(300.0, 1, lure="plug")),
        past(101.0, 9.0, "Mere", 4, spell(300.0, 4, lure="spoon", depth_m=4.0)),
        # A day of another season, hot and full of hits: it says almost nothing of this one.
        past(250.0, 20.0, "Tarn", 9, spell(300.0, 60, lure="fly")),
    ]
    found = begin_with(TODAY, 4, days)
    assert [one.lure for one in found] == ["spoon", "plug"]
    spoon = found[0]
    assert (spoon.hits, spoon.days) == (14, 2)
    assert spoon.of_water + spoon.of_rule_book < 1.0
    assert spoon.of_month == pytest.approx(1.0 - spoon.of_rule_book)
    assert spoon.of_water > 0.5 * spoon.of_month
    assert spoon.depth_m == 2.0


def test_a_quarter_of_an_hour_with_a_hit_is_not_believed_before_a_day():
    days = [past(
        100.0, 9.0, "Tarn", 4, spell(25.0, 1, lure="lucky"), spell(600.0, 15, lure="steady"),
        spell(300.0, 0, lure="idle"),
    )]
    found = begin_with(TODAY, 4, days)
    # By hand, with w = 0.8 for a clarity that nobody wrote down and u = 16 / 925 hits a minute:
    # (15 w + 120 u) / (600 w + 120) = 0.02346 a minute, (w + 120 u) / (25 w + 120) = 0.02054.
    assert [one.lure for one in found] == ["steady", "lucky"]
    assert [one.rate for one in found] == [
        pytest.approx(60.0 * 0.02346, rel=1e-3), pytest.approx(60.0 * 0.02054, rel=1e-3)
    ]


def test_each_kind_of_rig_has_its_own_and_no_more_than_two():
    spells = [
        spell(100.0, hits, lure=f"{kind}{hits}", kind=kind)
        for kind in ("flat", "downrigger") for hits in (1, 2, 3)
    ]
    found = begin_with(TODAY, 4, [past(100.0, 9.0, "Tarn", 4, *spells)])
    assert sorted((one.kind, one.lure) for one in found) == [
        ("downrigger", "downrigger2"), ("downrigger", "downrigger3"),
        ("flat", "flat2"), ("flat", "flat3"),
    ]


def test_nothing_is_proposed_where_no_day_is_like_it():
    assert begin_with(TODAY, 4, [past(280.0, 25.0, "Mere", 10, spell(300.0, 9))]) == ()
    assert begin_with(TODAY, 4, []) == ()


def test_days_are_listed_by_likeness():
    days = [past(100.0, 12.0, "Tarn", 4, spell(60.0, 2)), past(99.0, 9.0, "Tarn", 4),
            past(280.0, 25.0, "Mere", 10)]
    found = like_days(TODAY, days)
    assert [round(day.surface_degc) for day in found] == [9, 12]
    assert (found[1].hits, found[1].minutes) == (2, 60.0)


def test_every_bite_is_told_with_what_it_was_on_and_how_far_it_came():
    now = session(
        *FISHED, event("line_set", 120, rod_id="rod-1", setting_m=30.0),
        event("hit", 130, rod_id="rod-1"), event("hit", 140, rod_id="rod-1"),
        event("hooked", 140.2, rod_id="rod-1"), event("lost", 143, rod_id="rod-1"),
    ).now
    rows = bites_of(now)
    assert [(round((r.at_s - START_S) / 60.0), r.came_to) for r in rows] == [
        (110, "landed"), (130, "hit"), (140, "lost")
    ]
    first = rows[0]
    assert (first.warm_degc, first.colour, first.lure) == (10.0, "silver", "Floating minnow 9")
    assert first.speed_mps == pytest.approx(1.0)
    assert first.setback_m == pytest.approx(30.0)
    assert first.depth_m > 0.5


@pytest.mark.parametrize(("minute", "light"), [
    (-1, "dark"), (10, "first_light"), (31, "sun_low"), (119, "sun_low"), (121, "sun_up"),
    (46000 / 60 - 1, "sun_low"), (46000 / 60 + 1, "dusk"), (48000 / 60 + 1, "dark"),
])
def test_the_light_of_a_bite_is_by_the_sun(minute, light):
    # First light at the start, sunrise half an hour on, sunset at 46 000 s, dark at 48 000 s.
    assert light_at(session().now, START_S + 60.0 * minute) == light


def fish(species="trout", kept=True):
    return Caught(at_s=0.0, species=species, kept=kept, length_m=None)


def test_what_was_kept_is_summed_over_days_against_the_user_s_own_note():
    rules = WaterRules(
        entered_on="2026-03-01", origin="the board at the ramp", bag_most=2, possession_most=4,
    )
    days = [
        (date(2026, 4, 1), [fish()] * 5),  # a fortnight and more before the last: eaten
        (date(2026, 4, 10), [fish()] * 3 + [fish(kept=False)]),
        (date(2026, 4, 15), [fish("kokanee")]),
        (date(2026, 4, 15), [fish()]),
        (date(2026, 4, 16), [fish()]),
    ]
    told = kept_over(days, rules, "trout")
    assert [(d.day, d.kept, d.is_over) for d in told.days] == [
        ("2026-04-10", 3, True), ("2026-04-15", 1, False), ("2026-04-16", 1, False)
    ]
    assert (told.total, told.is_over) == (5, True)
    assert told.noted == "2026-03-01, the board at the ramp"
    bare = kept_over(days, None, "trout")
    assert (bare.total, bare.is_over, bare.noted) == (5, False, "")
    assert kept_over([(date(2026, 4, 1), [fish(kept=False)])], rules, "trout") is None
