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
from ..errors import InvalidInputError, NoSolutionError, UnknownItemError
from ..evidence.rates import Exposure
from ..gear.beat import SpeedAtDepth, predicted_rate_hz, speed_from_beat
from ..gear.setup import recipe_words, rig_kind, working_range
from ..gear.window import shared_window, verdict
from ..record.admit import check_against
from ..record.events import Event, decode_event
from ..record.fold import fold
from ..record.state import RodState
from ..record.trip import Trip
from ..sonar.marks import MarkedBand, depth_to_fish, marked_bands, recent_marks
from .ahead import look_ahead, over_the_track
from .lines import TripLines
from .manoeuvre import ManoeuvreView, manoeuvre_view
from .order import LineOrders, line_orders
from .plan import PlanView, TightestTurns, plan_view, tightest_turns
from .view import (
    ComfortView,
    FishView,
    MarkView,
    RibbonMark,
    RodTally,
    RodView,
    TemperaturePoint,
)


class FishSession(TripLines):
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
            check_against(self.trip, self.state, event)
            self.events[event.id] = event
            self.state = fold(self.trip, self.events.values())
        return event

    def replace_events(self, events: Iterable[Event]) -> None:
        """Take a new set of events, as after they were fetched anew.

        Parameters
        ----------
        events : iterable of Event
            All events of the trip.
        """
        self.events = {event.id: event for event in events}
        self.state = fold(self.trip, self.events.values())

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
        state, outfit = self.state, self.trip.outfit
        speed = self.speed_mps
        window = shared_window([
            working_range(outfit, rod.setup) for rod in self.rods_out() if rod.setup is not None
        ])
        surface = state.surface_degc
        method = None if surface is None else method_of_the_hour(
            species=self.trip.species, surface_degc=surface,
            cold_school=state.schools.get("cold_morning"),
        )
        rods = self._rod_views()
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
            passes=self._passes(), window=window, surface_degc=surface,
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

    def _rod_views(self) -> tuple[RodView, ...]:
        """All rods, port to starboard."""
        return tuple(sorted(
            (self._rod_view(rod, self.speed_mps) for rod in self.state.rods.values()),
            key=lambda rod: (rod.side_m, rod.id),
        ))

    def _rod_view(self, rod: RodState, speed_mps: float) -> RodView:
        outfit = self.trip.outfit
        item, setup = outfit.rod(rod.rod_id), rod.setup
        tally = RodTally(
            hits=rod.tally.hits, hooked=rod.tally.hooked, landed=rod.tally.landed,
            kept=rod.tally.kept, lost=rod.tally.lost,
        )
        if setup is None:
            return RodView(
                id=item.id, name=item.name, shape=item.shape, kind=None, place_name="", side_m=99.0,
                tip_height_m=1.0, recipe="", status="in", works=None, verdict=None,
                soak_since_s=None, bait_since_s=None, tally=tally, setup=None, line=None,
                last_setting_m=None, wanted_depth_m=None,
            )
        place, works = outfit.place(setup.place_id), working_range(outfit, setup)
        beat = self.state.beats.get((setup.attractor_id, setup.lure_id))
        line = None
        if rod.status == "fishing" and rod.setting_m is not None:
            line = self.where(rod_id=rod.rod_id, setting_m=rod.setting_m, speed_mps=speed_mps)
        return RodView(
            id=item.id, name=item.name, shape=item.shape, kind=rig_kind(outfit, setup),
            place_name=place.name, side_m=place.side_m, tip_height_m=place.tip_height_m,
            recipe=recipe_words(outfit, setup), status=rod.status, works=works,
            verdict=verdict(works, speed_mps), soak_since_s=rod.soak_since_s,
            bait_since_s=rod.bait_since_s if outfit.lure(setup.lure_id).takes_bait else None,
            tally=tally, setup=setup, line=line,
            last_setting_m=rod.setting_m, wanted_depth_m=rod.wanted_depth_m,
            readings=self.readings_of(setup), aft_m=place.aft_m, on_board=place.kind == "board",
            bottom_tap=rod.bottom_tap,
            beat=beat, beats_per_10s=None if beat is None
            else 10.0 * predicted_rate_hz(beat, speed_mps),
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

    def plan(
        self, *, course: str, radius_m: float | None = None, leeway_deg: float = 0.0
    ) -> PlanView:
        """Return the spread from above, straight or in a turn.

        Parameters
        ----------
        course : {'straight', 'port', 'starboard'}
            Straight, or the side turned to.
        radius_m : float, optional
            Radius of the boat's circle, m; needed in a turn.
        leeway_deg : float
            How far the lines stream to starboard of straight astern in a side wind, degrees.

        Returns
        -------
        PlanView

        Raises
        ------
        InvalidInputError
            If course, radius or leeway cannot be.
        """
        return plan_view(
            self._rod_views(), course=course, radius_m=radius_m, speed_mps=self.speed_mps,
            where=self._where_quickly, leeway_deg=leeway_deg,
        )

    def manoeuvre(self, *, kind: str, toward: str, radius_m: float) -> ManoeuvreView:
        """Return an S-turn or U-turn as it unfolds.

        Parameters
        ----------
        kind : {'s_turn', 'u_turn'}
            Which.
        toward : {'port', 'starboard'}
            The side turned to first.
        radius_m : float
            Radius of the boat's circles, m.

        Returns
        -------
        ManoeuvreView

        Raises
        ------
        InvalidInputError
            If kind, side or radius cannot be.
        """
        return manoeuvre_view(
            self._rod_views(), kind=kind, toward=toward, radius_m=radius_m,
            speed_mps=self.speed_mps, where=self._where_quickly,
        )

    def tightest(self) -> TightestTurns:
        """Return the smallest safe circles to either side.

        Returns
        -------
        TightestTurns
        """
        return tightest_turns(
            self._rod_views(), speed_mps=self.speed_mps, where=self._where_quickly
        )

    def speed_at_depth(self, *, rod_id: str, beats: int, seconds: float) -> SpeedAtDepth:
        """Return the speed at which a rod's blade swings, from its tip's beat.

        Parameters
        ----------
        rod_id : str
            The rod.
        beats : int
            Beats counted.
        seconds : float
            Over how long, seconds.

        Returns
        -------
        SpeedAtDepth

        Raises
        ------
        InvalidInputError
            If the rod's beat was never counted beside the boat, or the count is none.
        """
        _, setup = self._rod(rod_id)
        reference = self.state.beats.get((setup.attractor_id, setup.lure_id))
        if reference is None:
            raise InvalidInputError(
                "rod_id", rod_id, "a rod whose beat was counted beside the boat first"
            )
        return speed_from_beat(reference, beats=beats, seconds=seconds)

    def orders(self) -> LineOrders:
        """Return the order in which to let the lines out, and to take them in.

        Returns
        -------
        LineOrders
        """
        return line_orders(self._rod_views())

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
