"""Calibration from the water: what a line's readings say of its effective parameters.

"It touched bottom in 31 ft with 4 colours at 1.4 mph"; "sonar shows the ball at 40 with 43 on the
counter". The physical values are the prior; each reading moves them a little, an odd one hardly.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import Final, Literal

from ..checks import require_number
from ..errors import InvalidInputError
from ..water.fresh import Water
from .linear import Matrix, inverse, quadratic_form
from .linerig import Shift
from .rigs import Rig

PARAMETERS: Final = ("line_drag", "weight", "setting", "body_drag", "body_lift")
"""Relative departures from the physical values, in the order of every vector and matrix here."""

READING_SPREAD_M: Final = 0.3
"""How well a depth is read on the water, one standard deviation, m: a foot (judged)."""
READING_SPREAD_SHARE: Final = 0.02
STUDENT_FREEDOM: Final = 4.0
"""Degrees of freedom of the readings' errors: few, so that one odd reading cannot ruin a line
(Lange, Little & Taylor 1989, J. Am. Stat. Assoc. 84, 881-896: t errors, fitted by reweighting)."""
GROSS: Final = 3.0
"""Standard deviations from what physics expects at which a reading is said to contradict it."""

_ROUNDS: Final = 6
STEP: Final = 0.05
"""By how much a parameter is moved to see what hangs on it."""


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
        Error of the number itself, relative: stretch, spooling, counting colours, and counters that
        go by a pulley (a ball at 40 ft with 43 on the counter is common practice).
    """

    speed_mps: float = 0.045
    line_drag: float = 0.15
    body_drag: float = 0.20
    body_lift: float = 0.30
    weight: float = 0.03
    setting: float = 0.03


STATED_SPREAD: Final = InputSpread()


@dataclass(frozen=True, slots=True)
class Calibration:
    """What is believed of a line: departures from the physical values, and how surely.

    Parameters
    ----------
    means : tuple of float, length 5
        Relative departures, in the order of PARAMETERS.
    covariance : tuple of tuple of float, 5 by 5
        Their covariance.
    speed_mps : float
        Standard deviation of the speed, m/s.
    """

    means: tuple[float, ...]
    covariance: Matrix
    speed_mps: float

    @classmethod
    def prior(cls, spread: InputSpread = STATED_SPREAD) -> Calibration:
        """Return what is believed before any reading.

        Parameters
        ----------
        spread : InputSpread
            Standard deviations of the inputs.

        Returns
        -------
        Calibration
        """
        deviations = [getattr(spread, name) for name in PARAMETERS]
        size = range(len(PARAMETERS))
        return cls(
            means=(0.0,) * len(PARAMETERS),
            covariance=tuple(
                tuple(deviations[i] ** 2 if i == j else 0.0 for j in size) for i in size
            ),
            speed_mps=spread.speed_mps,
        )

    def shift(self, *, moved: int | None = None, speed_mps: float = 0.0) -> Shift:
        """Return the inputs as they are believed, with one of them moved a step.

        Parameters
        ----------
        moved : int, optional
            Which parameter to move by 0.05.
        speed_mps : float
            Added to the speed, m/s.

        Returns
        -------
        Shift
        """
        values = [1.0 + mean for mean in self.means]
        if moved is not None:
            values[moved] += STEP
        factors = dict(zip(PARAMETERS, values, strict=True))
        del factors["setting"]
        # A factor that has lost its sign would be no line at all.
        return Shift(
            speed_mps=speed_mps, coarse=moved is not None or speed_mps != 0.0,
            **{name: max(value, 0.1) for name, value in factors.items()},
        )

    def with_another_body(self) -> Calibration:
        """Return what is believed when another lure hangs on the same line.

        Returns
        -------
        Calibration
            What was learnt of the line stays; the new lure is as unknown as any.
        """
        own = tuple(index for index, name in enumerate(PARAMETERS) if name.startswith("body_"))
        prior = Calibration.prior().covariance
        size = range(len(PARAMETERS))
        return Calibration(
            means=tuple(0.0 if i in own else mean for i, mean in enumerate(self.means)),
            covariance=tuple(
                tuple(prior[i][j] if i in own or j in own else self.covariance[i][j] for j in size)
                for i in size
            ),
            speed_mps=self.speed_mps,
        )

    @property
    def setting_factor(self) -> float:
        """What the number is multiplied by to get the length."""
        return 1.0 + self.means[PARAMETERS.index("setting")]


@dataclass(frozen=True, slots=True, kw_only=True)
class DepthReading:
    """A depth seen on the water.

    Parameters
    ----------
    id : str
        Its key.
    rig : LineRig or DownriggerRig
        What was out.
    setting_m : float
        The number that was set, m.
    speed_mps : float
        Speed through water, m/s.
    depth_m : float
        The depth seen, m.
    of : {'lure', 'ball'}
        What was seen there.
    """

    id: str
    rig: Rig
    setting_m: float
    speed_mps: float
    depth_m: float
    of: Literal["lure", "ball"] = "lure"

    def check(self) -> None:
        """Raise InvalidInputError unless it could be read."""
        require_number("setting_m", self.setting_m, above=0.0, unit="m")
        require_number("speed_mps", self.speed_mps, low=0.0, high=5.0, unit="m/s")
        require_number("depth_m", self.depth_m, above=0.0, high=300.0, unit="m")
        if self.depth_m > self.setting_m * 1.25 + 1.0:
            raise InvalidInputError(
                "depth_m", round(self.depth_m, 2),
                f"less than the line out ({self.setting_m:.1f} m)", high=self.setting_m,
            )

    @property
    def spread_m(self) -> float:
        """How well it was read, one standard deviation, m."""
        return math.hypot(READING_SPREAD_M, READING_SPREAD_SHARE * self.depth_m)


@dataclass(frozen=True, slots=True, kw_only=True)
class Residual:
    """A reading against the line as it is believed now.

    Parameters
    ----------
    reading_id : str
        The reading.
    seen_m, expected_m, physics_m : float
        Depth seen, expected now, and expected before any reading, m.
    weight : float
        How much it counts, 0 to 1.25; an odd one little.
    contradicts : bool
        Whether it is grossly against physics.
    """

    reading_id: str
    seen_m: float
    expected_m: float
    physics_m: float
    weight: float
    contradicts: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class LineFit:
    """A line after its readings.

    Parameters
    ----------
    calibration : Calibration
        What is believed now.
    residuals : tuple of Residual
        One a reading, in their order.
    """

    calibration: Calibration
    residuals: tuple[Residual, ...] = field(default=())


def fit_line(
    readings: Sequence[DepthReading], water: Water, spread: InputSpread = STATED_SPREAD
) -> LineFit:
    """Return what a line's readings say of it, with the physical values as prior.

    Parameters
    ----------
    readings : sequence of DepthReading
        What was seen; none gives the prior.
    water : Water
        Density and viscosity.
    spread : InputSpread
        Standard deviations of the inputs before any reading.

    Returns
    -------
    LineFit

    Raises
    ------
    InvalidInputError
        If a reading cannot be.

    Notes
    -----
    Maximum a posteriori by Gauss-Newton, linearised about the prior's solution; errors of readings
    are Student-t, fitted by reweighting; the posterior covariance is that of the last weights. The
    doubt of the speed of a reading goes into its own error.
    """
    prior = Calibration.prior(spread)
    for reading in readings:
        reading.check()
    if not readings:
        return LineFit(calibration=prior)
    size = range(len(PARAMETERS))
    precision = inverse(prior.covariance)
    linear = [_linearise(reading, prior, water) for reading in readings]
    calibration = prior
    weights = [1.0] * len(readings)
    for _ in range(_ROUNDS):
        matrix = [list(row) for row in precision]
        right = [0.0] * len(PARAMETERS)
        for reading, (expected, slopes, speed_sd), weight in zip(
            readings, linear, weights, strict=True
        ):
            strength = weight / (reading.spread_m**2 + speed_sd**2)
            for i in size:
                right[i] += strength * slopes[i] * (reading.depth_m - expected)
                for j in size:
                    matrix[i][j] += strength * slopes[i] * slopes[j]
        covariance = inverse(tuple(tuple(row) for row in matrix))
        means = tuple(math.fsum(covariance[i][j] * right[j] for j in size) for i in size)
        calibration = Calibration(means, covariance, prior.speed_mps)
        weights = [
            _weight(reading, expected, slopes, speed_sd, means)
            for reading, (expected, slopes, speed_sd) in zip(readings, linear, strict=True)
        ]
    return LineFit(calibration=calibration, residuals=tuple(
        Residual(
            reading_id=reading.id, seen_m=reading.depth_m,
            expected_m=_depth(reading, calibration.shift(), calibration.setting_factor, water),
            physics_m=expected, weight=weight,
            contradicts=_is_gross(reading, expected, slopes, speed_sd, prior.covariance),
        )
        for reading, (expected, slopes, speed_sd), weight in zip(
            readings, linear, weights, strict=True
        )
    ))


def _depth(reading: DepthReading, shift: Shift, setting_factor: float, water: Water) -> float:
    solved = reading.rig.solve(reading.speed_mps, water, shift)
    length = min(reading.setting_m * setting_factor, solved.longest_m)
    placement = solved.place(length, picture=False)
    if reading.of == "ball":
        if placement.ball_depth_m is None:
            raise InvalidInputError("of", "ball", "lure: this line has no ball")
        return placement.ball_depth_m
    return placement.depth_m


def _linearise(
    reading: DepthReading, prior: Calibration, water: Water
) -> tuple[float, list[float], float]:
    """Expected depth, its slope in each parameter, and what the speed's doubt does to it."""
    expected = _depth(reading, prior.shift(), 1.0, water)
    slopes = []
    for index, name in enumerate(PARAMETERS):
        if name == "setting":
            moved = _depth(reading, prior.shift(), 1.0 - STEP, water)
            slopes.append((expected - moved) / STEP)
        else:
            moved = _depth(reading, prior.shift(moved=index), 1.0, water)
            slopes.append((moved - expected) / STEP)
    faster = _depth(reading, prior.shift(speed_mps=prior.speed_mps), 1.0, water)
    return expected, slopes, abs(faster - expected)


def _weight(
    reading: DepthReading, expected: float, slopes: list[float], speed_sd: float,
    means: tuple[float, ...],
) -> float:
    found = expected + math.fsum(s * m for s, m in zip(slopes, means, strict=True))
    square = (reading.depth_m - found) ** 2 / (reading.spread_m**2 + speed_sd**2)
    return (STUDENT_FREEDOM + 1.0) / (STUDENT_FREEDOM + square)


def _is_gross(
    reading: DepthReading, expected: float, slopes: list[float], speed_sd: float, prior: Matrix
) -> bool:
    variance = quadratic_form(slopes, prior) + reading.spread_m**2 + speed_sd**2
    return abs(reading.depth_m - expected) > GROSS * math.sqrt(variance)
