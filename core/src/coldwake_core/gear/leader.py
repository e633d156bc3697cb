"""How long a leader should be: the schools, the span each gives, and how wild that swims."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Final, Literal

from ..constants import INCH_M
from .pieces import Attractor, Lure

LeaderSchool = Literal["short_whip", "blade_lengths", "fixed_short", "own_action", "tough_bite"]
SpanSchool = Literal[
    "short_whip", "blade_lengths", "fixed_short", "own_action", "tough_bite", "ahead_of_nose"
]
LEADER_SCHOOLS: Final[tuple[LeaderSchool, ...]] = (
    "short_whip", "blade_lengths", "fixed_short", "own_action", "tough_bite",
)
SCHOOL_NAMES: Final[dict[str, str]] = {
    "short_whip": "Short whip: one and a half blades",
    "blade_lengths": "Blade lengths: two to three blades",
    "fixed_short": "Fixed short: 9-10 in, 15 behind a wide blade",
    "own_action": "Own action: 24-40 in, whatever the blade",
    "tough_bite": "Tough bite: up to 72 in",
    "ahead_of_nose": "Disc: 4-5 in ahead of the nose, or against it",
}
DISC_AHEAD_M: Final = 4.5 * INCH_M
DISC_FARTHEST_M: Final = 5.0 * INCH_M
"""A wobble disc sits so far ahead of the nose, or against it for a small lure (common practice)."""
AS_SOLD_M: Final = 36.0 * INCH_M
WIDE_BLADE_M: Final = 5.5 * INCH_M
"""A blade this long sweeps wide: where the fixed school goes from 10 in to 15 (judged)."""


@dataclass(frozen=True, slots=True, kw_only=True)
class LeaderSpan:
    """What a school says of a leader.

    Parameters
    ----------
    school : SpanSchool
        Whose rule it is; a disc has a place of its own, whichever school is followed.
    name : str
        The school in words.
    low_m, high_m, start_m : float
        Shortest, longest, and where to start, m.
    why : str
        In a sentence.
    """

    school: SpanSchool
    name: str
    low_m: float
    high_m: float
    start_m: float
    why: str


def leader_span(
    *, attractor: Attractor, lure: Lure, school: LeaderSchool | None = None,
    species: str = "trout", mood: str = "usual",
) -> LeaderSpan:
    """Return the leader between an attractor and a lure.

    Parameters
    ----------
    attractor : Attractor
        What gives the flash.
    lure : Lure
        What follows it.
    school : LeaderSchool, optional
        Whose rule; the default for the lure and species when left out.
    species : str
        What is fished for.
    mood : {'active', 'usual', 'tough'}
        How the fish answer.

    Returns
    -------
    LeaderSpan

    Notes
    -----
    Common practice. A lure with no action of its own needs a short leader, since the dodger has to
    throw it about; one with its own is left alone by a long one. Kokanee close to the blade start
    with the short whip, trout with the blade lengths.
    """
    if attractor.style == "disc":
        return LeaderSpan(
            school="ahead_of_nose", name=SCHOOL_NAMES["ahead_of_nose"], low_m=0.0,
            high_m=DISC_FARTHEST_M, start_m=DISC_AHEAD_M,
            why="the disc has to be near enough to make the lure dart",
        )
    chosen = default_school(attractor=attractor, lure=lure, species=species, mood=mood)
    if school is not None:
        chosen = school
    blade = attractor.length_m
    spans: dict[str, tuple[float, float, float, str]] = {
        "short_whip": (
            1.25 * blade, 1.75 * blade, 1.5 * blade, "the blade throws the lure about hardest"
        ),
        "blade_lengths": (
            2.0 * blade, 3.0 * blade, 2.5 * blade, "wild enough, and it follows the blade's swing"
        ),
        "fixed_short": (
            (12.0 * INCH_M, 15.0 * INCH_M, 15.0 * INCH_M, "a wide blade carries a little more")
            if blade >= WIDE_BLADE_M
            else (7.0 * INCH_M, 10.0 * INCH_M, 9.0 * INCH_M, "short for a small hoochie or bead")
        ),
        "own_action": (
            24.0 * INCH_M, 40.0 * INCH_M, 30.0 * INCH_M, "the lure swims by itself: let it"
        ),
        "tough_bite": (
            40.0 * INCH_M, 72.0 * INCH_M, 60.0 * INCH_M, "calm and far from the flash"
        ),
    }
    low, high, start, why = spans[chosen]
    return LeaderSpan(
        school=chosen, name=SCHOOL_NAMES[chosen], low_m=low, high_m=high, start_m=start, why=why
    )


def default_school(
    *, attractor: Attractor, lure: Lure, species: str, mood: str = "usual"
) -> LeaderSchool:
    """Return the school to begin with.

    Parameters
    ----------
    attractor : Attractor
        What gives the flash.
    lure : Lure
        What follows it.
    species : str
        What is fished for.
    mood : {'active', 'usual', 'tough'}
        How the fish answer.

    Returns
    -------
    LeaderSchool

    Notes
    -----
    Shorter is wilder, longer calmer (common practice): active fish get one step wilder, a tough
    bite one step calmer than usual.
    """
    if lure.own_action:
        return "tough_bite" if mood == "tough" else "own_action"
    if not attractor.gives_action:
        return "tough_bite"
    wild = species == "kokanee" if mood == "usual" else mood == "active"
    return "short_whip" if wild else "blade_lengths"


def wildness(
    *, attractor: Attractor | None, lure: Lure, leader_m: float, setback_m: float
) -> float:
    """Return how wild a lure swims, from calm to wild.

    Parameters
    ----------
    attractor : Attractor or None
        What throws it about.
    lure : Lure
        The lure.
    leader_m : float
        From attractor to lure, m.
    setback_m : float
        From clip to lure, m; 0 where there is no clip.

    Returns
    -------
    float
        0 calm to 1 wild.

    Notes
    -----
    A meter, not a measurement: what the blade passes on falls off with leader over blade length
    (one half at three blades), a lure's own action counts a half, and a close clip adds a fifth,
    fading over 40 ft (the close-and-wild school). All three shares are judged.
    """
    thrown = 0.0
    if attractor is not None and attractor.gives_action:
        # A disc throws by where it sits, not by its size.
        reach = DISC_FARTHEST_M if attractor.style == "disc" else attractor.length_m
        blades = leader_m / reach
        thrown = 1.0 / (1.0 + (blades / 3.0) ** 2)
    own = 0.5 if lure.own_action else 0.0
    close = 0.2 * math.exp(-setback_m / 12.0) if setback_m > 0.0 else 0.0
    return min(1.0, max(thrown, own) * 0.8 + close)
