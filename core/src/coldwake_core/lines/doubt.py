"""How sure is the depth: stated spreads of the inputs, carried through the solution."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Final

from ..water.fresh import Water
from .linerig import NO_SHIFT, Placement, Shift
from .rigs import Rig, Solved

DOUBT_LEVEL: Final = 0.80
"""Share of cases that the shown band is meant to hold: four times in five."""
_QUANTILE: Final = 1.2815515655446004
"""Standard normal quantile of 0.90, for a two-sided band of 80 %."""


@dataclass(frozen=True, slots=True, kw_only=True)
class InputSpread:
    """Standard deviations of what goes into a line, each with its reason.

    Parameters
    ----------
    speed_mps : float
        Speed through water, m/s: instruments show tenths of a mile an hour, and boats surge.
    line_drag : float
        Line's normal drag, relative: scatter of measured cylinder drag and of line diameter, and
        strumming (Hoerner 1965, ch. 3).
    body_drag : float
        Drag of lure and attractor, relative: shapes differ and swing.
    body_lift : float
        Lip and plate force, relative: the least known of all.
    weight : float
        Weight of leadcore per length, or of the ball, relative.
    setting : float
        Error of the number itself, relative: stretch, spooling, counting colours.
    """

    speed_mps: float = 0.045
    line_drag: float = 0.15
    body_drag: float = 0.20
    body_lift: float = 0.30
    weight: float = 0.03
    setting: float = 0.015


STATED_SPREAD: Final = InputSpread()


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
    """A rig solved at a speed together with its departures, to read depths with their doubt."""

    solved: Solved
    shifted: tuple[Solved, ...]
    spread: InputSpread

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
        First-order propagation: each input is moved by one standard deviation by itself and the
        changes of depth are added in squares. Inputs are taken as independent.
        """
        placement = self.solved.place(setting_m, picture=picture)
        changes = [
            solved.place(setting_m, picture=False).depth_m - placement.depth_m
            for solved in self.shifted
        ]
        # Reading error: nearly all of the line runs at the angle it has at the surface.
        longer = min(setting_m * (1.0 + self.spread.setting), self.solved.longest_m)
        changes.append(self.solved.place(longer, picture=False).depth_m - placement.depth_m)
        deviation = math.sqrt(math.fsum(change * change for change in changes))
        return placement, DepthEstimate(
            depth_m=placement.depth_m, doubt_m=_QUANTILE * deviation
        )


def solve_with_doubt(
    rig: Rig, speed_mps: float, water: Water, spread: InputSpread = STATED_SPREAD
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
    spread : InputSpread
        Standard deviations of the inputs.

    Returns
    -------
    DoubtfulRig
    """
    shifts = (
        Shift(speed_mps=spread.speed_mps),
        Shift(line_drag=1.0 + spread.line_drag),
        Shift(body_drag=1.0 + spread.body_drag),
        Shift(body_lift=1.0 + spread.body_lift),
        Shift(weight=1.0 + spread.weight),
    )
    return DoubtfulRig(
        solved=rig.solve(speed_mps, water, NO_SHIFT),
        shifted=tuple(rig.solve(speed_mps, water, shift) for shift in shifts),
        spread=spread,
    )
