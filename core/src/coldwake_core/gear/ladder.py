"""The mood ladder: flash and vibration of what is on a rod, and what aboard gives a little less."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from typing import Final, Literal

from ..checks import require_choice
from ..constants import INCH_M
from .leader import LeaderSchool, leader_span
from .pieces import Attractor, Lure
from .setup import RodSetup, recipe_words, working_range
from .tackle import Outfit
from .window import SpeedWindow, shared_window

Want = Literal["less", "same", "more"]
WANTS: Final = ("less", "same", "more")
RUNGS: Final = (
    "naked lure",
    "turned worm or disc",
    "small willow leaf or in-line spinning attractor",
    "small dodger",
    "large dodger or multi-blade string",
)
"""From less to more (common practice)."""
LARGE_BLADE_M: Final = 5.5 * INCH_M
_A_LITTLE: Final = 0.18
_SAME: Final = 0.12
_NOTICED: Final = 0.04
"""A little more or less is about a fifth of the scale, the same within an eighth (judged)."""
_STYLE: Final[dict[str, tuple[float, float]]] = {
    "disc": (0.15, 0.25), "willow_leaf": (0.30, 0.20), "spinning": (0.35, 0.28),
    "tow_points": (0.50, 0.60), "blade_string": (0.90, 0.30),
}
_DODGER: Final = ((4.0 * INCH_M, 0.45, 0.50), (6.0 * INCH_M, 0.70, 0.85))
_LURE: Final[dict[str, tuple[float, float]]] = {
    "plug": (0.25, 0.35), "spoon": (0.40, 0.20), "soft": (0.10, 0.05),
}
"""Flash and thump of the usual piece, from 0 to 1. Their order is common practice, the figures are
judged; a piece's own figures go before them."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Mood:
    """Where something stands on the mood ladder.

    Parameters
    ----------
    flash, thump : float
        Flash and vibration, each from 0 to 1.
    rung : int
        Rung of RUNGS, from 0.
    """

    flash: float
    thump: float
    rung: int


@dataclass(frozen=True, slots=True, kw_only=True)
class LadderStep:
    """Something aboard that would change the mood as asked.

    Parameters
    ----------
    setup : RodSetup
        The rod after the change.
    words : str
        Its recipe.
    mood : Mood
        Where that stands.
    fits : bool
        Whether it shares a speed with all else that is rigged.
    """

    setup: RodSetup
    words: str
    mood: Mood
    fits: bool


def piece_mood(piece: Attractor | Lure) -> tuple[float, float]:
    """Return flash and thump of a piece.

    Parameters
    ----------
    piece : Attractor or Lure
        The piece.

    Returns
    -------
    (float, float)
        Each from 0 to 1: its own figures where given, else the usual ones.
    """
    if isinstance(piece, Lure):
        flash, thump = _LURE[piece.kind]
    elif piece.style == "dodger":
        (low, flash, thump), (high, most_flash, most_thump) = _DODGER
        share = min(max((piece.length_m - low) / (high - low), -0.3), 1.2)
        flash, thump = flash + share * (most_flash - flash), thump + share * (most_thump - thump)
    else:
        flash, thump = _STYLE[piece.style]
    return (
        flash if piece.flash is None else piece.flash,
        thump if piece.thump is None else piece.thump,
    )


def mood_of(outfit: Outfit, setup: RodSetup) -> Mood:
    """Return where a rod stands on the mood ladder.

    Parameters
    ----------
    outfit : Outfit
        What is aboard.
    setup : RodSetup
        What is on the rod.

    Returns
    -------
    Mood

    Notes
    -----
    What attractor and lure each lack is multiplied, so that two add up and never pass 1 (judged).
    """
    flash, thump = piece_mood(outfit.lure(setup.lure_id))
    if setup.attractor_id is None:
        return Mood(flash=flash, thump=thump, rung=0)
    blade = outfit.attractor(setup.attractor_id)
    more_flash, more_thump = piece_mood(blade)
    return Mood(
        flash=1.0 - (1.0 - flash) * (1.0 - more_flash),
        thump=1.0 - (1.0 - thump) * (1.0 - more_thump), rung=_rung(blade),
    )


def _rung(blade: Attractor) -> int:
    if blade.style == "disc":
        return 1
    if blade.style in ("willow_leaf", "spinning"):
        return 2
    if blade.style == "blade_string":
        return 4
    return 4 if blade.length_m >= LARGE_BLADE_M else 3


def ladder_steps(
    outfit: Outfit, setup: RodSetup, others: Sequence[RodSetup], *, flash: str, thump: str,
    school: LeaderSchool | None = None, species: str = "trout", mood: str = "usual",
) -> tuple[LadderStep, ...]:
    """Return what aboard answers "a little less flash, same thump".

    Parameters
    ----------
    outfit : Outfit
        What is aboard.
    setup : RodSetup
        What is on the rod now.
    others : sequence of RodSetup
        What is on the other rods: a piece they wear is not free.
    flash, thump : {'less', 'same', 'more'}
        What is wanted of each.
    school : LeaderSchool, optional
        Leader school, for the leader behind another blade.
    species : str
        What is fished for.
    mood : {'active', 'usual', 'tough'}
        How the fish answer: it decides the leader where no school was chosen.

    Returns
    -------
    tuple of LadderStep, length 0 to 6
        Those that share a speed with the rest first, then the nearest to what was asked: a change
        of blade, of lure, or none of either; never a radical one.

    Raises
    ------
    InvalidInputError
        If a want is none.
    """
    require_choice("flash", flash, WANTS)
    require_choice("thump", thump, WANTS)
    now = mood_of(outfit, setup)
    window = shared_window([working_range(outfit, other) for other in others])
    found: list[tuple[bool, float, str, LadderStep]] = []
    for changed in _changes(outfit, setup, others, school, species, mood):
        there = mood_of(outfit, changed)
        if not (_as_wanted(there.flash - now.flash, flash)
                and _as_wanted(there.thump - now.thump, thump)):
            continue
        away = math.hypot(
            there.flash - now.flash - _target(flash), there.thump - now.thump - _target(thump)
        )
        fits = _fits(outfit, changed, window)
        words = recipe_words(outfit, changed)
        found.append((
            not fits, away, words, LadderStep(setup=changed, words=words, mood=there, fits=fits)
        ))
    return tuple(item[3] for item in sorted(found, key=lambda item: item[:3])[:6])


def _target(want: str) -> float:
    return {"less": -_A_LITTLE, "same": 0.0, "more": _A_LITTLE}[want]


def _as_wanted(change: float, want: str) -> bool:
    if want == "same":
        return abs(change) <= _SAME
    signed = change if want == "more" else -change
    return _NOTICED <= signed <= 3.0 * _A_LITTLE


def _fits(outfit: Outfit, setup: RodSetup, window: SpeedWindow | None) -> bool:
    if window is None:
        return True
    works = working_range(outfit, setup)
    return max(works.low_mps, window.low_mps) <= min(works.high_mps, window.high_mps)


def _changes(
    outfit: Outfit, setup: RodSetup, others: Sequence[RodSetup], school: LeaderSchool | None,
    species: str, mood: str,
) -> Iterator[RodSetup]:
    lure = outfit.lure(setup.lure_id)
    if setup.attractor_id is not None and (lure.own_action or lure.is_fly):
        yield replace(setup, attractor_id=None, leader_m=0.0, leader_id=None, tow_point="")
    for blade in outfit.attractors:
        worn = sum(other.attractor_id == blade.id for other in others)
        moved = lure.own_action or lure.is_fly or blade.gives_action
        if blade.id != setup.attractor_id and worn < blade.count and moved:
            span = leader_span(
                attractor=blade, lure=lure, school=school, species=species, mood=mood
            )
            yield replace(
                setup, attractor_id=blade.id, leader_m=span.start_m, leader_id=None, tow_point=""
            )
    for other in outfit.lures:
        worn = sum(item.lure_id == other.id for item in others)
        alike = (other.own_action, other.takes_bait) == (lure.own_action, lure.takes_bait)
        if other.id != lure.id and worn < other.count and alike:
            yield replace(setup, lure_id=other.id)
