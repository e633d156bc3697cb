"""The limit that its user noted: counted, and said when it matters."""

from __future__ import annotations

from datetime import date

import pytest
from trip_cases import event, session

from coldwake_core.advice.limits import limit_now, noted_for, standard_weight_kg
from coldwake_core.constants import INCH_M, POUND_KG
from coldwake_core.decode import decode, encode
from coldwake_core.errors import InvalidInputError
from coldwake_core.record.state import LandedFish
from coldwake_core.rig_rules.law import SpeciesRules, WaterRules


def rules(**changes):
    return WaterRules(**{"entered_on": "2026-04-01", "origin": "a board", **changes})


APRIL = date(2026, 4, 14)


def fish(inches=None, *, kept=True, on_bait=False, species="trout"):
    return LandedFish(
        at_s=0.0, rod_id="rod-1", kept=kept, on_bait=on_bait, species=species,
        length_m=None if inches is None else inches * INCH_M,
    )


def now(landed, species="trout", **changes):
    return limit_now(rules(**changes), landed, species, APRIL)


def test_kept_fish_count_and_the_limit_is_said_when_it_is_near():
    assert limit_now(None, [fish()], "trout", APRIL) is None
    far = now([fish(), fish(kept=False)], bag_most=5)
    assert (far.counted, far.near, far.reached) == (1, False, False)
    near = now([fish()] * 3, bag_most=5)
    assert (near.near, near.reached, near.notes) == (True, False, ())
    full = now([fish()] * 5, bag_most=5)
    assert (full.reached, full.notes) == (True, ())
    assert "6 fish counted" in now([fish()] * 6, bag_most=5).notes[0]
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


def test_more_kept_than_may_be_possessed_is_said_and_what_was_let_go_is_not_counted():
    full = [fish()] * 4 + [fish(kept=False, on_bait=True)] * 3
    assert now(full, bag_most=9, possession_most=4, bait_counts=True).notes == ()
    (note,) = now([*full, fish()], bag_most=9, possession_most=4, bait_counts=True).notes
    assert note.startswith("5 kept aboard, 4 noted in possession")


def test_what_was_kept_last_is_named_first():
    notes = now([fish(10.0), fish(11.0)], least_m=12 * INCH_M).notes
    assert ["11.0 in" in notes[0], "10.0 in" in notes[1]] == [True, True]


def test_standard_weights_are_the_published_ones():
    # A 20 in rainbow near 3.2 lb; a striper of 10 lb near 28-29 in (constants from memory).
    assert standard_weight_kg("trout", 20 * INCH_M) / POUND_KG == pytest.approx(3.2, abs=0.15)
    assert standard_weight_kg("striper", 28 * INCH_M) < 10 * POUND_KG
    assert standard_weight_kg("striper", 29.5 * INCH_M) > 10 * POUND_KG
    assert "spawner" in now([fish(30.0, species="striper")], "striper").notes[0]
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


KOKANEE = SpeciesRules(species="kokanee", bag_most=10, bait_counts=True, least_m=9 * INCH_M)


def test_what_is_said_of_one_species_stands_in_the_place_of_what_is_said_of_all():
    landed = [fish(10.0, species="kokanee"), fish(11.0), fish(8.0, species="kokanee")]
    of_all = {"bag_most": 5, "least_m": 12 * INCH_M}
    apart = now(landed, by_species=(KOKANEE,), **of_all)
    # Trout: one of five. Kokanee: two of ten. The trout is nearer, and is said for all fish.
    assert (apart.species, apart.counted, apart.most) == (None, 1, 5)
    assert [note[:14] for note in apart.notes] == ["A trout of 11.", "A kokanee of 8"]
    full = now([fish(species="kokanee")] * 9, by_species=(KOKANEE,), **of_all)
    assert (full.species, full.counted, full.near) == ("kokanee", 9, True)
    # Let go from bait it counts where its own note says so, though that of all fish does not.
    let_go = [fish(kept=False, on_bait=True, species="kokanee"), fish(kept=False, on_bait=True)]
    found = now(let_go, "kokanee", by_species=(KOKANEE,), bag_most=0)
    assert (found.species, found.counted) == (None, 0)
    assert now(let_go, "kokanee", by_species=(KOKANEE,)).counted == 1
    # Without notes of their own all fish count together.
    assert now(landed, bag_most=3).reached


def test_fish_out_of_the_season_are_named_when_it_matters():
    closed = SpeciesRules(species="kokanee", season_from="05-01", season_to="09-30")
    assert now([], by_species=(closed,)).notes == ()
    assert "Kokanee: out of the season" in now([], "kokanee", by_species=(closed,)).notes[0]
    assert now([fish(kept=False, species="kokanee")], by_species=(closed,)).notes == ()
    assert "Kokanee" in now([fish(species="kokanee")], by_species=(closed,)).notes[0]
    assert "Trout: out" in now([], season_from="05-01", season_to="09-30").notes[0]


def test_the_evening_before_says_what_was_noted_of_the_species():
    noted = rules(
        bag_most=5, rods_most=2, by_species=(KOKANEE,), slot_low_m=16 * INCH_M,
        slot_high_m=20 * INCH_M, longest_m=22 * INCH_M, possession_most=10, hooks="single_barbless",
    )
    trout = noted_for(noted, "trout", APRIL)
    assert trout[:4] == (
        "2 rods at most on the boat.", "5 fish a day.",
        "10 in possession, at home and aboard together.",
        "To keep: 22.0 in at most, those of 16.0 in to 20.0 in go back.",
    )
    kokanee = noted_for(noted, "kokanee", APRIL)
    assert kokanee[1:3] == (
        "10 kokanee a day, those let go from bait with them.", "To keep: 9.0 in at least."
    )
    assert kokanee[-1].endswith("a board. It is not the law.")


@pytest.mark.parametrize(("changes", "field"), [
    ({"by_species": (KOKANEE, KOKANEE)}, "by_species"),
    ({"bag_most": -1}, "bag_most"), ({"least_m": 0.0}, "least_m"),
    ({"least_m": 0.5, "longest_m": 0.3}, "longest_m"), ({"slot_low_m": 0.3}, "slot_high_m"),
    ({"season_from": "04-15"}, "season_to"),
    ({"season_from": "4/15", "season_to": "10-31"}, "season_from"),
])
def test_notes_that_cannot_be_are_named(changes, field):
    with pytest.raises(InvalidInputError) as caught:
        rules(**changes).check()
    assert caught.value.field == field


def test_a_note_of_one_species_is_checked_like_that_of_all():
    sent = {**encode(rules(by_species=(KOKANEE,)))}
    assert decode(WaterRules, sent).by_species == (KOKANEE,)
    sent["by_species"][0]["slot_low_m"] = 0.4
    with pytest.raises(InvalidInputError) as caught:
        decode(WaterRules, sent)
    assert caught.value.field == "by_species[0].slot_high_m"


def test_fish_counts_what_was_landed_and_undone():
    trip = session(
        event("line_set", 1, rod_id="rod-1", setting_m=30.0),
        event("landed", 5, rod_id="rod-1", kept=True, length_m=0.35),
        event("landed", 6, rod_id="rod-1", kept=True, length_m=0.35, species="striper"),
        rules=encode(rules(
            bag_most=2, least_m=0.3, by_species=(SpeciesRules(species="striper", bag_most=9),)
        )),
    )
    assert [fish.species for fish in trip.state.landed] == ["trout", "striper"]
    assert (trip.view(trip.trip.started_at_s + 400).limit.counted) == 1
    assert trip.view(trip.trip.started_at_s + 400).limit.near
    assert trip.state.landed[0].on_bait is (
        trip.state.rods["rod-1"].setup.bait_id is not None
    )
