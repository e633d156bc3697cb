"""A trip being fished: events in, the Fish view out, and answers while a finger drags."""

from __future__ import annotations

from collections.abc import Iterable

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
from ..errors import NoSolutionError, UnknownItemError
from ..evidence.rates import Exposure
from ..gear.setup import working_range
from ..gear.window import shared_window
from ..record.admit import check_against
from ..record.events import Event, decode_event
from ..record.fold import fold
from ..record.trip import Trip
from ..sonar.marks import MarkedBand, depth_to_fish, marked_bands, recent_marks
from .ahead import look_ahead, over_the_track
from .rods import TripRods
from .view import (
    ComfortView,
    FishView,
    MarkView,
    RibbonMark,
    RodView,
    TemperaturePoint,
)
from .wind import wind_view


class FishSession(TripRods):
    """A trip being fished.

    Parameters
    ----------
    trip : Trip
        What the trip started with.
    events : iterable of Event
        What has happened, in any order.
    """

    def __init__(self, trip: Trip, events: Iterable[Event]) -> None:
        self.events = {event.id: event for event in events}
        super().__init__(trip, fold(trip, self.events.values()))

    def add(self, data: object) -> Event:
        """Add an event from JSON data.

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
            If it cannot be, in itself or at this point of the trip; nothing is changed then.
        """
        event = decode_event(data)
        if event.id not in self.events:
            if event.type == "undone":
                target = getattr(event.payload, "event_id", "")
                if target not in self.events:
                    raise UnknownItemError(
                        "payload.event_id", target, "an event of this trip"
                    )
            check_against(self.state, event)
            self.events[event.id] = event
            self._fold()
        return event

    def replace_events(self, events: Iterable[Event]) -> None:
        """Take a new set of events, as after they were fetched anew.

        Parameters
        ----------
        events : iterable of Event
            All events of the trip.
        """
        self.events = {event.id: event for event in events}
        self._fold()

    def _fold(self) -> None:
        before = self.state.outfit
        self.state = fold(self.trip, self.events.values())
        if self.state.outfit != before:
            # Solutions are kept by keys of tackle, and the tackle behind a key has changed.
            self._solved.clear()
            self._fits.clear()

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
        rods = over_the_track(rods, ahead)
        bands = tuple(marked_bands(state.marks, now_s))
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
            profile=self._profile(), comfort=self._comfort(),
            marks=tuple(
                MarkView(
                    event_id=m.event_id, at_s=m.at_s, depth_m=m.mark.depth_m, count=m.mark.count,
                    recent=m.event_id in recent,
                    run_at_m=depth_to_fish(
                        m.mark.depth_m, above_mark_m=state.above_mark_m, bottom_m=state.bottom_m
                    ),
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
            ended=state.ended, ahead=ahead, clearance_m=state.clearance_m,
        )

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
        solved = self._solve(view.setup, self.speed_mps, doubt=True)
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
        top, base = depths if depths is not None else (None, None)
        return ComfortView(low_degc=low, high_degc=high, top_m=top, base_m=base)

    def _ribbon(self) -> tuple[RibbonMark, ...]:
        marks = [
            RibbonMark(at_s=at_s, kind=kind, rod_id=rod_id, text="")  # type: ignore[arg-type]
            for at_s, rod_id, kind in self.state.bites
        ]
        marks += [
            RibbonMark(
                at_s=answer.at_s, kind="move_taken" if answer.taken else "move_refused",
                rod_id=answer.move.rod_id, text=answer.move.title,
            )
            for answer in self.state.answers
        ]
        return tuple(sorted(marks, key=lambda mark: mark.at_s))
