"""The next move: one change, its reason, its cost, and how long before it can be judged.

Candidates are one small step from what is out, in the order of the dials, cheapest and mildest
first. The day's model weighs them (``choice``); the best that was not put off is the move, if any
is worth one.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace
from typing import Final

from ..evidence.recipe import Recipe
from ..gear.setup import RodSetup
from ..record.payloads import LineSet
from .back_and_forth import back_move
from .candidates import (
    copy_moves,
    dry_moves,
    mark_moves,
    method_depth_moves,
    range_moves,
    speed_moves,
    tuning_moves,
)
from .choice import ORDER, Option, OptionKind, Weighed, best_option, better_of, weigh_options
from .habits import habit_moves
from .odd import cost_of, mends_at
from .put_off import put_off_now, stays_away
from .shows import CLIPPED, recipe_of
from .situation import Advice, Move, RodNow, RunnerUp, Situation
from .tries import findings, try_moves
from .turning import place_move, s_turn_first, turn_comes_first, turn_move

LEARNT: Final = 0.75
"""From this probability on the day has shown it; under it, it is a trial (judged)."""
BLAMED: Final = ("copy", "colour", "lure", "attractor", "leader", "bait", "scent")
"""Changes that blame what a rod wears."""


def next_move(situation: Situation) -> Advice:
    """Return the one move to suggest, or none when the right thing is to go on fishing.

    Parameters
    ----------
    situation : Situation
        The trip now.

    Returns
    -------
    Advice

    Notes
    -----
    A lure outside its working range comes first: it is worse than none. All else is weighed by
    the day's model, hits to be gained over the time left; the best is the move, if it is worth one.
    A rod that lags is looked at before what it wears is blamed (common practice). Who chose the
    schools' habits gets these instead, unweighed and by name.
    """
    if not situation.rods:
        return Advice(move=None)
    put_off = put_off_now(situation.state.answers, situation.now_s)

    def stands(move: Move) -> bool:
        return not stays_away(move.answer, put_off)

    urgent = next((move for move in range_moves(situation) if stands(move)), None)
    if urgent is not None:
        return Advice(move=urgent)
    if situation.state.schools.get("advice") == "habits":
        return Advice(move=next((move for move in habit_moves(situation) if stands(move)), None))
    recipes = _recipes(situation)
    weighed = [w for w in _weighed(situation, recipes) if stands(w[0])]
    others = _runners_up(weighed[1:4])
    best, worth = weighed[0] if weighed and best_option([weighed[0][1]]) else (None, None)
    going = (
        turn_move(situation, recipes.values()),
        place_move(situation, recipes.values()),
    )
    way = max(
        (move for move in going if move is not None and stands(move)),
        key=lambda move: move.gain_hits or 0.0, default=None,
    )
    if way is not None and turn_comes_first(way.gain_hits or 0.0, worth):
        return Advice(move=way, others=_runners_up(weighed[:3]))
    back = back_move(situation, recipes)
    if back is not None and stands(back) and (
        worth is None or (back.gain_hits or 0.0) > worth.worth
    ):
        return Advice(move=back, others=_runners_up(weighed[:3]))
    if best is None or worth is None:
        dry = next((move for move in dry_moves(situation) if stands(move)), None)
        return Advice(move=dry, others=_runners_up(weighed[:3]))
    if best.answer.kind in BLAMED:
        look = next(
            (m for m in tuning_moves(situation)
             if m.answer.rod_id == best.answer.rod_id and stands(m)), None
        )
        if look is not None:
            return Advice(move=look, others=others)
    told = _worded(situation, best, worth, recipes)
    if best.answer.kind == "speed" and worth.better < LEARNT and told.basis == "trial":
        turn = s_turn_first(situation, told)
        if turn is not None and stands(turn):
            return Advice(move=turn, others=_runners_up(weighed[:3]))
    return Advice(move=told, others=others)


def _runners_up(weighed: Sequence[tuple[Move, Weighed]]) -> tuple[RunnerUp, ...]:
    return tuple(
        RunnerUp(answer=move.answer, gain_hits=worth.gain, probability=worth.better)
        for move, worth in weighed
    )


def _recipes(now: Situation) -> dict[str, Recipe]:
    """What each rod that fishes shows."""
    return {rod.rod_id: _shows(now, rod, rod.setup) for rod in now.rods}


def _shows(now: Situation, rod: RodNow, setup: RodSetup) -> Recipe:
    """What a rod shows with something on it, at the depth that it runs at."""
    return recipe_of(
        now.outfit, setup, depth_m=rod.depth_m, setting_m=rod.setting_m,
        speed_mps=now.speed_mps, bed_m=now.bed_m,
    )


def _weighed(now: Situation, recipes: Mapping[str, Recipe]) -> list[tuple[Move, Weighed]]:
    """All moves that could be made, each with what it is worth, the best first."""
    marked = tuple(mark_moves(now))
    moves = (
        *speed_moves(now), *marked, *method_depth_moves(now), *copy_moves(now),
        *try_moves(now, depths=not marked),
    )
    asked = [_option(now, move, recipes, f"{number:03d}") for number, move in enumerate(moves)]
    options = [option for option in asked if option is not None]
    return [
        (moves[int(worth.option.key)], worth)
        for worth in weigh_options(now.model, recipes, options, now.minutes_left)
    ]


def _option(
    now: Situation, move: Move, recipes: Mapping[str, Recipe], key: str
) -> Option | None:
    """A move as the choice weighs it: what each rod would show."""
    change, rods = move.answer.change, {rod.rod_id: rod for rod in now.rods}
    # Looking at a lure is no change, and older records have "tackle" for any of its pieces.
    kind: OptionKind = next((k for k in ORDER if k == move.answer.kind), "lure")
    costs_min: dict[str, float] = {}
    if change.speed_changed is not None:
        speed = change.speed_changed.speed_mps
        depths, mends = now.depths_at(speed), mends_at(now, speed)
        if mends is None:
            return None
        tied = {
            rod_id: _shows(now, rods[rod_id], setup) for rod_id, mend in mends.items()
            if (setup := mend.change.rod_rigged) is not None
        }
        after = tuple(
            (rod_id, replace(
                tied.get(rod_id, recipe), speed_mps=speed,
                depth_m=depths.get(rod_id, recipe.depth_m),
            ))
            for rod_id, recipe in recipes.items()
        )
        costs_min = {rod_id: cost_of(rods[rod_id]) for rod_id in mends}
    elif change.line_set is not None:
        after = ((change.line_set.rod_id, _let_out(
            recipes[change.line_set.rod_id], change.line_set, rods[change.line_set.rod_id]
        )),)
    elif change.rod_rigged is not None:
        setup = change.rod_rigged
        # It is let out to the depth that it ran at.
        after = ((setup.rod_id, _shows(now, rods[setup.rod_id], setup)),)
    else:
        return None
    return Option(key=key, kind=kind, after=after, cost_min=move.cost_min, costs_min=costs_min)


def _let_out(recipe: Recipe, line: LineSet, rod: RodNow) -> Recipe:
    """What a rod shows with its line at another number."""
    depth = line.wanted_depth_m
    if depth is None:
        depth = rod.lengths.get(line.setting_m, recipe.depth_m)
    if rod.kind in CLIPPED:
        return replace(recipe, depth_m=depth)
    # Without a clip the lure is as far behind as its line is out.
    return replace(recipe, depth_m=depth, setback_m=max(line.setting_m, 1.0))


def _worded(
    now: Situation, move: Move, worth: Weighed, recipes: Mapping[str, Recipe]
) -> Move:
    """The move with what it is worth, its reason, and what a school would remark on in it."""
    told = _reasoned(now, replace(
        move, gain_hits=worth.gain, lasts_min=worth.horizon_min,
        probability=worth.better if move.basis in ("evidence", "trial") else move.probability,
    ), worth, recipes)
    speed, setup = move.answer.change.speed_changed, move.answer.change.rod_rigged
    if speed is not None:
        return _with_mends(now, told, speed.speed_mps)
    if setup is None:
        return told
    worn = next(rod.setup for rod in now.rods if rod.rod_id == setup.rod_id)
    known = {finding.rule_id for finding in findings(now, worn)}
    said = [f.message for f in findings(now, setup) if f.rule_id not in known]
    return replace(told, reason=" ".join([told.reason, *said]))


def _with_mends(now: Situation, told: Move, speed_mps: float) -> Move:
    """The move with what has to be tied on at its speed."""
    rods, mends = {rod.rod_id: rod for rod in now.rods}, mends_at(now, speed_mps) or {}
    said = [
        f"{rods[rod_id].name} does not swim right there. Then: "
        f"{mend.title[0].lower()}{mend.title[1:]}."
        for rod_id, mend in mends.items()
    ]
    return replace(
        told, reason=" ".join([told.reason, *said]),
        cost_min=told.cost_min + sum(cost_of(rods[rod_id]) for rod_id in mends),
    )


def _reasoned(
    now: Situation, told: Move, worth: Weighed, recipes: Mapping[str, Recipe]
) -> Move:
    if told.reason:
        return told
    hits = sum(rod.exposure.hits for rod in now.rods)
    speed = told.answer.change.speed_changed is not None
    shown = better_of(now.model, recipes, worth.option, by_rule=False)
    if min(worth.better, shown) >= LEARNT:
        return replace(
            told, basis="evidence", source="Hits, rod-minutes and marks of this trip",
            reason=f"By what the day has shown so far, {hits} hits on what is out, it should earn "
                   f"more than {'the speed now' if speed else 'what the rod wears'}.",
        )
    if worth.better >= LEARNT and now.method is not None:
        # What the rules of the hour expect the day has not shown: they are named, not the day.
        return replace(
            told, basis="school", source=now.method.school,
            reason=f"By the rule of the hour, “{now.method.name.lower()}”, more is to be expected "
                   "of it, and the day has shown nothing against it.",
        )
    return replace(
        told, source="The day so far",
        reason="The day has not shown it yet and there is time to use what it tells; " + (
            "all rods change with it, so nothing but going back will tell it from the clock."
            if speed else
            "the other rods fish on unchanged and will tell it from the clock."
        ),
    )
