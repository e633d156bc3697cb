"""Turn round and go back through: where fish were met, what the ways hold, when it is advised."""

from __future__ import annotations

import math
from types import SimpleNamespace

import pytest
from trip_cases import at, event, session

from coldwake_core.advice.choice import Option, Weighed
from coldwake_core.advice.situation import Move
from coldwake_core.advice.turning import (
    AHEAD_MIN,
    LEAST_TURN_HITS,
    ROUND_MIN,
    s_turn_first,
    turn_comes_first,
    turning_gain,
)
from coldwake_core.chart.grid import GeoPoint, moved
from coldwake_core.constants import MPH_MPS
from coldwake_core.evidence.ground import HIT_MARKS, MEMORY_MIN, REACH_M, SCHOOLED, Ground
from coldwake_core.record.payloads import MoveAnswered, MoveChange, SpeedChanged
from coldwake_core.trip.ways import ways

START = GeoPoint(latitude_deg=44.0, longitude_deg=-115.0)
SPEED = 1.6 * MPH_MPS


def test_place_holds_what_a_gamma_prior_and_a_count_make_of_it():
    ground = Ground()
    # Ten minutes far off without a fish, and one here with eleven marks: one a minute on the whole.
    for minute in range(10):
        ground.pass_by(at_min=100.0, east_m=5e3 * minute + 9e3, north_m=0.0, minutes=1.0,
                       marks=0, hits=0)
    ground.pass_by(at_min=100.0, east_m=0.0, north_m=0.0, minutes=1.0, marks=11, hits=0)
    here, beside, nowhere = ground.holds(
        at_min=100.0, places=[(0.0, 0.0), (REACH_M, 0.0), (-9e3, 9e3)]
    )
    assert here == pytest.approx((SCHOOLED + 11.0) / (SCHOOLED + 1.0))
    bell = math.exp(-0.5)
    assert beside == pytest.approx((SCHOOLED + 11.0 * bell) / (SCHOOLED + bell))
    assert nowhere == 1.0
    # What is long ago says little, and a place passed in vain holds less than the usual.
    later = ground.holds(at_min=100.0 + 20.0 * MEMORY_MIN, places=[(0.0, 0.0)])
    assert later == [pytest.approx(1.0, abs=1e-6)]
    assert ground.holds(at_min=100.0, places=[(9e3, 0.0)]) == [
        pytest.approx(SCHOOLED / (SCHOOLED + 1.0))
    ]


def test_hit_tells_of_more_fish_than_a_mark_and_nothing_met_tells_nothing():
    ground = Ground()
    ground.pass_by(at_min=0.0, east_m=0.0, north_m=0.0, minutes=60.0, marks=0, hits=0)
    assert ground.holds(at_min=0.0, places=[(0.0, 0.0)]) == [1.0]
    for east, marks, hits in ((1e4, 1, 0), (2e4, 0, 1)):
        ground.pass_by(at_min=0.0, east_m=east, north_m=0.0, minutes=1.0, marks=marks, hits=hits)
    mark, hit = ground.holds(at_min=0.0, places=[(1e4, 0.0), (2e4, 0.0)])
    usual = (1.0 + HIT_MARKS) / 62.0
    assert mark == pytest.approx((SCHOOLED + 1.0) / (SCHOOLED + usual))
    assert hit == pytest.approx((SCHOOLED + HIT_MARKS) / (SCHOOLED + usual))


def test_turn_costs_the_minutes_it_takes():
    level = [1.0] * AHEAD_MIN
    assert turning_gain(rate_pm=0.1, ahead=level, back=level) == pytest.approx(-0.1 * ROUND_MIN)
    rich = [3.0] * AHEAD_MIN
    gain = turning_gain(rate_pm=0.1, ahead=level, back=rich)
    assert gain == pytest.approx(0.1 * (3.0 * (AHEAD_MIN - ROUND_MIN) - AHEAD_MIN))
    assert turning_gain(rate_pm=0.1, ahead=rich, back=level) < 0.0


def test_what_can_wait_gives_way_to_a_turn_unless_waiting_costs_more():
    def other(worth: float) -> Weighed:
        option = Option(key="0", kind="speed", after=(), cost_min=0.0)
        return Weighed(option=option, worth=worth, gain=worth, better=0.6, horizon_min=100.0)

    # Five minutes of a hundred: a twentieth of its worth is lost by waiting.
    assert turn_comes_first(0.5, other(9.9))
    assert not turn_comes_first(0.5, other(10.1))
    assert not turn_comes_first(0.9 * LEAST_TURN_HITS, None)
    assert turn_comes_first(1.1 * LEAST_TURN_HITS, None)


def sailed(*more, until=60, marked=(), hit=(), gap=(), still=()):
    """North for an hour, a place a minute; marks and hits in the minutes named."""
    events = [
        event("speed_changed", 0, speed_mps=SPEED),
        *(event("line_set", 1, rod_id=f"rod-{n}", setting_m=24.0) for n in (1, 3, 5)),
    ]
    for minute in range(2, until):
        if minute in gap:
            continue
        place = moved(START, course_deg=0.0, distance_m=SPEED * 60.0 * minute)
        events.append(event(
            "position_fixed", minute, latitude_deg=place.latitude_deg,
            longitude_deg=place.longitude_deg, course_deg=0.0,
        ))
    events += [event("mark_seen", minute + 0.1, depth_m=5.0, count=3) for minute in marked]
    events += [event("hit", minute + 0.2, rod_id=f"rod-{rod}") for minute, rod in hit]
    return session(*events, *more)


SCHOOL = dict(
    marked=range(48, 55), hit=[(49, 1), (50, 3), (51, 5), (52, 1), (53, 3), (54, 5)]
)


def test_way_back_holds_the_fish_just_passed_and_the_way_on_what_is_usual():
    held = sailed(**SCHOOL)
    found = ways(held.now, at(59.2))
    assert found.back_deg == pytest.approx(180.0)
    assert max(found.ahead) < 1.1
    # They lie five to eleven minutes back.
    assert max(found.back[5:11]) == max(found.back)
    assert max(found.back) > 3.0
    assert found.back[-1] < found.back[7]


def test_fish_just_passed_are_gone_back_through_and_a_pass_begins():
    held = sailed(**SCHOOL)
    move = held.view(at(59.2)).move
    assert move.answer.kind == "turn"
    assert move.answer.change.pass_begun.toward_deg == pytest.approx(180.0)
    assert move.gain_hits >= LEAST_TURN_HITS
    assert "inside lines sink" in move.reason
    document = {
        "key": move.answer.key, "kind": "turn", "title": move.answer.title,
        "change": {"pass_begun": {"toward_deg": 180.0}},
    }
    held.add(event("move_taken", 59.3, **document))
    assert held.state.passes[-1].start_s == at(59.3)
    # The places do not tell of it yet: it is not asked for again meanwhile.
    for minute in (59.4, 61.0):
        move = held.view(at(minute)).move
        assert move is None or move.answer.kind != "turn"
    # A way back is no change of tackle: nobody judges it against the clock.
    assert held.view(at(80)).judged == ()


def test_turn_put_off_stays_away_and_a_boat_that_turns_is_not_told_to():
    held = sailed(**SCHOOL)
    answer = held.view(at(59.2)).move.answer
    held.add(event("turn_begun", 59.3, toward="port"))
    turning = held.view(at(59.4)).move
    assert turning is None or turning.answer.kind != "turn"
    refused = sailed(event("move_refused", 59.25, key=answer.key, kind="turn", title=answer.title,
                           change={"pass_begun": {"toward_deg": 180.0}}), **SCHOOL)
    move = refused.view(at(59.4)).move
    assert move is None or move.answer.kind != "turn"


@pytest.mark.parametrize(
    "case", [{}, {**SCHOOL, "gap": range(53, 58)}, {**SCHOOL, "until": 58, "gap": range(2, 57)}]
)
def test_nothing_met_or_a_track_that_is_not_known_turns_nobody_round(case):
    held = sailed(**case)
    move = held.view(at(59.2)).move
    assert move is None or move.answer.kind != "turn"


def test_without_a_place_there_is_no_way_back():
    held = session(event("speed_changed", 0, speed_mps=SPEED))
    assert ways(held.now, at(30)) is None


def test_habit_goes_back_through_what_was_hit_once_and_then_waits():
    chosen = event("school_chosen", 1, topic="advice", school="habits")
    held = sailed(chosen, hit=[(55, 1)])
    move = held.view(at(59.2)).move
    assert (move.answer.kind, move.basis, move.gain_hits) == ("turn", "school", None)
    assert move.reason.startswith("1 hit in the last 10 minutes")
    held.add(event("pass_begun", 59.3, toward_deg=180.0))
    later = held.view(at(59.4)).move
    assert later is None or later.answer.kind != "turn"
    long_ago = sailed(chosen, hit=[(40, 1)]).view(at(59.2)).move
    assert long_ago is None or long_ago.answer.kind != "turn"


def asked_for_speed(*more, sd):
    """A trip, and the trial of a speed that its advice would be."""
    held = sailed(*more)
    trial = Move(
        answer=MoveAnswered(
            key="speed", kind="speed", title="Slow down",
            change=MoveChange(speed_changed=SpeedChanged(speed_mps=0.6)),
        ),
        reason="", basis="trial", source="", cost_min=0.0, judge_after_min=15.0, gain_hits=1.2,
        lasts_min=60.0,
    )
    situation = SimpleNamespace(state=held.state, now_s=at(sd))
    return s_turn_first(situation, trial)  # type: ignore[arg-type]


def test_speed_that_is_not_known_is_asked_of_an_s_turn_first_and_not_again_within_the_hour():
    move = asked_for_speed(sd=59.0)
    assert move.answer.kind == "s_turn"
    assert move.answer.change.turn_begun.toward == "port"
    # What the trial is worth, less the three of its sixty minutes that it waits.
    assert move.gain_hits == pytest.approx(1.2 * 57.0 / 60.0)
    assert asked_for_speed(event("turn_begun", 30, toward="port"), sd=59.0) is None
    assert asked_for_speed(event("turn_begun", 30, toward="port"), sd=91.0) is not None


def test_taking_an_s_turn_begins_one_and_is_not_judged_as_a_change():
    held = sailed()
    held.add(event("move_taken", 50, key="s_turn", kind="s_turn", title="S-turn, to port and back",
                   change={"turn_begun": {"toward": "port"}}))
    assert (held.state.turns[-1].start_s, held.state.turns[-1].toward) == (at(50), "port")
    assert held.view(at(90)).judged == ()


def test_turn_that_nobody_told_the_end_of_forbids_no_other_for_ever():
    held = sailed(event("turn_begun", 40, toward="port"), **SCHOOL)
    assert held.view(at(59.2)).move.answer.kind == "turn"


def test_of_a_track_that_ends_nothing_is_known_beyond():
    held = sailed(**SCHOOL, gap=range(2, 47))
    back = ways(held.now, at(59.2)).back
    assert len(back) == AHEAD_MIN
    # From minute 59 to 47 there are thirteen places.
    assert back[13:] == (1.0, 1.0, 1.0)
    assert back[12] != 1.0
