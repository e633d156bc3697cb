"""A fish on, alone: the order of acts until the line is out again."""

from __future__ import annotations

from typing import Final

import numpy as np

from .task import Answers, Ask, Given, Judged, Made, Option, Task

ACTS: Final = (
    ("look", "Look ahead: water, boats and bottom clear"),
    ("rod", "Rod out of its holder, the line kept tight"),
    ("clear", "Clear the lines in the way, one thing at a time"),
    ("play", "Play it down, rod tip low near the boat"),
    ("net", "Net it when it lies on its side"),
    ("hook", "Hook out with pliers, hands wet: keep and count, or release"),
    ("check", "Check leader, point and bait"),
    ("out", "Line out again to the same number"),
    ("note", "Note it, if the tap at the bite was missed"),
)
"""The order of acts (common practice); stopping or keeping way on is a matter of school."""


def reset(rng: np.random.Generator) -> Made:
    """Make a task: bring the acts with a fish on into their order.

    Parameters
    ----------
    rng : numpy.random.Generator
        What comes by chance.

    Returns
    -------
    Made
    """
    keys = tuple(key for key, _ in ACTS)
    task = Task(
        words="A fish is on, you are alone, other lines are out. In which order? Whether the motor "
              "is stopped, or keeps way on, is a matter of school; this order serves both.",
        asks=(Ask(
            key="order", label="Tap them in order", kind="order",
            options=tuple(
                Option(key=ACTS[i][0], words=ACTS[i][1]) for i in rng.permutation(len(ACTS))
            ),
        ),),
    )

    def judge(answers: Answers) -> tuple[Judged, ...]:
        said = answers["order"].order
        first = next((i for i, (a, b) in enumerate(zip(said, keys, strict=True)) if a != b), None)
        return (
            Judged(
                key="order", right=first is None,
                words="In order." if first is None else
                f"As number {first + 1}: {ACTS[first][1].lower()}.",
            ),
        )

    return Made(task=task, judge=judge, solution=(Given(key="order", order=keys),))
