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
from .errors import CoreError, InvalidInputError
from .fish.bench import bench, check_spread, ladder
from .fish.beside import beside_view
from .fish.session import FishSession
from .fish.wind import through_water_mps
from .gear.setup import RodSetup
from .record.old import read_events, read_trip

_CALLS = (
    "open", "add", "merge", "replace", "view", "lines_at", "number_for", "where", "plan",
    "tightest", "current_from_runs", "manoeuvre", "numbers_at", "orders",
    "bench", "check_spread", "speed_at_depth", "ladder", "beside", "through_water",
)


def error_json(error: CoreError) -> dict[str, Any]:
    """Return the JSON form of an error of the core.

    Parameters
    ----------
    error : CoreError
        What was raised.

    Returns
    -------
    dict
        code, field, message and reason; limit, low and high, in SI, where there are such.
    """
    return {
        "code": error.code, "field": error.field, "message": error.message,
        "reason": error.reason,
        **{name: getattr(error, name, None) for name in ("limit", "low", "high")},
    }


class Bridge:
    """Holds the trip that is open and answers calls about it."""

    def __init__(self) -> None:
        self._session: FishSession | None = None

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

    def _opened(self) -> FishSession:
        if self._session is None:
            raise InvalidInputError("call", "", "made after a trip was opened")
        return self._session

    def _open(self, trip: Any, events: list[Any]) -> int:
        read, unread = read_trip(trip)
        known, more = read_events(events)
        self._session = FishSession(read, known)
        self._session.unread = unread + more
        return len(self._session.history.events)

    def _add(self, event: Any) -> str:
        return self._opened().add(event).id

    def _merge(self, events: list[Any]) -> int:
        session = self._opened()
        read, unread = read_events(events)
        session.merge_events(read)
        session.unread += tuple(item for item in unread if item not in session.unread)
        return len(session.history.events)

    def _replace(self, events: list[Any]) -> int:
        session = self._opened()
        read, unread = read_events(events)
        session.replace_events(read)
        session.unread = tuple(i for i in session.unread if i.what == "trip") + unread
        return len(session.history.events)

    def _view(self, now_s: float) -> Any:
        return encode(self._opened().view(now_s))

    def _lines_at(self, speed_mps: float, now_s: float | None = None) -> Any:
        return encode(self._opened().lines_tried(speed_mps=speed_mps, now_s=now_s))

    def _number_for(self, rod_id: str, depth_m: float, speed_mps: float | None = None) -> Any:
        return encode(
            self._opened().number_for(rod_id=rod_id, depth_m=depth_m, speed_mps=speed_mps)
        )

    def _where(self, rod_id: str, setting_m: float, speed_mps: float | None = None) -> Any:
        return encode(
            self._opened().where(rod_id=rod_id, setting_m=setting_m, speed_mps=speed_mps)
        )

    def _plan(self, **asked: Any) -> Any:
        return encode(self._opened().plan(**asked))

    def _manoeuvre(self, **asked: Any) -> Any:
        return encode(self._opened().manoeuvre(**asked))

    def _numbers_at(self, rod_id: str, depth_m: float, speeds_mps: list[float]) -> Any:
        return encode(
            self._opened().numbers_at(rod_id=rod_id, depth_m=depth_m, speeds_mps=speeds_mps)
        )

    def _speed_at_depth(self, rod_id: str, beats: int, seconds: float) -> Any:
        return encode(
            self._opened().speed_at_depth(rod_id=rod_id, beats=beats, seconds=seconds)
        )

    def _bench(self, setup: Any, fit: bool = False) -> Any:
        return encode(bench(self._opened(), decode(RodSetup, setup, field="setup"), fit=fit))

    def _ladder(self, setup: Any, flash: Any, thump: Any) -> Any:
        tried = decode(RodSetup, setup, field="setup")
        return encode(ladder(self._opened(), tried, flash=flash, thump=thump))

    def _beside(self) -> Any:
        return encode(beside_view(self._opened()))

    def _check_spread(self) -> Any:
        return encode(check_spread(self._opened()))

    def _orders(self) -> Any:
        return encode(self._opened().orders())

    def _tightest(self, now_s: float | None = None) -> Any:
        return encode(self._opened().tightest(now_s=now_s))

    def _through_water(self, gps_mps: float, course_deg: float) -> float:
        return through_water_mps(self._opened(), gps_mps=gps_mps, course_deg=course_deg)

    def _current_from_runs(self, up_mps: Any, down_mps: Any, toward_deg: Any) -> Any:
        """Two runs at one throttle, straight up and straight down a current."""
        toward = require_number("toward_deg", toward_deg, low=0.0, high=360.0)
        down = GroundTrack(speed_mps=require_number("down_mps", down_mps), course_deg=toward)
        up = GroundTrack(
            speed_mps=require_number("up_mps", up_mps), course_deg=(toward + 180.0) % 360.0
        )
        return encode(current_from_two_runs(first=down, second=up))
