"""A rod's chain from the lure upward, each piece with the measures that it is drawn from."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any, Final, Literal

from ...gear.pieces import SWINGING, Attractor, Lure
from ...gear.setup import RodSetup
from ...gear.tackle import Outfit
from ...lines.assumed import BLADE_SWAY_DEG

BladeAction = Literal["", "swings", "turns", "hangs", "rolls"]
PartKind = Literal["lure", "leader", "attractor", "snubber", "line", "weight", "clip"]


@dataclass(frozen=True, slots=True, kw_only=True)
class ChainPart:
    """A piece of a chain.

    Parameters
    ----------
    kind : PartKind
        What it is.
    name : str
        In words.
    from_m, length_m : float
        Where it begins, from the tail of the lure upward, and how long it is, m.
    width_m : float
        Its greatest width, m; 0 of a line.
    outline : str
        What it is drawn as: an attractor's style, a lure's `lure_outline`, else empty.
    lip, hook : str
        A plug's lip and a lure's hooks.
    hook_from_tail_m : float
        How far the last hook's bend sits ahead of the lure's end, m.
    action : {'', 'swings', 'turns', 'hangs', 'rolls'}
        What a blade does at the boat's speed.
    sway_deg : float
        How far it sways to either side then, degrees.
    """

    kind: PartKind
    name: str
    from_m: float
    length_m: float
    width_m: float = 0.0
    outline: str = ""
    lip: str = ""
    hook: str = ""
    hook_from_tail_m: float = 0.0
    action: BladeAction = ""
    sway_deg: float = 0.0


WORM_SLENDER: Final = 6.0
"""A soft lure so many times as long as it is wide is a worm, and no skirt (judged)."""


USUAL_SNUBBER_M: Final = 0.1
"""A snubber of which no more is said (judged)."""


def lure_outline(lure: Lure) -> str:
    """Return what a lure is drawn as.

    Parameters
    ----------
    lure : Lure
        The lure.

    Returns
    -------
    {'plug', 'spoon', 'fly', 'worm', 'skirt'}
    """
    if lure.kind != "soft":
        return lure.kind
    if lure.is_fly:
        return "fly"
    return "worm" if lure.length_m > WORM_SLENDER * lure.width_m else "skirt"


def blade_action(
    blade: Attractor, speed_mps: float, tow_point: str = ""
) -> tuple[BladeAction, float]:
    """Return what a blade does at a speed, and how far it sways.

    Parameters
    ----------
    blade : Attractor
        The attractor.
    speed_mps : float
        Speed through water, m/s.
    tow_point : str
        Which of its tow points it hangs on.

    Returns
    -------
    (str, float)
        Its action, and its sway to either side, degrees: below its range it hangs, above it one
        that swings rolls (common practice); a swing has the sway that its drag is reckoned with.
    """
    works = blade.works_at(tow_point)
    if speed_mps < works.low_mps:
        return "hangs", 0.0
    if blade.style not in SWINGING:
        return "turns", 0.0
    return ("rolls", 0.0) if speed_mps > works.high_mps else ("swings", BLADE_SWAY_DEG.value)


def chain(outfit: Outfit, setup: RodSetup, speed_mps: float) -> Iterator[ChainPart]:
    """Yield the pieces of a chain from the lure upward.

    Parameters
    ----------
    outfit : Outfit
        What is aboard.
    setup : RodSetup
        What is on the rod.
    speed_mps : float
        Speed through water, m/s.

    Yields
    ------
    ChainPart
        Each begins where the one before ended.

    Returns
    -------
    iterator of ChainPart
    """
    lure = outfit.lure(setup.lure_id)
    at = 0.0

    def part(kind: PartKind, name: str, length_m: float, **more: Any) -> ChainPart:
        nonlocal at
        made = ChainPart(kind=kind, name=name, from_m=at, length_m=length_m, **more)
        at += length_m
        return made

    yield part(
        "lure", f"{lure.name}, {lure.colour}", lure.length_m, width_m=lure.width_m,
        outline=lure_outline(lure), lip=lure.lip, hook=lure.hook,
        hook_from_tail_m=lure.hook_from_tail_m,
    )
    if setup.attractor_id is not None:
        blade = outfit.attractor(setup.attractor_id)
        yield part("leader", "leader", setup.leader_m)
        action, sway_deg = blade_action(blade, speed_mps, setup.tow_point)
        yield part(
            "attractor", blade.name, blade.length_m, width_m=blade.width_m, outline=blade.style,
            action=action, sway_deg=sway_deg,
        )
        if setup.snubber_id is not None:
            snubber = outfit.snubber(setup.snubber_id)
            yield part("snubber", snubber.name, snubber.length_m)
        elif setup.snubber:
            yield part("snubber", "snubber", USUAL_SNUBBER_M)
    if setup.weight_kg > 0.0:
        yield part("line", "bumper" if setup.drop_m > 0.0 else "line", setup.weight_ahead_m)
        yield part("weight", "sliding weight" if setup.drop_m > 0.0 else "weight in line", 0.04)
    elif setup.setback_m > 0.0:
        left = max(setup.setback_m - at, 0.0)
        yield part("line", "setback", left)
        yield part("clip", "release clip", 0.05)
