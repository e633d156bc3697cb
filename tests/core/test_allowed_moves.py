"""What is advised is what the rules of the rig and the user's own note of the law allow."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

import pytest
from advised import fishing, situation
from tackle import demo_outfit
from trip_cases import at, event, session

from coldwake_core.advice.candidates import copy_onto
from coldwake_core.advice.choice import Option, Weighed
from coldwake_core.advice.moves import _recipes, _worded
from coldwake_core.advice.put_off import stays_away
from coldwake_core.advice.situation import Situation
from coldwake_core.advice.tries import RESET_MIN, try_moves
from coldwake_core.constants import INCH_M
from coldwake_core.decode import encode
from coldwake_core.evidence.day_model import DayModel
from coldwake_core.evidence.recipe import Recipe
from coldwake_core.record.earlier import EarlierDay
from coldwake_core.trip.learnt import learnt, taught

RECIPE = Recipe(
    depth_m=6.0, speed_mps=0.7, setback_m=6.0, leader_m=0.25, flash=0.5, thump=0.5,
    colour="pink", lure="hoochie",
)
NOTE = {"entered_on": "2026-04-01", "origin": "the board at the ramp"}


def box() -> dict[str, Any]:
    """The demo's, with a spoon like that of rod 3 but for its trebles, and one too heavy for the
    blade of rod 4."""
    outfit = demo_outfit()
    spoon = next(lure for lure in outfit["lures"] if lure["id"] == "thin-copper")
    outfit["lures"] += [
        {**spoon, "id": "treble", "name": "Treble spoon", "hook": "treble"},
        {**spoon, "id": "heavy", "name": "Heavy spoon", "colour": "pink glow", "mass_kg": 0.014},
        {**spoon, "id": "light", "name": "Light spoon", "colour": "pink glow", "mass_kg": 0.004},
    ]
    return outfit


def fished(*more: dict[str, Any], **changes: Any) -> Any:
    return fishing(*more, outfit=box(), **changes)


def rigged_anew(opened: Any, **changes: Any) -> list[dict[str, Any]]:
    """Rod 4 as it is but for some of it, and out again."""
    setup = encode(opened.state.rods["rod-4"].setup)
    return [
        event("rod_rigged", 20, **{**setup, **changes}),
        event("line_set", 21, rod_id="rod-4", setting_m=9.0),
    ]


def tried(asked: Situation, rod_id: str) -> set[str]:
    """Lures that are tried on a rod."""
    moves = [move.answer for move in try_moves(asked) if move.answer.rod_id == rod_id]
    return {move.change.rod_rigged.lure_id for move in moves if move.change.rod_rigged}


def noted(rules: dict[str, Any] | None) -> dict[str, Any]:
    return {} if rules is None else {"rules": {**NOTE, **rules}}


def test_a_lure_too_heavy_for_the_blade_is_not_tried_behind_it(monkeypatch):
    found = tried(situation(fished(), 40, monkeypatch), "rod-4")
    assert "light" in found
    assert "heavy" not in found


@pytest.mark.parametrize(("rules", "there"), [
    (None, True), ({"hooks": "any"}, True), ({"hooks": "single"}, False),
    ({"hooks": "single_barbless"}, False),
])
def test_trebles_are_tried_only_where_the_note_of_the_law_has_nothing_against_them(
    monkeypatch, rules, there
):
    asked = situation(fished(**noted(rules)), 40, monkeypatch)
    assert ("treble" in tried(asked, "rod-3")) == there
    assert tried(asked, "rod-3") - {"treble"}
    # A plug with trebles that is out already is changed for none of its kind either.
    assert ("minnow-gold" in tried(asked, "rod-1")) == there


@pytest.mark.parametrize(("rules", "copied"), [(None, True), ({"hooks": "single"}, False)])
def test_trebles_are_copied_only_where_the_note_has_nothing_against_them(
    monkeypatch, rules, copied
):
    asked = situation(fished(**noted(rules)), 40, monkeypatch)
    by_id = {rod.rod_id: rod for rod in asked.rods}
    ahead = by_id["rod-1"]
    ahead = replace(ahead, setup=replace(ahead.setup, lure_id="treble"))
    assert (copy_onto(asked, ahead, by_id["rod-3"], "It earns.") is not None) == copied


def test_a_fault_that_is_there_already_speaks_against_no_other_change(monkeypatch):
    # A leader as sold, 36 in, behind a dodger: wrong, and no reason to keep the colour.
    sold = rigged_anew(fished(), leader_m=36.0 * INCH_M)
    asked = situation(fished(*sold), 60, monkeypatch)
    moves = [move.answer for move in try_moves(asked) if move.answer.rod_id == "rod-4"]
    assert {"colour", "leader"} <= {move.kind for move in moves}


def test_what_a_school_remarks_on_is_said_with_the_move_and_only_if_it_is_new(monkeypatch):
    def told(opened: Any, kind: str) -> str:
        asked = situation(opened, 60, monkeypatch)
        move = next(
            move for move in reversed(list(try_moves(asked)))
            if move.answer.kind == kind and move.answer.rod_id == "rod-4"
        )
        recipes = _recipes(asked)
        option = Option(key="", kind="colour", after=(("rod-4", recipes["rod-4"]),), cost_min=4.0)
        worth = Weighed(option=option, worth=1.0, gain=1.0, better=0.6, horizon_min=120.0)
        return _worded(asked, move, worth, recipes).reason

    remark = "The leader is longer than this school has it: calmer."
    # The longest, 54 in, behind a dodger that moves a hoochie.
    assert told(fished(), "leader").count(remark) == 1
    assert remark not in told(fished(), "colour")
    long = rigged_anew(fished(), leader_m=54.0 * INCH_M)
    assert remark not in told(fished(*long), "colour")


def baited(asked: Situation, kind: str, rod_id: str) -> set[str | None]:
    """Baits, or scents, that are tried on a rod."""
    return {
        getattr(move.answer.change.rod_rigged, f"{kind}_id") for move in try_moves(asked)
        if (move.answer.kind, move.answer.rod_id) == (kind, rod_id)
    }


@pytest.mark.parametrize(("rules", "baits"), [
    # Half an inch is all that the hoochie has room for: no whole worm.
    (None, {"corn", "worm-half"}),
    ({"bait": True}, {"corn", "worm-half"}),
    ({"bait": False}, set()),
])
def test_baits_are_tried_where_they_fit_and_the_note_has_nothing_against_them(
    monkeypatch, rules, baits
):
    bare = rigged_anew(fished(), bait_id=None)
    asked = situation(fished(*bare, **noted(rules)), 40, monkeypatch)
    assert baited(asked, "bait", "rod-4") == baits
    assert baited(asked, "bait", "rod-3") == set()
    assert baited(asked, "scent", "rod-3") == {"garlic", "plain"}


def test_what_is_on_the_hook_is_tried_for_no_second_time_and_stays_behind_with_its_lure(
    monkeypatch
):
    corn = rigged_anew(fished(), bait_id="corn", scent_id="garlic")
    asked = situation(fished(*corn), 40, monkeypatch)
    assert baited(asked, "bait", "rod-4") == {"worm-half"}
    assert baited(asked, "scent", "rod-4") == {"plain"}
    put_on = {
        setup.lure_id: (setup.bait_id, setup.scent_id) for setup in (
            move.answer.change.rod_rigged for move in try_moves(asked)
            if move.answer.rod_id == "rod-4"
        ) if setup is not None and setup.lure_id != "hoochie-pink"
    }
    assert put_on == {"hoochie-orange": ("corn", "garlic"), "light": (None, "garlic")}


def test_a_rod_that_wears_the_same_is_copied_for_its_bait_alone(monkeypatch):
    asked = situation(
        fished(*rigged_anew(fished(), bait_id="corn", scent_id="garlic")), 40, monkeypatch
    )
    rod = next(rod for rod in asked.rods if rod.rod_id == "rod-4")
    other = replace(rod, rod_id="rod-5", setup=replace(rod.setup, rod_id="rod-5", bait_id=None))
    copied = copy_onto(asked, rod, other, "It earns.")
    assert copied is not None
    assert copied.answer.change.rod_rigged.bait_id == "corn"
    assert copy_onto(asked, rod, replace(rod, rod_id="rod-5"), "It earns.") is None


@pytest.mark.parametrize(("kind", "one", "other"), [
    ("bait", ("corn", "Shoepeg corn, a kernel a hook"), ("worm-half", "Half an inch of worm")),
    ("scent", ("garlic", "Garlic cure"), ("plain", "Fish oil, no garlic")),
])
def test_hits_on_one_bait_speak_for_it_on_every_rod_and_on_days_to_come(kind, one, other):
    both = [
        event("rod_rigged", 0.5, **{
            **encode(session().state.rods[rod_id].setup), f"{kind}_id": piece_id
        })
        for rod_id, (piece_id, _) in (("rod-4", one), ("rod-5", other))
    ]
    out = [event("line_set", 1, rod_id=rod_id, setting_m=9.0) for rod_id in ("rod-4", "rod-5")]
    hits = [event("hit", 10 + 6 * i, rod_id="rod-4") for i in range(9)]
    opened = fished(*both, *out, *hits)
    lessons = taught(opened.now, at(70))
    assert {getattr(item, kind): item.hits for item in lessons}[one[1]] == 9

    def ahead(model: DayModel) -> float:
        first, second = (
            model.terms(replace(RECIPE, **{kind: name})) for _, name in (one, other)
        )
        return model.difference(first, second)[0]

    assert ahead(learnt(opened.now, at(70))) > 0.1
    later = DayModel(deepest_m=20.0)
    assert ahead(later) == 0.0
    later.remember([EarlierDay(name="Then", at_s=at(0), like=1.0, shown=lessons)], 1.0)
    assert ahead(later) > 0.02


def test_a_bait_costs_less_time_than_a_lure(monkeypatch):
    moves = list(try_moves(situation(fished(), 40, monkeypatch)))

    def cost(kind: str) -> float:
        (found,) = {
            m.cost_min for m in moves if (m.answer.kind, m.answer.rod_id) == (kind, "rod-4")
        }
        return found

    # Both take the reset, here of a downrigger; tying on takes longer than threading on.
    assert RESET_MIN["downrigger"] < cost("bait") < cost("lure")
    assert cost("bait") == cost("scent")


def test_a_bait_or_scent_that_is_not_aboard_is_asked_for_on_no_rod(monkeypatch):
    asked = situation(fished(*rigged_anew(fished(), bait_id=None)), 40, monkeypatch)
    moves = [move.answer for move in try_moves(asked)]
    scents = [move for move in moves if move.kind == "scent"]
    lacking = event("move_refused", 30, **encode(replace(scents[0], why="lacking")))
    gone = scents[0].change.rod_rigged.scent_id
    put_off = fished(lacking).view(at(40)).put_off
    for move in scents:
        assert stays_away(move, put_off) == (move.change.rod_rigged.scent_id == gone)
    assert len({move.rod_id for move in scents if stays_away(move, put_off)}) > 1
    baits = [move for move in moves if move.kind == "bait"]
    assert not any(stays_away(move, put_off) for move in baits)
    lacking = event("move_refused", 30, **encode(replace(baits[0], why="lacking")))
    put_off = fished(lacking).view(at(40)).put_off
    elsewhere = replace(baits[0], key="bait:another rod", rod_id="rod-5")
    assert stays_away(elsewhere, put_off)
    assert not stays_away(baits[1], put_off)
