"""How wind and cooling mix a column, in the manner of Price, Weller & Pinkel (1986).

Arrays are (members, layers): all members of an ensemble are mixed at once. Every step leaves the
heat and the momentum of each column as they were.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray

from ..constants import GRAVITY_MPS2
from ..water.fresh import kell_kgpm3
from .heat import Array

Mask = NDArray[np.bool_]
Index = NDArray[np.intp]

DENSITY_KGPM3: Final = 1000.0
"""Of the water, wherever a density only scales (Boussinesq)."""
BULK_RICHARDSON: Final = 0.65
"""Below it a mixed layer takes in the water under it (Price, Weller & Pinkel 1986)."""
GRADIENT_RICHARDSON: Final = 0.25
"""Below it a sheared interface breaks (Miles 1961; Price, Weller & Pinkel 1986)."""
_SMALL: Final = 1e-12
_STILL_M2PS2: Final = 1e-8
"""A tenth of a millimetre a second between two layers stirs nothing."""
_STIRS: Final = 10
"""Passes over the interfaces in a step: what is still weak then goes on in the next; eight times as
many move a surface by less than 0.1 degrees Fahrenheit (measured)."""


def density_kgpm3(temperature_degc: Array) -> Array:
    """Return the density of fresh water, element by element.

    Parameters
    ----------
    temperature_degc : ndarray
        Degrees Celsius, -1 to 45.

    Returns
    -------
    ndarray
        kg/m3.

    References
    ----------
    Kell, G.S. (1975). J. Chem. Eng. Data 20(1), 97-105.
    """
    return np.asarray(kell_kgpm3(temperature_degc))


@dataclass(slots=True)
class Column:
    """The columns of an ensemble, changed in place.

    Parameters
    ----------
    thickness_m : ndarray, (layers,)
        Thickness of each layer from the surface down, m.
    temperature_degc, east_mps, north_mps : ndarray, (members, layers)
        Temperature and current of each.
    """

    thickness_m: Array
    temperature_degc: Array
    east_mps: Array
    north_mps: Array

    @property
    def base_m(self) -> Array:
        """Depth of the foot of each layer, m."""
        return np.cumsum(self.thickness_m)

    def mix_down_to(self, layer: Index) -> None:
        """Make each member one from the surface to a layer, that layer included.

        Parameters
        ----------
        layer : ndarray of int, (members,)
            Lowest layer of the mixed part; 0 changes nothing.
        """
        self._mix(np.arange(len(self.thickness_m)) <= layer[:, None])

    def _mix(self, inside: Mask) -> None:
        """Make each member one over the layers that are inside."""
        weight = inside * self.thickness_m
        total = weight.sum(axis=1, keepdims=True)
        for field in (self.temperature_degc, self.east_mps, self.north_mps):
            mean = (field * weight).sum(axis=1, keepdims=True) / total
            np.copyto(field, mean, where=inside)

    def means(self, field: Array) -> Array:
        """Return the mean of a field from the surface to each layer."""
        return np.cumsum(field * self.thickness_m, axis=1) / self.base_m

    def convect(self) -> Index:
        """Let heavy water sink; return the lowest layer of each mixed part."""
        mean = density_kgpm3(self.means(self.temperature_degc))
        below = density_kgpm3(self.temperature_degc[:, 1:])
        # The foot of what is mixed already counts as mixed: equal densities lie in one layer.
        deep = _first(mean[:, :-1] < below - 1e-9)
        self.mix_down_to(deep)
        self._warm_from_the_bed()
        # What is heavy in between (about 4 degrees) sinks layer by layer.
        parity = np.arange(len(self.thickness_m) - 1) % 2
        for turn in range(2 * len(self.thickness_m)):
            heavy = np.diff(density_kgpm3(self.temperature_degc)) < -1e-7
            if not heavy.any():
                break
            self._stir(heavy & (parity == turn % 2), np.ones_like(self.temperature_degc[:, 1:]))
        return deep

    def _warm_from_the_bed(self) -> None:
        """Let water rise that the sun has warmed at the bottom: a mixed part from the bed up."""
        flipped = self.temperature_degc[:, ::-1] * self.thickness_m[::-1]
        from_bed = np.cumsum(flipped, axis=1) / np.cumsum(self.thickness_m[::-1])
        mean = density_kgpm3(from_bed)[:, :-1]
        above = density_kgpm3(self.temperature_degc)[:, ::-1][:, 1:]
        # The first layer from the bed up that floats on what is mixed below it.
        up_to = _first(mean > above - 1e-9)
        self._mix(np.arange(len(self.thickness_m))[::-1] <= up_to[:, None])

    def blow(
        self, deep: Index, *, stress_east_pa: Array, stress_north_pa: Array, coriolis_ps: float,
        step_s: float,
    ) -> None:
        """Drive the mixed part with the wind, and turn all currents with the earth.

        Parameters
        ----------
        deep : ndarray of int, (members,)
            Lowest layer of the mixed part.
        stress_east_pa, stress_north_pa : ndarray, (members,)
            Stress of the wind, Pa.
        coriolis_ps : float
            Coriolis parameter, 1/s.
        step_s : float
            How long, s.
        """
        inside = np.arange(len(self.thickness_m)) <= deep[:, None]
        mass = DENSITY_KGPM3 * self.base_m[deep][:, None]
        self._turn(0.5 * coriolis_ps * step_s)
        self.east_mps += inside * stress_east_pa[:, None] * step_s / mass
        self.north_mps += inside * stress_north_pa[:, None] * step_s / mass
        self._turn(0.5 * coriolis_ps * step_s)

    def _turn(self, angle_rad: float) -> None:
        cos, sin = np.cos(angle_rad), np.sin(angle_rad)
        east = self.east_mps * cos + self.north_mps * sin
        self.north_mps[:] = self.north_mps * cos - self.east_mps * sin
        self.east_mps[:] = east

    def entrain(self, deep: Index) -> Index:
        """Deepen the mixed part until its bulk Richardson number holds; return its lowest layer."""
        mean = self.means(self.temperature_degc)
        jump = density_kgpm3(self.temperature_degc[:, 1:]) - density_kgpm3(mean[:, :-1])
        east = self.east_mps[:, 1:] - self.means(self.east_mps)[:, :-1]
        north = self.north_mps[:, 1:] - self.means(self.north_mps)[:, :-1]
        number = GRAVITY_MPS2 * jump * self.base_m[:-1] / (
            DENSITY_KGPM3 * (east**2 + north**2 + _SMALL)
        )
        holds = (number >= BULK_RICHARDSON) & (np.arange(jump.shape[1]) >= deep[:, None])
        deeper = _first(holds)
        self.mix_down_to(deeper)
        return deeper

    def shear(self) -> None:
        """Stir sheared interfaces until each gradient Richardson number holds.

        Notes
        -----
        Each interface under the bound is stirred just past it, those of even number and then those
        of odd; the order of the original, lowest number first, ends in the same place one by one.
        """
        apart = 0.5 * (self.thickness_m[:-1] + self.thickness_m[1:])
        parity = np.arange(len(apart)) % 2
        for stir in range(2 * _STIRS):
            rho = density_kgpm3(self.temperature_degc)
            speed2 = np.diff(self.east_mps) ** 2 + np.diff(self.north_mps) ** 2
            number = GRAVITY_MPS2 * np.diff(rho) * apart / (DENSITY_KGPM3 * (speed2 + _SMALL))
            weak = (number < GRADIENT_RICHARDSON) & (speed2 > _STILL_M2PS2)
            if not weak.any():
                break
            weak &= parity == stir % 2
            aim = GRADIENT_RICHARDSON + 0.2 * (0.02 + 0.5 * (GRADIENT_RICHARDSON - number))
            self._stir(weak, 1.0 - number / aim)

    def _stir(self, where: Mask, share: Array) -> None:
        """Mix a share of two layers across each chosen interface; no two are neighbours."""
        upper, lower = self.thickness_m[:-1], self.thickness_m[1:]
        part = np.where(where, np.clip(share, 0.0, 1.0), 0.0)
        for field in (self.temperature_degc, self.east_mps, self.north_mps):
            gap = part * np.diff(field)
            field[:, :-1] += gap * lower / (upper + lower)
            field[:, 1:] -= gap * upper / (upper + lower)


def _first(holds: Mask) -> Index:
    """Return the first layer that holds, the last one where none does, (members,)."""
    found = holds.argmax(axis=1)
    return np.asarray(np.where(holds.any(axis=1), found, holds.shape[1]))
