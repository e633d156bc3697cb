"""A trip being fished: events in, the Fish view out, and answers while a finger drags."""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence
from dataclasses import replace
from typing import Final

from ..advice.judge import judge_moves
from ..advice.method import Method, comfort_band_degc, comfort_depths_m, method_of_the_hour
from ..advice.moves import (
    compare_rods,
    mark_targets,
    method_depth_m,
    next_move,
)
from ..advice.situation import RodNow, Situation
from ..boat.current import PassSpeeds, pass_speeds
from ..checks import require_number
from ..errors import InvalidInputError, NoSolutionError
from ..evidence.rates import Exposure
from ..gear.setup import build_rig, working_range
from ..gear.tackle import Outfit
from ..gear.window import shared_window
from ..record.events import Event, decode_event
from ..record.history import History
from ..record.old import Unread
from ..record.sound import faults
from ..record.state import TripState
from ..record.trip import PastReading, Trip
from ..sonar.marks import MarkedBand, depth_to_fish, marked_bands, recent_marks
from .ahead import bottom_here_m, look_ahead, over_the_track
from .rods import TripRods
from .view import (
    ComfortView,
    FishView,
    LayerView,
    MarkView,
    RibbonMark,
    RodView,
    TemperaturePoint,
)
from .wind import wind_view

SURFACE_OLD_S: Final = 3600.0
"""A surface temperature an hour old says when it was read (judged: it moves by the hour)."""
LONG_FIGHT_S: Final = 1200.0
"""A fish is seldom on for twenty minutes on this tackle (judged)."""
SAME_FISH_S: Final = 600.0
"""A fish hooked, landed or lost so soon after a bite on the same rod is that fish (judged)."""
MARK_SLACK_M: Final = 0.5
"""A mark so little below the bottom that is known here may still be here."""


class FishSession(TripRods):
    """A trip being fished.

    Parameters
    ----------
    trip : Trip
        What the trip started with.
    events : iterable of Event or History
        What has happened, in any order; or its record, which is taken as it is.
    """

    def __init__(self, trip: Trip, events: Iterable[Event] | History) -> None:
        self.unread: tuple[Unread, ...] = ()
        self.history = events if isinstance(events, History) else History(trip, events)
        super().__init__(trip, self.history.state)
        self._take_state()

    def add(self, data: object) -> Event:
        """Add an event from JSON data, tapped on this device.

        Parameters
        ----------
        data : object
            The event; an id that is known changes nothing.

        Returns
        -------
        Event

        Raises
        ------
        InvalidInputError
            If it cannot be, in itself or at this point of the trip, or a rod could not be shown
            after it; nothing is changed then.
        """
        event = decode_event(data)
        self.history.admit(event, here=True)
        self._take_state()
        return event

    def take(self, history: History) -> None:
        """Go on with another record of the same trip.

        Parameters
        ----------
        history : History
            The record; it is not shared with anyone who changes it.
        """
        self.history = history
        self._take_state()

    def merge_events(self, events: Iterable[Event]) -> None:
        """Take events that were admitted elsewhere: other devices', or those kept here.

        Parameters
        ----------
        events : iterable of Event
            In any order; those known change nothing.
        """
        self.history.insert(events)
        self._take_state()

    def replace_events(self, events: Iterable[Event]) -> None:
        """Take a new set of events, as after one was refused elsewhere.

        Parameters
        ----------
        events : iterable of Event
            All events of the trip.
        """
        self.take(History(self.trip, events))

    def _take_state(self) -> None:
        self.state, self.faulty = _sound_part(self.history.state)

    def view(self, now_s: float) -> FishView:
        """Return the Fish view at a moment.

        Parameters
        ----------
        now_s : float
            Seconds since 1970-01-01 UTC.

        Returns
        -------
        FishView
        """
        require_number("now_s", now_s)
        state, outfit = self.state, self.state.outfit
        speed = self.speed_mps
        window = shared_window([
            working_range(outfit, rod.setup) for rod in self.rods_out() if rod.setup is not None
        ])
        surface = state.surface_degc
        method = None if surface is None else method_of_the_hour(
            species=self.trip.species, surface_degc=surface,
            cold_school=state.schools.get("cold_morning"),
        )
        rods = self.rod_views()
        ahead = look_ahead(self, rods, now_s)
        rods = over_the_track(rods, ahead, deepest_m=state.deepest_m)
        rods = tuple(self._asked_about(rod, now_s) for rod in rods)
        bottom_here = bottom_here_m(ahead, state)
        marks = [mark for mark in state.marks if mark.mark.depth_m <= bottom_here + MARK_SLACK_M]
        bands = tuple(marked_bands(marks, now_s))
        here = {mark.event_id for mark in marks}
        surface_age = None if state.surface is None else max(now_s - state.surface.at_s, 0.0)
        now_rods = tuple(self._rod_now(view, bands, method, now_s) for view in rods if view.line)
        situation = Situation(
            outfit=outfit, state=state, now_s=now_s, speed_mps=speed, rods=now_rods,
            window=window, method=method, bands=bands,
        )
        recent = {mark.event_id for mark in recent_marks(state.marks, now_s)}
        return FishView(
            now_s=now_s, speed_mps=speed, bottom_m=state.bottom_m,
            above_mark_m=state.above_mark_m, rods=rods, current=state.current,
            passes=self._passes(), wind=wind_view(self, now_s), window=window, surface_degc=surface,
            surface_age_s=surface_age,
            surface_old=surface_age is not None and surface_age >= SURFACE_OLD_S,
            profile=self._profile(), comfort=self._comfort(),
            marks=tuple(
                MarkView(
                    event_id=m.event_id, at_s=m.at_s, depth_m=m.mark.depth_m, count=m.mark.count,
                    recent=m.event_id in recent,
                    run_at_m=depth_to_fish(
                        m.mark.depth_m, above_mark_m=state.above_mark_m, bottom_m=state.bottom_m
                    ),
                    here=m.event_id in here,
                )
                for m in state.marks
            ),
            method=method, move=None if state.ended else next_move(situation),
            comparison=compare_rods(now_rods),
            judged=tuple(judge_moves(state.answers, state.stints, state.bites, now_s)),
            temperatures=tuple(
                TemperaturePoint(
                    at_s=r.at_s, temperature_degc=r.temperature_degc, depth_m=r.depth_m
                )
                for r in state.readings if r.depth_m <= 1.0
            ),
            ribbon=self._ribbon(),
            undo_event_id=state.last_event_id, undo_event_type=state.last_event_type,
            ended=state.ended, ahead=ahead, clearance_m=state.clearance_m, unread=self.unread,
        )

    def _asked_about(self, rod: RodView, now_s: float) -> RodView:
        """A fish that has been on so long has more likely been forgotten than fought."""
        since_s = self.state.rods[rod.id].fish_on_s
        if rod.status != "fish_on" or since_s is None or now_s - since_s < LONG_FIGHT_S:
            return rod
        return replace(rod, long_fight_s=now_s - since_s)

    def _rod_now(
        self, view: RodView, bands: tuple[MarkedBand, ...], method: Method | None, now_s: float
    ) -> RodNow:
        assert view.setup is not None
        assert view.line is not None
        assert view.kind is not None
        assert view.works is not None
        asked = mark_targets(self.state, bands)
        if method is not None:
            asked.append(method_depth_m(method, self.state.bottom_m))
        solved = self._solve(view.setup, self.speed_mps, doubt="full")
        reachable = {}
        for depth in asked:
            try:
                reachable[depth] = solved.setting_for(depth)
            except NoSolutionError:
                continue
        same = [
            stint for stint in self.state.stints
            if stint.rod_id == view.id and stint.setup == view.setup
        ]
        return RodNow(
            rod_id=view.id, name=view.name, setup=view.setup,
            setting_m=view.line.number.setting_m, depth_m=view.line.depth_m, kind=view.kind,
            works=view.works, reachable=reachable,
            exposure=Exposure(
                hits=sum(stint.hits for stint in same),
                minutes=sum(stint.minutes(now_s) for stint in same),
            ),
        )

    def _passes(self) -> PassSpeeds | None:
        current = self.state.current
        if current is None or current.speed_mps >= self.speed_mps:
            return None
        return pass_speeds(through_water_mps=self.speed_mps, current=current)

    def _profile(self) -> tuple[TemperaturePoint, ...]:
        latest = {reading.depth_m: reading for reading in self.state.readings}
        return tuple(
            TemperaturePoint(
                at_s=latest[depth].at_s, temperature_degc=latest[depth].temperature_degc,
                depth_m=depth,
            )
            for depth in sorted(latest)
        )

    def _comfort(self) -> ComfortView:
        low, high = comfort_band_degc(self.trip.species)
        depths = comfort_depths_m(self.state.profile(), (low, high), bottom_m=self.state.bottom_m)
        return ComfortView(
            low_degc=low, high_degc=high,
            layers=tuple(LayerView(top_m=top, base_m=base) for top, base in depths),
        )

    def _ribbon(self) -> tuple[RibbonMark, ...]:
        marks = [
            RibbonMark(at_s=at_s, kind=kind, rod_id=rod_id, text="")  # type: ignore[arg-type]
            for at_s, rod_id, kind in self.state.bites
        ]
        marks = _last_stages(marks)
        marks += [
            RibbonMark(
                at_s=answer.at_s, kind="move_taken" if answer.taken else "move_refused",
                rod_id=answer.move.rod_id, text=answer.move.title,
            )
            for answer in self.state.answers
        ]
        return tuple(sorted(marks, key=lambda mark: mark.at_s))


def _last_stages(marks: Sequence[RibbonMark]) -> list[RibbonMark]:
    """One sign a fish on the ribbon: its last stage. The marks are in order of time."""
    kept: list[RibbonMark] = []
    went_on: dict[str | None, float] = {}
    for mark in reversed(marks):
        if went_on.get(mark.rod_id, math.inf) - mark.at_s >= SAME_FISH_S:
            kept.append(mark)
        if mark.kind != "hit":
            went_on[mark.rod_id] = mark.at_s
    return kept


def _sound_part(state: TripState) -> tuple[TripState, dict[str, InvalidInputError]]:
    """The state with the rods that cannot be shown set aside, and why for each of them.

    What is admitted can be viewed; but two devices out of touch, or a check that was tightened
    since, may leave a record in which a rod makes no sense. All others are fished on.
    """
    faulty = faults(state)
    known = [reading for reading in state.depth_readings if _is_aboard(state.outfit, reading)]
    if not faulty and len(known) == len(state.depth_readings):
        return state, faulty
    sound = state.copy()
    sound.depth_readings = known
    for rod_id in faulty:
        sound.rods[rod_id].setup, sound.rods[rod_id].status = None, "in"
    return sound, faulty


def _is_aboard(outfit: Outfit, reading: PastReading) -> bool:
    try:
        build_rig(outfit, reading.setup)
    except InvalidInputError:
        return False
    return True
