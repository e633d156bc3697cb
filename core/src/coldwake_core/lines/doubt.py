"""How sure is the depth: stated spreads of the inputs, carried through the solution."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace
from typing import Final

from ..errors import InvalidInputError
from ..water.fresh import Water
from .calibration import PARAMETERS, STEP, Calibration
from .linear import quadratic_form
from .linerig import Placement
from .rigs import Rig, Solved

DOUBT_LEVEL: Final = 0.80
"""Share of cases that the shown band is meant to hold: four times in five."""
DOUBT_QUANTILE: Final = 1.2815515655446004
"""Standard normal quantile of 0.90, for a two-sided band of 80 %."""


@dataclass(frozen=True, slots=True, kw_only=True)
class DepthEstimate:
    """A depth and its doubt.

    Parameters
    ----------
    depth_m : float
        Depth of the lure, m.
    doubt_m : float
        Half-width of the band that holds it with probability ``level``, m, >= 0.
    level : float
        Probability of the band.
    """

    depth_m: float
    doubt_m: float
    level: float = DOUBT_LEVEL


@dataclass(frozen=True, slots=True)
class DoubtfulRig:
    """A rig solved at a speed as it is believed, with departures to read depths with their doubt.

    Parameters
    ----------
    solved : Solved
        The rig with its calibrated inputs.
    calibration : Calibration
        What is believed of it.
    moved : tuple of (float, Solved)
        For each parameter but the number's own: its step, and the rig with it moved.
    faster : Solved or None
        The rig one standard deviation of speed faster.
    """

    solved: Solved
    calibration: Calibration
    moved: tuple[tuple[int, Solved], ...] = ()
    faster: Solved | None = None

    def _length(self, setting_m: float) -> float:
        longest = self.solved.longest_m
        if setting_m > longest:
            return setting_m  # the rig says in its own words that the reel holds less
        return min(setting_m * self.calibration.setting_factor, longest)

    def place(self, setting_m: float, *, picture: bool = True) -> tuple[Placement, DepthEstimate]:
        """Return where the lure is and how sure that is.

        Parameters
        ----------
        setting_m : float
            The number set, m.
        picture : bool
            Whether to make the paths for the side view.

        Returns
        -------
        (Placement, DepthEstimate)

        Notes
        -----
        First-order propagation of the calibration's covariance, with the speed's doubt added. A
        small step that lifts the lure to the surface, where it skips or floats, is no slope: it
        counts as if one standard deviation of that input did it.
        """
        length = self._length(setting_m)
        try:
            placement = self.solved.place(length, picture=picture)
        except InvalidInputError:
            # By what was learnt of the counter the clip is just dry: take the number as it stands.
            length = setting_m
            placement = self.solved.place(length, picture=picture)
        placement = replace(placement, setting_m=setting_m)
        if self.faster is None:
            return placement, DepthEstimate(depth_m=placement.depth_m, doubt_m=0.0)
        slopes = [0.0] * len(PARAMETERS)
        for index, solved in self.moved:
            there = solved.place(length, picture=False)
            step = STEP
            if there.at_surface and not placement.at_surface:
                step = max(math.sqrt(self.calibration.covariance[index][index]), STEP)
            slopes[index] = (there.depth_m - placement.depth_m) / step
        shorter = self._shorter(length)
        slopes[PARAMETERS.index("setting")] = (placement.depth_m - shorter) / STEP
        by_speed = self.faster.place(length, picture=False).depth_m - placement.depth_m
        deviation = math.sqrt(
            quadratic_form(slopes, self.calibration.covariance) + by_speed * by_speed
        )
        return placement, DepthEstimate(
            depth_m=placement.depth_m, doubt_m=DOUBT_QUANTILE * deviation
        )

    def _shorter(self, length_m: float) -> float:
        """Depth, m, with a little less line out; a clip that it lifts out of the water is at 0."""
        try:
            return self.solved.place(length_m * (1.0 - STEP), picture=False).depth_m
        except InvalidInputError:
            return 0.0

    def setting_for(self, depth_m: float) -> float:
        """Return the number that puts the lure at a depth.

        Parameters
        ----------
        depth_m : float
            Wanted depth of the lure, m, > 0.

        Returns
        -------
        float
            The number, m.

        Raises
        ------
        NoSolutionError
            If it cannot be reached at this speed.
        """
        return self.solved.setting_for(depth_m) / self.calibration.setting_factor


def solve_with_doubt(
    rig: Rig, speed_mps: float, water: Water, calibration: Calibration | None = None
) -> DoubtfulRig:
    """Return a rig solved at a speed, with the solutions that carry its doubt.

    Parameters
    ----------
    rig : LineRig or DownriggerRig
        The tackle.
    speed_mps : float
        Speed through water, m/s, >= 0.
    water : Water
        Density and viscosity.
    calibration : Calibration, optional
        What is believed of the line; the physical values when left out.

    Returns
    -------
    DoubtfulRig
    """
    believed = Calibration.prior() if calibration is None else calibration
    return DoubtfulRig(
        solved=rig.solve(speed_mps, water, believed.shift()),
        calibration=believed,
        moved=tuple(
            (index, rig.solve(speed_mps, water, believed.shift(moved=index)))
            for index, name in enumerate(PARAMETERS) if name != "setting"
        ),
        faster=rig.solve(speed_mps, water, believed.shift(speed_mps=believed.speed_mps)),
    )


def solve_quickly(
    rig: Rig, speed_mps: float, water: Water, calibration: Calibration | None = None
) -> DoubtfulRig:
    """Return a rig solved at a speed without its doubt: one solution instead of six.

    Parameters
    ----------
    rig : LineRig or DownriggerRig
        The tackle.
    speed_mps : float
        Speed through water, m/s, >= 0.
    water : Water
        Density and viscosity.
    calibration : Calibration, optional
        What is believed of the line.

    Returns
    -------
    DoubtfulRig
    """
    believed = Calibration.prior() if calibration is None else calibration
    return DoubtfulRig(rig.solve(speed_mps, water, believed.shift()), believed)
