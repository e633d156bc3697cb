"""Beside the boat: auditions, checks, lures to look at again, and tackle brought aboard."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

import pytest
from advised import situation
from tackle import demo_outfit
from trip_cases import at, event, session

from coldwake_core.advice.candidates import copy_moves
from coldwake_core.advice.tries import try_moves
from coldwake_core.constants import MPH_MPS
from coldwake_core.decode import encode
from coldwake_core.errors import InvalidInputError, UnknownItemError
from coldwake_core.gear.ladder import RUNGS, ladder_steps, mood_of
from coldwake_core.gear.setup import RodSetup
from coldwake_core.places.fish.beside import beside_view
from coldwake_core.places.rig.bench import check_spread, ladder


def fishing(*more: dict[str, Any], **changes: Any):
    return session(
        event("speed_changed", 1, speed_mps=1.3 * MPH_MPS),
        event("line_set", 2, rod_id="rod-4", setting_m=12.0),
        event("line_set", 2, rod_id="rod-1", setting_m=30.0),
        *more,
        **changes,
    )


def dodger_seen(low: float, high: float, minute: float = 5.0, **more: Any) -> dict[str, Any]:
    return event(
        "auditioned",
        minute,
        **{
            "piece": "attractor",
            "piece_id": "dodger-4",
            "low_mps": low * MPH_MPS,
            "high_mps": high * MPH_MPS,
            **more,
        },
    )


def rod(opened: Any, rod_id: str, minute: float = 10.0) -> Any:
    return next(item for item in opened.view(at(minute)).rods if item.id == rod_id)


def beside(opened: Any, rod_id: str) -> Any:
    return next(item for item in beside_view(opened.now).rods if item.rod_id == rod_id)


def test_own_range_takes_the_place_of_the_catalogue_s():
    opened = fishing()
    assert rod(opened, "rod-4").works.high_mps == pytest.approx(1.6 * MPH_MPS, abs=1e-3)
    opened.add(dodger_seen(1.1, 1.25))
    works = rod(opened, "rod-4").works
    assert works.high_mps == pytest.approx(1.25 * MPH_MPS)
    # 1.3 mph is now too fast for this very blade, and the rules say so.
    assert rod(opened, "rod-4").verdict == "too_fast"
    bench = next(b for b in check_spread(opened.now).rods if b.setup.rod_id == "rod-4")
    assert "blade-rolls" in {finding.rule_id for finding in bench.findings}
    assert beside(opened, "rod-4").blade_own


def test_latest_audition_stands_and_undoing_it_brings_the_one_before_back():
    opened = fishing(dodger_seen(1.1, 1.25))
    later = dodger_seen(1.0, 1.5, minute=30)
    opened.add(later)
    assert rod(opened, "rod-4").works.high_mps == pytest.approx(1.5 * MPH_MPS)
    opened.add(event("undone", 31, event_id=later["id"]))
    assert rod(opened, "rod-4").works.high_mps == pytest.approx(1.25 * MPH_MPS)


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"piece_id": "no-such"}, "payload.piece_id"),
        ({"tow_point": "wide"}, "payload.tow_point"),
        ({"high_mps": 0.1}, "payload.high_mps"),
        ({"low_mps": -1.0}, "payload.low_mps"),
    ],
)
def test_impossible_auditions_are_refused(change: dict[str, Any], field: str):
    with pytest.raises(InvalidInputError) as caught:
        fishing(dodger_seen(1.1, 1.3, **change))
    assert caught.value.field == field


def test_turn_of_the_boat_asks_for_another_look_until_it_is_given():
    here = {"latitude_deg": 44.0, "longitude_deg": -115.0}
    opened = fishing(event("position_fixed", 10, **here, course_deg=10.0))
    assert beside(opened, "rod-4").again is None
    opened.add(event("position_fixed", 20, **here, course_deg=200.0))
    assert beside(opened, "rod-4").again == "the boat has turned"
    # A rod whose line is in is looked at on its way out anyway.
    assert beside(opened, "rod-3").again is None
    opened.add(event("checked", 21, rod_id="rod-4", item="swings", outcome="ok"))
    assert beside(opened, "rod-4").again is None
    assert beside(opened, "rod-1").again == "the boat has turned"


def test_small_change_of_course_is_no_turn():
    here = {"latitude_deg": 44.0, "longitude_deg": -115.0}
    opened = fishing(
        event("position_fixed", 10, **here, course_deg=350.0),
        event("position_fixed", 20, **here, course_deg=20.0),
    )
    assert beside(opened, "rod-4").again is None


def test_bent_blade_asks_for_its_own_rod_only():
    opened = fishing(event("look_again", 12, why="bent", rod_id="rod-4"))
    assert beside(opened, "rod-4").again == "it was bent or fouled"
    assert beside(opened, "rod-1").again is None
    opened.add(dodger_seen(1.0, 1.4, minute=15))
    assert beside(opened, "rod-4").again is None


def test_checks_are_those_the_rod_has_and_are_remembered():
    opened = fishing()
    plug = {look.look.item for look in beside(opened, "rod-1").looks}
    dodger = {look.look.item for look in beside(opened, "rod-4").looks}
    assert "tracks_true" in plug
    assert "swings" not in plug
    # Dodger and hoochie on a downrigger: blade, bait and clip each have to be right.
    assert {"swings", "bait", "clip"} <= dodger
    assert all(look.due for look in beside(opened, "rod-1").looks)
    opened.add(event("checked", 3, rod_id="rod-1", item="hooks", outcome="ok"))
    opened.add(event("checked", 3, rod_id="rod-1", item="tracks_true", outcome="fault"))
    opened.add(event("checked", 3, rod_id="rod-1", item="nicks", outcome="skipped"))
    done = {look.look.item: look for look in beside(opened, "rod-1").looks}
    assert not done["hooks"].due
    assert done["hooks"].at_s == at(3)
    assert done["tracks_true"].due
    assert not done["nicks"].due


def test_boat_with_downriggers_zeroes_its_counters_and_keeps_a_cutter():
    items = {look.look.item for look in beside_view(session().now).boat}
    assert items == {"life_jacket", "way_back_in", "cutter", "counter_zeroed"}


def test_tackle_brought_aboard_can_be_rigged():
    opened = fishing()
    lure = {**demo_outfit()["lures"][0], "id": "new-minnow", "colour": "perch"}
    setup = {
        "rod_id": "rod-5",
        "place_id": "port-bow",
        "line_id": "top-12",
        "lure_id": "new-minnow",
    }
    with pytest.raises(UnknownItemError):
        opened.add(event("rod_rigged", 4, **setup))
    opened.add(event("tackle_brought", 4, lures=[lure]))
    opened.add(event("rod_rigged", 5, **setup))
    assert "perch" in rod(opened, "rod-5").recipe


def test_replaced_tackle_changes_what_is_computed_from_then_on():
    opened = fishing()
    before = rod(opened, "rod-1").line.depth_m
    lure = next(item for item in demo_outfit()["lures"] if item["id"] == "minnow-silver")
    opened.add(event("tackle_brought", 4, lures=[{**lure, "lip": "deep"}]))
    assert rod(opened, "rod-1").line.depth_m > before + 0.5


def test_place_that_a_rigged_rod_needs_cannot_be_changed_under_it():
    opened = fishing()
    place = next(p for p in demo_outfit()["places"] if p["id"] == "rigger-starboard")
    holder = {"kind": "holder", "id": place["id"], "name": "x", "side_m": 1.1, "tip_height_m": 0.8}
    with pytest.raises(InvalidInputError, match="while rod-4 is rigged"):
        opened.add(event("tackle_brought", 4, places=[holder]))
    with pytest.raises(InvalidInputError):
        opened.add(event("tackle_brought", 4))


def test_ladder_gives_less_flash_and_the_same_thump():
    opened = fishing()
    now = opened.state.rods["rod-4"].setup
    mood = mood_of(opened.state.outfit, now)
    assert RUNGS[mood.rung] == "small dodger"
    steps = ladder(opened.now, now, flash="less", thump="less")
    assert steps
    for step in steps:
        assert step.mood.flash < mood.flash
        assert step.mood.thump < mood.thump
        changed = (step.setup.lure_id != now.lure_id) + (
            step.setup.attractor_id != now.attractor_id
        )
        assert changed == 1
    more = ladder(opened.now, now, flash="more", thump="more")
    assert {step.setup.attractor_id for step in more} == {"dodger-5"}


def test_ladder_gives_another_lure_only_while_one_is_left_in_the_box():
    opened = fishing()
    outfit = opened.state.outfit
    now = replace(opened.state.rods["rod-4"].setup, attractor_id=None, leader_m=0.0)
    spoons = [item for item in outfit.lures if item.kind == "spoon"]
    worn, offered = replace(now, lure_id=spoons[0].id), replace(spoons[1], flash=0.3, thump=0.3)
    aboard = replace(
        outfit, attractors=(), lures=(replace(spoons[0], count=1, flash=0.1, thump=0.1), offered)
    )

    def answered(*others: RodSetup) -> set[str]:
        steps = ladder_steps(aboard, worn, others, flash="more", thump="more")
        return {step.setup.lure_id for step in steps}

    other_rod = replace(worn, rod_id="rod-1", lure_id=offered.id)
    assert answered() == {offered.id}
    assert answered(*[other_rod] * (offered.count - 1)) == {offered.id}
    assert answered(*[other_rod] * offered.count) == set()


def test_ladder_never_gives_what_another_rod_wears():
    document = demo_outfit()
    for blade in document["attractors"]:
        blade["count"] = 1
    opened = fishing(outfit=document)
    now = opened.state.rods["rod-2"].setup
    assert now.attractor_id == "willow-small"
    steps = ladder(opened.now, now, flash="more", thump="more")
    assert "dodger-4" not in {step.setup.attractor_id for step in steps}
    with pytest.raises(InvalidInputError) as caught:
        ladder(opened.now, now, flash="a lot", thump="more")
    assert caught.value.field == "flash"


def test_rods_beyond_the_licence_are_counted():
    rules = {"entered_on": "2026-04-01", "origin": "made up for a test", "rods_most": 4}
    assert check_spread(fishing(rules=rules).now).over_licence == 2
    assert check_spread(fishing().now).over_licence == 0
    with pytest.raises(InvalidInputError, match="a day such as"):
        fishing(rules={**rules, "entered_on": "yesterday"})


def test_beat_counted_with_a_piece_goes_with_its_own_range():
    opened = fishing(dodger_seen(1.0, 1.5))
    opened.add(event("beat_counted", 6, rod_id="rod-4", beats=20, seconds=10.0))
    own = opened.state.outfit.attractor("dodger-4").own[0]
    assert (own.beat.beats, own.beat.seconds) == (20, 10.0)
    # A later trip with this very blade knows its beat, though nobody counted on it.
    later = fishing(outfit=encode(opened.state.outfit))
    assert later.state.beats == {}
    assert rod(later, "rod-4").beats_per_10s == pytest.approx(20.0)
    # The other order: counted first, its range seen after.
    counted = fishing(event("beat_counted", 3, rod_id="rod-4", beats=18, seconds=10.0))
    counted.add(dodger_seen(1.0, 1.5))
    assert counted.state.outfit.attractor("dodger-4").own[0].beat.beats == 18


def test_tile_says_why_to_look_again():
    opened = fishing(event("look_again", 12, why="wind"))
    assert rod(opened, "rod-4").again == "the wind has shifted"
    assert rod(opened, "rod-3").again is None
    opened.add(event("line_in", 13, rod_id="rod-4"))
    assert rod(opened, "rod-4").again is None


@pytest.mark.parametrize(
    ("species", "mood", "school"),
    [
        # Common practice: shorter is wilder, longer calmer; kokanee close to the blade.
        ("kokanee", "usual", "short_whip"),
        ("kokanee", "tough", "blade_lengths"),
        ("trout", "usual", "blade_lengths"),
        ("trout", "active", "short_whip"),
    ],
)
def test_mood_of_the_fish_decides_the_leader_to_begin_with(species: str, mood: str, school: str):
    opened = fishing(species=species)
    opened.add(event("school_chosen", 4, topic="mood", school=mood))
    bench = next(b for b in check_spread(opened.now).rods if b.setup.rod_id == "rod-4")
    assert bench.leader.school == school
    assert check_spread(opened.now).mood == mood


def test_no_move_asks_for_a_third_copy_of_two(monkeypatch):
    hits = [event("hit", 20 + 5 * i, rod_id="rod-1") for i in range(12)]
    checks = [
        event("checked", 90, rod_id=f"rod-{n}", item=item, outcome="ok")
        for n in range(1, 7)
        for item in ("tracks_true", "swings")
    ]
    document = demo_outfit()

    def asked_for() -> list[str]:
        now = situation(fishing(*hits, *checks, outfit=document), 100, monkeypatch)
        rigged = [move.answer.change.rod_rigged for move in (*copy_moves(now), *try_moves(now))]
        # Rod 1 wears it already.
        return [setup.lure_id for setup in rigged if setup is not None and setup.rod_id != "rod-1"]

    assert "minnow-silver" in asked_for()
    for lure in document["lures"]:
        lure["count"] = 1
    assert "minnow-silver" not in asked_for()


def test_odd_one_out_is_mended_by_another_tow_point_first():
    document = demo_outfit()
    document["attractors"].append(
        {
            **document["attractors"][0],
            "id": "points",
            "style": "tow_points",
            "works": {"low_mps": 1.1, "high_mps": 1.3},
            "tow_points": [
                {"name": "tight", "works": {"low_mps": 1.1, "high_mps": 1.3}},
                {"name": "wide", "works": {"low_mps": 0.5, "high_mps": 0.75}},
            ],
        }
    )
    opened = fishing(outfit=document)
    setup = {**encode(opened.state.rods["rod-4"].setup), "attractor_id": "points"}
    for rod_id in ("rod-1", "rod-3", "rod-5", "rod-6"):
        # The slow end of the demo: everything else within a dodger's pace.
        other = encode(opened.state.rods["rod-2"].setup)
        opened.add(event("rod_rigged", 5, **{**other, "rod_id": rod_id}))
    opened.add(event("rod_rigged", 6, **{**setup, "tow_point": "tight"}))
    odd = check_spread(opened.now).common.odd
    assert (odd.rod_id, odd.setup.attractor_id, odd.setup.tow_point) == ("rod-4", "points", "wide")
    with pytest.raises(InvalidInputError) as caught:
        opened.add(event("rod_rigged", 7, **{**setup, "tow_point": "sideways"}))
    assert caught.value.field == "payload.tow_point"
