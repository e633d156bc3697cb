"""Let a simulated day go on to its own present moment."""

from __future__ import annotations

import threading
import time
import uuid
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any, Final

import numpy as np

from coldwake_core.errors import CoreError, InvalidInputError
from coldwake_core.lakesim.practice import (
    FISH_TYPES,
    FLOWS_DEG,
    Happening,
    Place,
    happenings,
    marks_in,
)
from coldwake_core.lakesim.river import River
from coldwake_core.lakesim.sailing import Sailing
from coldwake_core.lakesim.standard import Standard
from coldwake_core.lakesim.world import DAY_MIN
from coldwake_core.record.state import TripState
from trips.actions.append_events import AppendEvents
from trips.queries import trip_now, trip_now_s

from ..heard import ears_of
from ..models import PracticeDay
from ..water import fall_of, path_of, water_of, world_of_day

PACES: Final = (0.0, 1.0, 5.0, 20.0, 60.0, 120.0)
ALONE_S: Final = 20.0
"""A day that nobody looked at for so long has stood meanwhile."""
MOST_AT_ONCE: Final = 40
LATE_S: Final = 600.0
"""A speed set by hand may come so late from somebody's phone."""
_alone = threading.Lock()


@dataclass(frozen=True, kw_only=True)
class GoOn:
    """Play what has come due, and set the pace where one is named."""

    day: PracticeDay
    pace: object = None

    def execute(self) -> PracticeDay:
        """Play it; the same minute played twice is played once."""
        with _alone:
            self.day.refresh_from_db()
            self.day.trip.refresh_from_db()
            self._clock()
            self._play()
        return self.day

    def _clock(self) -> None:
        """Stand still where nobody looked, and take another pace from here."""
        trip, wall_s = self.day.trip, time.time()
        now_s = trip_now_s(trip)
        gap_s = wall_s - self.day.looked_s
        if gap_s > ALONE_S:
            # Back to the moment at which it was looked at last.
            now_s = max(now_s - gap_s * trip.clock_pace, self._played_s())
        pace = trip.clock_pace
        if self.pace is not None:
            if self.pace not in PACES or isinstance(self.pace, bool):
                raise InvalidInputError(
                    "pace", self.pace, "one of " + ", ".join(f"{one:g}" for one in PACES)
                )
            pace = float(self.pace)
        # Never ahead of what can be played in a day, nor of what one look plays.
        now_s = min(now_s, self._played_s() + 60.0 * MOST_AT_ONCE)
        if now_s >= trip.started_at.timestamp() + 60.0 * DAY_MIN or trip.is_ended:
            pace = 0.0
        trip.clock_shift_s, trip.clock_set_s, trip.clock_pace = wall_s - now_s, wall_s, pace
        trip.save(update_fields=["clock_shift_s", "clock_set_s", "clock_pace"])
        self.day.looked_s = wall_s
        self.day.save(update_fields=["looked_s"])

    def _played_s(self) -> float:
        return self.day.trip.started_at.timestamp() + 60.0 * self.day.minutes

    def _play(self) -> None:
        day, trip = self.day, self.day.trip
        if trip.is_ended:
            return
        due = int((trip_now_s(trip) - trip.started_at.timestamp()) // 60.0)
        if day.minutes >= min(due, DAY_MIN):
            return
        world = world_of_day(day)
        water = water_of(world)
        boat = Sailing(
            chart=water.chart, path=path_of(day), seed=day.seed, turn_m=water.turn_m,
            current_mps=world.current_mps if isinstance(world, River) else 0.0,
            flows_deg=FLOWS_DEG,
        )
        if day.boat:
            boat.resume(day.boat)
        while day.minutes < min(due, DAY_MIN):
            self._minute(world, boat)
        if day.minutes >= DAY_MIN:
            self._append([Happening(key="end", in_s=0.0, type="trip_ended", payload={})])

    def _minute(self, world: Standard, boat: Sailing) -> None:
        day = self.day
        now, now_s = trip_now(day.trip), self._played_s()
        boat.rng = np.random.default_rng((day.seed, 21, day.minutes))
        hand = self._steer(now.state, now.speed_mps, boat)
        casts, fall_m = now.state.castings, fall_of(world)
        # What the sonar shows is of where the minute begins; the fish bite where it ends.
        world.over(day.minutes, boat.share, max(boat.depth_m - fall_m, 0.3))
        heard = ears_of(day.pk, day.minutes).minute(
            boat, np.random.default_rng((day.seed, 22, day.minutes)), begin_s=now_s,
            marks=marks_in(world, day.seed, day.minutes, boat.depth_m - fall_m),
            surface_degc=world.seen(day.minutes).surface_degc, fall_m=fall_m,
            # Who casts to a school lies off it, and goes nowhere.
            sails=not casts or casts[-1].end_s is not None,
        )
        found = [
            Happening(
                key=f"{day.minutes}-heard-{n}", in_s=at_s - now_s, type=one.type,
                payload=one.payload,
            )
            for n, (at_s, one) in enumerate(heard)
        ]
        place = Place(
            is_turning=boat.is_turning, share=boat.share, bottom_m=max(boat.depth_m - fall_m, 0.3),
        )
        found += self._not_tapped(now_s, happenings(
            world, day.seed, now, now_s, day.minutes, place,
            self.on_since_s() if day.taps else None,
        ))
        self._append(sorted(found, key=lambda one: one.in_s))
        hand["wheel"] += [at_s for at_s, one in heard if one.type == "speed_changed"]
        day.way = [*day.way, list(world.way[day.minutes])]
        day.minutes += 1
        day.boat = {**boat.kept(), **hand}
        day.save(update_fields=["minutes", "boat", "way", "bites"])

    def _not_tapped(self, now_s: float, found: Sequence[Happening]) -> list[Happening]:
        """Set aside what fish do where whoever fishes taps it; return what records itself."""
        day = self.day
        if not day.taps:
            return list(found)
        day.bites = [*day.bites, *(
            {
                "at_s": now_s + one.in_s, "rod_id": one.payload.get("rod_id", ""),
                "kind": one.payload.get("what", one.type), "length_m": one.payload.get("length_m"),
            }
            for one in found if one.type in FISH_TYPES
        )]
        return [one for one in found if one.type not in FISH_TYPES]

    def on_since_s(self) -> dict[str, float]:
        """Which rods have a fish on, whatever was tapped."""
        found: dict[str, float] = {}
        for bite in self.day.bites:
            if bite["kind"] == "hooked" and bite["rod_id"]:
                found[bite["rod_id"]] = bite["at_s"]
            elif bite["kind"] in ("landed", "lost"):
                found.pop(bite["rod_id"], None)
        return found

    def _steer(self, state: TripState, speed_mps: float, boat: Sailing) -> dict[str, Any]:
        """Do what was asked of the boat: a speed that was set, a turn back through fish.

        The wheel tells a speed of its own: only one that it did not tell was set by hand.
        """
        known = self.day.boat
        hands = known.get("hands") or [[self._played_s(), speed_mps]]
        wheel = {round(at_s, 1) for at_s in known.get("wheel", [])}
        late_s = max(hands[-1][0], self._played_s() - LATE_S)
        hands = [*hands, *(
            [at_s, mps] for at_s, mps in state.speeds
            if at_s > late_s and round(at_s, 1) not in wheel
        )]
        boat.hold(min(max(hands[-1][1], 0.2), 3.0))
        last = state.passes[-1] if state.passes else None
        begun_s = known.get("pass_s", 0.0)
        if last is not None and last.start_s > begun_s:
            begun_s = last.start_s
            if last.toward_deg is not None and abs(
                (last.toward_deg - boat.course_deg + 180.0) % 360.0 - 180.0
            ) > 90.0:
                boat.turn_round()
        kept = [at_s for at_s in known.get("wheel", []) if at_s > self._played_s() - LATE_S]
        return {"hands": hands, "pass_s": begun_s, "wheel": kept}

    def _append(self, found: list[Happening]) -> None:
        begin_s = self._played_s()
        events = [
            {
                "id": str(uuid.uuid5(self.day.trip_id, one.key)), "at_s": begin_s + one.in_s,
                "type": one.type, "payload": one.payload,
            }
            for one in found
        ]
        try:
            if events:
                AppendEvents(self.day.trip, events).execute()
        except CoreError:
            # A line came in within the minute, a fish was told off: the rest of it happened.
            for event in events:
                try:
                    AppendEvents(self.day.trip, [event]).execute()
                except CoreError:
                    continue
