"""What the water says: marks on a screen, and a surface that warms."""

from __future__ import annotations

from dataclasses import replace
from typing import Final

import numpy as np

from ..advice.method import method_of_the_hour
from ..constants import MPH_MPS, degc_from_degf
from ..sonar.drill import KINDS, MOST_SEED, drill_screen, judge_drill
from ..trade import Species
from .task import Answers, Ask, Fact, Given, Judged, Made, Task, choice

READ: Final = {
    "under": "a fish, under the middle", "aside": "a fish, well off the axis",
    "half": "a fish that came or went", "along": "a fish that swam along",
    "ball": "the ball, or a lure", "bait": "a school of bait",
}


def marks(rng: np.random.Generator) -> Made:
    """Make a task: what a piece of sonar screen shows.

    Parameters
    ----------
    rng : numpy.random.Generator
        What comes by chance.

    Returns
    -------
    Made
    """
    seed = int(rng.integers(MOST_SEED))
    # Which piece it is would say what it is.
    screen = replace(drill_screen(seed), seed=0)
    told = judge_drill(seed, KINDS[0])
    task = Task(
        words="A piece of the screen. What is it?",
        facts=(
            Fact(label="Speed", quantity="speed", value=screen.speed_mps),
            Fact(label="Cone", quantity="degrees", value=screen.cone_deg),
            Fact(label="Bottom", quantity="long", value=screen.bottom_m),
        ),
        asks=(choice("what", "It is", tuple((kind, READ[kind]) for kind in screen.options)),),
        screen=screen,
    )

    def judge(answers: Answers) -> tuple[Judged, ...]:
        return (
            Judged(
                key="what", right=answers["what"].choice == told.kind, words=told.words,
                facts=(Fact(
                    label="On under the middle, at that depth and speed", quantity="seconds",
                    value=told.middle_s,
                ),),
            ),
        )

    return Made(task=task, judge=judge, solution=(Given(key="what", choice=told.kind),))


_LADDER: Final[dict[Species, tuple[float, ...]]] = {
    "trout": (48.5, 52.0, 57.0, 64.0), "kokanee": (48.5, 52.5, 62.0, 70.0),
}
"""A surface in the middle of each band, °F."""
_OFF_DEGF: Final = 1.2
"""How far off the middle a task's surface is at the most: never at the edge of a band."""


def warming(rng: np.random.Generator) -> Made:
    """Make a task: the method and the speed that the surface calls for now.

    Parameters
    ----------
    rng : numpy.random.Generator
        What comes by chance.

    Returns
    -------
    Made
    """
    species: Species = "trout" if rng.random() < 0.6 else "kokanee"
    rungs = _LADDER[species]
    now_degf = rungs[int(rng.integers(4))] + float(rng.uniform(-_OFF_DEGF, _OFF_DEGF))
    windy = bool(rng.random() < 0.4)
    rise = float(rng.uniform(0.0, 0.4) if windy else rng.uniform(1.0, 3.0))
    method = method_of_the_hour(species=species, surface_degc=degc_from_degf(now_degf))
    offered = {
        one.id: one for one in (
            method_of_the_hour(species=species, surface_degc=degc_from_degf(rung))
            for rung in rungs
        )
    }
    low, high = method.speed_low_mps, method.speed_high_mps
    task = Task(
        words=f"You fish for {species}. How do you go on, and how fast?",
        facts=(
            Fact(
                label="Surface at first light", quantity="temperature",
                value=degc_from_degf(now_degf - rise),
            ),
            Fact(label="Surface now", quantity="temperature", value=degc_from_degf(now_degf)),
            Fact(label="Sky and wind", words=(
                "wind since dawn, the surface hardly warms" if windy else "calm and fair"
            )),
        ),
        asks=(
            choice("method", "Method", tuple(
                (one.id, one.name if list(o.name for o in offered.values()).count(one.name) == 1
                 else f"{one.name}; play and release none")
                for one in offered.values()
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
                key="method", right=answers["method"].choice == method.id,
                words=f"{method.name}. {method.reason}" + (
                    " Wind keeps mixing: the surface does not warm, so the morning's method stays."
                    if windy else ""
                ),
            ),
            Judged(
                key="speed", right=low - 0.01 <= said <= high + 0.01, words=f"{method.gear}.",
                facts=(Fact(label="Speed", quantity="speed", value=low, to=high),),
            ),
        )

    return Made(task=task, judge=judge, solution=(
        Given(key="method", choice=method.id), Given(key="speed", number=0.5 * (low + high)),
    ))
