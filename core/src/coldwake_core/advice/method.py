"""The method of the hour: speed, depth and setback that a surface temperature calls for.

Each rule is common practice; where practitioners differ, each school has its own rule and the
user picks. Figures are written in the units of the trade and turned to SI once.
"""

from __future__ import annotations

from dataclasses import dataclass
from itertools import pairwise
from typing import Final

from ..constants import FOOT_M, MPH_MPS, degc_from_degf
from ..trade import Species


@dataclass(frozen=True, slots=True, kw_only=True)
class Method:
    """How to fish now.

    Parameters
    ----------
    id, name : str
        Key and plain name.
    school : str
        Who says so.
    reason : str
        Why, in a sentence.
    speed_low_mps, speed_high_mps : float
        Speed through water, m/s.
    depth_top_m, depth_base_m : float
        Band of depth, m: of the lures or, of a method near the bed, of the water.
    setback_low_m, setback_high_m : float
        How far back, m.
    off_bed_low_m, off_bed_high_m : float
        How near the bed the lures run, m; 0 for a method that does not ask.
    gear : str
        What to show them.
    caution : str
        What to be careful of; empty for nothing beyond the usual.
    alternatives : tuple of str
        Other schools of the same topic that the user may pick.
    topic : str
        Topic of the choice of school; empty when there is none.
    """

    id: str
    name: str
    school: str
    reason: str
    speed_low_mps: float
    speed_high_mps: float
    depth_top_m: float
    depth_base_m: float
    setback_low_m: float
    setback_high_m: float
    off_bed_low_m: float
    off_bed_high_m: float
    gear: str
    caution: str = ""
    alternatives: tuple[str, ...] = ()
    topic: str = ""


def _method(
    key: str, name: str, school: str, reason: str, *, mph: tuple[float, float],
    feet: tuple[float, float], back_feet: tuple[float, float], gear: str, caution: str = "",
    topic: str = "", alternatives: tuple[str, ...] = (),
    off_bed_m: tuple[float, float] = (0.0, 0.0),
) -> Method:
    return Method(
        id=key, name=name, school=school, reason=reason,
        speed_low_mps=mph[0] * MPH_MPS, speed_high_mps=mph[1] * MPH_MPS,
        depth_top_m=feet[0] * FOOT_M, depth_base_m=feet[1] * FOOT_M,
        setback_low_m=back_feet[0] * FOOT_M, setback_high_m=back_feet[1] * FOOT_M,
        gear=gear, caution=caution, topic=topic, alternatives=alternatives,
        off_bed_low_m=off_bed_m[0], off_bed_high_m=off_bed_m[1],
    )


_COLD = ("cover_water", "stay_slow")
_HOT = (
    "Surface above 68 °F: do not play and release trout or salmon in it; keep what you may or stop."
)

COVER_WATER: Final = _method(
    "cover_water", "Cover water, fast and shallow", "Cover water",
    "Under 50 °F few fish are active: pass many to meet them.",
    mph=(2.7, 3.5), feet=(0, 10), back_feet=(100, 200), gear="spoons and flies near the top",
    topic="cold_morning", alternatives=_COLD,
)
STAY_SLOW: Final = _method(
    "stay_slow", "Stay slow, near bottom or marks", "Stay slow",
    "Under 50 °F fish are sluggish: small slow gear where they lie.",
    mph=(0.9, 1.5), feet=(10, 60), back_feet=(20, 80), gear="small slow gear",
    topic="cold_morning", alternatives=_COLD,
)
TROUT_WARMING: Final = _method(
    "trout_warming", "Slow down under the warming surface", "Warming surface",
    "At 50 to 54 °F fish rise and gather: cut the area and slow to about 1.8 mph.",
    mph=(1.5, 2.2), feet=(0, 15), back_feet=(80, 200),
    gear="long lines right under the surface to 4 ft; soft baits at 6 to 12 ft",
)
TROUT_COMFORT: Final = _method(
    "trout_comfort", "Two levels: top lines and 15 to 20 ft", "Comfortable water",
    "At 54 to 60 °F many bask and feed shallow, others hold under them: fish both.",
    mph=(1.5, 2.5), feet=(0, 20), back_feet=(40, 150), gear="top lines and downriggers together",
)
TROUT_DEEP: Final = _method(
    "trout_deep", "Down to the cool water", "Follow the temperature",
    "The surface is past 60 °F: fish hold where it is 50 to 60 °F, deeper as the sun climbs.",
    mph=(1.5, 2.5), feet=(20, 60), back_feet=(40, 100), gear="downriggers and leadcore",
)
TROUT_HOT: Final = _method(
    "trout_hot", "Down to the cool water", "Follow the temperature",
    "The surface is past 68 °F: fish hold deep in the cool water.",
    mph=(1.5, 2.5), feet=(30, 80), back_feet=(40, 100), gear="downriggers and leadcore",
    caution=_HOT,
)
KOKANEE_TOP: Final = _method(
    "kokanee_top", "Slow and close under the surface", "Follow the temperature",
    "At 50 to 55 °F kokanee find their water near the surface.",
    mph=(0.9, 1.5), feet=(3, 25), back_feet=(15, 80), gear="small dodger and short leader",
)
KOKANEE_DEEP: Final = _method(
    "kokanee_deep", "Slow, at the thermocline", "Follow the temperature",
    "The surface is past 55 °F: kokanee go down with the 50 to 55 °F water.",
    mph=(0.9, 1.5), feet=(25, 80), back_feet=(10, 30), gear="small dodger close behind the clip",
)
KOKANEE_HOT: Final = _method(
    "kokanee_hot", "Slow, at the thermocline", "Follow the temperature",
    "The surface is past 68 °F: kokanee are deep, and suffer in the warm water above.",
    mph=(0.9, 1.5), feet=(40, 100), back_feet=(10, 30), gear="small dodger close behind the clip",
    caution=_HOT,
)
NEAR_BED_M: Final = (FOOT_M, 0.7)
"""What *near the bottom* is (judged): a plug ticks along a foot or two over it."""
STRIPER_COLD: Final = _method(
    "striper_cold", "Slow along the drop", "Spring run",
    "Under 55 °F stripers are slow: along the edge of the bars, near bottom.",
    mph=(2.0, 2.8), feet=(4, 12), back_feet=(70, 100), gear="river plugs near bottom",
    off_bed_m=NEAR_BED_M,
)
STRIPER_ACTIVE: Final = _method(
    "striper_active", "Work the edges of the bars", "Spring run",
    "At 55 to 68 °F stripers are active: edges and necks of bars, near bottom.",
    # By GPS 2.8 to 3.5 going up a moderate river and under 5 going down (common practice): with the
    # 0.7 mph of such a river both say 3.5 to 4.2 through the water.
    mph=(3.5, 4.2), feet=(5, 8), back_feet=(70, 100), gear="river plugs near bottom",
    off_bed_m=NEAR_BED_M,
)

_LADDERS: Final[dict[str, tuple[tuple[float, Method], ...]]] = {
    # Upper bound of the surface temperature, °F, and the method below it.
    "trout": (
        (50.0, COVER_WATER), (54.0, TROUT_WARMING), (60.0, TROUT_COMFORT), (68.0, TROUT_DEEP),
        (999.0, TROUT_HOT),
    ),
    "kokanee": (
        (50.0, STAY_SLOW), (55.0, KOKANEE_TOP), (68.0, KOKANEE_DEEP), (999.0, KOKANEE_HOT),
    ),
    "striper": ((55.0, STRIPER_COLD), (999.0, STRIPER_ACTIVE)),
}
_BY_SCHOOL: Final = {"cover_water": COVER_WATER, "stay_slow": STAY_SLOW}

USUAL_MPH: Final[dict[Species, tuple[float, float]]] = {
    "trout": (1.5, 2.2), "kokanee": (0.9, 1.5), "striper": (2.0, 4.2),
}
"""Speeds to begin with where no temperature was read: those that most methods of the species share
(stripers' two bands, end to end)."""

COMFORT_DEGF: Final[dict[str, tuple[float, float]]] = {
    "trout": (50.0, 60.0), "kokanee": (50.0, 55.0), "striper": (55.0, 68.0),
}
"""Bands in which anglers find fish (common practice); the published optima lie on their warm side:
rainbow trout 17.2 °C (Hokanson et al. 1977), sockeye 15 °C (Brett 1971)."""


def method_of_the_hour(
    *, species: Species, surface_degc: float, cold_school: str | None = None
) -> Method:
    """Return the method that a surface temperature calls for.

    Parameters
    ----------
    species : {'trout', 'kokanee', 'striper'}
        What is fished for.
    surface_degc : float
        Surface temperature, degrees Celsius.
    cold_school : {'cover_water', 'stay_slow'}, optional
        The user's school for a cold morning; without one, covering water for trout and staying
        slow for kokanee.

    Returns
    -------
    Method
    """
    method = next(
        method for bound_degf, method in _LADDERS[species]
        if surface_degc < degc_from_degf(bound_degf) - 1e-9
    )
    if method.topic == "cold_morning" and cold_school is not None:
        return _BY_SCHOOL[cold_school]
    return method


def band_in(method: Method, bottom_m: float) -> tuple[float, float]:
    """Return where in water so deep a method runs its lures.

    Parameters
    ----------
    method : Method
        The method.
    bottom_m : float
        Depth of the water, m.

    Returns
    -------
    (float, float)
        Top and base of the band, m; of a method near the bed told from there up, else as it is
        fished, however deep the water.
    """
    if not method.off_bed_high_m:
        return method.depth_top_m, method.depth_base_m
    return max(bottom_m - method.off_bed_high_m, 0.0), max(bottom_m - method.off_bed_low_m, 0.0)


def is_by_the_bed(species: Species) -> bool:
    """Return whether a species is fished for near the bottom, however deep it is.

    Parameters
    ----------
    species : {'trout', 'kokanee', 'striper'}
        What is fished for.

    Returns
    -------
    bool
        True where all its methods are told from the bed.
    """
    return all(method.off_bed_high_m for _, method in _LADDERS[species])


def trolled_mps(species: Species) -> tuple[float, float]:
    """Return the speeds at which a species is trolled for, by any method.

    Parameters
    ----------
    species : {'trout', 'kokanee', 'striper'}
        The species.

    Returns
    -------
    (float, float)
        The slowest and the fastest, m/s.
    """
    methods = [method for _, method in _LADDERS[species]]
    if any(method.topic == "cold_morning" for method in methods):
        methods += _BY_SCHOOL.values()
    return (
        min(method.speed_low_mps for method in methods),
        max(method.speed_high_mps for method in methods),
    )


def comfort_band_degc(species: Species) -> tuple[float, float]:
    """Return the temperatures in which a species is found.

    Parameters
    ----------
    species : {'trout', 'kokanee', 'striper'}
        The species.

    Returns
    -------
    (float, float)
        Lowest and highest, degrees Celsius.
    """
    low, high = COMFORT_DEGF[species]
    return degc_from_degf(low), degc_from_degf(high)


def comfort_depths_m(
    profile: list[tuple[float, float]], band_degc: tuple[float, float], *, bottom_m: float
) -> tuple[tuple[float, float], ...]:
    """Return the depths between which the water is in a band of temperature.

    Parameters
    ----------
    profile : list of (float, float)
        Depth, m, and temperature, degrees Celsius, in order of depth.
    band_degc : (float, float)
        Lowest and highest temperature, degrees Celsius.
    bottom_m : float
        Depth of the bottom, m.

    Returns
    -------
    tuple of (float, float)
        Upper and lower depth of each layer, m, from the top down: two where the water is warmer, or
        colder, in between; none when fewer than two depths were read or no water is in the band.

    Notes
    -----
    Linear between readings, nothing assumed below the deepest. Exact: the crossings are solved for,
    not sampled.

    Examples
    --------
    >>> comfort_depths_m([(0.0, 12.0), (10.0, 7.0)], (8.0, 11.0), bottom_m=20.0)
    ((2.0, 8.0),)
    """
    low, high = band_degc
    layers: list[tuple[float, float]] = []
    for (z0, t0), (z1, t1) in pairwise(profile):
        if t0 == t1:
            found = (z0, z1) if low <= t0 <= high else None
        else:
            ends = sorted(((low - t0) / (t1 - t0), (high - t0) / (t1 - t0)))
            start, end = max(ends[0], 0.0), min(ends[1], 1.0)
            found = (z0 + start * (z1 - z0), z0 + end * (z1 - z0)) if start <= end else None
        if found is None or found[0] >= bottom_m:
            continue
        top, base = found[0], min(found[1], bottom_m)
        if layers and top - layers[-1][1] < 1e-9:
            layers[-1] = (layers[-1][0], base)
        else:
            layers.append((top, base))
    return tuple(layers)
