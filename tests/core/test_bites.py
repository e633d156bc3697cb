"""What is told of a bite, what the record knows of it by itself, and passes through fish."""

from __future__ import annotations

import pytest
from trip_cases import at, event, session

from coldwake_core.constants import MPH_MPS
from coldwake_core.errors import InvalidInputError, UnknownItemError


def out(*rods, minute=1, setting_m=30.0):
    return [event("line_set", minute, rod_id=rod, setting_m=setting_m) for rod in rods]


def bite(held, minute, rod_id="rod-1"):
    return next(b for b in held.view(at(minute)).bites if b.rod_id == rod_id)


@pytest.mark.parametrize(("before", "doing"), [
    ([], "steady"),
    ([event("line_set", 29.5, rod_id="rod-1", setting_m=45.0)], "dropping"),
    ([event("line_set", 29.5, rod_id="rod-1", setting_m=20.0)], "rising"),
    ([event("speed_changed", 29.5, speed_mps=1.9 * MPH_MPS)], "surging"),
    ([event("speed_changed", 29.5, speed_mps=1.2 * MPH_MPS)], "easing"),
    ([event("hooked", 29, rod_id="rod-6")], "long_lined"),
    ([event("hooked", 20, rod_id="rod-6"), event("lost", 22, rod_id="rod-6")], "steady"),
    ([event("speed_changed", 20, speed_mps=1.9 * MPH_MPS)], "steady"),
])
def test_what_the_line_was_doing_is_filled_in_from_the_record(before, doing):
    held = session(
        event("speed_changed", 0, speed_mps=1.5 * MPH_MPS), *out("rod-1", "rod-6"), *before,
        event("hit", 30, rod_id="rod-1"),
    )
    assert bite(held, 31).doing == doing


def test_a_line_just_let_out_is_dropping_and_one_let_out_again_too():
    held = session(*out("rod-1"), event("hit", 1.5, rod_id="rod-1"))
    assert bite(held, 2).doing == "dropping"
    again = session(
        *out("rod-1"), event("line_in", 20, rod_id="rod-1"), *out("rod-1", minute=22),
        event("hit", 22.5, rod_id="rod-1"),
    )
    assert bite(again, 23).doing == "dropping"


def test_a_tap_corrects_what_was_taken_and_tells_what_nobody_could_know():
    held = session(*out("rod-1"), event("hit", 30, rod_id="rod-1"))
    assert (bite(held, 31).felt, bite(held, 31).doing) == (None, "steady")
    held.add(event("bite_told", 31, rod_id="rod-1", felt="short"))
    held.add(event("bite_told", 32, rod_id="rod-1", doing="inside_turn"))
    assert (bite(held, 33).felt, bite(held, 33).doing) == ("short", "inside_turn")
    # The next bite is another.
    held.add(event("hit", 40, rod_id="rod-1"))
    assert (bite(held, 41).felt, bite(held, 41).doing) == (None, "steady")


def test_where_a_fish_came_off_belongs_to_its_bite():
    held = session(
        *out("rod-1"), event("hooked", 30, rod_id="rod-1"), event("lost", 34, rod_id="rod-1"),
        event("bite_told", 35, rod_id="rod-1", lost="at_the_boat"),
    )
    told = bite(held, 36)
    assert (told.was_lost, told.lost, told.at_s) == (True, "at_the_boat", at(30))
    # Ten minutes later nobody is asked any more.
    assert not held.view(at(46)).bites


def test_what_is_told_of_no_bite_changes_nothing_and_of_no_rod_is_refused():
    held = session(*out("rod-1"), event("bite_told", 31, rod_id="rod-1", felt="solid"))
    assert not held.view(at(32)).bites
    with pytest.raises(UnknownItemError):
        held.add(event("bite_told", 31, rod_id="rod-77", felt="solid"))
    with pytest.raises(InvalidInputError):
        held.add(event("bite_told", 31, rod_id="rod-1"))


def test_a_pass_counts_the_fish_that_were_marked_on_it_and_what_bit():
    held = session(
        *out("rod-1"), event("mark_seen", 5, depth_m=6.0, count=9), event("pass_begun", 10),
        event("mark_seen", 12, depth_m=6.0, count=3), event("mark_seen", 14, depth_m=7.0, count=2),
        event("hit", 15, rod_id="rod-1"),
    )
    now = held.view(at(16)).passing
    assert (now.fish, now.hits, now.end_s) == (5, 1, None)
    held.add(event("pass_ended", 20))
    held.add(event("hit", 22, rod_id="rod-1"))
    held.add(event("mark_seen", 22, depth_m=7.0, count=2))
    after = held.view(at(30)).passing
    assert (after.fish, after.hits, after.end_s) == (5, 1, at(20))
    # A second one begun ends the first; one that never began cannot end.
    held.add(event("pass_begun", 31))
    held.add(event("pass_begun", 35))
    assert held.view(at(36)).passing.start_s == at(35)
    assert session(event("pass_ended", 3)).view(at(4)).passing is None


def late_move(*more):
    """A boat on marked fish for eight minutes, too late for a trial; what is said then."""
    held = session(
        event("speed_changed", 780, speed_mps=1.5 * MPH_MPS), *out("rod-1", minute=781),
        event("mark_seen", 784, depth_m=1.5, count=4), *more,
    )
    move = held.view(at(789)).move
    return None if move is None else move.answer.kind


def test_a_pass_through_marked_fish_without_a_bite_is_dry_whatever_its_minutes():
    passed = [event("pass_begun", 783), event("pass_ended", 788)]
    assert late_move() is None
    assert late_move(*passed) == "colour"
    assert late_move(*passed, event("hit", 785, rod_id="rod-1")) is None
    # Let out again in the middle of it, it was not passed.
    reset = [event("line_in", 785, rod_id="rod-1"), *out("rod-1", minute=786)]
    assert late_move(*passed, *reset) is None


def test_notes_are_kept_with_their_place_or_without():
    held = session(
        event("noted", 3, kind="birds"),
        event("noted", 4, kind="waypoint", latitude_deg=44.0, longitude_deg=-115.0),
    )
    assert [(n.kind, n.place) for n in held.state.notes] == [
        ("birds", None), ("waypoint", (44.0, -115.0)),
    ]
    for bad in ({"kind": "note"}, {"kind": "birds", "latitude_deg": 44.0}, {"kind": "poem"}):
        with pytest.raises(InvalidInputError):
            held.add(event("noted", 5, **bad))


def side_of(held, rod_id):
    setup = held.state.rods[rod_id].setup
    return next(p.side_m for p in held.state.outfit.places if p.id == setup.place_id)


TURNS = [event("speed_changed", 0, speed_mps=1.5 * MPH_MPS), *out("rod-1", "rod-6")]


@pytest.mark.parametrize(("toward", "port_rod", "starboard_rod"), [
    ("port", "inside_turn", "outside_turn"), ("starboard", "outside_turn", "inside_turn"),
])
def test_a_bite_in_a_turn_that_was_told_is_inside_or_outside_of_it(toward, port_rod, starboard_rod):
    held = session(
        *TURNS, event("turn_begun", 29, toward=toward), event("hit", 29.5, rod_id="rod-1"),
        event("hit", 29.6, rod_id="rod-6"),
    )
    # Rod 1 stands to port, rod 6 to starboard.
    assert (side_of(held, "rod-1") < 0.0, side_of(held, "rod-6") > 0.0) == (True, True)
    assert bite(held, 30, "rod-1").doing == port_rod
    assert bite(held, 30, "rod-6").doing == starboard_rod
    assert held.view(at(30)).turning == toward
    assert {due.why for due in held.state.looks_due.values()} == {"turn"}


def test_a_turn_is_over_when_told_or_after_three_minutes():
    told = session(*TURNS, event("turn_begun", 20, toward="port"), event("turn_ended", 21))
    assert told.view(at(20.5)).turning is None  # it was told to be over, whenever it is asked
    told.add(event("hit", 21.5, rod_id="rod-1"))
    # The lures come after the boat: a minute's trail still feels the turn.
    assert bite(told, 22).doing == "inside_turn"
    told.add(event("hit", 25, rod_id="rod-6"))
    assert bite(told, 25, "rod-6").doing == "steady"
    untold = session(*TURNS, event("turn_begun", 20, toward="port"))
    assert [untold.view(at(minute)).turning for minute in (22, 24)] == ["port", None]
    untold.add(event("hit", 30, rod_id="rod-1"))
    assert bite(untold, 30).doing == "steady"


@pytest.mark.parametrize(("course_deg", "doing"), [
    (40.0, "outside_turn"), (320.0, "inside_turn"), (10.0, "steady"),
])
def test_two_fixes_show_a_turn_that_nobody_told(course_deg, doing):
    place = {"latitude_deg": 44.0, "longitude_deg": -115.0}
    held = session(
        *TURNS, event("position_fixed", 29, course_deg=0.0, **place),
        event("position_fixed", 30, course_deg=course_deg, **place),
        event("hit", 30.3, rod_id="rod-1"),
    )
    assert bite(held, 31).doing == doing


def test_a_turn_that_fixes_showed_is_still_known_after_many_more_fixes():
    place = {"latitude_deg": 44.0, "longitude_deg": -115.0}
    turns = [
        fix for k in range(2) for fix in (
            event("position_fixed", 29 + 10 * k, course_deg=0.0, **place),
            event("position_fixed", 30 + 10 * k, course_deg=320.0, **place),
            event("hit", 30.3 + 10 * k, rod_id="rod-1"),
        )
    ]
    held = session(*TURNS, *turns, *(
        event("position_fixed", 50 + k, course_deg=320.0, **place) for k in range(20)
    ))
    assert "2 bites on the inside" in held.view(at(80)).turn_hint


def test_bites_on_one_side_of_turns_say_slower_or_faster():
    def hint(rod_id, turns):
        held = session(*TURNS)
        for k in range(turns):
            held.add(event("turn_begun", 20 + 10 * k, toward="port"))
            held.add(event("hit", 21 + 10 * k, rod_id=rod_id))
        return held.view(at(60)).turn_hint

    assert hint("rod-1", 1) is None
    assert "slower or deeper" in hint("rod-1", 2)
    assert "faster or shallower" in hint("rod-6", 2)
    both = session(*TURNS, event("turn_begun", 20, toward="port"), *(
        event("hit", 20.5 + k / 10, rod_id=rod) for k, rod in enumerate(("rod-1", "rod-6") * 2)
    ))
    assert both.view(at(30)).turn_hint is None
