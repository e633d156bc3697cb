"""What is advised is what the rules of the rig and the user's own note of the law allow."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

import pytest
from advised import fishing, situation
from tackle import demo_outfit
from trip_cases import event

from coldwake_core.advice.candidates import copy_onto
from coldwake_core.advice.choice import Option, Weighed
from coldwake_core.advice.moves import _recipes, _worded
from coldwake_core.advice.situation import Situation
from coldwake_core.advice.tries import try_moves
from coldwake_core.constants import INCH_M
from coldwake_core.decode import encode

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
