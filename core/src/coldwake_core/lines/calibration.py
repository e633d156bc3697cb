"""Calibration from the water: what a line's readings say of its effective parameters.

"It touched bottom in 31 ft with 4 colours at 1.4 mph"; "sonar shows the ball at 40 with 43 on the
counter". The physical values are the prior; each reading moves them a little, an odd one hardly.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from typing import Final, Literal

from ..checks import require_number
from ..errors import InvalidInputError
from ..numerics.linear import Matrix, inverse, quadratic_form
from ..sonar.cone import Sounder
from ..water.fresh import Water
from .assumed import SPREADS
from .downrigger import DownriggerRig
from .pulls import Shift, Slopes
from .rigs import Rig

PARAMETERS: Final = (
    "line_drag", "strumming", "weight", "setting", "body_drag", "body_lift", "buoyancy",
    "plate_lever",
)
"""Logarithms of factors on the physical values, in the order of every vector and matrix here."""

READING_SPREAD_M: Final = 0.3
"""How well a depth is read on the water, one standard deviation, m: a foot (judged)."""
READING_SPREAD_SHARE: Final = 0.02
STUDENT_FREEDOM: Final = 4.0
"""Degrees of freedom of the readings' errors: few, so that one odd reading cannot ruin a line
(Lange, Little & Taylor 1989, J. Am. Stat. Assoc. 84, 881-896: t errors, fitted by reweighting)."""
GROSS: Final = 2.3
"""Standard deviations from what the other readings expect at which one contradicts them."""

_ROUNDS: Final = 4
_INNER: Final = 6
COUNTER_SPREAD: Final = 0.05
"""A cable's counter goes by a pulley: a ball at 40 ft with 43 on it is common practice."""
BALL_SPREAD: Final = 0.02
LINE_SPREAD: Final = 0.03
"""Weights of balls and of plain line are known well (judged)."""


@dataclass(frozen=True, slots=True, kw_only=True)
class InputSpread:
    """Standard deviations of what goes into a line; each with its reason in assumed.SPREADS.

    Parameters
    ----------
    speed_mps : float
        Speed through water, m/s.
    line_drag, strumming, weight, setting, body_drag, body_lift, buoyancy, plate_lever : float
        Of the logarithms of the factors, so near enough relative.
    """

    speed_mps: float = SPREADS["speed_mps"].value
    line_drag: float = SPREADS["line_drag"].value
    strumming: float = SPREADS["strumming"].value
    weight: float = SPREADS["weight"].value
    setting: float = SPREADS["setting"].value
    body_drag: float = SPREADS["body_drag"].value
    body_lift: float = SPREADS["body_lift"].value
    buoyancy: float = SPREADS["buoyancy"].value
    plate_lever: float = SPREADS["plate_lever"].value


STATED_SPREAD: Final = InputSpread()


def spread_for(rig: Rig) -> InputSpread:
    """Return how sure the inputs of a rig are before any reading.

    Parameters
    ----------
    rig : LineRig or DownriggerRig
        The tackle.

    Returns
    -------
    InputSpread
        Leadcore is as unsure of its weight as SPREADS says unless it was weighed; a cable is sure
        of its ball and less of its counter.
    """
    if isinstance(rig, DownriggerRig):
        return replace(STATED_SPREAD, weight=BALL_SPREAD, setting=COUNTER_SPREAD)
    materials = [material for material, _ in rig.stretches]
    if any(material.core_diameter_m > 0.0 and not material.weighed for material in materials):
        return STATED_SPREAD
    return replace(STATED_SPREAD, weight=LINE_SPREAD)


@dataclass(frozen=True, slots=True)
class Calibration:
    """What is believed of a line: departures from the physical values, and how surely.

    Parameters
    ----------
    means : tuple of float, length 8
        Logarithms of factors, in the order of PARAMETERS.
    covariance : tuple of tuple of float, 8 by 8
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

    def shift(self, moved: Mapping[str, float] | None = None) -> Shift:
        """Return the inputs as they are believed, or moved from that.

        Parameters
        ----------
        moved : mapping of str to float, optional
            What to add to the logarithms, by name; ``speed_mps`` is added to the speed, m/s.

        Returns
        -------
        Shift
        """
        more = moved or {}
        return Shift(
            speed_mps=more.get("speed_mps", 0.0),
            **{
                name: math.exp(mean + more.get(name, 0.0))
                for name, mean in zip(PARAMETERS, self.means, strict=True) if name != "setting"
            },
        )

    def with_another_body(self) -> Calibration:
        """Return what is believed when another lure hangs on the same line.

        Returns
        -------
        Calibration
            What was learnt of the line stays; the new lure is as unknown as any.
        """
        own = tuple(
            index for index, name in enumerate(PARAMETERS)
            if name in ("body_drag", "body_lift", "buoyancy", "plate_lever")
        )
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
        return math.exp(self.means[PARAMETERS.index("setting")])


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
    sounder : Sounder or None
        Where the sonar looked from that showed a ball: its reading is a slant range. None for a
        depth by touch.
    boom_aft_m : float
        Boom's end behind the transom, m.
    """

    id: str
    rig: Rig
    setting_m: float
    speed_mps: float
    depth_m: float
    of: Literal["lure", "ball"] = "lure"
    sounder: Sounder | None = None
    boom_aft_m: float = 0.0

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
        Depth seen, expected now, and expected before any reading, m; of a ball on the sonar the
        slant range that it shows.
    weight : float
        How much it counts, 0 to 1.25; an odd one little.
    contradicts : bool
        Whether it is grossly against what all the other readings and physics expect.
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
    readings: Sequence[DepthReading], water: Water, spread: InputSpread | None = None
) -> LineFit:
    """Return what a line's readings say of it, with the physical values as prior.

    Parameters
    ----------
    readings : sequence of DepthReading
        What was seen; none gives the prior.
    water : Water
        Density and viscosity.
    spread : InputSpread, optional
        Standard deviations of the inputs before any reading; those of the first reading's rig when
        left out.

    Returns
    -------
    LineFit

    Raises
    ------
    InvalidInputError
        If a reading cannot be.

    Notes
    -----
    Maximum a posteriori by Gauss-Newton, linearised anew about each solution; errors of readings
    are Student-t, fitted by reweighting. The covariance takes the expected information of a t
    error, (f + 1) / (f + 3), and not the weights it happened to get, which say too much (Lange,
    Little & Taylor 1989). The doubt of the speed of a reading goes into its own error. A reading is
    held against the fit of all the others: one that lies is found by them, and an honest one is not
    blamed for an odd line. What contradicts them is left out of the fit, the worst first, and the
    rest held against each other again; two readings that contradict each other both stay.

    References
    ----------
    Tarantola, A. (2005). Inverse Problem Theory, ch. 3: least squares with a prior, relinearised.
    From memory.
    """
    for reading in readings:
        reading.check()
    if not readings:
        return LineFit(calibration=Calibration.prior(spread or STATED_SPREAD))
    prior = Calibration.prior(spread or spread_for(readings[0].rig))
    physics = [_Linear.of(reading, prior, prior.means, water) for reading in readings]
    linear, calibration, weights = physics, prior, [1.0] * len(readings)
    for _ in range(_ROUNDS):
        before = calibration.means
        calibration, weights = _posterior(linear, prior, weights)
        if max(abs(a - b) for a, b in zip(before, calibration.means, strict=True)) < 1e-3:
            break
        linear = [_Linear.of(reading, prior, calibration.means, water) for reading in readings]
    odd = _odd_ones(linear, prior)
    if odd:
        kept = [line for index, line in enumerate(linear) if index not in odd]
        calibration, _ = _posterior(kept, prior, [1.0] * len(kept))
    return LineFit(calibration=calibration, residuals=tuple(
        Residual(
            reading_id=reading.id, seen_m=reading.depth_m,
            expected_m=now.at(calibration.means), physics_m=untaught.expected_m,
            weight=0.0 if index in odd else weight, contradicts=index in odd,
        )
        for index, (reading, now, untaught, weight) in enumerate(
            zip(readings, linear, physics, weights, strict=True)
        )
    ))


@dataclass(frozen=True, slots=True)
class _Linear:
    """A reading linearised about some means: what is expected there and what moves it."""

    reading: DepthReading
    expected_m: float
    slopes: tuple[float, ...]
    about: tuple[float, ...]
    variance: float

    @classmethod
    def of(
        cls, reading: DepthReading, prior: Calibration, about: tuple[float, ...], water: Water
    ) -> _Linear:
        believed = replace(prior, means=about)
        expected, slopes = predict(reading, believed, water)
        by_speed = slopes.get("speed_mps", 0.0) * prior.speed_mps
        return cls(
            reading, expected, tuple(slopes.get(name, 0.0) for name in PARAMETERS), about,
            reading.spread_m**2 + by_speed * by_speed,
        )

    def at(self, means: tuple[float, ...]) -> float:
        """Depth expected with other means, to first order, m."""
        return self.expected_m + math.fsum(
            slope * (mean - about)
            for slope, mean, about in zip(self.slopes, means, self.about, strict=True)
        )


def predict(
    reading: DepthReading, calibration: Calibration, water: Water
) -> tuple[float, Slopes]:
    """Return what a reading should show, and the slopes of that.

    Parameters
    ----------
    reading : DepthReading
        What was out and what was looked at.
    calibration : Calibration
        What is believed of the line.
    water : Water
        Density and viscosity.

    Returns
    -------
    (float, dict of str to float)
        Depth, m (a slant range for a ball on the sonar), and its slopes as `SolvedLine.slopes`
        gives them; none for what is at the surface.

    Raises
    ------
    InvalidInputError
        If a ball was read on a line that has none.

    References
    ----------
    Tarantola, A. (2005). Inverse Problem Theory, ch. 3. From memory.
    """
    length = reading.setting_m * calibration.setting_factor
    length = min(length, reading.rig.longest_m)
    solved = reading.rig.solve(
        reading.speed_mps, water, calibration.shift(), reach_m=length
    )
    place = solved.place(length, picture=False)
    if reading.of == "lure":
        return place.depth_m, solved.slopes(length) or {}
    if place.ball_depth_m is None or place.ball_trail_m is None:
        raise InvalidInputError("of", "ball", "lure: this line has no ball")
    depth = solved.slopes(length, of="ball") or {}
    if reading.sounder is None:
        return place.ball_depth_m, depth
    behind = place.ball_trail_m + reading.boom_aft_m
    shown = reading.sounder.shows(depth_m=place.ball_depth_m, behind_m=behind)
    trail = solved.slopes(length, of="ball_trail") or {}
    range_m = max(shown.reads_m - reading.sounder.depth_m, 1e-6)
    down = (place.ball_depth_m - reading.sounder.depth_m) / range_m
    along = (behind + reading.sounder.ahead_m) / range_m
    return shown.reads_m, {
        name: down * depth.get(name, 0.0) + along * trail.get(name, 0.0)
        for name in depth.keys() | trail.keys()
    }


def _posterior(
    linear: Sequence[_Linear], prior: Calibration, weights: Sequence[float]
) -> tuple[Calibration, list[float]]:
    """Means and covariance of linearised readings, and the weights they end with."""
    size = range(len(PARAMETERS))
    precision = inverse(prior.covariance)
    last = list(weights)
    information = (STUDENT_FREEDOM + 1.0) / (STUDENT_FREEDOM + 3.0)

    def gathered(strengths: Sequence[float]) -> Matrix:
        return tuple(
            tuple(
                precision[i][j] + math.fsum(
                    strength * line.slopes[i] * line.slopes[j]
                    for line, strength in zip(linear, strengths, strict=True)
                )
                for j in size
            )
            for i in size
        )

    means = prior.means
    for _ in range(_INNER):
        strengths = [
            weight / line.variance for line, weight in zip(linear, last, strict=True)
        ]
        covariance = inverse(gathered(strengths))
        right = [
            math.fsum(
                strength * line.slopes[i] * (
                    line.reading.depth_m - line.at((0.0,) * len(PARAMETERS))
                )
                for line, strength in zip(linear, strengths, strict=True)
            )
            for i in size
        ]
        means = tuple(math.fsum(covariance[i][j] * right[j] for j in size) for i in size)
        last = [
            (STUDENT_FREEDOM + 1.0)
            / (STUDENT_FREEDOM + (line.reading.depth_m - line.at(means)) ** 2 / line.variance)
            for line in linear
        ]
    # An odd reading tells little: expected information for those that fit, their weight for others;
    # and all tell less where they agree with each other worse than they should (Birge 1932).
    scatter = math.fsum(
        (line.reading.depth_m - line.at(means)) ** 2 / line.variance for line in linear
    ) / len(linear)
    told = [
        information * min(weight, 1.0) / (line.variance * max(scatter, 1.0))
        for line, weight in zip(linear, last, strict=True)
    ]
    return Calibration(means, inverse(gathered(told)), prior.speed_mps), last


def _odd_ones(linear: Sequence[_Linear], prior: Calibration) -> set[int]:
    """Which readings are far from what all the others and physics expect of them."""
    odd: set[int] = set()
    # Most must agree: with one other reading nobody knows which of the two lies.
    while len(linear) - len(odd) > 2:
        kept = [index for index in range(len(linear)) if index not in odd]
        off = {}
        for index in kept:
            others = [linear[other] for other in kept if other != index]
            believed, _ = _posterior(others, prior, [1.0] * len(others))
            line = linear[index]
            variance = quadratic_form(line.slopes, believed.covariance) + line.variance
            off[index] = abs(line.reading.depth_m - line.at(believed.means)) / math.sqrt(variance)
        worst = max(off, key=off.__getitem__)
        if off[worst] <= GROSS:
            break
        odd.add(worst)
    return odd
