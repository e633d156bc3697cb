"""Drag of lines and spheres: the laws all line models share, with their sources."""

from __future__ import annotations

import math
from dataclasses import dataclass
from math import log
from typing import Final

from ..checks import require_number
from ..errors import InvalidInputError
from ..water.fresh import Water
from . import assumed

SPHERE_VALID_TO_RE: Final = 3e5
"""Beyond it the boundary layer of a smooth sphere turns turbulent and the correlation ends."""


@dataclass(frozen=True, slots=True, kw_only=True)
class CylinderDrag:
    """Drag law of a long cylinder at any angle to the flow (cross-flow principle).

    The normal drag per length is ``0.5 rho d Cn(Re_n) Un |Un|`` with
    ``Cn = cn_inertial + cn_viscous * Re_n**(-2/3)`` and ``Re_n`` formed with the normal velocity;
    the tangential drag per length is ``0.5 rho ct pi d Ut |Ut|``.

    Parameters
    ----------
    cn_inertial : float
        Coefficient at large Reynolds number.
    cn_viscous : float
        Weight of the viscous part; 0 gives a constant coefficient.
    ct : float
        Tangential coefficient on the wetted surface.
    strum_share : float
        Share of the published strumming drag that a line has; 0 for a line held still.

    Notes
    -----
    The law matters for thin line at a shallow angle, where ``Re_n`` is 5-50 and Cn is 2-4 and not
    the 1.1 of a broadside rope. Valid for 1 < Re_n < 2e5; below that the force itself is so small
    that its error is of no account.

    References
    ----------
    White, F.M. (1991). Viscous Fluid Flow, 2nd ed.: Cn = 1 + 10 Re**(-2/3). From memory.
    Hoerner, S.F. (1965). Fluid-Dynamic Drag, ch. 3: cross-flow principle.
    Berteaux, H.O. (1976). Buoy Engineering: ct 0.01-0.02 of the wetted surface. From memory.
    """

    cn_inertial: float = assumed.CN_INERTIAL.value
    cn_viscous: float = assumed.CN_VISCOUS.value
    ct: float = assumed.CT.value
    strum_share: float = assumed.STRUM_SHARE.value


LINE_DRAG: Final = CylinderDrag()
"""The one law for every line of the program; no line has constants of its own."""

_ONSET: Final = assumed.VORTEX_ONSET_RE.value
_RAMP: Final = assumed.VORTEX_FULL_RE.value - _ONSET
_A_SCALE: Final = math.log10(assumed.AMPLITUDE_SCALE.value)
_A_POWER: Final = assumed.AMPLITUDE_POWER.value
_FULL: Final = assumed.VORTEX_FULL_RE.value
_A_NATURAL: Final = math.log(assumed.AMPLITUDE_SCALE.value) / _A_POWER
_STRUM: Final = assumed.STRUM_FACTOR.value * math.sqrt(2.0) ** assumed.STRUM_POWER.value
_STRUM_POWER: Final = assumed.STRUM_POWER.value


def strum_amplitude(reynolds_normal: float, *, mass_damping: float = 0.0) -> float:
    """Return the amplitude of a cylinder that strums in lock-in, over its diameter.

    Parameters
    ----------
    reynolds_normal : float
        Normal velocity times diameter over kinematic viscosity, >= 0.
    mass_damping : float
        ``(m* + 1) zeta``: mass over displaced mass, and added mass, times the damping ratio.

    Returns
    -------
    float
        0 below vortex shedding.

    Notes
    -----
    ``A* = (1 - 1.12 a + 0.30 a**2) log10(0.41 Re**0.36)`` with ``a`` the mass-damping, measured for
    500 < Re < 33 000 and taken down to the onset of shedding, where amplitudes of 0.4-0.6 were
    measured and computed at Re 100-150. Valid for ``a`` up to 1, and held at that beyond.

    References
    ----------
    Govardhan, R.N., Williamson, C.H.K. (2006). Defining the 'modified Griffin plot' in
    vortex-induced vibration. J. Fluid Mech. 561, 147-180. From memory.
    """
    if reynolds_normal <= _ONSET:
        return 0.0
    return _damped(mass_damping) * (_A_SCALE + _A_POWER * math.log10(reynolds_normal))


def _damped(mass_damping: float) -> float:
    alpha = min(mass_damping, 1.0)
    return 1.0 - 1.12 * alpha + 0.30 * alpha * alpha


def strum_excess(reynolds_normal: float, *, mass_damping: float = 0.0) -> float:
    """Return by how much full strumming raises mean normal drag, over the drag without it.

    Parameters
    ----------
    reynolds_normal : float
        Normal velocity times diameter over kinematic viscosity, >= 0.
    mass_damping : float
        See `strum_amplitude`.

    Returns
    -------
    float
        0 below vortex shedding; a line has a share of it (`CylinderDrag.strum_share`).

    Notes
    -----
    ``1.043 (2 Yrms / D)**0.65`` with ``2 Yrms / D = sqrt(2) A*`` for a sinusoid, rising smoothly
    from nothing at the onset of shedding, Re 47, to the whole at Re 80.

    References
    ----------
    Vandiver, J.K. (1983). Drag coefficients of long flexible cylinders. Offshore Technology
    Conference 4490. Skop, R.A., Griffin, O.M., Ramberg, S.E. (1977). Strumming predictions for the
    Seacon II experimental mooring. OTC 2884. Both from memory.

    Examples
    --------
    >>> strum_excess(40.0)
    0.0
    >>> round(strum_excess(500.0), 2)
    0.92
    """
    amplitude = strum_amplitude(reynolds_normal, mass_damping=mass_damping)
    if amplitude <= 0.0:
        return 0.0
    share = min((reynolds_normal - _ONSET) / _RAMP, 1.0)
    return float(share * share * (3.0 - 2.0 * share) * _STRUM * amplitude**_STRUM_POWER)


class LineLaw:
    """The drag of one stretch of line at one speed, per length, as its angle changes.

    Parameters
    ----------
    diameter_m : float
        Diameter, m.
    drag_factor : float
        Multiplies the normal drag.
    strum_factor : float
        Multiplies what strumming adds.
    mass_damping : float
        See `strum_amplitude`.
    speed_mps : float
        Speed through water, m/s, >= 0.
    water : Water
        Density and viscosity.
    drag : CylinderDrag
        Drag law.

    Notes
    -----
    With ``a`` the normal share of the velocity (the sine of the angle in straight tow) the normal
    drag is ``(inertial a**2 + viscous a**(4/3)) (1 + excess(re a))``, N/m.
    """

    __slots__ = ("_full", "inertial", "onset", "re", "speed_mps", "tangential", "viscous")

    def __init__(
        self, *, diameter_m: float, drag_factor: float, strum_factor: float, mass_damping: float,
        speed_mps: float, water: Water, drag: CylinderDrag = LINE_DRAG,
    ) -> None:
        q = 0.5 * water.density_kgpm3 * speed_mps * speed_mps
        normal = q * diameter_m * drag_factor
        self.speed_mps = speed_mps
        self.re = speed_mps * diameter_m / water.viscosity_m2ps
        self.inertial = normal * drag.cn_inertial
        self.viscous = (
            normal * drag.cn_viscous * self.re ** (-2.0 / 3.0)
            if drag.cn_viscous > 0.0 and speed_mps > 0.0 else 0.0
        )
        self.tangential = q * drag.ct * math.pi * diameter_m
        share = drag.strum_share * strum_factor
        self._full = share * _STRUM * (
            _damped(mass_damping) * _A_POWER / math.log(10.0)
        ) ** _STRUM_POWER
        self.onset = _ONSET / self.re if self.re > 0.0 and share > 0.0 else math.inf

    def excess(self, a: float) -> float:
        """Return what strumming adds, over the drag without it, at a normal share >= 0."""
        if a <= self.onset:
            return 0.0
        # strum_excess written out: this runs in the innermost loop.
        re = self.re * a
        excess = self._full * (_A_NATURAL + log(re)) ** _STRUM_POWER
        if re < _FULL:
            share = (re - _ONSET) / _RAMP
            excess *= share * share * (3.0 - 2.0 * share)
        return float(excess)

    def normal(self, a: float) -> float:
        """Return the normal drag, N/m, at a normal share of the velocity >= 0."""
        still = self.inertial * a * a + self.viscous * a ** (4.0 / 3.0)
        return float(still * (1.0 + self.excess(a)))

    def slopes(self, a: float) -> tuple[float, float, float]:
        """Return normal drag, its share from strumming, and ``a`` times its slope in ``a``.

        Parameters
        ----------
        a : float
            Normal share of the velocity, >= 0.

        Returns
        -------
        (float, float, float)
            N/m each. Drag hangs on speed times ``a`` alone, so the last is its slope in the
            logarithm of the speed as well.
        """
        inertial, viscous = self.inertial * a * a, self.viscous * a ** (4.0 / 3.0)
        still = inertial + viscous
        rising = 2.0 * inertial + 4.0 / 3.0 * viscous
        if a <= self.onset:
            return still, 0.0, rising
        extra = self.excess(a)
        re = self.re * a
        # The excess goes with the power of a logarithm of Re, and over the ramp with the ramp.
        bend = extra * _STRUM_POWER / (_A_NATURAL + log(re))
        if re < _FULL:
            bend += extra * re * 6.0 * (_FULL - re) / (
                (re - _ONSET) * (3.0 * _RAMP - 2.0 * (re - _ONSET))
            )
        return still * (1.0 + extra), still * extra, rising * (1.0 + extra) + still * bend


def sphere_drag_coefficient(reynolds: float) -> float:
    """Return the drag coefficient of a smooth sphere.

    Parameters
    ----------
    reynolds : float
        Speed times diameter over kinematic viscosity, > 0, at most 3e5.

    Returns
    -------
    float

    Raises
    ------
    InvalidInputError
        If the Reynolds number is not positive, or past the drag crisis.

    References
    ----------
    Clift, R., Gauvin, W.H. (1971). Motion of entrained particles in gas streams. Can. J. Chem.
    Eng. 49, 439-448.

    Examples
    --------
    >>> round(sphere_drag_coefficient(70_000.0), 2)
    0.49
    """
    re = require_number("reynolds", reynolds, above=0.0)
    if re > SPHERE_VALID_TO_RE:
        raise InvalidInputError(
            "reynolds", f"{re:.0f}",
            "a slower tow or a smaller ball: past 300 000 the drag of a sphere is not known",
        )
    return float(24.0 / re * (1.0 + 0.15 * re**0.687) + 0.42 / (1.0 + 42500.0 * re**-1.16))
