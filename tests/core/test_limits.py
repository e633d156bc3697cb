"""The limit that its user noted: counted, and said when it matters."""

from __future__ import annotations

from datetime import date

import pytest
from trip_cases import event, session

from coldwake_core.advice.limits import limit_now, standard_weight_kg
from coldwake_core.constants import INCH_M, POUND_KG
from coldwake_core.decode import encode
from coldwake_core.errors import InvalidInputError
from coldwake_core.record.state import LandedFish
from coldwake_core.rig_rules.law import WaterRules


def rules(**changes):
    return WaterRules(**{"entered_on": "2026-04-01", "origin": "a board", **changes})


def fish(inches=None, *, kept=True, on_bait=False):
    return LandedFish(
        at_s=0.0, rod_id="rod-1", kept=kept, on_bait=on_bait,
        length_m=None if inches is None else inches * INCH_M,
    )


def now(landed, species="trout", **changes):
    return limit_now(rules(**changes), landed, species)


def test_kept_fish_count_and_the_limit_is_said_when_it_is_near():
    assert limit_now(None, [fish()], "trout") is None
    far = now([fish(), fish(kept=False)], bag_most=5)
    assert (far.counted, far.near, far.reached) == (1, False, False)
    near = now([fish()] * 3, bag_most=5)
    assert (near.near, near.reached, near.notes) == (True, False, ())
    full = now([fish()] * 5, bag_most=5)
    assert (full.reached, full.notes) == (True, ())
    assert "6 counted" in now([fish()] * 6, bag_most=5).notes[0]
    assert now([fish()] * 6).most is None


def test_a_fish_from_bait_counts_where_the_note_says_so():
    let_go = [fish(kept=False, on_bait=True), fish(kept=False)]
    assert now(let_go, bag_most=5).counted == 0
    assert now(let_go, bag_most=5, bait_counts=True).counted == 1


@pytest.mark.parametrize(("inches", "changes", "word"), [
    (11.0, {"least_m": 12 * INCH_M}, "at least"),
    (23.0, {"longest_m": 22 * INCH_M}, "at most"),
    (17.0, {"slot_low_m": 16 * INCH_M, "slot_high_m": 20 * INCH_M}, "go back"),
])
def test_lengths_are_held_against_the_note(inches, changes, word):
    (note,) = now([fish(inches)], **changes).notes
    assert word in note
    assert now([fish(inches, kept=False)], **changes).notes == ()
    assert now([fish()], **changes).notes == ()
    assert now([fish(14.0)], **changes).notes == ()


def test_standard_weights_are_the_published_ones():
    # A 20 in rainbow near 3.2 lb; a striper of 10 lb near 28-29 in (constants from memory).
    assert standard_weight_kg("trout", 20 * INCH_M) / POUND_KG == pytest.approx(3.2, abs=0.15)
    assert standard_weight_kg("striper", 28 * INCH_M) < 10 * POUND_KG
    assert standard_weight_kg("striper", 29.5 * INCH_M) > 10 * POUND_KG
    assert "spawner" in now([fish(30.0)], "striper").notes[0]
    assert now([fish(30.0)], "trout").notes == ()


def test_the_season_may_run_over_the_year_s_end():
    winter = rules(season_from="11-15", season_to="02-29")
    assert winter.in_season(date(2026, 12, 1))
    assert winter.in_season(date(2026, 2, 10))
    assert not winter.in_season(date(2026, 6, 1))
    summer = rules(season_from="04-15", season_to="10-31")
    assert summer.in_season(date(2026, 4, 15))
    assert not summer.in_season(date(2026, 4, 14))
    assert rules().in_season(date(2026, 1, 1))


@pytest.mark.parametrize(("changes", "field"), [
    ({"bag_most": -1}, "bag_most"), ({"least_m": 0.0}, "least_m"),
    ({"least_m": 0.5, "longest_m": 0.3}, "longest_m"), ({"slot_low_m": 0.3}, "slot_high_m"),
    ({"season_from": "04-15"}, "season_to"),
    ({"season_from": "4/15", "season_to": "10-31"}, "season_from"),
])
def test_notes_that_cannot_be_are_named(changes, field):
    with pytest.raises(InvalidInputError) as caught:
        rules(**changes).check()
    assert caught.value.field == field


def test_fish_counts_what_was_landed_and_undone():
    trip = session(
        event("line_set", 1, rod_id="rod-1", setting_m=30.0),
        event("landed", 5, rod_id="rod-1", kept=True, length_m=0.35),
        rules=encode(rules(bag_most=2, least_m=0.3)),
    )
    assert (trip.view(trip.trip.started_at_s + 400).limit.counted) == 1
    assert trip.view(trip.trip.started_at_s + 400).limit.near
    assert trip.state.landed[0].on_bait is (
        trip.state.rods["rod-1"].setup.bait_id is not None
    )
