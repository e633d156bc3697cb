"""Drag of cylinders and spheres: the coefficients all line models share, with their sources."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

from ..checks import require_number


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

    cn_inertial: float = 1.0
    cn_viscous: float = 10.0
    ct: float = 0.015

    def normal_coefficient(self, reynolds_normal: float) -> float:
        """Return Cn at a Reynolds number formed with the normal velocity.

        Parameters
        ----------
        reynolds_normal : float
            Normal velocity times diameter over kinematic viscosity, > 0.

        Returns
        -------
        float
        """
        return float(self.cn_inertial + self.cn_viscous * reynolds_normal ** (-2.0 / 3.0))


LINE_DRAG: Final = CylinderDrag()
"""The one law for every line of the program; no line has constants of its own."""


def sphere_drag_coefficient(reynolds: float) -> float:
    """Return the drag coefficient of a smooth sphere.

    Parameters
    ----------
    reynolds : float
        Speed times diameter over kinematic viscosity, > 0, valid to 3e5.

    Returns
    -------
    float

    Raises
    ------
    InvalidInputError
        If the Reynolds number is not positive.

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
    return float(24.0 / re * (1.0 + 0.15 * re**0.687) + 0.42 / (1.0 + 42500.0 * re**-1.16))
