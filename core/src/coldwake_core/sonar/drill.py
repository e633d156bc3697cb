"""The sonar drill: a piece of screen, drawn from the cone's geometry, and what it is."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Final, Literal

from ..checks import require_choice, require_number
from ..constants import MPH_MPS
from .cone import Sounder
from .marks import mark_of, trace_of

Kind = Literal["under", "aside", "half", "along", "ball", "bait"]
KINDS: Final[tuple[Kind, ...]] = ("under", "aside", "half", "along", "ball", "bait")
MOST_SEED: Final = 1_000_000
SCREEN_S: Final = 40.0
PINGS_PS: Final = 8.0
ALONG_BY: Final = 3.0
"""So many times as long as a fish that stands still a follower stays in the cone."""
WORDS: Final[dict[Kind, str]] = {
    "under": "A fish that passed under the middle: its ends read deeper than its middle, and it "
             "was on as long as the cone is wide at its depth for this speed. The length is time, "
             "not size.",
    "aside": "A fish well off the axis: on for less than half of what the middle gives, nearly "
             "flat, and read deeper than it is. It is no smaller for being short.",
    "half": "Half an arch: it rises, or sinks, to one end and stops there. It left the cone, or "
            "came into it, by its own swimming.",
    "along": "Longer than any fish that stands still can be at this speed and depth, with a "
             "beginning and an end: it swam along with the boat for a while, a follower.",
    "ball": "One depth from edge to edge of the screen: it hangs on the boat. A ball, or a lure "
            "near the cone.",
    "bait": "Many small echoes at once, with no line through them: a school of bait. One fish "
            "leaves one line.",
}
"""Reasons as common practice and the cone give them."""


@dataclass(frozen=True, slots=True, kw_only=True)
class DrillScreen:
    """A piece of screen to be read.

    Parameters
    ----------
    seed : int
        Which.
    speed_mps, cone_deg, bottom_m : float
        Speed of the boat, m/s; whole angle of the cone, degrees; depth of the bottom, m.
    seconds : float
        How long the piece took, s.
    echoes : tuple of (float, float)
        Seconds from its beginning, and depth that is read, m.
    options : tuple of Kind
        What it may be.
    """

    seed: int
    speed_mps: float
    cone_deg: float
    bottom_m: float
    seconds: float
    echoes: tuple[tuple[float, float], ...]
    options: tuple[Kind, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class DrillAnswer:
    """Whether it was read right, and why it is what it is.

    Parameters
    ----------
    right : bool
        Whether the answer was right.
    kind : Kind
        What it was.
    words : str
        Why.
    middle_s : float
        How long a fish under the middle would have been on at that depth and speed, s.
    """

    right: bool
    kind: Kind
    words: str
    middle_s: float


def _draw(seed: int, number: int) -> float:
    """A number from 0 to 1 that hangs on the seed alone (additive recurrence, Weyl 1916)."""
    return math.modf((seed + 1) * math.sqrt(2.0 + number) * 7.0 + number * math.e)[0]


def _scene(seed: int) -> tuple[Kind, Sounder, float, float, float]:
    """Kind, sounder, depth of the fish, m, speed, m/s, and depth of the bottom, m."""
    kind = KINDS[int(_draw(seed, 1) * len(KINDS))]
    sounder = Sounder(depth_m=0.3, cone_deg=12.0 + 16.0 * _draw(seed, 2))
    depth = 6.0 + 10.0 * _draw(seed, 3)
    speed = (1.0 + 1.4 * _draw(seed, 4)) * MPH_MPS
    return kind, sounder, depth, speed, depth + 4.0 + 10.0 * _draw(seed, 5)


def drill_screen(seed: int) -> DrillScreen:
    """Return a piece of screen.

    Parameters
    ----------
    seed : int
        Which, 0 to 1 000 000.

    Returns
    -------
    DrillScreen

    Raises
    ------
    InvalidInputError
        If there is no such.

    Notes
    -----
    Drawn by ``trace_of``: slant ranges in a cone, nothing of any unit's picture.
    """
    require_number("seed", seed, low=0, high=MOST_SEED)
    kind, sounder, depth, speed, bottom = _scene(seed)
    whole = mark_of(sounder, depth_m=depth, speed_mps=speed, pings_ps=PINGS_PS)
    middle = 0.5 * SCREEN_S + 8.0 * (_draw(seed, 6) - 0.5)
    aside = 0.93 * 0.5 * whole.width_m if kind == "aside" else 0.0
    trace = trace_of(
        sounder, depth_m=depth, speed_mps=speed, pings_ps=PINGS_PS, aside_m=aside
    )
    if kind == "half":
        # It swims out of the cone as soon as it is under the middle, or comes in there.
        trace = tuple(p for p in trace if p[0] <= 0.0) if _draw(seed, 7) < 0.5 else tuple(
            p for p in trace if p[0] >= 0.0
        )
    elif kind == "along":
        long_s = min(ALONG_BY * whole.seconds, 0.8 * SCREEN_S)
        trace = _level(depth, long_s, wander_m=0.25)
    elif kind == "ball":
        trace, middle = _level(depth, SCREEN_S, wander_m=0.0), 0.5 * SCREEN_S
    elif kind == "bait":
        trace = tuple(
            (
                6.0 * (_draw(seed, 20 + 2 * i) - 0.5), depth + 2.4 * (_draw(seed, 21 + 2 * i) - 0.5)
            )
            for i in range(90)
        )
    return DrillScreen(
        seed=seed, speed_mps=speed, cone_deg=sounder.cone_deg, bottom_m=bottom, seconds=SCREEN_S,
        echoes=tuple(
            (middle + t, read) for t, read in trace if 0.0 <= middle + t <= SCREEN_S
        ),
        options=KINDS,
    )


def _level(depth_m: float, seconds: float, *, wander_m: float) -> tuple[tuple[float, float], ...]:
    count = int(seconds * PINGS_PS)
    return tuple(
        (
            seconds * (i / count - 0.5),
            depth_m + wander_m * math.sin(2.0 * math.pi * 2.0 * i / count),
        )
        for i in range(count + 1)
    )


def judge_drill(seed: int, answer: str) -> DrillAnswer:
    """Return whether a piece of screen was read right, and why.

    Parameters
    ----------
    seed : int
        Which.
    answer : str
        One of KINDS.

    Returns
    -------
    DrillAnswer

    Raises
    ------
    InvalidInputError
        If there is no such piece, or no such answer.
    """
    require_number("seed", seed, low=0, high=MOST_SEED)
    require_choice("answer", answer, KINDS)
    kind, sounder, depth, speed, _ = _scene(seed)
    whole = mark_of(sounder, depth_m=depth, speed_mps=speed, pings_ps=PINGS_PS)
    return DrillAnswer(
        right=answer == kind, kind=kind, words=WORDS[kind], middle_s=whole.seconds
    )
