"""One boat, one speed: what a single blade cannot bear holds back no other rod."""

from __future__ import annotations

from dataclasses import asdict, replace
from typing import Any

import pytest
from advised import fishing, situation
from trip_cases import at, event

from coldwake_core.advice import moves as moves_module
from coldwake_core.advice import odd as odd_module
from coldwake_core.advice.candidates import speed_moves
from coldwake_core.advice.choice import Option, weigh_options
from coldwake_core.advice.moves import next_move
from coldwake_core.advice.odd import cost_of, mends_at
from coldwake_core.advice.put_off import put_off_now
from coldwake_core.advice.shows import recipe_of
from coldwake_core.advice.tries import RESET_MIN, TIE_MIN
from coldwake_core.constants import MPH_MPS
from coldwake_core.decode import encode
from coldwake_core.evidence.day_model import DayModel
from coldwake_core.evidence.recipe import Recipe
from coldwake_core.gear.setup import working_range
from coldwake_core.gear.window import SpeedWindow
from coldwake_core.lakesim.boat import LAKE_BOX, works
from coldwake_core.lakesim.boat import recipe_of as simulated
from coldwake_core.lakesim.day import Aboard, Change, opening, play
from coldwake_core.lakesim.policies import Advisor, option_of
from coldwake_core.lakesim.standard import Standard
from coldwake_core.lakesim.steps import mended_of
from coldwake_core.record.payloads import SpeedChanged

FAST_MPS = 1.8 * MPH_MPS


@pytest.fixture
def asked(monkeypatch: pytest.MonkeyPatch) -> Any:
    """The demo's rods share 1.5 to 1.6 mph: Rod 4's dodger takes no more, Rod 3's spoon no less."""
    return situation(fishing(), 60, monkeypatch)


def wants(mph: float) -> DayModel:
    """A day on which hits came at one speed, and none at others."""
    model = DayModel(deepest_m=20.0)
    for _ in range(12):
        model.pass_time()
        for tried in (0.9, 1.2, 1.55, 1.8, 2.4):
            shown = Recipe(
                depth_m=3.0, speed_mps=tried * MPH_MPS, setback_m=26.0, leader_m=None,
                flash=0.3, thump=0.3, colour="perch", lure="minnow plug",
            )
            model.count(model.terms(shown), 2 if tried == mph else 0, 5.0)
    return model


def test_a_speed_that_all_bear_asks_for_nothing(asked):
    assert mends_at(asked, asked.speed_mps) == {}


@pytest.mark.parametrize(("mph", "odd"), [
    (1.8, {"rod-4"}), (1.2, {"rod-3"}), (2.4, {"rod-2", "rod-4"}),
])
def test_odd_rods_are_given_what_swims_there_and_no_rod_else(asked, mph, odd):
    mends = mends_at(asked, mph * MPH_MPS)
    assert set(mends) == odd
    for rod_id, answer in mends.items():
        setup = answer.change.rod_rigged
        assert setup.rod_id == rod_id
        there = working_range(asked.outfit, setup)
        assert there.low_mps <= mph * MPH_MPS <= there.high_mps


@pytest.mark.parametrize(("most", "mends"), [(1, None), (2, {"rod-2", "rod-4"})])
def test_more_odd_rods_than_are_meant_are_too_many(asked, monkeypatch, most, mends):
    monkeypatch.setattr(odd_module, "MOST_ODD", most)
    found = mends_at(asked, 2.4 * MPH_MPS)
    assert (None if found is None else set(found)) == mends


def test_the_rod_that_leads_is_never_tied_anew_for_a_speed(asked, monkeypatch):
    leads = [event("hit", minute, rod_id="rod-4") for minute in (20, 40)]
    led = situation(fishing(*leads), 60, monkeypatch)
    assert mends_at(led, FAST_MPS) is None
    assert mends_at(led, 1.2 * MPH_MPS) is not None


def test_where_nothing_aboard_swims_there_the_speed_is_not_to_be_had(asked):
    outfit = asked.outfit
    only = {rod.setup.lure_id for rod in asked.rods}
    bare = replace(
        outfit, lures=tuple(lure for lure in outfit.lures if lure.id in only),
        attractors=tuple(b for b in outfit.attractors if b.id == "dodger-4"),
    )
    rods = tuple(rod for rod in asked.rods if rod.rod_id == "rod-4")
    assert mends_at(replace(asked, outfit=bare, rods=rods), FAST_MPS) is None


def test_what_goes_on_one_rod_is_not_there_for_the_next(asked):
    def blades(count: int) -> list[str | None] | None:
        outfit = replace(asked.outfit, attractors=tuple(
            replace(blade, count=count) if blade.id == "wobble-disc" else blade
            for blade in asked.outfit.attractors
        ), lures=tuple(lure for lure in asked.outfit.lures if not lure.own_action))
        odd = tuple(rod for rod in asked.rods if rod.rod_id in ("rod-2", "rod-4"))
        mends = mends_at(replace(asked, outfit=outfit, rods=odd), 2.4 * MPH_MPS)
        return mends and [a.change.rod_rigged.attractor_id for a in mends.values()]

    assert blades(2) == ["wobble-disc", "wobble-disc"]
    assert blades(1) is None


def test_what_was_said_to_be_lacking_is_asked_for_no_more(asked, monkeypatch):
    slow = 1.2 * MPH_MPS
    first = mends_at(asked, slow)["rod-3"]
    lacking = event("move_refused", 50, **encode(replace(first, why="lacking")))
    other = mends_at(situation(fishing(lacking), 60, monkeypatch), slow)["rod-3"]
    assert other.change.rod_rigged.lure_id != first.change.rod_rigged.lure_id
    # Where it was all that would do, the speed is not to be had.
    blade = mends_at(asked, FAST_MPS)["rod-4"]
    none = event("move_refused", 50, **encode(replace(blade, why="lacking")))
    assert mends_at(situation(fishing(none), 60, monkeypatch), FAST_MPS) is None
    # No hand free for it says nothing of what is aboard.
    busy = event("move_refused", 50, **encode(replace(first, why="busy")))
    again = mends_at(situation(fishing(busy), 60, monkeypatch), slow)["rod-3"]
    assert again == first


def test_a_speed_for_which_a_blade_is_lacking_is_not_gone_for_the_day(asked):
    refused = replace(advised_speed(asked, 1.8).answer, why="lacking")
    held = fishing(event("move_refused", 61, **encode(refused)))
    assert [one.answer.kind for one in put_off_now(held.now.state.answers, at(80))] == ["speed"]
    assert put_off_now(held.now.state.answers, at(95)) == ()


def test_the_likeliest_by_the_day_is_tied_on(asked):
    def worn(likes: str) -> set[str]:
        taught = DayModel(deepest_m=20.0)
        recipe = Recipe(
            depth_m=3.0, speed_mps=1.2 * MPH_MPS, setback_m=26.0, leader_m=None, flash=0.05,
            thump=0.0, colour=likes, lure="nothing aboard",
        )
        for _ in range(6):
            taught.count(taught.terms(recipe), 3, 5.0)
        mends = mends_at(replace(asked, model=taught), 1.2 * MPH_MPS)
        return {asked.outfit.lure(a.change.rod_rigged.lure_id).colour for a in mends.values()}

    others = [rod.setup.lure_id for rod in asked.rods if rod.rod_id != "rod-3"]
    colours = {
        lure.colour for lure in asked.outfit.lures
        if lure.own_action and lure.works.low_mps <= 1.2 * MPH_MPS and lure.id not in others
    }
    assert len(colours) > 1
    assert all(worn(colour) == {colour} for colour in colours)


def advised_speed(asked: Any, mph: float) -> Any:
    # An S-turn of late has told nothing: the speed itself is advised.
    advice = next_move(replace(asked, model=wants(mph)))
    return advice.move


@pytest.mark.parametrize(("mph", "title", "odd"), [
    (1.8, "Speed up", "rod-4"), (1.2, "Slow down", "rod-3"),
])
def test_a_speed_that_the_day_asks_for_is_advised_with_what_it_takes(asked, mph, title, odd):
    move = advised_speed(asked, mph)
    assert (move.answer.kind, move.answer.title) == ("speed", title)
    rod = next(r for r in asked.rods if r.rod_id == odd)
    target = move.answer.change.speed_changed.speed_mps
    assert not rod.works.low_mps <= target <= rod.works.high_mps
    mend = mends_at(replace(asked, model=wants(mph)), target)[odd]
    assert f"{rod.name} does not swim right there" in move.reason
    assert mend.title[1:] in move.reason
    assert move.cost_min == RESET_MIN[rod.kind] + TIE_MIN


def test_a_speed_that_all_bear_costs_nothing_and_names_no_rod(asked):
    slow = replace(asked, model=wants(1.55), rods=tuple(
        rod for rod in asked.rods if rod.rod_id in ("rod-1", "rod-2")
    ))
    weighed = moves_module._weighed(slow, moves_module._recipes(slow))
    for move, worth in weighed:
        if move.answer.kind == "speed":
            told = moves_module._worded(slow, move, worth, moves_module._recipes(slow))
            assert told.cost_min == 0.0
            assert "does not swim" not in told.reason


def test_an_odd_rod_s_minutes_are_weighed_as_its_own():
    model, recipe = wants(1.8), Recipe(
        depth_m=3.0, speed_mps=1.55 * MPH_MPS, setback_m=26.0, leader_m=None, flash=0.3,
        thump=0.3, colour="perch", lure="minnow plug",
    )
    now = {"a": recipe, "b": recipe}
    faster = replace(recipe, speed_mps=FAST_MPS)

    def gain(**costs: Any) -> float:
        after = (("a", faster), ("b", faster))
        option = Option(key="x", kind="speed", after=after, **costs)
        return weigh_options(model, now, [option], 200.0)[0].gain

    free, one, both = (
        gain(cost_min=0.0), gain(cost_min=0.0, costs_min={"b": 10.0}), gain(cost_min=10.0)
    )
    assert free > one > both
    # Two rods that show the same lose the same.
    assert free - one == pytest.approx(one - both)


def test_at_a_speed_that_was_taken_the_odd_rod_is_tied_anew_and_the_boat_not_slowed(asked):
    move = advised_speed(asked, 1.8)
    held = fishing(event("move_taken", 61, **encode(move.answer)))
    after = held.view(at(62)).move
    target = move.answer.change.speed_changed.speed_mps
    assert (after.basis, after.answer.rod_id) == ("working_range", "rod-4")
    setup = after.answer.change.rod_rigged
    assert working_range(held.now.state.outfit, setup).high_mps >= target
    assert after.cost_min == RESET_MIN["downrigger"] + TIE_MIN
    # Put off, it is the speed that has to give way.
    held.add(event("move_refused", 63, **encode(after.answer)))
    slower = held.view(at(63.5)).move
    assert slower.answer.change.speed_changed.speed_mps < target
    # Tied on, nothing is outside its range any more.
    tied = fishing(
        event("move_taken", 61, **encode(move.answer)),
        event("move_taken", 63, **encode(after.answer)),
        event("line_set", 65, rod_id="rod-4", setting_m=9.0),
    ).view(at(66)).move
    assert tied is None or tied.basis != "working_range"


def test_a_boat_that_ran_too_fast_by_itself_is_slowed(asked):
    by_hand = fishing(event("speed_changed", 61, speed_mps=FAST_MPS)).view(at(62)).move
    assert by_hand.answer.change.speed_changed.speed_mps < FAST_MPS
    # So it is where a speed was taken once and left since.
    move = advised_speed(asked, 1.2)
    left = fishing(
        event("move_taken", 61, **encode(move.answer)),
        event("speed_changed", 62, speed_mps=FAST_MPS),
    ).view(at(63)).move
    assert left.answer.change.speed_changed.speed_mps < FAST_MPS
    # Or where it was advised and put off.
    refused = fishing(
        event("move_refused", 61, **encode(advised_speed(asked, 1.8).answer)),
        event("speed_changed", 95, speed_mps=FAST_MPS),
    ).view(at(96)).move
    assert refused.answer.change.speed_changed.speed_mps < FAST_MPS


def test_the_speed_that_was_taken_last_is_the_one_that_was_chosen(asked):
    fast, slow = (advised_speed(asked, mph).answer for mph in (1.8, 1.2))
    by_hand = fishing(
        event("move_taken", 61, **encode(fast)), event("move_taken", 62, **encode(slow)),
        event("speed_changed", 63, speed_mps=FAST_MPS),
    ).view(at(64)).move
    assert by_hand.answer.change.speed_changed.speed_mps < FAST_MPS


def look(recipe: Recipe) -> tuple[object, ...]:
    return recipe.lure, recipe.colour, recipe.flash, recipe.thump


def test_a_speed_that_all_bear_was_chosen_and_a_gust_is_no_reason_to_tie_anew(asked):
    answer = advised_speed(asked, 1.8).answer
    inside = replace(answer, change=replace(
        answer.change, speed_changed=SpeedChanged(speed_mps=1.6 * MPH_MPS)
    ))
    blown = fishing(
        event("move_taken", 61, **encode(inside)),
        event("speed_changed", 62, speed_mps=1.7 * MPH_MPS),
    ).view(at(63)).move
    assert blown.answer.change.speed_changed.speed_mps <= 1.6 * MPH_MPS + 1e-6
    # A wheel wobbles about the speed that was chosen beyond it, too: the rod is tied anew for that.
    for mph in (1.65, 1.95):
        wobbles = fishing(
            event("move_taken", 61, **encode(answer)),
            event("speed_changed", 62, speed_mps=mph * MPH_MPS),
        ).view(at(63)).move
        setup = wobbles.answer.change.rod_rigged
        assert setup.rod_id == "rod-4"
        assert working_range(fishing().now.state.outfit, setup).high_mps >= FAST_MPS


def weighed_speeds(asked: Any, monkeypatch: Any) -> dict[float, Option]:
    """The changes of speed as they are weighed, by mph."""
    options: list[Option] = []

    def kept(model: Any, now: Any, given: Any, minutes_left: float) -> Any:
        options.extend(given)
        return weigh_options(model, now, given, minutes_left)

    monkeypatch.setattr(moves_module, "weigh_options", kept)
    moves_module._weighed(asked, moves_module._recipes(asked))
    return {
        round(dict(option.after)["rod-1"].speed_mps / MPH_MPS, 1): option
        for option in options if option.kind == "speed"
    }


def test_a_speed_is_weighed_by_what_would_be_worn_there_and_its_minutes(asked, monkeypatch):
    speeds = weighed_speeds(asked, monkeypatch)
    rods = {rod.rod_id: rod for rod in asked.rods}
    for mph, odd in ((1.8, "rod-4"), (min(speeds), "rod-3")):
        option, setup = speeds[mph], rods[odd].setup
        mended = mends_at(asked, mph * MPH_MPS)[odd].change.rod_rigged
        shown = dict(option.after)
        worn, tied = (look(recipe_of(
            asked.outfit, one, depth_m=3.0, setting_m=3.0, speed_mps=1.0
        )) for one in (setup, mended))
        assert look(shown[odd]) == tied != worn
        assert [r.speed_mps for r in shown.values()] == pytest.approx([mph * MPH_MPS] * 4)
        assert option.costs_min == {odd: cost_of(rods[odd])}
        assert option.cost_min == 0.0


def test_a_speed_that_is_not_to_be_had_is_not_weighed(asked, monkeypatch):
    assert 1.8 in weighed_speeds(asked, monkeypatch)
    leads = [event("hit", minute, rod_id="rod-4") for minute in (20, 40)]
    led = situation(fishing(*leads), 60, monkeypatch)
    assert 1.8 not in weighed_speeds(led, monkeypatch)


def test_no_speed_is_tried_at_which_nobody_trolls_for_them(asked):
    def targets(mph: float) -> list[float]:
        window = SpeedWindow(
            low_mps=(mph - 0.05) * MPH_MPS, high_mps=(mph + 0.05) * MPH_MPS, is_open=True
        )
        now = replace(asked, speed_mps=mph * MPH_MPS, window=window, method=None)
        return [
            round(move.answer.change.speed_changed.speed_mps / MPH_MPS, 1)
            for move in speed_moves(now)
        ]

    # Trout are trolled for from 0.9 to 3.5 mph (common practice).
    assert targets(1.0) == [1.2]
    assert targets(3.4) == [3.2]
    assert targets(2.0) == [2.2, 1.8]


def test_minutes_to_tie_anew_are_those_of_the_rod(asked):
    rod = asked.rods[0]
    assert cost_of(replace(rod, kind="leadcore")) > cost_of(replace(rod, kind="downrigger")) > 0.0


def begun() -> tuple[Advisor, Aboard]:
    day = Standard(3)
    rods, speed = opening(day.seen(0))
    aboard = Aboard(
        minute=30, seen=day.seen(30), rods=rods, speed_mps=speed, out_until=[0.0] * 6,
        beds=[20.0] * 30,
    )
    policy = Advisor()
    policy.begin(aboard, day)
    return policy, aboard


def test_a_simulated_speed_is_weighed_with_what_its_odd_rods_would_wear():
    policy, aboard = begun()
    # At 1.8 mph both small dodgers roll; nothing else does.
    faster = Change(kind="speed", speed_mps=1.8 * MPH_MPS)
    odd = [i for i, rod in enumerate(aboard.rods) if not works(rod.look, 1.8 * MPH_MPS)]
    wears = policy._wears(aboard, faster, None)
    assert 0 < len(odd) <= 2
    assert sorted(wears) == odd
    assert policy._wears(aboard, faster, str(odd[0])) is None
    option = option_of(faster, aboard, "x", wears=wears)
    shown = dict(option.after)
    assert [r.speed_mps for r in shown.values()] == pytest.approx([1.8 * MPH_MPS] * 6)
    for index, rod in wears.items():
        assert works(rod.look, 1.8 * MPH_MPS)
        assert look(shown[str(index)]) == look(simulated(rod, 1.8 * MPH_MPS))
        assert option.costs_min[str(index)] == RESET_MIN[rod.kind] + TIE_MIN
    assert len(option.costs_min) == len(odd)
    # Who has a rod in hand does not change the speed over it.
    aboard.out_until[odd[0]] = 33.0
    assert policy._wears(aboard, faster, None) is None


def test_a_simulated_boat_leaves_no_rod_that_does_not_swim():
    class Watched(Advisor):
        odd = 0
        longest = 0

        def decide(self, aboard):
            change = super().decide(aboard)
            spun = [
                i for i, rod in enumerate(aboard.rods)
                if not works(rod.look, aboard.speed_mps) and aboard.out_until[i] <= aboard.minute
            ]
            self.odd += len(spun) > 0
            if spun:
                ((index, rod),) = change.rods
                assert index in spun
                assert works(rod.look, aboard.speed_mps)
                self.longest = max(self.longest, len(spun))
            return change

    policy = Watched()
    for seed in (7000, 7002, 7007):
        play(Standard(seed), policy, seed, until_min=60)
    assert policy.odd > 0
    assert policy.longest <= 2


def test_what_swims_is_one_piece_from_what_was_worn():
    rods, _ = opening(Standard(3).seen(0))
    for rod in rods:
        for speed in (1.0 * MPH_MPS, 2.4 * MPH_MPS):
            for mended in mended_of(rod, LAKE_BOX, speed):
                assert works(mended.look, speed)
                changed = [
                    name for name, value in asdict(mended.look).items()
                    if value != asdict(rod.look)[name]
                ]
                assert len(changed) <= 1
                assert set(changed) <= {"lure", "attractor"}
