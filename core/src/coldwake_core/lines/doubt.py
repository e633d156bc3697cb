"""How sure is the depth: stated spreads of the inputs, carried through the solution."""

from __future__ import annotations

import math
from dataclasses import dataclass, field, replace
from typing import Final, Literal

from ..errors import InvalidInputError
from ..water.fresh import Water
from .calibration import PARAMETERS, Calibration, spread_for
from .linerig import Placement
from .pulls import BAND_TOLERANCE, WATER_TOLERANCE, Slopes
from .rigs import Rig, Solved
from .turn import TurnedLine, turn_line

DOUBT_LEVEL: Final = 0.80
"""Share of cases that the shown band is meant to hold: four times in five."""
DOUBT_QUANTILE: Final = 1.2815515655446004
"""Standard normal quantile of 0.90, for a two-sided band of 80 %."""
Doubts = Literal["none", "quick", "full"]
_NAMES: Final = (*PARAMETERS, "speed_mps")


_MOST_NUMBERS: Final = 64


@dataclass(frozen=True, slots=True, kw_only=True)
class DepthEstimate:
    """A depth and its doubt.

    Parameters
    ----------
    depth_m : float
        Depth of the lure, m.
    shallow_m, deep_m : float
        The band that holds it with probability ``level``, m: as likely to be above the one as
        below the other.
    level : float
        Probability of the band.
    """

    depth_m: float
    shallow_m: float
    deep_m: float
    level: float = DOUBT_LEVEL

    @property
    def doubt_m(self) -> float:
        """Half-width of the band, m."""
        return 0.5 * (self.deep_m - self.shallow_m)


@dataclass(slots=True)
class DoubtfulRig:
    """A rig at a speed as it is believed; solved as far as it is asked about.

    Parameters
    ----------
    rig : LineRig or DownriggerRig
        The tackle.
    speed_mps : float
        Speed through water, m/s.
    water : Water
        Density and viscosity.
    calibration : Calibration
        What is believed of it.
    doubts : {'none', 'quick', 'full'}
        Whether to say how sure it is, and whether to first order only: half the work, for a band
        that is redrawn while a finger moves.
    """

    rig: Rig
    speed_mps: float
    water: Water
    calibration: Calibration
    doubts: Doubts = "full"
    _whole: Solved | None = field(default=None, repr=False)
    _numbers: dict[float, float] = field(default_factory=dict, repr=False)

    @property
    def solved(self) -> Solved:
        """The rig with its calibrated inputs, for every number."""
        if self._whole is None:
            self._whole = self.rig.solve(self.speed_mps, self.water, self.calibration.shift())
        return self._whole

    def _length(self, setting_m: float) -> float:
        longest = self.rig.longest_m
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
        First-order reliability: the slopes say in which direction of all inputs together the depth
        changes fastest for its likelihood; the rig is solved again that far to either side, at the
        tenth and the ninetieth per cent. So the band is lopsided where the depth is: near the
        surface, and where a ball cannot hang deeper than its cable is long. A lure at the surface
        has no slope: there the direction is the one that most likely pulls it under.

        References
        ----------
        Hasofer, A.M., Lind, N.C. (1974). Exact and invariant second-moment code format. J. Eng.
        Mech. Div. ASCE 100, 111-121. From memory.
        """
        self.rig.check_number(setting_m)
        length = self._wet(setting_m)
        # Always this far and no further, or a depth would hang on what was asked before it.
        solved = self._solve({}, length)
        placement = replace(solved.place(length, picture=picture), setting_m=setting_m)
        depth = placement.depth_m
        if self.doubts == "none":
            return placement, DepthEstimate(depth_m=depth, shallow_m=depth, deep_m=depth)
        slopes = solved.slopes(length)
        if self.doubts == "quick" and slopes is not None and depth > 0.0:
            # To first order in the logarithm of the depth, so that no band begins in the air.
            off = math.exp(math.fsum(
                by * slopes.get(name, 0.0) for name, by in self._moved(slopes).items()
            ) / depth)
            return placement, DepthEstimate(
                depth_m=depth, shallow_m=depth / off, deep_m=depth * off
            )
        if slopes is None:
            slopes = solved.sinking()
        moved = self._moved(slopes)
        deep = max(self._depth(moved, length), depth)
        shallow = min(self._depth({name: -by for name, by in moved.items()}, length), depth)
        return placement, DepthEstimate(depth_m=depth, shallow_m=shallow, deep_m=deep)

    def _solve(self, moved: dict[str, float], length_m: float) -> Solved:
        return self.rig.solve(
            self.speed_mps, self.water, self.calibration.shift(moved), reach_m=length_m,
            tolerance=BAND_TOLERANCE if moved else WATER_TOLERANCE,
        )

    def _moved(self, slopes: Slopes) -> dict[str, float]:
        """How far all inputs go together to the ninetieth per cent of the depth."""
        spread = [
            math.fsum(
                row[j] * slopes.get(name, 0.0) for j, name in enumerate(PARAMETERS)
            )
            for row in self.calibration.covariance
        ]
        by_speed = slopes.get("speed_mps", 0.0)
        spread.append(self.calibration.speed_mps**2 * by_speed)
        variance = math.fsum(
            value * slopes.get(name, 0.0) for value, name in zip(spread, _NAMES, strict=True)
        )
        if variance <= 0.0:
            return {}
        scale = DOUBT_QUANTILE / math.sqrt(variance)
        return {name: scale * value for value, name in zip(spread, _NAMES, strict=True)}

    def _depth(self, moved: dict[str, float], length_m: float) -> float:
        """Depth, m, with the inputs moved; a clip that this lifts out of the water is at 0."""
        length = min(length_m * math.exp(moved.get("setting", 0.0)), self.rig.longest_m)
        try:
            return self._solve(moved, length).place(length, picture=False).depth_m
        except InvalidInputError:
            return 0.0

    def turned(
        self, setting_m: float, *, radius_m: float, tip_radius_m: float,
        cut_share: float | None = None,
    ) -> TurnedLine:
        """Return how the line fares in a steady turn.

        Parameters
        ----------
        setting_m : float
            The number set, m.
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
            If number or radius cannot be.
        """
        self.rig.check_number(setting_m)
        more = {} if cut_share is None else {"cut_share": cut_share}
        return turn_line(
            self.rig, self._wet(setting_m), speed_mps=self.speed_mps, water=self.water,
            radius_m=radius_m, tip_radius_m=tip_radius_m, shift=self.calibration.shift(), **more,
        )

    def lag_s(self, setting_m: float) -> float:
        """Return how long the lure's depth takes to follow a change of speed.

        Parameters
        ----------
        setting_m : float
            The number set, m.

        Returns
        -------
        float
            s: about two thirds of the change are done by then.
        """
        length = self._wet(setting_m)
        return self._solve({}, length).lag_s(length)

    def _wet(self, setting_m: float) -> float:
        """The length that a number stands for, or the number itself where its clip would be dry."""
        length = self._length(setting_m)
        try:
            self.rig.check_number(length)
        except InvalidInputError:
            return setting_m
        return length

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
        # The same few depths are asked for at each look: marks, and the method of the hour.
        if depth_m not in self._numbers:
            if len(self._numbers) >= _MOST_NUMBERS:
                self._numbers.clear()
            self._numbers[depth_m] = (
                self.solved.setting_for(depth_m) / self.calibration.setting_factor
            )
        return self._numbers[depth_m]


def solve_with_doubt(
    rig: Rig, speed_mps: float, water: Water, calibration: Calibration | None = None, *,
    doubts: Doubts = "full",
) -> DoubtfulRig:
    """Return a rig at a speed, ready to say depths and how sure they are.

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
    doubts : {'none', 'quick', 'full'}
        Whether to say how sure it is: one solution, one and a pass, or three and a pass.

    Returns
    -------
    DoubtfulRig

    References
    ----------
    Hasofer, A.M., Lind, N.C. (1974). Exact and invariant second-moment code format. J. Eng.
    Mech. Div. ASCE 100, 111-121. From memory.
    """
    believed = Calibration.prior(spread_for(rig)) if calibration is None else calibration
    return DoubtfulRig(rig, speed_mps, water, believed, doubts)
