"""Makes the browser's Python ready, at build time, for the picture of its memory to be taken.

The core is imported and its bridge waits. It has also answered as it will on the water, for a demo
trip that is let go again: an interpreter that has run its code a few times has specialised it and
resolved its type hints, and all this is in the picture. What is imported later would not be found:
the core imports at the top, and tests/core/test_structure.py holds it to that.

``demo`` is given: JSON of a demo trip, its outfit and its chart.
"""

import gc
import json
import sys

sys.path.insert(0, "/core.zip")
from coldwake_core.bridge import Bridge

ROUNDS = 6
START_S = 1_776_171_600.0


def rehearse(told: dict) -> None:
    """Answer what Fish asks, on a bridge that is thrown away."""
    events = [
        {
            "id": event["id"], "type": event["type"], "payload": event["payload"],
            "at_s": START_S + 60.0 * minute,
        }
        for minute, event in enumerate(told["trip"]["events"])
    ]
    trip = {
        "id": "c01d3a4e-0000-4000-8000-000000000000", "name": "Rehearsal",
        "water_name": "Rehearsal", "species": told["trip"]["species"], "started_at_s": START_S,
        "utc_offset_min": told["trip"]["utc_offset_min"], "bottom_m": 40.0,
        "outfit": told["outfit"], "chart": told["chart"],
        "sun": {
            "first_light_s": START_S - 1800.0, "sunrise_s": START_S,
            "sunset_s": START_S + 46_000.0, "dark_s": START_S + 48_000.0,
        },
    }
    now_s = events[-1]["at_s"] + 60.0
    calls = [
        ("open", {"trip": trip, "events": events[:-1]}), ("merge", {"events": events}),
        ("view", {"now_s": now_s}),
        *(("lines_at", {"speed_mps": 0.6 + 0.05 * step, "now_s": now_s}) for step in range(8)),
    ]
    for _ in range(ROUNDS):
        thrown_away = Bridge()
        for name, args in calls:
            answer = json.loads(thrown_away.call(json.dumps({"call": name, "args": args})))
            if not answer["ok"]:
                raise RuntimeError(f"{name}: {answer['error']['message']}")


rehearse(json.loads(globals().pop("demo")))
bridge = Bridge()
gc.collect()
# What stands now stays: collecting must not walk over it while a finger moves.
gc.freeze()
