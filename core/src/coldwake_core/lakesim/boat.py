"""The boat of the simulated lake: six rods on real lines, and a box to choose from."""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import lru_cache
from typing import Final, Literal

from ..advice.tries import LINES_OUT_M
from ..constants import COLOUR_M, INCH_M, MPH_MPS, OUNCE_KG, POUND_KG
from ..errors import NoSolutionError
from ..evidence.recipe import Recipe
from ..lines.bodies import Ball, Lip, TowedBody, blade_body, plug_body, soft_body, spoon_body
from ..lines.downrigger import ClippedLine, DownriggerRig, SolvedDownrigger
from ..lines.linerig import LineRig, SolvedLine
from ..lines.materials import MATERIALS
from ..trade import Species
from ..water.fresh import Water

Kind = Literal["downrigger", "leadcore", "flat"]
WATER: Final = Water.at_degc(10.0)
TIP_M: Final = 1.2
COLOURS: Final = (
    "pink", "orange", "chartreuse", "silver", "copper", "perch", "white", "black",
)


@dataclass(frozen=True, slots=True, kw_only=True)
class Lure:
    """A lure of the box: flash and thump, the speeds it works at, whether it moves by itself."""

    flash: float
    thump: float
    low_mps: float
    high_mps: float
    own_action: bool
    bait: bool
    body: TowedBody


@dataclass(frozen=True, slots=True, kw_only=True)
class Attractor:
    """An attractor of the box; one without a body rides on the lure."""

    flash: float
    thump: float
    low_mps: float
    high_mps: float
    moves_lure: bool
    body: TowedBody | None


LURES: Final[dict[str, Lure]] = {
    "small hoochie": Lure(
        flash=0.1, thump=0.05, low_mps=0.1, high_mps=2.0, own_action=False, bait=True,
        body=soft_body(length_m=0.045, width_m=0.010, mass_kg=0.002),
    ),
    "thin spoon": Lure(
        flash=0.4, thump=0.2, low_mps=1.0 * MPH_MPS, high_mps=3.5 * MPH_MPS, own_action=True,
        bait=False, body=spoon_body(length_m=0.06, width_m=0.02, mass_kg=0.2 * OUNCE_KG),
    ),
    "minnow plug": Lure(
        flash=0.25, thump=0.35, low_mps=1.2 * MPH_MPS, high_mps=2.8 * MPH_MPS, own_action=True,
        bait=False, body=plug_body(length_m=0.07, mass_kg=0.006, lip="small"),
    ),
    "weighted fly": Lure(
        flash=0.05, thump=0.0, low_mps=0.1, high_mps=2.0, own_action=True, bait=False,
        body=soft_body(length_m=0.05, width_m=0.009, mass_kg=0.0018),
    ),
}
ATTRACTORS: Final[dict[str, Attractor]] = {
    "none": Attractor(
        flash=0.0, thump=0.0, low_mps=0.1, high_mps=2.0, moves_lure=False, body=None
    ),
    "wobble disc": Attractor(
        flash=0.15, thump=0.25, low_mps=1.0 * MPH_MPS, high_mps=2.5 * MPH_MPS, moves_lure=True,
        body=None,
    ),
    "small willow leaf": Attractor(
        flash=0.3, thump=0.2, low_mps=0.8 * MPH_MPS, high_mps=1.8 * MPH_MPS, moves_lure=True,
        body=blade_body(length_m=3 * INCH_M, width_m=0.02, mass_kg=0.005),
    ),
    "small dodger": Attractor(
        flash=0.45, thump=0.5, low_mps=0.9 * MPH_MPS, high_mps=1.7 * MPH_MPS, moves_lure=True,
        body=blade_body(length_m=4 * INCH_M, width_m=0.0356, mass_kg=0.012),
    ),
    "large dodger": Attractor(
        flash=0.7, thump=0.85, low_mps=1.2 * MPH_MPS, high_mps=2.0 * MPH_MPS, moves_lure=True,
        body=blade_body(length_m=6 * INCH_M, width_m=0.055, mass_kg=0.028),
    ),
}


def _river_plug(lip: Lip) -> Lure:
    return Lure(
        flash=0.25, thump=0.35, low_mps=2.0 * MPH_MPS, high_mps=5.0 * MPH_MPS, own_action=True,
        bait=False, body=plug_body(length_m=5.0 * INCH_M, mass_kg=0.022, lip=lip),
    )


RIVER_LURES: Final[dict[str, Lure]] = {
    "river plug": _river_plug("small"), "river plug, next lip": _river_plug("medium"),
}
"""Told apart by depth alone: to the fish both are plugs (2 to 5 mph: common practice)."""
_ALL_LURES: Final = LURES | RIVER_LURES


@dataclass(frozen=True, slots=True, kw_only=True)
class Look:
    """What is tied on."""

    lure: str
    colour: str
    attractor: str
    leader_m: float


@dataclass(frozen=True, slots=True, kw_only=True)
class RodState:
    """A rod: its kind, its look, how far behind its clip (or boat) the lure runs, its number, m."""

    kind: Kind
    look: Look
    setback_m: float
    setting_m: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Box:
    """What is aboard for one kind of fishing, and the figures it is fished by.

    Parameters
    ----------
    species : str
        What it is for.
    lures, attractors : tuple of str
        Their names.
    lines_out_m : tuple of float
        How far back flat lines are fished, m.
    slowest_mps, fastest_mps : float
        Speeds that are tried, m/s.
    """

    species: Species
    lures: tuple[str, ...]
    attractors: tuple[str, ...]
    lines_out_m: tuple[float, ...]
    slowest_mps: float
    fastest_mps: float


LAKE_BOX: Final = Box(
    species="trout", lures=tuple(LURES), attractors=tuple(ATTRACTORS),
    lines_out_m=LINES_OUT_M["trout"], slowest_mps=0.7 * MPH_MPS, fastest_mps=3.6 * MPH_MPS,
)
RIVER_BOX: Final = Box(
    species="striper", lures=tuple(RIVER_LURES), attractors=("none",),
    lines_out_m=LINES_OUT_M["striper"], slowest_mps=2.0 * MPH_MPS, fastest_mps=4.8 * MPH_MPS,
)
"""A small-lipped 5 in plug is begun at 85 ft out in 5 to 8 ft of water (common practice)."""


def lure_named(name: str) -> Lure:
    """Return a lure of one of the boxes.

    Parameters
    ----------
    name : str
        Its name.

    Returns
    -------
    Lure
    """
    return _ALL_LURES[name]


Solved = SolvedDownrigger | SolvedLine


@lru_cache(maxsize=20_000)
def _solved(kind: Kind, lure: str, attractor: str, setback_m: float, speed_cmps: int) -> Solved:
    bodies = [_ALL_LURES[lure].body]
    blade = ATTRACTORS[attractor].body
    if blade is not None:
        bodies.insert(0, blade)
    speed = speed_cmps / 100.0
    if kind == "downrigger":
        return DownriggerRig(
            cable=MATERIALS["cable-steel-150"], cable_length_m=40.0,
            ball=Ball(mass_kg=10.0 * POUND_KG), boom_height_m=0.8,
            clipped=ClippedLine(
                line=MATERIALS["mono-12"], setback_m=setback_m, bodies=tuple(bodies)
            ),
        ).solve(speed, WATER)
    stretches = [(MATERIALS["mono-12"], 70.0)] if kind == "flat" else [
        (MATERIALS["fluoro-12"], 6.0), (MATERIALS["leadcore-18"], 8 * COLOUR_M),
    ]
    return LineRig(
        stretches=tuple(stretches), bodies=tuple(bodies), tip_height_m=TIP_M
    ).solve(speed, WATER)


Key = tuple[Kind, str, str, float, int]


def _key(rod: RodState, speed_mps: float) -> Key:
    # A twentieth of a mile an hour: nobody holds a boat closer.
    grid = round(0.05 * MPH_MPS * 100.0)
    cmps = max(round(speed_mps * 100.0 / grid) * grid, grid)
    # Of a line without a clip the length is its number, and its curve is the same for all.
    behind = rod.setback_m if rod.kind == "downrigger" else 0.0
    return rod.kind, rod.look.lure, rod.look.attractor, behind, cmps


@lru_cache(maxsize=400_000)
def _depth(key: Key, setting_m: float) -> float:
    return max(_solved(*key).place(setting_m, picture=False).depth_m, 0.1)


@lru_cache(maxsize=400_000)
def _setting(key: Key, depth_m: float) -> float | None:
    try:
        return round(_solved(*key).setting_for(depth_m), 1)
    except NoSolutionError:
        return None


def depth_of(rod: RodState, speed_mps: float) -> float:
    """Return how deep a rod's lure runs, by the line solver.

    Parameters
    ----------
    rod : RodState
        The rod.
    speed_mps : float
        Through the water, m/s.

    Returns
    -------
    float
        m.
    """
    return _depth(_key(rod, speed_mps), rod.setting_m)


def at_depth(rod: RodState, speed_mps: float, depth_m: float) -> RodState | None:
    """Return a rod set so that its lure runs at a depth.

    Parameters
    ----------
    rod : RodState
        The rod.
    speed_mps : float
        Through the water, m/s.
    depth_m : float
        The depth, m.

    Returns
    -------
    RodState or None
        None where it cannot.
    """
    setting = _setting(_key(rod, speed_mps), depth_m)
    if setting is None or setting < 1.0:
        return None
    if rod.kind == "flat":
        return replace(rod, setting_m=setting, setback_m=setting)
    return replace(rod, setting_m=setting)


def works(look: Look, speed_mps: float) -> bool:
    """Return whether lure and attractor swim as they should at a speed.

    Parameters
    ----------
    look : Look
        What is tied on.
    speed_mps : float
        Through the water, m/s.

    Returns
    -------
    bool
    """
    lure, blade = _ALL_LURES[look.lure], ATTRACTORS[look.attractor]
    if not (lure.low_mps <= speed_mps <= lure.high_mps):
        return False
    if not (blade.low_mps <= speed_mps <= blade.high_mps):
        return False
    return lure.own_action or blade.moves_lure


def recipe_of(rod: RodState, speed_mps: float, depth_m: float | None = None) -> Recipe:
    """Return what a rod shows at a speed.

    Parameters
    ----------
    rod : RodState
        The rod.
    speed_mps : float
        Through the water, m/s.
    depth_m : float, optional
        How deep it runs, m, where that is known.

    Returns
    -------
    Recipe
    """
    lure, blade = _ALL_LURES[rod.look.lure], ATTRACTORS[rod.look.attractor]
    return Recipe(
        depth_m=depth_of(rod, speed_mps) if depth_m is None else depth_m, speed_mps=speed_mps,
        setback_m=rod.setback_m if rod.kind == "downrigger" else rod.setting_m,
        leader_m=rod.look.leader_m if blade.body is not None else None,
        flash=1.0 - (1.0 - lure.flash) * (1.0 - blade.flash),
        thump=1.0 - (1.0 - lure.thump) * (1.0 - blade.thump),
        colour=rod.look.colour, lure=rod.look.lure,
    )
