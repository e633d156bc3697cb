"""Temperatures a species looks for: what anglers find and what was published, side by side."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from ..trade import Species
from .method import comfort_depths_m

PUBLISHED_DEGC: Final[dict[str, tuple[float, float, str]]] = {
    "trout": (15.2, 19.2, "rainbow trout grow best at 17.2 °C (Hokanson et al. 1977), ± 2 judged"),
    "kokanee": (13.0, 17.0, "sockeye grow best at 15 °C (Brett 1971), ± 2 judged"),
    "striper": (18.0, 25.0, "adult striped bass: below about 25 °C (Coutant 1985), from 18 judged"),
}
LEAST_OXYGEN_MGPL: Final[dict[str, float]] = {"trout": 5.0, "kokanee": 5.0, "striper": 3.0}
"""Under it a species is squeezed out: stripers 2-3 mg/l (Coutant 1985); salmonids 5 (from memory,
a usual criterion)."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Interval:
    """A layer of water: upper and lower depth, m."""

    top_m: float
    base_m: float


def published_band(species: Species) -> tuple[tuple[float, float], str]:
    """Return the temperatures that were published for a species.

    Parameters
    ----------
    species : {'trout', 'kokanee', 'striper'}
        The species.

    Returns
    -------
    ((float, float), str)
        Lowest and highest, degrees Celsius; and where they are from.
    """
    low, high, source = PUBLISHED_DEGC[species]
    return (low, high), source


def species_layers(
    profile: Sequence[tuple[float, float]], band_degc: tuple[float, float], *, bottom_m: float,
    oxygen: Sequence[tuple[float, float]] = (), least_mgpl: float = 0.0,
) -> tuple[Interval, ...]:
    """Return the layers that have a band's temperature, and oxygen enough.

    Parameters
    ----------
    profile : sequence of (float, float)
        Depth, m, and temperature, degrees Celsius, in order of depth.
    band_degc : (float, float)
        Lowest and highest temperature, degrees Celsius.
    bottom_m : float
        Depth of the bottom, m.
    oxygen : sequence of (float, float)
        Depth, m, and oxygen, mg/l, in order of depth; empty where nobody measured.
    least_mgpl : float
        Oxygen that is needed, mg/l.

    Returns
    -------
    tuple of Interval
        From the top down: two where the profile has an inversion.
    """
    layers = comfort_depths_m(list(profile), band_degc, bottom_m=bottom_m)
    if len(oxygen) >= 2:
        airy = comfort_depths_m(list(oxygen), (least_mgpl, 1e9), bottom_m=bottom_m)
        layers = tuple(
            (max(a[0], b[0]), min(a[1], b[1]))
            for a in layers for b in airy if min(a[1], b[1]) > max(a[0], b[0])
        )
    return tuple(Interval(top_m=top, base_m=base) for top, base in layers)
