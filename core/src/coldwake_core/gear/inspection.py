"""What to look at before a line goes out: on the boat once, on each rod each time."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final, Literal

from .setup import RodSetup, rig_kind
from .tackle import Outfit

CheckItem = Literal[
    "life_jacket", "way_back_in", "cutter", "counter_zeroed",
    "tracks_true", "swings", "hooks", "nicks", "bait", "clip", "drag",
]
LOOK_ITEMS: Final = ("tracks_true", "swings")
"""What is looked at beside the boat at trolling speed: the tuning."""
_RIGGER_KINDS: Final = ("downrigger", "stacked", "slider")


@dataclass(frozen=True, slots=True, kw_only=True)
class Inspection:
    """One thing to look at.

    Parameters
    ----------
    item : CheckItem
        Its key.
    text : str
        What to look for.
    remedy : str
        What to do where it is not so.
    """

    item: CheckItem
    text: str
    remedy: str


_LOOKS: Final[dict[str, tuple[str, str]]] = {
    "life_jacket": ("Life jacket on.", "Put it on: cold water kills."),
    "way_back_in": (
        "A way back into the boat, and somebody knows where you are.",
        "Hang a ladder or a loop over the side; tell somebody ashore.",
    ),
    "cutter": (
        "A knife or cutter within reach of every cable.",
        "Put one where either hand reaches it.",
    ),
    "counter_zeroed": (
        "Counter at zero with the ball at the surface.", "Set the ball at the surface and zero it.",
    ),
    "tracks_true": (
        "The lure runs true beside the boat, at trolling speed.",
        "Bend the eye a little against the side it pulls to, and look again.",
    ),
    "swings": (
        "The attractor swings from side to side and does not roll; blades just turn.",
        "Slow down, or change the blade; note its own range while you look.",
    ),
    "hooks": ("Hook points sharp, none bent.", "Touch up the point, or change the hook."),
    "nicks": ("No nick in the leader, knots sound.", "Cut back to sound line and tie anew."),
    "bait": ("Bait straight, just enough left behind.", "Thread it straight, or put on fresh."),
    "clip": (
        "Clip tension: a small fish trips it, the lure's pull does not.",
        "Set it by hand: pull as a small fish would.",
    ),
    "drag": (
        "Drag: light for soft mouths, stiffer for leadcore, which is heavy itself.",
        "Pull line by hand and set it.",
    ),
}


def inspection(item: CheckItem) -> Inspection:
    """Return what to look for.

    Parameters
    ----------
    item : CheckItem
        Which.

    Returns
    -------
    Inspection
    """
    text, remedy = _LOOKS[item]
    return Inspection(item=item, text=text, remedy=remedy)


def boat_inspections(outfit: Outfit) -> tuple[Inspection, ...]:
    """Return what to look at before the boat leaves the ramp.

    Parameters
    ----------
    outfit : Outfit
        What is aboard.

    Returns
    -------
    tuple of Inspection
    """
    items: list[CheckItem] = ["life_jacket", "way_back_in"]
    if any(place.kind == "downrigger" for place in outfit.places):
        items += ["cutter", "counter_zeroed"]
    return tuple(inspection(item) for item in items)


def rod_inspections(outfit: Outfit, setup: RodSetup) -> tuple[Inspection, ...]:
    """Return what to look at on a rod before its line goes out.

    Parameters
    ----------
    outfit : Outfit
        What is aboard.
    setup : RodSetup
        What is on the rod.

    Returns
    -------
    tuple of Inspection
        Only what this rod has.
    """
    lure = outfit.lure(setup.lure_id)
    items: list[CheckItem] = []
    if lure.own_action:
        items.append("tracks_true")
    if setup.attractor_id is not None:
        items.append("swings")
    if lure.hook != "none":
        items.append("hooks")
    items.append("nicks")
    if lure.takes_bait or setup.bait_id is not None:
        items.append("bait")
    if rig_kind(outfit, setup) in _RIGGER_KINDS:
        items.append("clip")
    items.append("drag")
    return tuple(inspection(item) for item in items)
