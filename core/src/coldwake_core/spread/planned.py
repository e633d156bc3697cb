"""The opening spread of a phase of the day, with every number at two speeds: what is printed."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from ..constants import FOOT_M
from ..errors import InvalidInputError
from ..gear.tackle import Shape
from ..places.plan.river import Shallow
from ..trip.now import Now
from ..trip.numbers import NumberAtSpeed
from ..trip.today import phase_now
from .breaks import Out, with_spread
from .dress import Earned
from .opening import OpeningSpread, PlannedRod, build_opening

NEAR_M: Final = 2.0 * FOOT_M
"""So far above a bar a plug works its top (judged, from plugs that work near bottom of 5-8 ft)."""


@dataclass(frozen=True, slots=True, kw_only=True)
class RodNumbers:
    """The numbers that hold a rod's lure at its depth.

    Parameters
    ----------
    rod_id, name, shape : str
        The rod, its name and its mark.
    index : int
        Its place among the boat's rods, from 0: its colour hangs on it.
    depth_m : float
        The depth, m.
    at : tuple of NumberAtSpeed, length 2
        At the slowest and the fastest of the phase.
    """

    rod_id: str
    name: str
    shape: Shape
    index: int
    depth_m: float
    at: tuple[NumberAtSpeed, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class BarReach:
    """Which lures run over a bar, which work near its top, and which would plough it.

    Parameters
    ----------
    name : str
        The bar or neck.
    depth_m : float
        Water over it, m.
    over, near, touch : tuple of str
        Rods whose lure runs well above it, within two feet of it, or as deep as it is.
    """

    name: str
    depth_m: float
    over: tuple[str, ...]
    near: tuple[str, ...]
    touch: tuple[str, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class PhaseOpening:
    """The opening spread of a phase.

    Parameters
    ----------
    method_name : str
        The phase's method.
    low_mps, high_mps : float
        The phase's slowest and fastest, m/s through water.
    spread : OpeningSpread
        The spread.
    numbers : tuple of RodNumbers
        Its numbers, rod by rod.
    bars : tuple of BarReach
        The same lures over each bar and neck.
    """

    method_name: str
    low_mps: float
    high_mps: float
    spread: OpeningSpread
    numbers: tuple[RodNumbers, ...]
    bars: tuple[BarReach, ...]


def phase_opening(
    now: Now, at_s: float, shallows: Sequence[Shallow] = (), earned: Sequence[Earned] = ()
) -> PhaseOpening:
    """Return the opening spread of the phase that a moment of a planned day is in.

    Parameters
    ----------
    now : Now
        The boat on the water with its plan, before the first line is out.
    at_s : float
        A moment of the day, seconds since 1970-01-01 UTC.
    shallows : sequence of Shallow
        Bars and necks with the water over them.
    earned : sequence of Earned
        What earned hits on days like this, the best first.

    Returns
    -------
    PhaseOpening

    Raises
    ------
    InvalidInputError
        If the moment is in no phase, or nothing in the box works in it.
    """
    phase = phase_now(now, at_s)
    if phase is None:
        raise InvalidInputError("at_s", at_s, "between first light and dark of the planned day")
    spread = build_opening(now, at_s, earned=earned)
    low, high = phase.method.speed_low_mps, phase.method.speed_high_mps
    tried = with_spread(
        now, [Out(setup=rod.setup, setting_m=rod.setting_m) for rod in spread.rods],
        spread.speed_mps,
    )
    rods = now.state.outfit.rods
    order = {rod.id: index for index, rod in enumerate(rods)}

    def numbers(planned: PlannedRod) -> RodNumbers:
        rod = rods[order[planned.setup.rod_id]]
        return RodNumbers(
            rod_id=rod.id, name=rod.name, shape=rod.shape, index=order[rod.id],
            depth_m=planned.depth_m,
            at=tried.lines.numbers_at(
                rod_id=rod.id, depth_m=planned.depth_m, speeds_mps=(low, high)
            ),
        )

    return PhaseOpening(
        method_name=phase.method.name, low_mps=low, high_mps=high, spread=spread,
        numbers=tuple(numbers(rod) for rod in spread.rods),
        bars=tuple(bar_reach(bar, spread.rods) for bar in shallows),
    )


def bar_reach(bar: Shallow, rods: Sequence[PlannedRod]) -> BarReach:
    """Return which lures of a spread run over a bar, near its top, or into it.

    Parameters
    ----------
    bar : Shallow
        The bar with the water over it.
    rods : sequence of PlannedRod
        The spread.

    Returns
    -------
    BarReach
    """
    over: list[str] = []
    near: list[str] = []
    touch: list[str] = []
    for rod in rods:
        above = bar.depth_m - rod.depth_m
        (touch if above <= 0.0 else near if above <= NEAR_M else over).append(rod.setup.rod_id)
    return BarReach(
        name=bar.name, depth_m=bar.depth_m, over=tuple(over), near=tuple(near), touch=tuple(touch)
    )
