"""How fast a long record is opened and added to: ten thousand events in one trip.

Run by `make bench`. Every figure is held against its budget, over the machine's pace at the moment.
"""

from __future__ import annotations

import uuid

from pace import Budgets
from tackle import large_outfit
from trip_cases import at, event, rigged, trip_document

from coldwake_core.decode import decode
from coldwake_core.places.fish.page import fish_view
from coldwake_core.record.events import decode_event
from coldwake_core.record.trip import Trip
from coldwake_core.trip.open_trip import OpenTrip

MANY = 10_000
DAY_MIN = 600.0


def day() -> list[dict[str, object]]:
    """Ten hours: a place every four seconds, marks, temperatures, speeds, bites and resets."""
    events = [*rigged(), *(
        event("line_set", 1, rod_id=f"rod-{i}", setting_m=20.0) for i in (1, 2, 6)
    )]
    for i in range(MANY - len(events)):
        minute = 2.0 + DAY_MIN * i / MANY
        kinds = (
            ("mark_seen", {"depth_m": 5.0 + i % 7, "count": 1 + i % 3}) if i % 25 == 3
            else ("temperature_read", {"temperature_degc": 9.0 + i % 5 * 0.1, "depth_m": 0.0})
            if i % 60 == 5 else ("speed_changed", {"speed_mps": 0.7 + 0.01 * (i % 9)})
            if i % 90 == 7 else ("hit", {"rod_id": f"rod-{(1, 2, 6)[i % 3]}"})
            if i % 150 == 11 else ("line_set", {"rod_id": "rod-1", "setting_m": 18.0 + i % 9})
            if i % 200 == 13 else ("position_fixed", {
                "latitude_deg": 44.0 + 1e-6 * i, "longitude_deg": -115.0, "course_deg": 10.0,
            })
        )
        events.append(event(kinds[0], minute, **kinds[1]))
    return events


def with_nine(events: list[dict[str, object]]) -> list[dict[str, object]]:
    """The same day with nine rods: the other three wear what the first do, behind boards."""
    found = list(events)
    for number, (like, board) in enumerate([("rod-1", 7), ("rod-2", 8), ("rod-6", 9)], start=7):
        worn = next(
            e for e in events if e["type"] == "rod_rigged" and e["payload"]["rod_id"] == like
        )
        found[number - 1:number - 1] = [{
            **worn, "id": str(uuid.uuid4()),
            "payload": {**worn["payload"], "rod_id": f"rod-{number}", "place_id": f"board-{board}"},
        }]
    return found


def nine_out(events: list[dict[str, object]]) -> list[dict[str, object]]:
    """Nine lines out for an hour at a speed that all swim at, and no mark of late: all is tried."""
    late_s = at(DAY_MIN - 50.0)
    kept = [
        e for e in with_nine(events)
        if e["at_s"] < late_s or e["type"] not in ("mark_seen", "speed_changed", "line_set")
    ]
    return [
        *kept, event("speed_changed", DAY_MIN - 49.0, speed_mps=0.69), *(
            event("line_set", DAY_MIN - 48.0, rod_id=f"rod-{rod}", setting_m=12.0)
            for rod in range(1, 10)
        ),
    ]


def main() -> None:
    """Measure, print, and fail where a budget is not kept."""
    budgets = Budgets()
    trip = decode(Trip, trip_document())
    documents = day()
    events = [decode_event(document) for document in documents]

    def opened() -> OpenTrip:
        held = OpenTrip(trip, events)
        fish_view(held.now, at(DAY_MIN + 3))
        return held

    budgets.time("a trip of 10 000 events opened and seen", lambda _: opened(), 1000.0, runs=3)
    held = opened()

    def tap(run: int) -> None:
        held.add(event("hit", DAY_MIN + 4 + 0.01 * run, rod_id="rod-2"))
        fish_view(held.now, at(DAY_MIN + 5 + 0.01 * run))

    budgets.time("a tap on it, and the view after it", tap, 50.0)
    nine = decode(Trip, trip_document(outfit=large_outfit(rods=9, pieces=60)))
    busy = OpenTrip(nine, [decode_event(document) for document in nine_out(documents)])
    held_advice = []

    def decide(run: int) -> None:
        # Five minutes on each time: what they told is learnt first.
        view = fish_view(busy.now, at(DAY_MIN + 6 + 5.0 * run))
        held_advice.append(len(view.others))
        assert sum(rod.line is not None for rod in view.rods) == 9

    budgets.time("the next move of nine rods at its end, with all of the view", decide, 150.0)
    assert max(held_advice) > 0
    budgets.end()


if __name__ == "__main__":
    main()
