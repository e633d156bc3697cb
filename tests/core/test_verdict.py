"""Did a change help, or was it the clock? What may be said, and how often it is said of nothing."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np
import pytest
from trip_cases import START_S, event, session

from coldwake_core.decode import encode
from coldwake_core.evidence.control import (
    AHEAD_MIN,
    EFFECT_SD,
    Sides,
    compare_with_control,
    minutes_to_tell,
    own_sd,
    sure_of,
)
from coldwake_core.evidence.rates import Exposure
from coldwake_core.evidence.verdict import judge_moves
from coldwake_core.gear.setup import RodSetup
from coldwake_core.record.payloads import LineSet, MoveAnswered, MoveChange, SpeedChanged
from coldwake_core.record.state import Answer, Stint

RODS = [f"rod-{index}" for index in range(1, 7)]
MOVED_S = START_S + 3600.0
LOOKS = [MOVED_S + 300.0 * look for look in range(1, 37)]


def setup_of(rod_id: str, lure: str = "a") -> RodSetup:
    return RodSetup(rod_id=rod_id, place_id="p", line_id="l", lure_id=lure)


def move(rod_id: str | None, at_s: float = MOVED_S) -> Answer:
    change = (
        MoveChange(speed_changed=SpeedChanged(speed_mps=1.0)) if rod_id is None
        else MoveChange(line_set=LineSet(rod_id=rod_id, setting_m=20.0))
    )
    return Answer(at_s, True, MoveAnswered(
        key="k", kind="speed" if rod_id is None else "depth", title="t", change=change,
        rod_id=rod_id,
    ))


def stints(*changed: str | None) -> list[Stint]:
    found = []
    for rod in RODS:
        split = MOVED_S if rod in changed else None
        found.append(Stint(rod, setup_of(rod), 10.0, START_S, split))
        if split is not None:
            found.append(Stint(rod, setup_of(rod), 20.0, split))
    return found


def said(
    *changed: str | None, clock: float, effect: float = 1.0, trips: int = 200, own: float = 0.4
) -> dict[str, float]:
    """Share of trips in which a verdict is given at any look, every 5 minutes for three hours.

    One hit an hour a rod before the change; the clock multiplies all rods' rate after it.
    """
    rng = np.random.default_rng(20261125)
    ever = {"better": 0, "worse": 0, "no_difference": 0}
    for _ in range(trips):
        bites = []
        for rod in RODS:
            level = math.exp(rng.normal(0.0, own))
            after = level * clock * (effect if changed == (None,) or rod in changed else 1.0)
            for rate, start_s, hours in ((level, START_S, 1.0), (after, MOVED_S, 3.0)):
                times = rng.uniform(0.0, 3600.0 * hours, rng.poisson(rate * hours))
                bites += [(start_s + float(t), rod, "hit") for t in times]
        fished = stints(*changed)
        moves = [move(rod) for rod in changed]
        with pytest.MonkeyPatch.context() as patch:
            # How long it takes to tell is asked below: here it would take most of the time.
            patch.setattr("coldwake_core.evidence.verdict.minutes_to_tell", lambda **_: None)
            words = {judge_moves(moves, fished, bites, now)[0].result.verdict for now in LOOKS}
        for word in ever:
            ever[word] += word in words
    return {word: count / trips for word, count in ever.items()}


@pytest.mark.parametrize("clock", [1.0, 4.0, 0.25], ids=["still", "coming on", "dying"])
def test_a_move_that_does_nothing_is_seldom_called_anything(clock: float):
    # Wanted are 6 %; of 200 trips 8 % are a standard error more. Rods that differ by themselves
    # are called something more often: docs/advice.md.
    found = said("rod-3", clock=clock, own=0.0)
    assert found["better"] <= 0.08
    assert found["worse"] <= 0.08


@pytest.mark.parametrize("clock", [1.0, 4.0, 0.25], ids=["still", "coming on", "dying"])
def test_a_change_on_all_rods_at_once_claims_nothing(clock: float):
    found = said(None, clock=clock, trips=60)
    assert found == {"better": 0.0, "worse": 0.0, "no_difference": 0.0}


def test_a_real_effect_is_told_and_by_its_sign():
    strong = said("rod-3", clock=1.0, effect=4.0, trips=120)
    assert strong["better"] > 0.5
    assert strong["worse"] < 0.05
    harm = said("rod-3", clock=4.0, effect=0.15, trips=120)
    assert harm["worse"] > 0.5
    assert harm["better"] < 0.05


@pytest.mark.parametrize("clock", [1.0, 4.0], ids=["still", "coming on"])
def test_three_rods_changed_together_are_judged_as_one_change_and_seldom_wrongly(clock: float):
    found = said("rod-1", "rod-3", "rod-5", clock=clock, trips=150, own=0.0)
    assert found["better"] <= 0.08
    assert found["worse"] <= 0.08


def test_what_three_rods_earn_is_told_sooner_than_what_one_does():
    three = said("rod-1", "rod-3", "rod-5", clock=1.0, effect=3.0, trips=100, own=0.0)
    one = said("rod-3", clock=1.0, effect=3.0, trips=100, own=0.0)
    assert three["better"] > 0.7 > one["better"] > 0.4
    assert three["worse"] == 0.0


def test_moves_one_after_the_other_are_one_change_and_later_ones_another():
    moves = [
        move("rod-1"), move("rod-3", MOVED_S + 200.0), move("rod-5", MOVED_S + 900.0),
        move("rod-5", MOVED_S + 1000.0), move(None, MOVED_S + 1100.0),
    ]
    judged = judge_moves(moves, stints("rod-1", "rod-3"), [], MOVED_S + 7200.0)
    assert [(one.rods, one.rod_id) for one in judged] == [
        (0, None), (1, "rod-5"), (1, "rod-5"), (2, "rod-1")
    ]


def test_more_is_asked_of_more_rods_and_they_differ_less_by_themselves():
    assert own_sd(1, 5) == pytest.approx(0.4 * math.sqrt(1.2))
    assert own_sd(3, 3) == pytest.approx(0.4 * math.sqrt(2.0 / 3.0))
    assert sure_of(1, 5) == pytest.approx((0.89, 0.93))
    assert sure_of(3, 3) == pytest.approx((0.928, 0.95))
    # One rod beside a single other tells less than beside five: no less is asked for that.
    assert sure_of(1, 1) == pytest.approx((0.89, 0.93))
    assert 0.89 < sure_of(2, 4)[0] < 0.928


def sides(hits: int, minutes: float, control_hits: int, control_minutes: float) -> Sides:
    return Sides(
        changed=Exposure(hits=hits, minutes=minutes),
        control=Exposure(hits=control_hits, minutes=control_minutes),
    )


def test_probability_against_monte_carlo_of_the_same_model():
    before, after = sides(2, 55.0, 9, 300.0), sides(5, 70.0, 8, 330.0)
    rng = np.random.default_rng(7)
    a, d = rng.normal(0.0, own_sd(1, 5), 400_000), rng.normal(0.0, EFFECT_SD, 400_000)
    share0 = 1.0 / (1.0 + np.exp(-(np.log(55.0 / 300.0) + a)))
    share1 = 1.0 / (1.0 + np.exp(-(np.log(70.0 / 330.0) + a + d)))
    weight = share0**2 * (1 - share0) ** 9 * share1**5 * (1 - share1) ** 8
    expected = float(np.sum(weight * (d > 0)) / np.sum(weight))
    alike = float(np.sum(weight * (np.abs(d) < math.log(2.0))) / np.sum(weight))
    found = compare_with_control(before=before, after=after)
    # 400 000 draws are good to about 0.002; the grid of 0.1 adds less.
    assert found.probability == pytest.approx(expected, abs=0.008)
    assert found.alike == pytest.approx(alike, abs=0.008)


def test_no_bite_says_nothing_and_many_hits_on_all_say_nothing():
    assert compare_with_control(
        before=sides(0, 60, 0, 300), after=sides(0, 60, 0, 300)
    ).probability == pytest.approx(0.5, abs=1e-9)
    few = compare_with_control(before=sides(1, 60, 5, 300), after=sides(4, 60, 20, 300))
    assert few.verdict == "too_early"
    # Forty hits beside two hundred of the five others: it earns what they do.
    boom = compare_with_control(before=sides(5, 60, 25, 300), after=sides(40, 60, 200, 300))
    assert boom.verdict == "no_difference"


def test_no_difference_is_seen_of_what_does_nothing_and_hardly_ever_of_what_does():
    # Six rods that are hit often: only then is there anything to be seen.
    nothing = said("rod-1", "rod-3", "rod-5", clock=4.0, trips=60, own=0.0)
    assert nothing["no_difference"] > 0.6
    for effect in (3.0, 1.0 / 3.0):
        real = said("rod-1", "rod-3", "rod-5", clock=4.0, effect=effect, trips=100, own=0.0)
        assert real["no_difference"] <= 0.08
        assert real["better" if effect > 1.0 else "worse"] > 0.8


def test_minutes_until_it_is_told_are_those_at_which_more_of_the_same_is_told():
    # Six an hour on the changed rod, two an hour on each of the five others, as before.
    before, after = sides(2, 60, 10, 300), sides(3, 30, 5, 150)
    more = minutes_to_tell(before=before, after=after)
    assert more in AHEAD_MIN

    def after_minutes(minutes: float) -> str:
        return compare_with_control(before=before, after=sides(
            3 + round(minutes / 10.0), 30 + minutes, 5 + round(minutes / 6.0), 150 + 5 * minutes
        )).verdict

    assert after_minutes(0.0) == "too_early"
    assert after_minutes(more) == "better"
    earlier = [minutes for minutes in AHEAD_MIN if minutes < more]
    assert all(after_minutes(minutes) == "too_early" for minutes in earlier)


def test_the_busier_the_day_the_sooner_it_is_told_and_a_dead_one_never_tells():
    told = [
        minutes_to_tell(
            before=sides(2 * often, 60, 10 * often, 300),
            after=sides(3 * often, 30, 5 * often, 150),
        )
        for often in (1, 2)
    ]
    assert told[0] is not None
    assert told[1] is None or told[1] < told[0]
    # Half an hour without a bite, whatever the others do: by and by it is worse.
    dry = minutes_to_tell(before=sides(2, 60, 10, 300), after=sides(0, 30, 5, 150))
    assert dry in AHEAD_MIN
    assert minutes_to_tell(before=sides(0, 60, 0, 300), after=sides(0, 60, 0, 300)) is None
    # Too short to go by, before or since.
    for before, after in ((19, 60), (60, 19)):
        assert minutes_to_tell(
            before=sides(2, before, 9, 95), after=sides(9, after, 9, 300)
        ) is None


def test_only_the_change_that_still_fishes_is_told_how_long_it_takes():
    later_s = MOVED_S + 1500.0
    fished = [s for s in stints("rod-3") if s.rod_id != "rod-5"]
    fished.append(Stint("rod-5", setup_of("rod-5"), 10.0, START_S, later_s))
    fished.append(Stint("rod-5", setup_of("rod-5"), 20.0, later_s))
    # The rods that are changed earn three times what they did and what the others do.
    bites = [(START_S + 240.0 * i, RODS[i % 6], "hit") for i in range(30)]
    bites += [(MOVED_S + 1600.0 + 600.0 * i, "rod-5", "hit") for i in range(3)]
    bites += [(MOVED_S + 1600.0 + 500.0 * i, "rod-3", "hit") for i in range(4)]
    first, second = move("rod-3"), move("rod-5", later_s)
    now_s = MOVED_S + 3600.0
    latest, earlier = judge_moves([first, second], fished, bites, now_s)
    assert (latest.result.verdict, latest.rod_id) == ("too_early", "rod-5")
    assert latest.more_min in AHEAD_MIN
    # Asked by itself the one before would be told of too.
    (alone,) = judge_moves([first], fished, bites, now_s)
    assert (earlier.result, earlier.more_min) == (alone.result, None)
    assert alone.more_min in AHEAD_MIN
    # Four rods were left alone, an hour before it and since.
    assert latest.control_before.minutes == pytest.approx(4 * 60.0)
    assert latest.control.minutes == pytest.approx(4 * 35.0)
    again = [Stint(s.rod_id, s.setup, s.setting_m, s.start_s, s.end_s or now_s - 60.0)
             if s.rod_id == "rod-5" else s for s in fished]
    again.append(Stint("rod-5", setup_of("rod-5", "b"), 20.0, now_s - 60.0))
    over = judge_moves([first, second], again, bites, now_s)[0]
    assert (over.result.verdict, over.ended, over.more_min) == ("too_early", True, None)


def test_a_change_of_two_rods_is_told_by_both_moves_and_one_word_once():
    moves = [move("rod-1"), move("rod-3", MOVED_S + 60.0), move("rod-5", MOVED_S + 90.0)]
    other = replace(moves[1], move=replace(moves[1].move, title="u"))
    (judged,) = judge_moves(
        [moves[0], other, moves[2]], stints("rod-1", "rod-3", "rod-5"), [], MOVED_S + 3600.0
    )
    assert [(one.title, one.rod_id) for one in judged.moves] == [("t", "rod-1"), ("u", "rod-3")]


@pytest.mark.parametrize("minutes", [(19.0, 60.0), (60.0, 19.0)])
def test_nothing_is_said_before_both_sides_hold_twenty_rod_minutes(minutes: tuple[float, float]):
    found = compare_with_control(
        before=sides(0, minutes[0], 0, 200), after=sides(9, minutes[1], 0, 200)
    )
    assert (found.verdict, found.probability) == ("too_early", 0.5)
    assert compare_with_control(
        before=sides(0, 21, 0, 200), after=sides(9, 21, 0, 200)
    ).verdict == "better"


def test_a_change_ends_when_the_rod_is_changed_again_and_its_later_hits_are_not_its():
    answer, fished = move("rod-3"), stints("rod-3")
    again_s = MOVED_S + 1800.0
    index = next(i for i, s in enumerate(fished) if s.setting_m == 20.0)
    fished[index] = Stint("rod-3", setup_of("rod-3"), 20.0, MOVED_S, again_s)
    fished.append(Stint("rod-3", setup_of("rod-3", "b"), 20.0, again_s))
    bites = [(again_s + 60.0 * i, "rod-3", "hit") for i in range(1, 30)]
    judged = judge_moves([answer], fished, bites, again_s + 7200.0)[0]
    assert judged.ended
    assert (judged.after.hits, judged.after.minutes) == (0, 30.0)
    assert judged.result.verdict != "better"


def test_rods_that_were_changed_meanwhile_are_no_control():
    fished = stints("rod-3")
    for rod in RODS:
        if rod not in ("rod-3", "rod-5"):
            fished.append(Stint(rod, setup_of(rod), 12.0, MOVED_S + 600.0))
    bites = [(MOVED_S + 60.0, "rod-5", "hit"), (MOVED_S + 60.0, "rod-1", "hit")]
    judged = judge_moves([move("rod-3")], fished, bites, MOVED_S + 3600.0)[0]
    assert (judged.control.hits, judged.control.minutes) == (1, 60.0)


def test_a_move_taken_back_is_no_longer_judged():
    lines = [event("line_set", 0, rod_id=rod, setting_m=10.0) for rod in ("rod-3", "rod-4")]
    change = encode(move("rod-3").move)
    taken = event("move_taken", 40, **change)
    one = session(*lines, taken)
    assert len(one.view(START_S + 90 * 60).judged) == 1
    one.add(event("undone", 41, event_id=taken["id"]))
    assert one.view(START_S + 90 * 60).judged == ()


def test_what_bit_while_rods_were_being_changed_counts_for_neither_side():
    moves = [move("rod-1"), move("rod-3", MOVED_S + 300.0)]
    bites = [(MOVED_S + 100.0, "rod-1", "hit"), (MOVED_S + 400.0, "rod-3", "hit")]
    (judged,) = judge_moves(moves, stints("rod-1", "rod-3"), bites, MOVED_S + 3600.0)
    assert (judged.before.hits, judged.after.hits) == (0, 1)
    assert judged.after.minutes == pytest.approx(2 * 55.0)
