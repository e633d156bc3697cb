"""Whether it swims: what is seen beside the boat, and one speed for all that is out."""

from __future__ import annotations

from typing import Final, Literal

import numpy as np

from ..constants import MPH_MPS
from .task import Answers, Ask, Beside, Fact, Given, Judged, Made, Task, choice

_SLACK_MPS: Final = 0.01
"""Two speeds closer than this are one to a hand on the throttle."""
_LEAST_MPS: Final = 0.15 * MPH_MPS
"""A window that a hand can hold (judged)."""
_OUTLINES: Final[dict[str, Literal["blade", "spoon", "plug"]]] = {
    "a dodger": "blade", "a thin spoon": "spoon", "a minnow plug": "plug",
}
_SEEN: Final = {
    "slow": "It hangs, or barely stirs: the boat is too slow for it.",
    "right": "It swings to either side, evenly, and never goes over: leave the throttle there.",
    "fast": "It goes right over: too fast, the commonest fault. Slow down until it only swings.",
    "untuned": "It works, but off to one side: a bent eye or blade. Bend it back and look again; "
               "such a lure flips up and never reaches its depth.",
}
"""What is seen beside the boat (common practice)."""


def beside_boat(rng: np.random.Generator) -> Made:
    """Make a task: what a lure does beside the boat.

    Parameters
    ----------
    rng : numpy.random.Generator
        What comes by chance.

    Returns
    -------
    Made
    """
    what = ("slow", "right", "fast", "untuned")[int(rng.integers(4))]
    name = tuple(_OUTLINES)[int(rng.integers(len(_OUTLINES)))]
    swing = float(rng.uniform(25.0, 50.0))
    beat = float(rng.uniform(1.0, 2.0))
    if what == "slow":
        swing, beat = float(rng.uniform(0.0, 6.0)), float(rng.uniform(0.2, 0.6))
    if what == "fast":
        swing, beat = float(rng.uniform(45.0, 60.0)), float(rng.uniform(2.0, 3.0))
    aside = float(rng.choice([-1.0, 1.0]) * rng.uniform(28.0, 45.0)) if what == "untuned" else 0.0
    task = Task(
        words=f"You let {name} swim beside the boat before it goes out. What do you see?",
        asks=(choice("what", "It is", (
            ("slow", "too slow for it"), ("right", "right"), ("fast", "too fast for it"),
            ("untuned", "out of tune"),
        )),),
        beside=Beside(
            outline=_OUTLINES[name], swing_deg=swing, beat_hz=beat, turns_over=what == "fast",
            aside_deg=aside,
        ),
    )

    def judge(answers: Answers) -> tuple[Judged, ...]:
        return (
            Judged(key="what", right=answers["what"].choice == what, words=_SEEN[what]),
        )

    return Made(task=task, judge=judge, solution=(Given(key="what", choice=what),))


_GEAR: Final[dict[str, tuple[float, float]]] = {
    "a small dodger and a hoochie": (1.0, 1.6), "a narrow dodger and a worm": (1.2, 1.5),
    "a large dodger and a hoochie": (1.2, 2.0), "a string of blades and a worm": (0.9, 1.5),
    "a small willow leaf and a fly": (0.8, 1.8), "a disc and a worm": (1.0, 2.5),
    "a very large blade and a hoochie": (2.5, 3.0), "a thin spoon": (1.5, 3.5),
    "a heavy fast spoon": (2.5, 3.5), "a minnow plug": (1.2, 2.8),
    "a fat small-lipped plug": (1.0, 5.0), "a river plug with a rattle": (2.0, 5.0),
}
"""Slowest and fastest, mph (common practice)."""


def _range(gear: str) -> tuple[float, float]:
    low, high = _GEAR[gear]
    return low * MPH_MPS, high * MPH_MPS


def _window(gear: list[str]) -> tuple[float, float]:
    ranges = [_range(one) for one in gear]
    return max(low for low, _ in ranges), min(high for _, high in ranges)


def _is_wide(window: tuple[float, float]) -> bool:
    return window[1] - window[0] >= _LEAST_MPS


def _drawn(rng: np.random.Generator, wants_odd: bool) -> tuple[list[str], int | None]:
    """Four rods' gear, and which comes off: the only one whose going opens a window."""
    names = tuple(_GEAR)
    while True:
        gear = [names[i] for i in rng.choice(len(names), 4, replace=False)]
        window = _window(gear)
        if not wants_odd:
            if _is_wide(window) and window[1] - window[0] <= 1.0 * MPH_MPS:
                return gear, None
            continue
        without = [_window(gear[:i] + gear[i + 1:]) for i in range(4)]
        opens = [i for i, one in enumerate(without) if _is_wide(one)]
        if window[1] < window[0] - _SLACK_MPS and len(opens) == 1:
            return gear, opens[0]


def one_speed(rng: np.random.Generator) -> Made:
    """Make a task: the speed that all lures share, or the one that has to come off.

    Parameters
    ----------
    rng : numpy.random.Generator
        What comes by chance.

    Returns
    -------
    Made
    """
    gear, odd = _drawn(rng, bool(rng.integers(2)))
    low, high = _window(gear if odd is None else gear[:odd] + gear[odd + 1:])
    facts = tuple(
        Fact(
            label=f"Rod {i + 1}", words=one, quantity="speed", value=_range(one)[0],
            to=_range(one)[1],
        )
        for i, one in enumerate(gear)
    )
    off = "none" if odd is None else f"rod-{odd + 1}"
    task = Task(
        words="Four rods are out. Everything on them has to work at the boat's one speed; if they "
              "share none, one comes off, and the other three go on.",
        facts=facts,
        asks=(
            choice("off", "Comes off", (
                ("none", "none"), *((f"rod-{i}", f"rod {i}") for i in range(1, 5)),
            )),
            Ask(
                key="speed", label="Speed through the water", kind="number", quantity="speed",
                low=0.5 * MPH_MPS, high=4.0 * MPH_MPS,
            ),
        ),
    )

    def judge(answers: Answers) -> tuple[Judged, ...]:
        said = answers["speed"].number or 0.0
        return (
            Judged(
                key="off", right=answers["off"].choice == off,
                words="They share a speed: none comes off." if odd is None else
                f"Rod {odd + 1} shares no speed with the rest. A lure outside its range is worse "
                "than none: it drives fish off.",
            ),
            Judged(
                key="speed", right=low - _SLACK_MPS <= said <= high + _SLACK_MPS,
                words="The slowest that the fastest of them needs, up to the fastest that the "
                      "slowest of them stands.",
                facts=(Fact(label="They share", quantity="speed", value=low, to=high),),
            ),
        )

    return Made(task=task, judge=judge, solution=(
        Given(key="off", choice=off), Given(key="speed", number=0.5 * (low + high)),
    ))
