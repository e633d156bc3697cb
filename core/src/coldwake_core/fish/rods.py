"""The rods of a trip as they stand: their lines, their turns, their order, what-if speeds."""

from __future__ import annotations

from dataclasses import replace

from ..boat.turns import TipInTurn, asked_radius_m
from ..checks import require_number
from ..errors import CoreError, InvalidInputError
from ..gear.beat import SpeedAtDepth, predicted_rate_hz, speed_from_beat
from ..gear.setup import recipe_words, rig_kind, working_range
from ..gear.usual import first_setup, pair_of_speeds
from ..gear.window import verdict
from ..lines.turn import TurnedLine
from ..record.fold_beside import AGAIN
from ..record.state import RodState
from .lines import TripLines
from .manoeuvre import ManoeuvreView, manoeuvre_view
from .numbers import RodLine
from .order import LineOrders, line_orders
from .plan import PlanView, Solver, TightestTurns, plan_view, tightest_turns
from .track import bed_around, clearance_over
from .view import RodTally, RodView, SpeedPair


class TripRods(TripLines):
    """A trip's rods: what is out, and what becomes of it in a turn or at another speed."""

    def rod_views(self) -> tuple[RodView, ...]:
        """Return all rods, port to starboard.

        Returns
        -------
        tuple of RodView
        """
        return tuple(sorted(
            (self._rod_view(rod, self.speed_mps) for rod in self.state.rods.values()),
            key=lambda rod: (rod.side_m, rod.id),
        ))

    def _rod_view(self, rod: RodState, speed_mps: float) -> RodView:
        outfit = self.state.outfit
        item, setup = outfit.rod(rod.rod_id), rod.setup
        fault = self.faulty.get(rod.rod_id)
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
                fault=None if fault is None else fault.message,
                begin=first_setup(outfit, item.id),
            )
        place, works = outfit.place(setup.place_id), working_range(outfit, setup)
        beat, current = self.state.beat_of(setup), self.state.current
        pair = pair_of_speeds(speed_mps, 0.0 if current is None else current.speed_mps)
        line, due, trouble = None, self.state.looks_due.get(rod.rod_id), None
        if rod.status == "fishing" and rod.setting_m is not None:
            try:
                line = self.where(rod_id=rod.rod_id, setting_m=rod.setting_m, speed_mps=speed_mps)
            except CoreError as error:
                trouble = error.message
        return RodView(
            id=item.id, name=item.name, shape=item.shape, kind=rig_kind(outfit, setup),
            place_name=place.name, side_m=place.side_m, tip_height_m=place.tip_height_m,
            recipe=recipe_words(outfit, setup), status=rod.status, works=works,
            verdict=verdict(works, speed_mps), soak_since_s=rod.soak_since_s,
            bait_since_s=rod.bait_since_s if outfit.lure(setup.lure_id).takes_bait else None,
            tally=tally, setup=setup, line=line,
            last_setting_m=rod.setting_m, wanted_depth_m=rod.wanted_depth_m,
            readings=self.readings_of(setup), aft_m=place.aft_m, on_board=place.kind == "board",
            bottom_tap=rod.bottom_tap, fault=trouble,
            has_tip=place.kind == "holder", on_cable=place.kind == "downrigger",
            look_item="swings" if setup.attractor_id is not None else "tracks_true",
            pair_mps=SpeedPair(first_mps=pair[0], second_mps=pair[1]),
            again=None if due is None else AGAIN[due.why], beat=beat,
            beats_per_10s=None if beat is None
            else 10.0 * predicted_rate_hz(beat, speed_mps),
        )

    def plan(
        self, *, course: str, radius_m: float | None = None, rate_degps: float | None = None,
        leeway_deg: float = 0.0, now_s: float | None = None,
    ) -> PlanView:
        """Return the spread from above, straight or in a turn.

        Parameters
        ----------
        course : {'straight', 'port', 'starboard'}
            Straight, or the side turned to.
        radius_m : float, optional
            Radius of the boat's circle, m; it or the rate is needed in a turn.
        rate_degps : float, optional
            Rate of turn, degrees a second.
        leeway_deg : float
            How far the lines stream to starboard of straight astern in a side wind, degrees.
        now_s : float, optional
            The moment, seconds since 1970-01-01 UTC: with it the chart tells of the bottom.

        Returns
        -------
        PlanView

        Raises
        ------
        InvalidInputError
            If course, radius or leeway cannot be.
        """
        return plan_view(
            self.rod_views(), course=course, radius_m=self._radius_m(radius_m, rate_degps),
            speed_mps=self.speed_mps, solver=self._solver(), bed=bed_around(self, now_s),
            leeway_deg=leeway_deg,
        )

    def _solver(self) -> Solver:
        """What solves the rods' lines from above, one turn beginning where the last one ended."""
        cuts: dict[str, float] = {}
        lags: dict[tuple[str, float], float] = {}

        def turned(rod_id: str, setting_m: float, tip: TipInTurn) -> TurnedLine:
            found = self.turned(
                rod_id=rod_id, setting_m=setting_m, radius_m=tip.radius_m,
                tip_radius_m=tip.tip_radius_m, cut_share=cuts.get(rod_id),
            )
            if not found.is_slack:
                cuts[rod_id] = found.cut_share
            return found

        def lag_s(rod_id: str, setting_m: float) -> float:
            if (rod_id, setting_m) not in lags:
                lags[rod_id, setting_m] = self.lag_s(rod_id, setting_m)
            return lags[rod_id, setting_m]

        return Solver(where=self._where_quickly, turned=turned, lag_s=lag_s)

    def _radius_m(self, radius_m: float | None, rate_degps: float | None) -> float | None:
        return asked_radius_m(
            speed_mps=self.speed_mps, radius_m=radius_m, rate_degps=rate_degps
        )

    def manoeuvre(
        self, *, kind: str, toward: str, radius_m: float | None = None,
        rate_degps: float | None = None, now_s: float | None = None,
    ) -> ManoeuvreView:
        """Return an S-turn or U-turn as it unfolds.

        Parameters
        ----------
        kind : {'s_turn', 'u_turn'}
            Which.
        toward : {'port', 'starboard'}
            The side turned to first.
        radius_m : float, optional
            Radius of the boat's circles, m; it or the rate is needed.
        rate_degps : float, optional
            Rate of turn, degrees a second.
        now_s : float, optional
            The moment, seconds since 1970-01-01 UTC: with it the chart tells of the bottom.

        Returns
        -------
        ManoeuvreView

        Raises
        ------
        InvalidInputError
            If kind, side or radius cannot be.
        """
        return manoeuvre_view(
            self.rod_views(), kind=kind, toward=toward,
            radius_m=require_number("radius_m", self._radius_m(radius_m, rate_degps)),
            speed_mps=self.speed_mps, solver=self._solver(), bed=bed_around(self, now_s),
        )

    def tightest(self, *, now_s: float | None = None) -> TightestTurns:
        """Return the smallest safe circles to either side.

        Parameters
        ----------
        now_s : float, optional
            The moment, seconds since 1970-01-01 UTC: with it the chart tells of the bottom.

        Returns
        -------
        TightestTurns
        """
        return tightest_turns(
            self.rod_views(), speed_mps=self.speed_mps, solver=self._solver(),
            bed=bed_around(self, now_s),
        )

    def lines_tried(
        self, *, speed_mps: float, now_s: float | None = None
    ) -> tuple[RodLine, ...]:
        """Return where every lure that is out would be at a speed, over the bottom under it.

        Parameters
        ----------
        speed_mps : float
            Speed through water, m/s.
        now_s : float, optional
            The moment, seconds since 1970-01-01 UTC: with it the chart tells of the bottom.

        Returns
        -------
        tuple of RodLine

        Raises
        ------
        InvalidInputError
            If it is no trolling speed.
        """
        bed = bed_around(self, now_s)
        lines = []
        for line in self.lines_at(speed_mps=speed_mps):
            setup = self.state.rods[line.rod_id].setup
            assert setup is not None
            place = self.state.outfit.place(setup.place_id)
            lines.append(replace(line, clearance_m=clearance_over(
                bed, line, tip_side_m=place.side_m,
                behind_m=max(line.trail_m + place.aft_m, 0.0), side_m=place.side_m,
            )))
        return tuple(lines)

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
        reference = self.state.beat_of(setup)
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
        return line_orders(self.rod_views())
