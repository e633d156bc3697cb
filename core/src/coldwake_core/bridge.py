"""JSON in, JSON out: the one door between the core and whatever shows it.

The server and the browser's worker call the same functions with the same data. An error comes back
as ``{"ok": false, "error": {"code", "field", "message"}}``: one that the core raised with its own
code, and a fault of the program as ``fault``, so that whoever asked is always answered.
"""

from __future__ import annotations

import json
from typing import Annotated, Any

from .boat.current import Current, GroundTrack, current_from_two_runs
from .boat.following import Fix, Follower
from .chart.grid import GeoPoint
from .checks import require_choice, require_number
from .decode import decode, encode
from .errors import CoreError, InvalidInputError, error_json
from .gear.beat import SpeedAtDepth
from .gear.ladder import LadderStep
from .gear.setup import RodSetup
from .places.above.asked import manoeuvre, orders, plan, tightest
from .places.above.back import BackOffer, back_through
from .places.above.order import LineOrders
from .places.above.spread import PlanView, TightestTurns
from .places.above.unfolding import ManoeuvreView
from .places.fish.beside import BesideView, beside_view
from .places.fish.page import fish_view, rods_now
from .places.fish.rods import lines_tried, speed_at_depth
from .places.fish.steer import through_water_mps
from .places.fish.view import FishView, RodView
from .places.plan.day import DayView, today_view
from .places.rig.bench import BenchView, SpreadCheck, bench, check_spread, ladder
from .places.rig.shelf import ShelfPiece, shelf
from .record.old import read_events, read_trip
from .record.payloads import PositionFixed
from .trip.now import Now
from .trip.numbers import NumberAtSpeed, RodLine
from .trip.open_trip import OpenTrip

TripDocument = Annotated[Any, "Trip"]
EventDocument = Annotated[Any, "Event"]
SetupDocument = Annotated[Any, "RodSetup"]
"""JSON as it arrives, unread: named for the types of the front end that are written from here."""


class Answers:
    """What can be asked of the trip that is open: one method a call, one argument a field.

    The front end's types of the calls are written from these signatures by
    ``scripts/write_calls.py``.
    """

    def __init__(self) -> None:
        self._trip: OpenTrip | None = None
        self._follower = Follower()

    @property
    def _opened(self) -> OpenTrip:
        if self._trip is None:
            raise InvalidInputError("call", "", "made after a trip was opened")
        return self._trip

    @property
    def _now(self) -> Now:
        return self._opened.now

    def open(self, trip: TripDocument, events: list[EventDocument]) -> int:
        """Open a trip; return how many events it has."""
        read, unread = read_trip(trip)
        known, more = read_events(events)
        self._trip = OpenTrip(read, known, unread=unread + more)
        self._follower = Follower()
        return len(self._trip.history.events)

    def add(self, event: EventDocument) -> str:
        """Add what was tapped here; return its id."""
        return self._opened.add(event).id

    def merge(self, events: list[EventDocument]) -> int:
        """Take what others recorded; return how many events there are."""
        opened = self._opened
        read, unread = read_events(events)
        opened.merge_events(read)
        opened.tell_unread(
            opened.unread + tuple(item for item in unread if item not in opened.unread)
        )
        return len(opened.history.events)

    def replace(self, events: list[EventDocument]) -> int:
        """Take the events anew; return how many there are."""
        opened = self._opened
        read, unread = read_events(events)
        opened.replace_events(read)
        opened.tell_unread(tuple(i for i in opened.unread if i.what == "trip") + unread)
        return len(opened.history.events)

    def view(self, now_s: float) -> FishView:
        """What Fish shows."""
        return fish_view(self._now, now_s)

    def rods(self, now_s: float) -> tuple[RodView, ...]:
        """The rods alone: what a tap is answered with at once."""
        return rods_now(self._now, now_s)

    def lines_at(self, speed_mps: float, now_s: float | None = None) -> tuple[RodLine, ...]:
        """Where all lures are at a speed that is tried."""
        return lines_tried(self._now, speed_mps=speed_mps, now_s=now_s)

    def number_for(self, rod_id: str, depth_m: float, speed_mps: float | None = None) -> RodLine:
        """The number that puts a lure at a depth."""
        return self._now.lines.number_for(rod_id=rod_id, depth_m=depth_m, speed_mps=speed_mps)

    def where(self, rod_id: str, setting_m: float, speed_mps: float | None = None) -> RodLine:
        """Where a lure is with a number set."""
        return self._now.lines.where(rod_id=rod_id, setting_m=setting_m, speed_mps=speed_mps)

    def numbers_at(
        self, rod_id: str, depth_m: float, speeds_mps: list[float]
    ) -> tuple[NumberAtSpeed, ...]:
        """The numbers that hold a depth at several speeds."""
        return self._now.lines.numbers_at(rod_id=rod_id, depth_m=depth_m, speeds_mps=speeds_mps)

    def plan(
        self, course: str, radius_m: float | None = None, rate_degps: float | None = None,
        leeway_deg: float = 0.0, now_s: float | None = None,
    ) -> PlanView:
        """The spread from above."""
        return plan(
            self._now, course=course, radius_m=radius_m, rate_degps=rate_degps,
            leeway_deg=leeway_deg, now_s=now_s,
        )

    def manoeuvre(
        self, kind: str, toward: str, radius_m: float | None = None,
        rate_degps: float | None = None, now_s: float | None = None,
    ) -> ManoeuvreView:
        """An S-turn or U-turn as it unfolds."""
        return manoeuvre(
            self._now, kind=kind, toward=toward, radius_m=radius_m, rate_degps=rate_degps,
            now_s=now_s,
        )

    def back_through(self, now_s: float, target_id: str | None = None) -> BackOffer:
        """The way back through a place where something bit."""
        return back_through(self._now, now_s=now_s, target_id=target_id)

    def tightest(self, now_s: float | None = None) -> TightestTurns:
        """The smallest safe circles."""
        return tightest(self._now, now_s=now_s)

    def orders(self) -> LineOrders:
        """In which order lines go out and come in."""
        return orders(self._now)

    def speed_at_depth(self, rod_id: str, beats: int, seconds: float) -> SpeedAtDepth:
        """The speed at which a blade swings, from its tip's beat."""
        return speed_at_depth(self._now, rod_id=rod_id, beats=beats, seconds=seconds)

    def beside(self) -> BesideView:
        """The checks beside the boat."""
        return beside_view(self._now)

    def through_water(self, gps_mps: float, course_deg: float) -> float:
        """The speed through the water behind what GPS shows, m/s."""
        return through_water_mps(self._now, gps_mps=gps_mps, course_deg=course_deg)

    def hear_fix(
        self, at_s: float, latitude_deg: float, longitude_deg: float, accuracy_m: float,
        course_deg: float | None = None, speed_mps: float | None = None,
    ) -> PositionFixed | None:
        """What is worth recording of a fix that the device's receiver gave."""
        found = self._follower.hear(Fix(
            at_s=at_s, place=GeoPoint(latitude_deg=latitude_deg, longitude_deg=longitude_deg),
            accuracy_m=accuracy_m, course_deg=course_deg, speed_mps=speed_mps,
        ))
        if found is None:
            return None
        fix, course = found
        return PositionFixed(
            latitude_deg=fix.place.latitude_deg, longitude_deg=fix.place.longitude_deg,
            course_deg=course,
        )

    def day(self) -> DayView | None:
        """The day by hours, where the trip took a plan along."""
        return today_view(self._now)

    def bench(self, setup: SetupDocument, fit: bool = False) -> BenchView:
        """A rod on the bench."""
        return bench(self._now, decode(RodSetup, setup, field="setup"), fit=fit)

    def ladder(self, setup: SetupDocument, flash: str, thump: str) -> tuple[LadderStep, ...]:
        """What aboard answers "a little less flash, same thump"."""
        tried = decode(RodSetup, setup, field="setup")
        return ladder(self._now, tried, flash=flash, thump=thump)

    def shelf(self, setup: SetupDocument) -> tuple[ShelfPiece, ...]:
        """What aboard could hang on a rod."""
        return shelf(self._now, decode(RodSetup, setup, field="setup"))

    def check_spread(self) -> SpreadCheck:
        """What the rules say of all rods together."""
        return check_spread(self._now)

    def current_from_runs(self, up_mps: float, down_mps: float, toward_deg: float) -> Current:
        """The current from two runs at one throttle, straight up and straight down it."""
        toward = require_number("toward_deg", toward_deg, low=0.0, high=360.0)
        down = GroundTrack(speed_mps=require_number("down_mps", down_mps), course_deg=toward)
        up = GroundTrack(
            speed_mps=require_number("up_mps", up_mps), course_deg=(toward + 180.0) % 360.0
        )
        return current_from_two_runs(first=down, second=up)


CALLS = tuple(name for name in vars(Answers) if not name.startswith("_"))


class Bridge:
    """Answers calls about the trip that is open, and always answers."""

    def __init__(self) -> None:
        self._answers = Answers()

    def call(self, request: str) -> str:
        """Answer one call.

        Parameters
        ----------
        request : str
            JSON object with ``call``, one of ``CALLS``, and its ``args``.

        Returns
        -------
        str
            JSON ``{"ok": true, "value": ...}`` or ``{"ok": false, "error": ...}``.
        """
        try:
            data = json.loads(request)
            name = require_choice("call", data.get("call"), CALLS)
            value = encode(getattr(self._answers, name)(**data.get("args", {})))
            return json.dumps({"ok": True, "value": value}, allow_nan=False)
        except CoreError as error:
            return json.dumps({"ok": False, "error": error_json(error)})
        except Exception as error:
            told = CoreError(f"The computation failed ({type(error).__name__}: {error}).")
            told.code = "fault"
            return json.dumps({"ok": False, "error": error_json(told)})
