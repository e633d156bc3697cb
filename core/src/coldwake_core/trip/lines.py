"""Solves the lines of a trip: where a lure is, and which number puts it where it is wanted."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from typing import NamedTuple

from ..checks import require_number
from ..constants import MPH_MPS
from ..errors import InvalidInputError, NoSolutionError, UnknownItemError
from ..gear.pieces import FASTEST_MPS, SLOWEST_MPS
from ..gear.setup import RodSetup, build_rig, rig_kind, working_range
from ..gear.window import verdict
from ..lines.calibration import Calibration, LineFit
from ..lines.doubt import DoubtfulRig, Doubts, solve_with_doubt
from ..lines.downrigger import DownriggerRig, stack_height_m
from ..lines.leadcore import leadcore_number
from ..lines.linerig import Placement
from ..lines.turn import TurnedLine
from ..record.payloads import check_depth
from ..record.state import RodState, TripState
from ..record.trip import Trip
from ..sonar.cone import SonarView
from ..water.fresh import Water
from .calibrate import fit_setup
from .numbers import LineNumber, NumberAtSpeed, ReadingView, RodLine
from .solutions import Solutions

ASSUMED_DEGC = 10.0
"""Water temperature until one is read: only density and viscosity hang on it."""
ASSUMED_SPEED_MPS = 1.5 * MPH_MPS


class SolvedBy(NamedTuple):
    """Everything that a solved rig hangs on."""

    outfit_number: int
    setup: RodSetup
    mates: tuple[RodSetup, ...]
    speed_mps: float
    surface_degc: float | None
    doubt: Doubts
    calibration: Calibration


class LineSolver:
    """Solves the lines of a trip in one state.

    Parameters
    ----------
    trip : Trip
        What the trip started with.
    state : TripState
        What its events add up to.
    solutions : Solutions
        What was solved before, by tackle, calibration and speed: a drag solves each line once, and
        the same lines are not solved again for the next picture of the trip.
    """

    def __init__(self, trip: Trip, state: TripState, solutions: Solutions) -> None:
        self.trip = trip
        self.state = state
        self.solutions = solutions
        self._outfit_number = solutions.number(state.outfit)

    @property
    def speed_mps(self) -> float:
        """Speed through water, m/s."""
        return ASSUMED_SPEED_MPS if self.state.speed_mps is None else self.state.speed_mps

    def solved(self, setup: RodSetup, speed_mps: float, *, doubt: Doubts) -> DoubtfulRig:
        """Return a rod's rig solved at a speed, with what its readings taught.

        Parameters
        ----------
        setup : RodSetup
            What is on the rod.
        speed_mps : float
            Speed through water, m/s.
        doubt : {'none', 'quick', 'full'}
            Whether to say how sure it is, and whether to first order only.

        Returns
        -------
        DoubtfulRig
        """
        return self._solved(self._key(setup, speed_mps, doubt))

    def _key(self, setup: RodSetup, speed_mps: float, doubt: Doubts) -> SolvedBy:
        return SolvedBy(
            self._outfit_number, setup, self.state.mates_of(setup), speed_mps,
            self.state.surface_degc, doubt, self._fit(setup).calibration,
        )

    def _solved(self, key: SolvedBy) -> DoubtfulRig:
        return self.solutions.rig(key, lambda: solve_with_doubt(
            build_rig(self.state.outfit, key.setup, key.mates), key.speed_mps, self._water,
            key.calibration, doubts=key.doubt,
        ))

    @property
    def _water(self) -> Water:
        degc = self.state.surface_degc
        return Water.at_degc(ASSUMED_DEGC if degc is None else max(degc, -1.0))

    def _fit(self, setup: RodSetup) -> LineFit:
        """What the readings say of a tackle, worked out anew only when there are others."""
        heard = tuple(
            reading for reading in self.state.depth_readings
            if reading.id not in self.state.set_aside
        )
        # At one water temperature: it hardly matters, and a fit must not change with it.
        return self.solutions.fit(
            (self._outfit_number, setup, heard),
            lambda: fit_setup(
                self.state.outfit, setup, heard, Water.at_degc(ASSUMED_DEGC), self.trip.chart
            ),
        )

    def readings_of(self, setup: RodSetup) -> tuple[ReadingView, ...]:
        """Return the depths seen with a tackle, against what is expected.

        Parameters
        ----------
        setup : RodSetup
            What is on a rod.

        Returns
        -------
        tuple of ReadingView
            Those set aside included.
        """
        residuals = {r.reading_id: r for r in self._fit(setup).residuals}
        views = []
        for reading in self.state.depth_readings:
            same = (reading.setup.line_id, reading.setup.attractor_id, reading.setup.lure_id) == (
                setup.line_id, setup.attractor_id, setup.lure_id
            )
            residual = residuals.get(reading.id)
            if same and (residual or reading.id in self.state.set_aside):
                views.append(ReadingView(
                    id=reading.id, of=reading.of,
                    number=self._number(reading.setup, reading.setting_m),
                    speed_mps=reading.speed_mps, seen_m=reading.depth_m,
                    expected_m=residual.expected_m if residual else None,
                    physics_m=residual.physics_m if residual else None,
                    contradicts=residual.contradicts if residual else False,
                    aside=reading.id in self.state.set_aside,
                ))
        return tuple(views)

    def rigged(self, rod_id: str) -> tuple[RodState, RodSetup]:
        """Return a rod and what is on it.

        Parameters
        ----------
        rod_id : str
            The rod.

        Returns
        -------
        (RodState, RodSetup)

        Raises
        ------
        InvalidInputError
            If it is not aboard, or nothing is on it.
        """
        if rod_id not in self.state.rods:
            raise UnknownItemError(
                "rod_id", rod_id, "one that is aboard: " + ", ".join(self.state.rods)
            )
        rod = self.state.rods[rod_id]
        if rod.setup is None:
            raise InvalidInputError("rod_id", rod_id, "a rod that has been rigged")
        return rod, rod.setup

    def where(
        self, *, rod_id: str, setting_m: float, speed_mps: float | None = None,
        doubt: Doubts = "full",
    ) -> RodLine:
        """Return where a rod's lure is with a number set.

        Parameters
        ----------
        rod_id : str
            The rod.
        setting_m : float
            The number, m.
        speed_mps : float, optional
            Speed through water, m/s; the boat's when left out.
        doubt : {'none', 'quick', 'full'}
            Whether to say how sure it is, and whether to first order only.

        Returns
        -------
        RodLine

        Raises
        ------
        InvalidInputError
            If the rod, number or speed cannot be.
        """
        _, setup = self.rigged(rod_id)
        speed = self.speed_mps if speed_mps is None else _checked_speed(speed_mps)
        key = self._key(setup, speed, doubt)
        placement, estimate = self.solutions.place(
            (key, setting_m), lambda: self._solved(key).place(setting_m)
        )
        lowest = max(placement.depth_m, placement.ball_depth_m or 0.0)
        return RodLine(
            rod_id=rod_id, number=self._number(setup, setting_m), depth_m=estimate.depth_m,
            doubt_m=estimate.doubt_m if doubt != "none" else None,
            shallow_m=estimate.shallow_m if doubt != "none" else None,
            deep_m=estimate.deep_m if doubt != "none" else None, trail_m=placement.trail_m,
            at_surface=placement.at_surface,
            verdict=verdict(working_range(self.state.outfit, setup), speed),
            clearance_m=self.state.bottom_m - lowest, paths=placement.paths,
            ball_depth_m=placement.ball_depth_m, ball_trail_m=placement.ball_trail_m,
            strumming=placement.strumming or 0.0, sonar=self._sonar(setup, placement),
            beyond_law=placement.beyond_law,
        )

    def _sonar(self, setup: RodSetup, placement: Placement) -> SonarView | None:
        place = self.state.outfit.place(setup.place_id)
        if place.kind != "downrigger" or placement.ball_trail_m is None:
            return None
        return self.state.outfit.sounder.shows(
            depth_m=placement.ball_depth_m or 0.0, behind_m=placement.ball_trail_m + place.aft_m
        )

    def turned(
        self, *, rod_id: str, setting_m: float, radius_m: float, tip_radius_m: float,
        cut_share: float | None = None,
    ) -> TurnedLine:
        """Return how a rod's line fares in a steady turn at the boat's speed.

        Parameters
        ----------
        rod_id : str
            The rod.
        setting_m : float
            The number, m.
        radius_m, tip_radius_m : float
            Radius of the boat's circle and of the rod tip's, m.
        cut_share : float, optional
            How far the line cut the corner in a turn nearly like this one.

        Returns
        -------
        TurnedLine

        Raises
        ------
        InvalidInputError
            If the rod, number or radius cannot be.
        """
        _, setup = self.rigged(rod_id)
        return self.solved(setup, self.speed_mps, doubt="none").turned(
            setting_m, radius_m=radius_m, tip_radius_m=tip_radius_m, cut_share=cut_share
        )

    def lag_s(self, rod_id: str, setting_m: float) -> float:
        """Return how long a rod's lure takes to follow a change of speed.

        Parameters
        ----------
        rod_id : str
            The rod.
        setting_m : float
            The number, m.

        Returns
        -------
        float
            s: about two thirds of the change are done by then.
        """
        _, setup = self.rigged(rod_id)
        return self.solved(setup, self.speed_mps, doubt="none").lag_s(setting_m)

    def number_and_depth(
        self, setup: RodSetup, *, setting_m: float | None = None, depth_m: float | None = None
    ) -> tuple[float, float]:
        """Return number and depth of a rig that is only tried, by the one or the other.

        Parameters
        ----------
        setup : RodSetup
            What the rod would wear.
        setting_m : float, optional
            The number, m.
        depth_m : float, optional
            The depth wanted, m, where no number is given.

        Returns
        -------
        (float, float)
            Number and depth, m.

        Raises
        ------
        InvalidInputError
            If the rig cannot be, or neither is given.
        NoSolutionError
            If the depth cannot be reached.
        """
        solved = self.solved(setup, self.speed_mps, doubt="none")
        number = setting_m
        if number is None:
            number = solved.setting_for(check_depth("depth_m", depth_m))
        return number, solved.place(number)[1].depth_m

    def _number(self, setup: RodSetup, setting_m: float) -> LineNumber:
        line = self.state.outfit.line(setup.line_id)
        if line.kind == "leadcore":
            count = leadcore_number(
                setting_m, leader_m=line.leader_length_m, core_m=line.core_length_m
            )
            return LineNumber(
                kind="colours", setting_m=setting_m, colours=count.colours, rest_m=count.rest_m,
                backing_m=count.backing_m,
            )
        if line.kind == "downrigger":
            return LineNumber(
                kind="counter", setting_m=setting_m, above_ball_m=setup.above_ball_m,
                by_itself=setup.slider_kg > 0.0,
            )
        return LineNumber(kind="line_out", setting_m=setting_m)

    def number_for(
        self, *, rod_id: str, depth_m: float, speed_mps: float | None = None
    ) -> RodLine:
        """Return the number that puts a rod's lure at a depth, and where that leaves it.

        Parameters
        ----------
        rod_id : str
            The rod.
        depth_m : float
            Wanted depth, m.
        speed_mps : float, optional
            Speed through water, m/s; the boat's when left out.

        Returns
        -------
        RodLine

        Raises
        ------
        InvalidInputError
            If rod, depth or speed cannot be, or the depth is below the bottom.
        NoSolutionError
            If the line does not reach it at this speed.
        """
        check_depth("depth_m", depth_m)
        if depth_m > self.state.bottom_m:
            raise InvalidInputError(
                "depth_m", round(depth_m, 2),
                f"above the bottom, which is at {self.state.bottom_m:.1f} m",
                high=self.state.bottom_m, reason="bottom",
            )
        rod, setup = self.rigged(rod_id)
        speed = self.speed_mps if speed_mps is None else _checked_speed(speed_mps)
        setting = self.solved(setup, speed, doubt="full").setting_for(depth_m)
        found = self.where(rod_id=rod_id, setting_m=setting, speed_mps=speed)
        clip = None
        if setup.above_ball_m > 0.0 and rod.setting_m is not None:
            rig = build_rig(self.state.outfit, setup, self.state.mates_of(setup))
            assert isinstance(rig, DownriggerRig)
            clip = stack_height_m(
                rig, speed, self._water, setting_m=rod.setting_m, depth_m=depth_m
            )
        return replace(
            found, clip_above_ball_m=clip,
            countdown_s=self.state.outfit.lure(setup.lure_id).countdown_s(depth_m, self._water)
            if rig_kind(self.state.outfit, setup) == "flat" else None,
        )

    def reach(self, *, rod_id: str, depth_m: float) -> LineNumber:
        """Return the bare number that puts a rod's lure at a depth, the bottom left out of it.

        Parameters
        ----------
        rod_id : str
            The rod.
        depth_m : float
            Wanted depth, m.

        Returns
        -------
        LineNumber

        Raises
        ------
        NoSolutionError
            If the line does not reach it at this speed.
        """
        _, setup = self.rigged(rod_id)
        return self._number(
            setup, self.solved(setup, self.speed_mps, doubt="full").setting_for(depth_m)
        )

    def numbers_at(
        self, *, rod_id: str, depth_m: float, speeds_mps: Sequence[float]
    ) -> tuple[NumberAtSpeed, ...]:
        """Return the numbers that hold a lure at one depth at several speeds: with and against.

        Parameters
        ----------
        rod_id : str
            The rod.
        depth_m : float
            Wanted depth, m.
        speeds_mps : sequence of float, length 1 to 4
            Speeds through water, m/s.

        Returns
        -------
        tuple of NumberAtSpeed
            In the order of the speeds; without a line where the depth cannot be reached.

        Raises
        ------
        InvalidInputError
            If rod, depth or a speed cannot be.
        """
        if not isinstance(speeds_mps, list | tuple) or not 1 <= len(speeds_mps) <= 4:
            raise InvalidInputError("speeds_mps", speeds_mps, "a list of 1 to 4 speeds")
        found = []
        for speed in speeds_mps:
            try:
                line = self.number_for(rod_id=rod_id, depth_m=depth_m, speed_mps=speed)
                found.append(NumberAtSpeed(speed_mps=speed, line=line, limit_m=None))
            except NoSolutionError as error:
                found.append(NumberAtSpeed(speed_mps=speed, line=None, limit_m=error.limit))
        return tuple(found)

    def lines_at(self, *, speed_mps: float) -> tuple[RodLine, ...]:
        """Return where every lure that is out would be at a speed that is only being tried.

        Parameters
        ----------
        speed_mps : float
            Speed through water, m/s.

        Returns
        -------
        tuple of RodLine

        Raises
        ------
        InvalidInputError
            If it is no trolling speed.
        """
        _checked_speed(speed_mps)
        return tuple(
            self.where(
                rod_id=rod.rod_id, setting_m=rod.setting_m, speed_mps=speed_mps, doubt="quick"
            )
            for rod in self.rods_out()
            if rod.setting_m is not None
        )

    def rods_out(self) -> list[RodState]:
        """Return the rods whose lines are out and fishing.

        Returns
        -------
        list of RodState
        """
        return [
            rod for rod in self.state.rods.values()
            if rod.status == "fishing" and rod.setup is not None and rod.setting_m is not None
        ]

    def where_quickly(self, rod_id: str, setting_m: float, speed_mps: float) -> RodLine:
        """Return where a rod's lure is, its doubt left out.

        Parameters
        ----------
        rod_id : str
            The rod.
        setting_m : float
            The number, m.
        speed_mps : float
            Speed through water, m/s.

        Returns
        -------
        RodLine
        """
        return self.where(rod_id=rod_id, setting_m=setting_m, speed_mps=speed_mps, doubt="none")


def _checked_speed(speed_mps: float) -> float:
    return require_number("speed_mps", speed_mps, low=SLOWEST_MPS, high=FASTEST_MPS, unit="m/s")
