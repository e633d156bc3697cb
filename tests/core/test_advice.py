"""Marks, the method of the hour and the next move (rules: common practice)."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

import pytest
from advised import fishing, situation
from trip_cases import at, event, session

from coldwake_core.advice.candidates import method_depth_m
from coldwake_core.advice.marks import depth_to_fish, marked_bands, run_at_m
from coldwake_core.advice.method import (
    comfort_band_degc,
    comfort_depths_m,
    method_of_the_hour,
    trolled_mps,
)
from coldwake_core.advice.moves import _option, _recipes
from coldwake_core.advice.put_off import stays_away
from coldwake_core.advice.shows import thumb_of
from coldwake_core.advice.tries import depths_to_try, try_moves
from coldwake_core.constants import FOOT_M, MPH_MPS, degc_from_degf
from coldwake_core.decode import encode
from coldwake_core.errors import InvalidInputError
from coldwake_core.evidence.bed import BedFished
from coldwake_core.gear.pieces import SpeedRange
from coldwake_core.gear.window import shared_window, verdict
from coldwake_core.places.fish.page import _rod_now
from coldwake_core.trip.learnt import learnt


@pytest.mark.parametrize(
    ("species", "degf", "method"),
    [
        ("trout", 48.5, "cover_water"),
        ("trout", 51.0, "trout_warming"),
        ("trout", 50.0, "trout_warming"),
        ("trout", 56.0, "trout_comfort"),
        ("trout", 64.0, "trout_deep"),
        ("trout", 71.0, "trout_hot"),
        ("kokanee", 48.5, "stay_slow"),
        ("kokanee", 52.0, "kokanee_top"),
        ("kokanee", 62.0, "kokanee_deep"),
        ("kokanee", 70.0, "kokanee_hot"),
        ("striper", 50.0, "striper_cold"),
        ("striper", 60.0, "striper_active"),
    ],
)
def test_surface_temperature_decides_the_method(species, degf: float, method: str):
    found = method_of_the_hour(species=species, surface_degc=degc_from_degf(degf))
    assert found.id == method
    assert found.school


@pytest.mark.parametrize(
    ("species", "slowest", "fastest"),
    [("trout", 0.9, 3.5), ("kokanee", 0.9, 3.5), ("striper", 2.0, 4.2)],
)
def test_fish_are_trolled_for_between_the_speeds_of_all_their_methods(species, slowest, fastest):
    # From the bands of speed of the methods (common practice), both schools of a cold morning too.
    assert trolled_mps(species) == pytest.approx((slowest * MPH_MPS, fastest * MPH_MPS))


def test_a_rule_for_deep_water_keeps_a_metre_off_the_bottom():
    method = method_of_the_hour(species="trout", surface_degc=18.0)
    # Its band ends at 60 ft.
    assert thumb_of(method, "trout", 15.0).depth_base_m == pytest.approx(14.0)
    assert thumb_of(method, "trout", 8.0).depth_base_m == pytest.approx(7.2)
    assert thumb_of(method, "trout", 30.0).depth_base_m == pytest.approx(60.0 * FOOT_M)


def test_cold_morning_has_two_schools_and_the_user_picks():
    # Trout in cold spring cover water by default, kokanee stay slow; either may be chosen.
    cold = degc_from_degf(48.5)
    fast = method_of_the_hour(species="trout", surface_degc=cold)
    slow = method_of_the_hour(species="trout", surface_degc=cold, cold_school="stay_slow")
    assert (fast.speed_low_mps / MPH_MPS, fast.speed_high_mps / MPH_MPS) == pytest.approx(
        (2.7, 3.5)
    )
    assert slow.speed_high_mps < fast.speed_low_mps
    assert set(fast.alternatives) == {"cover_water", "stay_slow"}


def test_choice_of_school_means_nothing_once_it_is_warm():
    warm = degc_from_degf(52.0)
    assert (
        method_of_the_hour(species="trout", surface_degc=warm, cold_school="stay_slow").id
        == "trout_warming"
    )


def test_hot_water_warns_against_catch_and_release():
    # Common practice: above about 68 °F trout and salmon should not be played and released.
    for species in ("trout", "kokanee"):
        assert (
            "68" in method_of_the_hour(species=species, surface_degc=degc_from_degf(70.0)).caution
        )
        assert not method_of_the_hour(species=species, surface_degc=degc_from_degf(60.0)).caution


def test_comfort_depths_follow_the_profile():
    # 60 °F at the surface falling evenly to 40 °F at 20 m: the trout's 50 °F is at 10 m.
    profile = [(0.0, degc_from_degf(60.0)), (20.0, degc_from_degf(40.0))]
    ((top, base),) = comfort_depths_m(profile, comfort_band_degc("trout"), bottom_m=30.0)
    low, high = comfort_band_degc("trout")
    assert top == pytest.approx(max(0.0, degc_from_degf(60.0) - high) * 20 / (20 / 1.8))
    assert base == pytest.approx((degc_from_degf(60.0) - low) * 20 / (20 / 1.8))


@pytest.mark.parametrize(
    ("profile", "layers"),
    [
        # An inversion: warm, cold in the middle, warm again below: two layers, not one of 22 m.
        ([(0, 11), (10, 6), (12, 4), (22, 11)], [(0.0, 6.0), (17.71428, 22.0)]),
        # A band narrower than a twentieth of the step between two readings.
        ([(0, 100), (10, -100)], [(4.45, 4.6)]),
        ([(0, 9), (5, 9), (10, 20)], [(0.0, 5.90909)]),
        ([(0, 20), (10, 15)], []),
        # Below the bottom there is no water.
        ([(0, 11), (40, 8)], [(0.0, 30.0)]),
        ([(0, 20), (30, 20), (50, 8)], []),
    ],
)
def test_comfort_is_a_list_of_layers(profile, layers):
    found = comfort_depths_m(profile, (8.0, 11.0), bottom_m=30.0)
    assert [pytest.approx(layer, abs=1e-4) for layer in layers] == list(found)


def test_comfort_depths_are_unknown_without_a_profile():
    assert comfort_depths_m([(0.0, 12.0)], comfort_band_degc("trout"), bottom_m=30.0) == ()


def test_shared_window_is_the_overlap_or_closed():
    def one(low: float, high: float) -> SpeedRange:
        return SpeedRange(low_mps=low, high_mps=high)

    window = shared_window([one(0.4, 0.9), one(0.6, 1.4)])
    assert (window.low_mps, window.high_mps, window.is_open) == (0.6, 0.9, True)
    assert not shared_window([one(0.4, 0.6), one(0.7, 1.4)]).is_open
    assert shared_window([]) is None
    assert [verdict(one(0.5, 1.0), speed) for speed in (0.4, 0.5, 1.0, 1.1)] == [
        "too_slow",
        "works",
        "works",
        "too_fast",
    ]


def test_lure_is_run_above_the_mark_but_in_the_water():
    # Common practice: marks at 46 ft, ball at 44.
    assert depth_to_fish(46 * FOOT_M, above_mark_m=2 * FOOT_M, bottom_m=60.0) == pytest.approx(
        44 * FOOT_M
    )
    assert depth_to_fish(0.4, above_mark_m=0.6, bottom_m=60.0) > 0.0
    assert depth_to_fish(19.9, above_mark_m=-1.0, bottom_m=20.0) <= 20.0


def test_marks_near_each_other_are_one_band_and_old_ones_are_forgotten():
    opened = session(
        event("mark_seen", 0, depth_m=4.0, count=9),
        event("mark_seen", 60, depth_m=5.0, count=2),
        event("mark_seen", 65, depth_m=5.6, count=1),
        event("mark_seen", 66, depth_m=12.0, count=1),
    )
    bands = marked_bands(opened.state.marks, at(70))
    assert [band.count for band in bands] == [3, 1]
    assert bands[0].depth_m == pytest.approx((5.0 * 2 + 5.6) / 3)


def test_lane_of_marks_shows_the_newest_and_the_advice_weighs_all():
    opened = fishing(*(event("mark_seen", 20 + 0.01 * i, depth_m=14.0, count=1) for i in range(90)))
    view = opened.view(at(25))
    assert [mark.at_s for mark in view.marks] == [m.at_s for m in opened.state.marks[-80:]]
    assert marked_bands(opened.state.marks, at(25))[0].count == 90
    assert view.move.basis == "marks"


def test_speed_outside_the_shared_window_is_the_first_thing_to_mend():
    move = fishing(mph=2.6).view(at(30)).move
    assert move.basis == "working_range"
    assert move.answer.change.speed_changed.speed_mps == pytest.approx(1.6 * MPH_MPS)


def test_marks_that_no_lure_runs_near_are_fished_from_just_above():
    opened = fishing(event("mark_seen", 20, depth_m=14.0, count=3))
    move = opened.view(at(25)).move
    assert (move.basis, move.answer.kind) == ("marks", "depth")
    line = move.answer.change.line_set
    assert line.wanted_depth_m == pytest.approx(14.0 - 2 * FOOT_M)
    # The number it gives really puts the lure there.
    assert opened.where(rod_id=line.rod_id, setting_m=line.setting_m).depth_m == pytest.approx(
        line.wanted_depth_m, abs=0.01
    )
    # Precise gear first: a downrigger is moved in a minute, leadcore in four.
    assert line.rod_id in ("rod-3", "rod-4")


def test_rod_that_runs_at_marks_or_has_hits_is_left_where_it_is():
    # Common practice: fish that are found are not left for fish that are hoped for.
    view = fishing(
        event("mark_seen", 20, depth_m=5.5, count=5),
        event("mark_seen", 21, depth_m=14.0, count=12),
        event("hit", 22, rod_id="rod-3"),
    ).view(at(25))
    assert view.move.answer.rod_id != "rod-3"
    assert not any("Rod 3" in other.answer.title for other in view.others)


def mark_target(*events, species="trout", depth_m=14.0, bottom_m=30.0):
    one = session(*events, species=species, bottom_m=bottom_m)
    return run_at_m(one.now.state, depth_m)


def test_offset_above_a_mark_is_the_species_and_the_school_s():
    # Common practice: a little above; the school that reads the eyes goes level.
    assert mark_target() == pytest.approx(14.0 - 2 * FOOT_M)
    assert mark_target(species="striper") == pytest.approx(14.0 - 1 * FOOT_M)
    level = event("school_chosen", 1, topic="marks", school="level")
    assert mark_target(level) == pytest.approx(14.0)
    assert mark_target(level, event("offset_chosen", 2, above_mark_m=1.5)) == pytest.approx(12.5)


def test_fish_glued_to_the_bottom_are_fished_four_feet_off_it():
    # Common practice, with precise gear; stripers are fished on the bottom itself.
    assert mark_target(depth_m=29.8) == pytest.approx(30.0 - 4 * FOOT_M)
    assert mark_target(depth_m=29.8, species="striper") == pytest.approx(29.8 - 1 * FOOT_M)
    assert mark_target(depth_m=0.9, bottom_m=1.0) == pytest.approx(0.3)


def test_user_s_own_offset_is_used():
    opened = fishing(
        event("offset_chosen", 1, above_mark_m=1.5), event("mark_seen", 20, depth_m=14.0, count=3)
    )
    assert opened.view(at(25)).marks[0].run_at_m == pytest.approx(12.5)


def test_taking_the_move_makes_its_change_as_one_event():
    opened = fishing(event("mark_seen", 20, depth_m=14.0, count=3))
    move = opened.view(at(25)).move
    opened.add(event("move_taken", 25, **encode(move.answer)))
    rod = opened.state.rods[move.answer.rod_id]
    assert rod.wanted_depth_m == pytest.approx(move.answer.change.line_set.wanted_depth_m)
    assert opened.view(at(26)).judged[0].result.verdict == "too_early"


def test_move_that_was_put_off_stays_away_for_a_while():
    opened = fishing(mph=2.6)
    move = opened.view(at(30)).move
    opened.add(event("move_refused", 30, **encode(move.answer)))
    later = opened.view(at(40)).move
    assert later is None or later.answer.key != move.answer.key
    # Put off is put off, whatever the speed does meanwhile.
    opened.add(event("speed_changed", 41, speed_mps=2.4 * MPH_MPS))
    for minute in (42, 59):
        held = opened.view(at(minute)).move
        assert held is None or held.answer.kind != "speed"
    assert opened.view(at(75)).move.answer.kind == move.answer.kind == "speed"


def put_off(answer: Any, minute: float, why: str) -> dict[str, Any]:
    return event("move_refused", minute, **{**encode(answer), "why": why})


def test_what_is_not_aboard_stays_away_all_day_on_every_rod_and_the_rest_for_half_an_hour(
    monkeypatch,
):
    asked = situation(fishing(), 40, monkeypatch)
    trials = [m.answer for m in try_moves(asked) if m.answer.kind in ("lure", "colour")]
    gone = trials[0]
    setup = gone.change.rod_rigged
    other = next(t for t in trials if t.change.rod_rigged.lure_id != setup.lure_id)
    # The same lure, asked for with another rod.
    elsewhere = replace(gone, key="lure:rod-2", rod_id="rod-2", change=replace(
        gone.change, rod_rigged=replace(setup, rod_id="rod-2")
    ))
    opened = fishing(
        put_off(gone, 30, ""), put_off(gone, 31, "lacking"), put_off(other, 32, "busy")
    )
    shown = opened.view(at(40)).put_off
    assert [(one.answer.key, one.answer.why) for one in shown] == [
        (other.key, "busy"), (gone.key, "lacking")
    ]
    assert [one.until_s for one in shown] == [at(62), None]
    assert all(stays_away(one, shown) for one in (gone, elsewhere, other))
    later = opened.view(at(240)).put_off
    assert [one.answer.key for one in later] == [gone.key]
    assert all(stays_away(one, later) for one in (gone, elsewhere))
    assert not stays_away(other, later)
    # Another colour of it is aboard, and so is another length of leader.
    leaders = [m.answer for m in try_moves(asked) if m.answer.kind == "leader"]
    assert leaders
    assert not any(stays_away(one, later) for one in leaders)
    assert opened.view(at(20)).put_off == ()
    # What is taken after all is not put off, and when the day is over nothing is.
    opened.add(event("move_taken", 33, **encode(other)))
    assert [one.answer.key for one in opened.view(at(34)).put_off] == [other.key, gone.key]
    fresh = fishing(event("move_taken", 33, **encode(other)))
    assert fresh.view(at(34)).put_off == ()
    opened.add(event("trip_ended", 35))
    assert opened.view(at(36)).put_off == ()


def test_a_blade_that_is_not_aboard_is_asked_for_on_no_rod_but_its_leaders_may_be_tied(monkeypatch):
    asked = situation(fishing(), 40, monkeypatch)
    trials = [m.answer for m in try_moves(asked)]
    gone = next(t for t in trials if t.kind == "attractor")
    shown = fishing(put_off(gone, 30, "lacking")).view(at(40)).put_off
    blade = gone.change.rod_rigged.attractor_id
    wearing = [
        t for t in trials if t.kind == "leader" and t.change.rod_rigged.attractor_id == blade
    ]
    # One that wears it ties another leader behind it.
    worn = replace(gone, kind="leader", key="leader:rod-2", rod_id="rod-2")
    assert not any(stays_away(t, shown) for t in [*wearing, worn])
    elsewhere = replace(gone, key="attractor:rod-2", rod_id="rod-2")
    assert stays_away(elsewhere, shown)


def test_the_hours_depth_is_the_middle_of_its_band_as_far_as_the_bottom_lets_it():
    # 20 to 60 ft at a surface of 62 °F.
    deep = method_of_the_hour(species="trout", surface_degc=degc_from_degf(62.0))
    assert method_depth_m(deep, 30.0, 31.0) == pytest.approx(40.0 * FOOT_M)
    # Half a metre above the lowest.
    assert method_depth_m(deep, 9.0, 10.0) == pytest.approx(8.5)
    assert method_depth_m(deep, 6.5, 7.5) is None


def test_a_reason_that_is_none_is_refused():
    answer = fishing(mph=2.6).view(at(30)).move.answer
    with pytest.raises(InvalidInputError) as caught:
        fishing(put_off(answer, 30, "lazy"))
    assert "why" in str(caught.value)


def test_speed_up_is_never_to_the_speed_that_is_set():
    # The demo's rods share a window that begins just above 1.2 mph: a whole tenth inside is meant.
    opened = fishing(mph=1.2)
    window = opened.view(at(30)).window
    assert window.low_mps > 1.2 * MPH_MPS
    move = opened.view(at(30)).move
    target = move.answer.change.speed_changed.speed_mps
    assert window.low_mps - 1e-3 <= target <= window.high_mps + 1e-3
    assert target - 1.2 * MPH_MPS > 0.03 * MPH_MPS
    opened.add(event("move_taken", 31, **encode(move.answer)))
    after = opened.view(at(32)).move
    assert after is None or after.basis != "working_range"


def test_a_depth_that_was_put_off_is_put_off_though_the_marks_moved_a_little():
    marked, moved_on = event("mark_seen", 20, depth_m=14.0, count=3), event(
        "mark_seen", 26, depth_m=13.5, count=3
    )
    opened = fishing(marked)
    refused = opened.view(at(25)).move
    # Nobody put it off: the new depth is proposed, and it is another one.
    again = fishing(marked, moved_on).view(at(27)).move
    assert (refused.answer.kind, again.answer.kind) == ("depth", "depth")
    assert refused.answer.key != again.answer.key
    opened.add(event("move_refused", 25, **encode(refused.answer)))
    opened.add(moved_on)
    held = opened.view(at(27)).move
    assert held is None or held.answer.kind != "depth"


def test_evidence_speaks_only_when_it_is_strong():
    hits = [event("hit", 20 + i, rod_id="rod-3") for i in range(2)]
    weak = fishing(*hits).view(at(100))
    assert weak.comparison.result.verdict == "too_early"
    assert weak.move is None or weak.move.basis != "evidence"
    hits = [event("hit", 20 + 5 * i, rod_id="rod-3") for i in range(12)]
    opened = fishing(*hits)
    lagging = opened.view(at(100))
    assert lagging.comparison.ahead_rod_id == "rod-3"
    behind = lagging.comparison.behind_rod_id
    # The rod that lags gets its tuning checked first (common practice); then its lure is judged.
    assert (lagging.move.answer.kind, lagging.move.answer.rod_id) == ("tuning", behind)
    opened.add(event("move_taken", 100, **encode(lagging.move.answer)))
    strong = opened.view(at(101))
    assert strong.move.basis == "evidence"
    assert strong.move.answer.change.rod_rigged.lure_id == "thin-copper"
    assert strong.move.probability > 0.85


def test_dry_rods_over_marked_fish_change_colour():
    # Common practice: marks seen, speed right, no bite: change colour before the next pass.
    opened = fishing(
        # The one that fishes runs at the marks; the others might be brought to them first.
        *(event("line_in", 3, rod_id=rod) for rod in ("rod-1", "rod-2", "rod-4")),
        event("mark_seen", 28, depth_m=5.3, count=2),
    )
    move = opened.view(at(40)).move
    assert move.answer.kind == "colour"
    old = opened.state.rods[move.answer.rod_id].setup.lure_id
    lures = opened.trip.outfit
    new = lures.lure(move.answer.change.rod_rigged.lure_id)
    assert new.name == lures.lure(old).name
    assert new.colour != lures.lure(old).colour


def test_a_depth_nobody_has_tried_is_shown_in_time_and_with_its_reason():
    """Six hours without a mark or a hit: where nothing ran is worth a look."""
    opened = fishing(degf=64.0, bottom_m=30.0)
    ran = [rod.line.depth_m for rod in opened.view(at(25)).rods if rod.line]
    seen = {}
    for minute in range(25, 300, 25):
        move = opened.view(at(minute)).move
        if move is None:
            continue
        line = move.answer.change.line_set
        if move.answer.kind == "depth":
            seen[move.answer.key] = line.wanted_depth_m
            assert line.wanted_depth_m <= 30.0 - 1.2
        opened.add(event("move_taken", minute, **encode(move.answer)))
        if line is not None:
            opened.add(event("line_set", minute, **encode(line)))
    assert any(min(abs(depth - other) for other in ran) > 3.0 for depth in seen.values())


def tried_lines(asked: Any) -> set[str | None]:
    """Rods whose line a trial would move."""
    moves = try_moves(asked)
    return {m.answer.rod_id for m in moves if m.answer.change.line_set is not None}


def test_lines_of_rods_that_have_hits_or_run_at_marks_are_left_where_they_are(monkeypatch):
    assert tried_lines(situation(fishing(), 40, monkeypatch)) == {
        "rod-1", "rod-2", "rod-3", "rod-4"
    }
    hit = fishing(event("hit", 10, rod_id="rod-4"))
    assert tried_lines(situation(hit, 40, monkeypatch)) == {"rod-1", "rod-2", "rod-3"}
    # What was let out a quarter of an hour ago has not had its time.
    fresh = fishing(event("line_set", 25, rod_id="rod-4", setting_m=12.0))
    assert tried_lines(situation(fresh, 40, monkeypatch)) == {"rod-1", "rod-2", "rod-3"}
    # Fish at 17 ft, a lure run 2 ft above them: that of the third rod.
    at_marks = fishing(event("mark_seen", 38, depth_m=5.3, count=2))
    assert tried_lines(situation(at_marks, 40, monkeypatch)) == {"rod-1", "rod-2", "rod-4"}


def test_a_line_let_out_further_fishes_further_back_and_where_it_runs_then(monkeypatch):
    asked = situation(fishing(), 40, monkeypatch)
    recipes = _recipes(asked)
    rods = {rod.rod_id: rod for rod in asked.rods}
    checked = set()
    for move in try_moves(asked):
        line = move.answer.change.line_set
        if line is None:
            continue
        (rod_id, shown), = _option(asked, move, recipes, "x").after
        moved = fishing(event("line_set", 2, rod_id=rod_id, setting_m=line.setting_m))
        runs = next(r for r in moved.view(at(40)).rods if r.id == rod_id).line.depth_m
        assert shown.depth_m == pytest.approx(runs, abs=0.05)
        clipped = rods[rod_id].kind == "downrigger"
        assert shown.setback_m == (recipes[rod_id].setback_m if clipped else line.setting_m)
        checked.add(rods[rod_id].kind)
    assert {"flat", "leadcore", "downrigger"} <= checked


def test_a_plug_is_let_out_no_further_than_the_bed_allows(monkeypatch):
    shallow = situation(fishing(bottom_m=1.4), 40, monkeypatch)
    lengths = [rod.lengths for rod in shallow.rods if rod.kind == "flat"]
    deep = [rod.lengths for rod in situation(fishing(), 40, monkeypatch).rods if rod.kind == "flat"]
    assert sum(map(len, lengths)) < sum(map(len, deep))
    assert all(depth <= 1.4 - FOOT_M for found in lengths for depth in found.values())


def test_a_depth_is_not_tried_while_marked_fish_wait_for_a_lure_nor_by_a_rod_that_has_hits():
    marked = fishing(event("mark_seen", 20, depth_m=14.0, count=3)).view(at(25))
    titles = [marked.move.answer.title, *(other.answer.title for other in marked.others)]
    assert marked.move.basis == "marks"
    to_depths = [title for title in titles if title.endswith(" ft") and " to " in title]
    assert to_depths
    assert all(title.endswith(" to 44 ft") for title in to_depths)
    hits = [event("hit", 10 + i, rod_id="rod-4") for i in range(3)]
    held = fishing(*hits).view(at(40))
    told = [*([held.move] if held.move else []), *held.others]
    assert not any(one.answer.title.startswith("Set Rod 4") for one in told)


def test_who_puts_off_a_trial_of_a_rod_s_line_is_not_asked_for_the_next_number_of_it():
    opened = fishing(degf=64.0, bottom_m=30.0)
    put_off = []
    for minute in range(25, 50):
        move = opened.view(at(minute)).move
        if move is None or move.answer.change.line_set is None:
            break
        assert move.answer.rod_id not in put_off
        put_off.append(move.answer.rod_id)
        opened.add(event("move_refused", minute, **encode(move.answer)))
    assert put_off
    # Marks are another matter at once.
    opened.add(event("mark_seen", 50, depth_m=22.0, count=4))
    seen = opened.view(at(51))
    # 22 m less the 2 ft above: 70 ft, by whichever rod.
    assert seen.move.answer.title.endswith(" to 70 ft")


@pytest.mark.parametrize(("depth_m", "lowest_m", "feet"), [
    (6.0, 9.0, [2, 5, 10, 15, 17, 23, 25]),
    (0.4, 1.6, [4, 5]),
    (1.0, 0.2, []),
])
def test_depths_to_try_are_small_steps_and_a_ladder_clear_of_the_bottom(depth_m, lowest_m, feet):
    tried = [depth / FOOT_M for depth in depths_to_try(depth_m, lowest_m)]
    assert tried == pytest.approx(feet)


def test_a_line_without_a_number_is_let_out_or_taken_in_and_shows_where_it_runs_then():
    opened = fishing()
    view = next(rod for rod in opened.view(at(40)).rods if rod.kind == "flat" and rod.line)
    top = _rod_now(opened.now, view, (), None, at(40), 20.0, BedFished(20.0, 20.0))
    # It is 30 m out; a tenth more or less would be no change.
    assert set(top.lengths) == {20.0, 35.0, 50.0, 65.0}
    close = fishing(event("line_set", 2, rod_id=view.id, setting_m=36.0))
    again = next(rod for rod in close.view(at(40)).rods if rod.id == view.id)
    over = _rod_now(close.now, again, (), None, at(40), 20.0, BedFished(20.0, 20.0))
    assert set(over.lengths) == {20.0, 50.0, 65.0}
    for length, depth in top.lengths.items():
        moved = fishing(event("line_set", 2, rod_id=top.rod_id, setting_m=length))
        shown = next(rod for rod in moved.view(at(25)).rods if rod.id == top.rod_id)
        assert depth == pytest.approx(shown.line.depth_m, abs=0.02)


def test_nothing_is_suggested_with_no_line_out_or_after_the_end():
    assert session().view(at(5)).move is None
    assert fishing(event("trip_ended", 50), mph=2.6).view(at(60)).move is None


def test_view_shows_rods_from_port_to_starboard_with_their_clocks():
    view = fishing().view(at(30))
    assert [rod.side_m for rod in view.rods] == sorted(rod.side_m for rod in view.rods)
    by_id = {rod.id: rod for rod in view.rods}
    assert by_id["rod-3"].soak_since_s == at(1)
    assert by_id["rod-5"].line is None
    # A clock for bait only where something is baited.
    assert by_id["rod-1"].bait_since_s is None
    assert by_id["rod-2"].bait_since_s is not None


def test_lure_below_a_risen_bottom_shows_negative_clearance():
    view = fishing(event("sounded", 5, bottom_m=6.0)).view(at(6))
    deep = next(rod for rod in view.rods if rod.id == "rod-4")
    assert deep.line.clearance_m < 0.0


def test_what_else_was_weighed_stands_behind_the_move():
    view = fishing(event("mark_seen", 20, depth_m=14.0, count=3)).view(at(25))
    assert 1 <= len(view.others) <= 3
    assert view.move.answer.title not in [other.answer.title for other in view.others]
    # Three marks in a screen: a lure there should earn something, over two hours at most.
    assert view.move.gain_hits > 0.3
    assert view.move.lasts_min == pytest.approx(120.0)


def test_nothing_is_worth_a_change_when_the_day_is_nearly_over():
    late = fishing(event("mark_seen", 20, depth_m=14.0, count=3))
    dark_min = (late.trip.sun.dark_s - late.trip.started_at_s) / 60.0
    late.add(event("mark_seen", dark_min - 12.0, depth_m=14.0, count=3))
    early, after = late.view(at(25)).move, late.view(at(dark_min - 6.0)).move
    assert early.basis == "marks"
    assert after is None or after.basis == "school"


def test_hits_on_one_colour_make_the_other_rods_follow():
    hits = [event("hit", 10 + 4 * i, rod_id="rod-3") for i in range(20)]
    opened = fishing(*hits)
    lure = opened.state.rods["rod-3"].setup.lure_id
    look = opened.view(at(95)).move
    assert look.answer.kind == "tuning"
    opened.add(event("move_taken", 95, **encode(look.answer)))
    move = opened.view(at(100)).move
    assert move.basis == "evidence"
    assert move.answer.change.rod_rigged.lure_id == lure
    assert move.probability > 0.85


def test_what_comes_late_is_learnt_in_its_place():
    hits = [event("hit", 10 + 4 * i, rod_id="rod-3") for i in range(10)]
    whole = fishing(*hits)
    first = learnt(whole.now, at(60))
    late = fishing(*hits[:-5])
    learnt(late.now, at(60))
    for hit in hits[-5:]:
        late.add(hit)
    assert learnt(late.now, at(60)).mean == pytest.approx(first.mean)
    # Step by step comes to the same as in one go; and what was learnt is not learnt twice.
    steps = fishing(*hits)
    for minute in range(5, 61, 5):
        learnt(steps.now, at(minute))
    assert learnt(steps.now, at(60)).mean == pytest.approx(first.mean)
    assert learnt(steps.now, at(64)) is learnt(steps.now, at(61))


def test_out_of_the_water_and_out_of_range_count_for_nothing():
    def one_rod(*more: dict[str, Any]) -> Any:
        return session(
            event("speed_changed", 0, speed_mps=1.5 * MPH_MPS),
            event("line_set", 0, rod_id="rod-1", setting_m=30.0), *more,
        )

    blank = learnt(one_rod().now, at(5)).copy()
    for _ in range(5):
        blank.pass_time()
    # A blade that rolls at 3.4 mph, a line that was taken in: after five minutes nothing is learnt.
    for event_type, values in (
        ("speed_changed", {"speed_mps": 3.4 * MPH_MPS}), ("line_in", {"rod_id": "rod-1"}),
    ):
        silent = learnt(one_rod(event(event_type, 5, **values)).now, at(30))
        assert silent.mean == pytest.approx(blank.mean)
    dry, bitten = one_rod(), one_rod(event("hit", 22, rod_id="rod-1"))
    assert learnt(dry.now, at(30)).mean[0] < blank.mean[0] < learnt(bitten.now, at(30)).mean[0]


def by_habit(*more: dict[str, Any], **changes: Any):
    return fishing(event("school_chosen", 0, topic="advice", school="habits"), *more, **changes)


def move_at(trip: Any, minute: float) -> Any:
    return trip.view(at(minute)).move


def test_habits_may_advise_instead_and_say_which_of_them_speaks():
    two = [event("hit", minute, rod_id="rod-3") for minute in (10, 20)]
    trip = by_habit(*two)
    view = trip.view(at(25))
    assert (view.advice_school, view.others) == ("habits", ())
    # One hit is luck, one more a pattern; the rod that lags is looked at before it is changed.
    assert view.move.answer.kind == "tuning"
    assert view.move.source.startswith("Habit: the rod that lags")
    assert (view.move.basis, view.move.probability, view.move.gain_hits) == ("school", None, None)
    looked = view.move.answer
    trip.add(event("checked", 26, **encode(looked.change.checked)))
    copied = move_at(trip, 27)
    assert (copied.answer.kind, copied.answer.rod_id) == ("copy", looked.rod_id)
    assert copied.source.startswith("Habit: one more hit")
    assert copied.answer.change.rod_rigged.lure_id == trip.state.rods["rod-3"].setup.lure_id


def test_one_hit_moves_no_habit():
    trip = by_habit(event("hit", 10, rod_id="rod-3"))
    move = move_at(trip, 15)
    assert move is None or move.answer.kind not in ("tuning", "copy")
    weighed = fishing(event("hit", 10, rod_id="rod-3"))
    assert weighed.view(at(15)).advice_school == "weighed"


def test_habit_changes_colour_after_half_an_hour_without_a_bite_and_then_waits_again():
    trip = by_habit()

    def dry(minute: float) -> bool:
        move = move_at(trip, minute)
        return move is not None and move.source.startswith("Habit: half an hour")

    assert not dry(25)
    assert dry(33)
    move = move_at(trip, 33)
    assert move.answer.kind == "colour"
    trip.add(event("rod_rigged", 34, **encode(move.answer.change.rod_rigged)))
    trip.add(event("line_set", 35, rod_id=move.answer.rod_id, setting_m=10.0))
    assert not dry(50)
    assert dry(70)
    # A bite ends the spell.
    trip.add(event("hit", 71, rod_id="rod-1"))
    assert not dry(75)


def test_habit_too_brings_lures_back_into_their_range_first():
    trip = by_habit(event("hit", 10, rod_id="rod-3"), event("hit", 11, rod_id="rod-3"), mph=3.4)
    assert move_at(trip, 20).basis == "working_range"


def test_a_striper_s_speed_is_what_its_gps_speeds_up_and_down_the_river_say():
    # Common practice: by GPS 2.8 to 3.5 mph going up a moderate river, here one of 0.7 mph, and
    # under 5 going down; a small-lipped plug works at 4 mph through the water.
    method = method_of_the_hour(species="striper", surface_degc=degc_from_degf(60.0))
    low, high = method.speed_low_mps / MPH_MPS, method.speed_high_mps / MPH_MPS
    assert (low - 0.7, high - 0.7) == pytest.approx((2.8, 3.5), abs=0.05)
    assert high + 0.7 < 5.0
    assert low < 4.0 < high
