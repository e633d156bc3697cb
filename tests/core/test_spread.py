"""The spread builder: what a spread must keep to, and an exact solver held against brute force."""

from __future__ import annotations

import itertools
import json
from collections import Counter
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from tackle import demo_outfit, large_outfit
from trip_cases import at, event, session

from coldwake_core.constants import FOOT_M, MPH_MPS
from coldwake_core.errors import InvalidInputError, UnknownItemError
from coldwake_core.gear.common import GUST_MPS
from coldwake_core.gear.setup import working_range
from coldwake_core.places.above.asked import plan
from coldwake_core.places.rig.bench import check_spread
from coldwake_core.spread.breaks import Out, with_spread
from coldwake_core.spread.choose import (
    AGAIN,
    ANOTHER,
    ANOTHER_KIND,
    COVER,
    FISHING,
    PAIR,
    Candidate,
    choose,
)
from coldwake_core.spread.dress import Earned
from coldwake_core.spread.opening import OpeningSpread, build_opening, changed_opening

WARM = event("temperature_read", 1, temperature_degc=10.6)  # 51 °F: slow under the surface
MARKS = (
    event("mark_seen", 50, depth_m=9.0, count=6),
    event("mark_seen", 52, depth_m=5.0, count=2),
)


BUILT: dict[str, OpeningSpread] = {}


def opening(*events: dict[str, Any], **changes: Any) -> OpeningSpread:
    """The spread for a trip, built once for all the tests that look at it."""
    told = [{**one, "id": ""} for one in events]
    key = json.dumps([told, changes], sort_keys=True, default=repr)
    if key not in BUILT:
        BUILT[key] = build_opening(session(*events, **changes).now, at(60))
    return BUILT[key]


def outs(spread: OpeningSpread) -> list[Out]:
    return [Out(setup=rod.setup, setting_m=rod.setting_m) for rod in spread.rods]


def box(**counts: int) -> dict[str, Any]:
    document = demo_outfit()
    for piece in (*document["lures"], *document["attractors"]):
        piece["count"] = counts.get(piece["id"].replace("-", "_"), counts.get("others", 2))
    return document


def test_spread_keeps_to_all_it_must():
    for species, events in (("trout", (WARM, *MARKS)), ("trout", (WARM,)), ("kokanee", (WARM,))):
        spread = opening(*events, species=species)
        assert len(spread.rods) == 6
        assert spread.breaks == ()
        tried = with_spread(session(*events, species=species).now, outs(spread), spread.speed_mps)
        # Judged by other code than chose it: rules, window and tangles of the bench and the plan.
        check = check_spread(tried)
        assert check.common.window.is_open
        assert not [f for rod in check.rods for f in rod.findings if f.severity != "look"]
        assert plan(tried, course="straight").tangles == ()


def test_every_lure_works_at_the_speed_with_room_for_gusts():
    spread = opening(WARM, *MARKS)
    aboard = session().state.outfit
    for rod in spread.rods:
        works = working_range(aboard, rod.setup)
        assert works.low_mps + GUST_MPS <= spread.speed_mps + 2e-3
        assert spread.speed_mps - 2e-3 <= works.high_mps - GUST_MPS


def test_marks_are_covered_from_a_little_above():
    spread = opening(WARM, *MARKS)
    # Marks at 9 m: the lure two feet above them (common practice), within 3 ft or a tenth.
    wanted = 9.0 - 2.0 * FOOT_M
    near = [rod for rod in spread.rods if abs(rod.depth_m - wanted) <= 0.1 * wanted]
    assert near
    assert any("marked" in reason for reason in near[0].reasons)


def test_what_earned_hits_on_days_like_it_goes_before_what_only_suits():
    aboard = session().state.outfit
    worn = {rod.setup.lure_id for rod in opening(WARM).rods}
    # Something that swims at that speed, and that the rule book alone leaves in the box.
    speed = opening(WARM).speed_mps
    left = next(
        lure for lure in aboard.lures if lure.id not in worn and lure.own_action
        and lure.works_at().low_mps + GUST_MPS < speed < lure.works_at().high_mps - GUST_MPS
    )
    earned = [Earned(lure=left.name, colour=left.colour)]
    begun = build_opening(session(WARM).now, at(60), speed_mps=speed, earned=earned)
    assert left.id in {rod.setup.lure_id for rod in begun.rods}
    assert begun.breaks == ()
    # A look that is not in the box changes nothing.
    strange = [Earned(lure="Nothing of the kind", colour="clear")]
    assert build_opening(session(WARM).now, at(60), earned=strange) == opening(WARM)


def test_two_alike_and_one_different():
    spread = opening(WARM, *MARKS)
    looks = Counter((rod.setup.lure_id, rod.setup.attractor_id) for rod in spread.rods)
    # Common practice; of six rods two pairs and two that stand alone, where the box has them.
    assert max(looks.values()) == 2
    assert len(looks) >= 4


def test_search_shows_more_than_one_kind_of_lure():
    # Common practice: different lures on each rod; two colours of one plug are one kind.
    aboard = session().state.outfit
    trout, kokanee = opening(WARM, *MARKS), opening(WARM, *MARKS, species="kokanee")
    assert {aboard.lure(rod.setup.lure_id).kind for rod in trout.rods} == {"plug", "spoon", "soft"}
    behind = {rod.setup.attractor_id for rod in kokanee.rods}
    moving = {aboard.lure(rod.setup.lure_id).own_action for rod in kokanee.rods}
    assert len(behind) >= 2 or moving == {True, False}


def test_no_piece_is_asked_for_more_often_than_it_is_aboard():
    spread = opening(WARM, *MARKS, outfit=box(others=1))
    for key in ("lure_id", "attractor_id"):
        worn = [getattr(rod.setup, key) for rod in spread.rods if getattr(rod.setup, key)]
        assert len(set(worn)) == len(worn)
    assert {item.kind for item in spread.breaks} <= {"alike"}


def test_licence_is_kept_and_said():
    rules = {"entered_on": "2026-04-01", "origin": "made up for a test", "rods_most": 3}
    spread = opening(WARM, rules=rules)
    assert len(spread.rods) == 3
    assert any("3 rods at most" in reason for reason in spread.reasons)


def test_trebles_stay_in_the_box_where_single_hooks_were_noted():
    rules = {"entered_on": "2026-04-01", "origin": "made up for a test", "hooks": "single"}
    spread = opening(WARM, rules=rules)
    aboard = session().state.outfit
    assert spread.rods
    assert all("treble" not in aboard.lure(rod.setup.lure_id).hook for rod in spread.rods)


def test_same_inputs_give_the_same_spread():
    assert build_opening(session(WARM, *MARKS).now, at(60)) == opening(WARM, *MARKS)


def test_method_sets_the_speed_and_the_user_s_own_goes_first():
    # Common practice: cold water is covered at 2.7-3.5 mph, warming water fished at 1.5-2.2.
    cold = opening(event("temperature_read", 1, temperature_degc=8.6))
    assert 2.7 <= cold.speed_mps / MPH_MPS <= 3.5
    assert 1.5 <= opening(WARM).speed_mps / MPH_MPS <= 2.2
    own = build_opening(session(WARM).now, at(60), speed_mps=1.3 * MPH_MPS)
    assert own.speed_mps == pytest.approx(1.3 * MPH_MPS)


def test_one_side_is_long_and_the_other_short():
    spread = opening(WARM)
    flat = [rod for rod in spread.rods if rod.number.kind == "line_out"]
    aboard = session().state.outfit
    for rod in flat:
        is_port = aboard.place(rod.setup.place_id).side_m < 0
        assert (rod.setting_m >= 95 * FOOT_M) == is_port


def test_kokanee_lures_swim_close_behind_the_clip():
    spread = opening(WARM, species="kokanee")
    setbacks = [rod.setup.setback_m for rod in spread.rods if rod.setup.setback_m]
    # Common practice: 10-30 ft, usually 15-25.
    assert setbacks
    assert all(15 * FOOT_M <= setback <= 25 * FOOT_M for setback in setbacks)


def test_dropper_rod_keeps_its_weight_and_is_set_for_a_depth():
    dropper = event(
        "rod_rigged", 2, rod_id="rod-1", place_id="port-bow", line_id="top-12",
        lure_id="hoochie-pink", attractor_id="dodger-4", leader_m=0.23, weight_kg=0.17,
        weight_ahead_m=1.2, drop_m=0.3,
    )
    spread = build_opening(
        session(WARM, dropper, *MARKS, species="kokanee").now, at(60), rod_ids=["rod-1"]
    )
    (rod,) = spread.rods
    assert (rod.setup.weight_kg, rod.setup.weight_ahead_m, rod.setup.drop_m) == (0.17, 1.2, 0.3)
    # A flat line has no number for a depth; a weight takes the lure to the marks at 9 m or 5 m.
    wanted = [mark - 2.0 * FOOT_M for mark in (9.0, 5.0)]
    assert min(abs(rod.depth_m - depth) for depth in wanted) < 0.9


def test_line_that_rides_another_s_cable_is_left_to_be_clipped_and_said_so():
    stacked = event(
        "rod_rigged", 2, rod_id="rod-2", place_id="rigger-port", line_id="rigger-12",
        lure_id="thin-copper", setback_m=6.0, above_ball_m=3.0,
    )
    spread = opening(WARM, stacked)
    assert "rod-2" not in {rod.setup.rod_id for rod in spread.rods}
    assert "rod-3" in {rod.setup.rod_id for rod in spread.rods}
    assert any(reason.startswith("Rod 2: rides another line's cable") for reason in spread.reasons)


def test_current_gives_the_speed_by_gps_both_ways():
    current = event("current_noted", 2, speed_mps=0.5, toward_deg=180.0)
    spread = opening(WARM, current)
    assert spread.passes.down_mps - spread.passes.up_mps == pytest.approx(1.0)


def test_only_the_rods_asked_for_are_used():
    spread = build_opening(session(WARM).now, at(60), rod_ids=["rod-3", "rod-1"])
    assert [rod.setup.rod_id for rod in spread.rods] == ["rod-1", "rod-3"]
    with pytest.raises(UnknownItemError):
        build_opening(session(WARM).now, at(60), rod_ids=["rod-99"])
    with pytest.raises(InvalidInputError, match="a place and a reel"):
        build_opening(session(WARM).now, at(60), rod_ids=[])


def test_speed_at_which_nothing_works_is_told():
    with pytest.raises(InvalidInputError) as caught:
        build_opening(session(WARM).now, at(60), speed_mps=4.4)
    assert caught.value.field == "speed_mps"


def changed(spread: OpeningSpread, index: int, **change: Any) -> OpeningSpread:
    from dataclasses import replace

    rods = outs(spread)
    if "setting_m" in change:
        rods[index] = replace(rods[index], setting_m=change.pop("setting_m"))
    rods[index] = replace(rods[index], setup=replace(rods[index].setup, **change))
    return changed_opening(session(WARM, *MARKS).now, at(60), rods, spread.speed_mps)


def test_user_is_told_what_a_change_breaks():
    spread = opening(WARM, *MARKS)
    assert changed(spread, 0).breaks == ()
    heavy = changed(spread, 0, lure_id="heavy-brass", attractor_id=None, leader_m=0.0)
    assert {"window", "rule"} <= {item.kind for item in heavy.breaks}
    # The rods that run at the deeper marks, hauled up: nobody is left there.
    deep = max(range(6), key=lambda i: spread.rods[i].depth_m)
    at_marks = [i for i in range(6) if spread.rods[i].depth_m > 7.5]
    assert deep in at_marks
    rods = outs(spread)
    hauled = [
        Out(setup=rod.setup, setting_m=3.0 if index in at_marks else rod.setting_m)
        for index, rod in enumerate(rods)
    ]
    told = changed_opening(session(WARM, *MARKS).now, at(60), hauled, spread.speed_mps)
    assert "depth" in {item.kind for item in told.breaks}
    crowded = changed(spread, 0, place_id=spread.rods[5].setup.place_id)
    assert {"place", "tangle"} & {item.kind for item in crowded.breaks}


def test_spread_of_one_look_is_called_so():
    spread = opening(WARM, *MARKS)
    rods = [
        Out(
            setup=rod.setup.__class__(
                rod_id=rod.setup.rod_id,
                place_id=rod.setup.place_id,
                line_id=rod.setup.line_id,
                lure_id="thin-copper",
                setback_m=rod.setup.setback_m,
            ),
            setting_m=rod.setting_m,
        )
        for rod in spread.rods
    ]
    kinds = {
        item.kind
        for item in changed_opening(session(WARM).now, at(60), rods, spread.speed_mps).breaks
    }
    assert {"different", "rule"} <= kinds


def test_rod_that_stands_twice_is_refused():
    rods = outs(opening(WARM))
    with pytest.raises(InvalidInputError) as caught:
        changed_opening(session(WARM).now, at(60), [rods[0], rods[0]], 0.8)
    assert caught.value.field == "rods[1].setup.rod_id"
    with pytest.raises(InvalidInputError):
        changed_opening(session(WARM).now, at(60), [], 0.8)


def test_nine_rods_out_of_five_hundred_pieces():
    spread = opening(WARM, *MARKS, outfit=large_outfit(rods=9, pieces=500))
    assert len(spread.rods) == 9
    assert not [item for item in spread.breaks if item.kind != "tangle"]


def worth(chosen: list[Candidate], depths: list[float], rods: int) -> float:
    """The objective, written anew from its definition."""
    looks = Counter(item.look for item in chosen)
    pairs = sum(count >= 2 for count in looks.values())
    most_pairs = rods // 3 if rods >= 2 else pairs
    total = sum(FISHING + item.score for item in chosen)
    total += PAIR * min(pairs, most_pairs)
    total += ANOTHER * min(len(looks), max(rods - rods // 3, 1))
    total += ANOTHER_KIND * len({item.kind for item in chosen})
    for index, value in enumerate(depths):
        there = sum(index in item.covers for item in chosen)
        total += value * (COVER * (there >= 1) + AGAIN * (there >= 2))
    return total


@given(data=st.data())
@settings(max_examples=25)
def test_solver_finds_what_trying_everything_finds(data: st.DataObject):
    rods, looks = data.draw(st.integers(1, 3)), data.draw(st.integers(1, 3))
    depths = [1.0, 0.6]
    scores = st.floats(0.0, 1.5).map(lambda x: round(x, 2))
    items = [
        Candidate(
            rod=rod,
            look=look,
            score=data.draw(scores),
            uses=(f"lure:{look}",),
            covers=(option,) if data.draw(st.booleans()) else (),
            slot=f"{rod}:{option}",
            kind="plug" if look < 2 else "spoon",
        )
        for rod in range(rods)
        for look in range(looks)
        for option in range(2)
    ]
    counts = {f"lure:{look}": data.draw(st.integers(0, 3)) for look in range(looks)}
    forbidden = [("0:0", "1:0")] if data.draw(st.booleans()) else []
    most = data.draw(st.integers(1, 3))
    found = choose(items, counts=counts, depths=depths, most_rods=most, forbidden=forbidden)
    best = 0.0
    for tried in itertools.product(
        *[[None, *(i for i in items if i.rod == rod)] for rod in range(rods)]
    ):
        chosen = [item for item in tried if item is not None]
        used = Counter(piece for item in chosen for piece in item.uses)
        slots = {item.slot for item in chosen}
        allowed = (
            len(chosen) <= most
            and all(used[piece] <= counts[piece] for piece in used)
            and not any(a in slots and b in slots for a, b in forbidden)
        )
        if allowed:
            best = max(best, worth(chosen, depths, min(rods, most)))
    assert worth(found, depths, min(rods, most)) == pytest.approx(best, abs=1e-3)


def test_equals_are_told_apart_by_their_order_whatever_the_worths():
    # Three rods, four looks of one worth: the earliest win, and a constant added to every score,
    # which changes the solver's path, changes nothing else.
    def items(more: float) -> list[Candidate]:
        return [
            Candidate(
                rod=rod,
                look=look,
                score=0.5 + more,
                uses=(f"lure:{look}",),
                covers=(option,),
                slot=f"{rod}:{option}",
                kind="plug",
            )
            for rod in range(3)
            for look in range(4)
            for option in range(2)
        ]

    def places(more: float) -> list[int]:
        listed = items(more)
        found = choose(
            listed, counts={f"lure:{n}": 3 for n in range(4)}, depths=[1.0, 1.0], most_rods=3
        )
        return [listed.index(item) for item in found]

    first = places(0.0)
    assert [places(more) for more in (0.1, 0.37, 1.9)] == [first] * 3
    # Nothing as good stands earlier in the list.
    listed, limit = items(0.0), sum(first)
    best = worth([listed[i] for i in first], [1.0, 1.0], 3)
    for tried in itertools.product(range(8), range(8, 16), range(16, 24)):
        if sum(tried) < limit:
            assert worth([listed[i] for i in tried], [1.0, 1.0], 3) < best - 1e-9
