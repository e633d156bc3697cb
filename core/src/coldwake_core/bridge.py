"""JSON in, JSON out: the one door between the core and whatever shows it.

The server and the browser's worker call the same functions with the same data. An error comes back
as ``{"ok": false, "error": {"code", "field", "message"}}``: one that the core raised with its own
code, and a fault of the program as ``fault``, so that whoever asked is always answered.
"""

from __future__ import annotations

import json
from typing import Any

from .boat.current import GroundTrack, current_from_two_runs
from .checks import require_choice, require_number
from .decode import decode, encode
from .errors import CoreError, InvalidInputError, error_json
from .gear.setup import RodSetup
from .places.above.asked import manoeuvre, orders, plan, tightest
from .places.fish.beside import beside_view
from .places.fish.page import fish_view
from .places.fish.rods import lines_tried, speed_at_depth
from .places.fish.steer import through_water_mps
from .places.rig.bench import bench, check_spread, ladder
from .record.old import read_events, read_trip
from .trip.now import Now
from .trip.open_trip import OpenTrip

_CALLS = (
    "open", "add", "merge", "replace", "view", "lines_at", "number_for", "where", "plan",
    "tightest", "current_from_runs", "manoeuvre", "numbers_at", "orders",
    "bench", "check_spread", "speed_at_depth", "ladder", "beside", "through_water",
)


class Bridge:
    """Holds the trip that is open and answers calls about it."""

    def __init__(self) -> None:
        self._trip: OpenTrip | None = None

    def call(self, request: str) -> str:
        """Answer one call.

        Parameters
        ----------
        request : str
            JSON object with ``call``, one of the known names, and its ``args``.

        Returns
        -------
        str
            JSON ``{"ok": true, "value": ...}`` or ``{"ok": false, "error": ...}``.
        """
        try:
            data = json.loads(request)
            name = require_choice("call", data.get("call"), _CALLS)
            value = getattr(self, f"_{name}")(**data.get("args", {}))
            return json.dumps({"ok": True, "value": value}, allow_nan=False)
        except CoreError as error:
            return json.dumps({"ok": False, "error": error_json(error)})
        except Exception as error:
            told = CoreError(f"The computation failed ({type(error).__name__}: {error}).")
            told.code = "fault"
            return json.dumps({"ok": False, "error": error_json(told)})

    def _opened(self) -> OpenTrip:
        if self._trip is None:
            raise InvalidInputError("call", "", "made after a trip was opened")
        return self._trip

    @property
    def _now(self) -> Now:
        return self._opened().now

    def _open(self, trip: Any, events: list[Any]) -> int:
        read, unread = read_trip(trip)
        known, more = read_events(events)
        self._trip = OpenTrip(read, known, unread=unread + more)
        return len(self._trip.history.events)

    def _add(self, event: Any) -> str:
        return self._opened().add(event).id

    def _merge(self, events: list[Any]) -> int:
        opened = self._opened()
        read, unread = read_events(events)
        opened.merge_events(read)
        opened.tell_unread(
            opened.unread + tuple(item for item in unread if item not in opened.unread)
        )
        return len(opened.history.events)

    def _replace(self, events: list[Any]) -> int:
        opened = self._opened()
        read, unread = read_events(events)
        opened.replace_events(read)
        opened.tell_unread(tuple(i for i in opened.unread if i.what == "trip") + unread)
        return len(opened.history.events)

    def _view(self, now_s: float) -> Any:
        return encode(fish_view(self._now, now_s))

    def _lines_at(self, speed_mps: float, now_s: float | None = None) -> Any:
        return encode(lines_tried(self._now, speed_mps=speed_mps, now_s=now_s))

    def _number_for(self, rod_id: str, depth_m: float, speed_mps: float | None = None) -> Any:
        return encode(
            self._now.lines.number_for(rod_id=rod_id, depth_m=depth_m, speed_mps=speed_mps)
        )

    def _where(self, rod_id: str, setting_m: float, speed_mps: float | None = None) -> Any:
        return encode(
            self._now.lines.where(rod_id=rod_id, setting_m=setting_m, speed_mps=speed_mps)
        )

    def _numbers_at(self, rod_id: str, depth_m: float, speeds_mps: list[float]) -> Any:
        return encode(
            self._now.lines.numbers_at(rod_id=rod_id, depth_m=depth_m, speeds_mps=speeds_mps)
        )

    def _plan(self, **asked: Any) -> Any:
        return encode(plan(self._now, **asked))

    def _manoeuvre(self, **asked: Any) -> Any:
        return encode(manoeuvre(self._now, **asked))

    def _tightest(self, now_s: float | None = None) -> Any:
        return encode(tightest(self._now, now_s=now_s))

    def _orders(self) -> Any:
        return encode(orders(self._now))

    def _speed_at_depth(self, rod_id: str, beats: int, seconds: float) -> Any:
        return encode(speed_at_depth(self._now, rod_id=rod_id, beats=beats, seconds=seconds))

    def _beside(self) -> Any:
        return encode(beside_view(self._now))

    def _through_water(self, gps_mps: float, course_deg: float) -> float:
        return through_water_mps(self._now, gps_mps=gps_mps, course_deg=course_deg)

    def _bench(self, setup: Any, fit: bool = False) -> Any:
        return encode(bench(self._now, decode(RodSetup, setup, field="setup"), fit=fit))

    def _ladder(self, setup: Any, flash: Any, thump: Any) -> Any:
        tried = decode(RodSetup, setup, field="setup")
        return encode(ladder(self._now, tried, flash=flash, thump=thump))

    def _check_spread(self) -> Any:
        return encode(check_spread(self._now))

    def _current_from_runs(self, up_mps: Any, down_mps: Any, toward_deg: Any) -> Any:
        """Two runs at one throttle, straight up and straight down a current."""
        toward = require_number("toward_deg", toward_deg, low=0.0, high=360.0)
        down = GroundTrack(speed_mps=require_number("down_mps", down_mps), course_deg=toward)
        up = GroundTrack(
            speed_mps=require_number("up_mps", up_mps), course_deg=(toward + 180.0) % 360.0
        )
        return encode(current_from_two_runs(first=down, second=up))
