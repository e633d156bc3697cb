"""What is admitted can be viewed: two devices out of touch, late events, undoings, any order."""

from __future__ import annotations

import os
import random
import uuid
from typing import Any

import pytest
from hypothesis import Phase, seed, settings
from hypothesis import strategies as st
from hypothesis.stateful import RuleBasedStateMachine, rule, run_state_machine_as_test
from record_strategies import NEW_LURE, NEW_ROD, PAYLOADS, SHORT_REEL, taps
from trip_cases import START_S, Held, at, event, rigged, session, trip_document

from coldwake_core.decode import decode, encode
from coldwake_core.errors import CoreError, InvalidInputError, UnknownItemError
from coldwake_core.record.events import EVENT_TYPES, decode_event
from coldwake_core.record.history import KEEP_EVERY, History
from coldwake_core.record.trip import Trip
from coldwake_core.trip.solutions import Solutions

TRIP = decode(Trip, trip_document())
RIGGED = [decode_event(document) for document in rigged()]
SOLVED = Solutions()
SEQUENCES = int(os.environ.get("SEQUENCES", "1000"))
SHARES = 8
STACKED = {
    "rod_id": "rod-1", "place_id": "rigger-port", "line_id": "rigger-12", "lure_id": "thin-copper",
    "setback_m": 10.0, "above_ball_m": 8.0,
}
TOP_LINE = {
    "rod_id": "rod-1", "place_id": "port-bow", "line_id": "top-12", "lure_id": "thin-copper",
}


def opened() -> Held:
    return Held(TRIP, RIGGED, solutions=SOLVED)


class TwoDevices(RuleBasedStateMachine):
    """Two phones tap on one trip, out of touch at times; one has a clock that runs ahead."""

    def __init__(self) -> None:
        super().__init__()
        self.server = History(TRIP, RIGGED)
        self.devices = [opened(), opened()]
        self.waiting: list[list[dict[str, Any]]] = [[], []]
        self.clock_s = START_S + 60.0

    @rule(device=st.integers(0, 1), tap=taps(), pick=st.integers(0, 40))
    def record(self, device: int, tap: tuple[str, dict[str, Any]], pick: int) -> None:
        kind, payload = tap
        self.clock_s += 20.0
        mine = self.devices[device]
        if kind == "undone":
            known = list(mine.history.events)
            payload = {"event_id": known[-1 - pick % len(known)]}
        document = {
            "id": str(uuid.UUID(int=random.getrandbits(128), version=4)), "type": kind,
            "at_s": self.clock_s + 90.0 * device, "payload": payload,
        }
        before = mine.history.state
        try:
            mine.add(document)
        except CoreError as error:
            assert error.field
            assert mine.history.state == before
        else:
            self.waiting[device].append(document)
            encode(mine.view(self.clock_s + 100.0))

    @rule(device=st.integers(0, 1))
    def deliver(self, device: int) -> None:
        mine = self.devices[device]
        for document in self.waiting[device]:
            try:
                self.server.admit(decode_event(document))
            except CoreError as error:
                assert error.field
        self.waiting[device] = []
        mine.replace_events(self.server.events.values())
        encode(mine.view(self.clock_s + 100.0))

    def teardown(self) -> None:
        self.deliver(0)
        self.deliver(1)
        events = list(self.server.events.values())
        views = []
        for _ in range(2):
            random.shuffle(events)
            arrived = Held(TRIP, events[:3], solutions=SOLVED)
            arrived.merge_events(events[3:])
            views.append(arrived.view(self.clock_s + 100.0))
        in_turn = opened()
        in_turn.take(self.server)
        assert in_turn.view(self.clock_s + 100.0) == views[0] == views[1]
        for device in self.devices:
            device.view(self.clock_s + 100.0)


@pytest.mark.parametrize("share", range(SHARES))
def test_two_devices_out_of_touch_come_to_one_view_that_can_be_shown(share):
    """All sequences, in shares that several workers take at once and that each end in a minute."""
    machine = type(f"Share{share}", (TwoDevices,), {})
    if os.environ.get("CI"):
        # Each share other sequences, and the same at every run; by hand they are new each time.
        machine = seed(share)(machine)
    run_state_machine_as_test(
        machine,
        settings=settings(
            max_examples=SEQUENCES // SHARES, stateful_step_count=14, deadline=None,
            derandomize=False, database=None, phases=(Phase.generate, Phase.shrink),
        ),
    )


def test_every_type_of_event_is_among_the_random_taps():
    assert set(PAYLOADS) == set(EVENT_TYPES)


def test_a_ball_raised_past_another_lines_clip_is_refused_by_that_rod():
    one = session(
        event("rod_rigged", 1, **STACKED), event("line_set", 2, rod_id="rod-1", setting_m=20.0)
    )
    mate = next(
        rod for rod in one.state.rods.values()
        if rod.setup and rod.setup.place_id == "rigger-port" and rod.rod_id != "rod-1"
    )
    with pytest.raises(InvalidInputError, match=r"Rod 1 cannot be shown.*clip is dry"):
        one.add(event("line_set", 3, rod_id=mate.rod_id, setting_m=5.0))
    assert one.view(at(4)).rods


def test_a_clip_just_in_the_water_is_shown_with_its_doubt():
    one = session(
        event("rod_rigged", 1, **STACKED), event("line_set", 2, rod_id="rod-1", setting_m=8.2)
    )
    rod = next(rod for rod in one.view(at(3)).rods if rod.id == "rod-1")
    assert rod.fault is None
    assert rod.line is not None
    assert rod.line.doubt_m > 0.0


def test_taking_back_what_a_rod_wears_is_refused_and_the_rod_named():
    brought = event("tackle_brought", 1, lures=[NEW_LURE])
    one = session(brought, event("rod_rigged", 2, **{**TOP_LINE, "lure_id": "lure-x"}))
    with pytest.raises(InvalidInputError, match="Rod 1 cannot be shown once this is taken back"):
        one.add(event("undone", 3, event_id=brought["id"]))
    assert len(one.state.outfit.lures) == len(TRIP.outfit.lures) + 1


def test_taking_back_a_reel_that_the_number_needs_is_refused():
    short = event("rod_rigged", 1, **{**TOP_LINE, "line_id": "short-reel"})
    long = event("rod_rigged", 2, **TOP_LINE)
    one = session(
        event("tackle_brought", 0.5, lines=[SHORT_REEL]), short, long,
        event("line_set", 3, rod_id="rod-1", setting_m=120.0),
    )
    with pytest.raises(InvalidInputError, match=r"Rod 1 cannot.*what the reel holds"):
        one.add(event("undone", 4, event_id=long["id"]))


def test_a_hit_on_a_rod_brought_by_a_clock_ahead_breaks_nothing():
    one = session(event("tackle_brought", 2, rods=[NEW_ROD]))
    with pytest.raises(UnknownItemError, match="aboard"):
        one.add(event("hit", 1, rod_id="rod-x"))
    one.add(event("hit", 3, rod_id="rod-1"))
    assert one.state.rods["rod-1"].tally.hits == 1


def test_a_mark_made_over_deep_water_is_taken_though_another_device_sounded_shallow():
    server = History(TRIP, [*RIGGED, decode_event(event("sounded", 5, bottom_m=3.0))])
    server.admit(decode_event(event("mark_seen", 6, depth_m=7.6, count=1)))
    assert [mark.mark.depth_m for mark in server.state.marks] == [7.6]
    with pytest.raises(InvalidInputError, match="above the bottom"):
        server.admit(decode_event(event("mark_seen", 7, depth_m=80.0, count=1)))


def test_what_was_aboard_when_it_was_tapped_is_taken_though_it_was_taken_back_since():
    brought = event("tackle_brought", 1, rods=[NEW_ROD])
    server = History(TRIP, map(decode_event, [brought, event("undone", 9, event_id=brought["id"])]))
    server.admit(decode_event(event("hit", 5, rod_id="rod-x")))
    assert len(server.events) == 3
    with pytest.raises(UnknownItemError):
        server.admit(decode_event(event("hit", 10, rod_id="rod-x")))


def test_two_devices_that_cannot_both_be_right_leave_a_fault_of_that_rod_alone():
    server = History(TRIP, RIGGED)
    for document in (
        event("tackle_brought", 1, lines=[SHORT_REEL]),
        event("rod_rigged", 2, **TOP_LINE),
        event("line_set", 20, rod_id="rod-1", setting_m=120.0),
        event("line_set", 20, rod_id="rod-3", setting_m=12.0),
        # Delivered last, tapped first: at its time the reel was short enough for what was out.
        event("rod_rigged", 10, **{**TOP_LINE, "line_id": "short-reel"}),
    ):
        server.admit(decode_event(document))
    one = opened()
    one.take(server)
    rods = {rod.id: rod for rod in one.view(at(30)).rods}
    assert "40.0 m" in rods["rod-1"].fault
    assert rods["rod-1"].line is None
    assert rods["rod-3"].fault is None
    assert rods["rod-3"].line is not None
    one.add(event("rod_rigged", 31, **TOP_LINE))
    one.add(event("line_set", 32, rod_id="rod-1", setting_m=30.0))
    assert {rod.id: rod.fault for rod in one.view(at(33)).rods}["rod-1"] is None


def test_a_line_let_down_after_another_device_ended_the_trip_goes_on_with_it():
    one = session(event("trip_ended", 5))
    assert one.state.ended
    one.add(event("line_set", 6, rod_id="rod-3", setting_m=12.0))
    assert not one.state.ended


def test_a_past_reading_of_tackle_no_longer_aboard_is_left_out():
    setup = {**TOP_LINE, "lure_id": "gone"}
    one = session(readings=[{
        "id": str(uuid.uuid4()), "setup": setup, "setting_m": 20.0, "speed_mps": 0.8,
        "depth_m": 2.0,
    }])
    one.add(event("line_set", 1, rod_id="rod-3", setting_m=12.0))
    assert all(rod.fault is None for rod in one.view(at(2)).rods)


def test_late_events_and_undoings_fold_as_if_they_had_come_in_order():
    rng = random.Random(3)
    documents = [event("tackle_brought", 0.5, lures=[NEW_LURE])]
    for minute in range(1, 2 * KEEP_EVERY + 40):
        documents.append(event("hit", minute, rod_id=rng.choice(["rod-1", "rod-2"])))
    for index in rng.sample(range(1, len(documents)), 60):
        documents.append(event("undone", 2000 + index, event_id=documents[index]["id"]))
    events = [decode_event(document) for document in documents]
    plain = History(TRIP, events)
    rng.shuffle(events)
    late = History(TRIP)
    for one in sorted(events, key=lambda item: item.type == "undone"):
        late.admit(one)
    assert late.state == plain.state
    hits = sum(rod.tally.hits for rod in plain.state.rods.values())
    assert hits == 2 * KEEP_EVERY + 39 - 60


def test_a_depth_that_cannot_have_been_read_is_left_out_and_the_rest_is_shown():
    one = Held(TRIP, map(decode_event, [
        event("rod_rigged", 1, **{**STACKED, "above_ball_m": 20.0}),
        event("depth_seen", 5, rod_id=STACKED["rod_id"], depth_m=9.0, speed_mps=0.8,
              setting_m=8.2, of="lure"),
        event("depth_seen", 6, rod_id=STACKED["rod_id"], depth_m=9.0, speed_mps=0.8,
              setting_m=33.0, of="lure"),
    ]))
    view = one.view(START_S + 600.0)
    rod = next(rod for rod in view.rods if rod.id == STACKED["rod_id"])
    assert [reading.number.setting_m for reading in rod.readings] == [33.0]


def test_a_forked_record_leaves_the_first_as_it_was():
    first = History(TRIP, RIGGED)
    second = first.fork()
    second.admit(decode_event(event("hit", 5, rod_id="rod-1")))
    assert first.state.rods["rod-1"].tally.hits == 0
    assert second.state.rods["rod-1"].tally.hits == 1


def test_a_long_chain_of_undoings_is_no_deeper_than_a_short_one():
    hit = event("hit", 1, rod_id="rod-1")
    chain = [hit]
    for index in range(900):
        chain.append(event("undone", 2 + index, event_id=chain[-1]["id"]))
    assert History(TRIP, map(decode_event, chain)).state.rods["rod-1"].tally.hits == 1
    one_more = chain[:-1]
    assert History(TRIP, map(decode_event, one_more)).state.rods["rod-1"].tally.hits == 0


def test_undoings_that_name_each_other_are_refused():
    first, second = event("undone", 1, event_id=str(uuid.uuid4())), event("undone", 2)
    second["payload"]["event_id"] = first["id"]
    first["payload"]["event_id"] = second["id"]
    record = History(TRIP, [decode_event(second)])
    with pytest.raises(InvalidInputError, match="happened before this one"):
        record.admit(decode_event(first))
