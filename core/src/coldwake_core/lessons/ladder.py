"""The ladder of lessons, in the order of the day, and the drills beside it."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np

from ..errors import InvalidInputError
from .clock import change_or_clock, leave_alone, one_change
from .depths import above, by_rig, colours, counter
from .reset import reset
from .swim import beside_boat, one_speed
from .task import Answers, Given, Made, check_answers
from .turning import turns
from .water import marks, warming

LUCK: Final = 0.001
"""One who taps blindly passes a lesson at most this often, as often as he may be asked."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Lesson:
    """A lesson.

    Parameters
    ----------
    id, title : str
        Which, and what it is called.
    says : str
        What it teaches.
    needed : int
        So many tasks right in a row pass it.
    """

    id: str
    title: str
    says: str
    needed: int


LADDER: Final = (
    Lesson(id="beside", title="Action beside the boat", needed=6, says=(
        "Every line begins beside the boat. A blade swings from side to side and never goes over; "
        "a plug tracks straight. What is right there is right at depth, for the speed decides. "
        "Look again after turns, wind and waves: too fast is the commonest fault."
    )),
    Lesson(id="one-speed", title="One speed for all", needed=3, says=(
        "All lures share the boat's speed. Each works between its slowest and its fastest; what "
        "all ranges have in common is the window. A lure outside of it is worse than none."
    )),
    Lesson(id="by-rig", title="Depth by rig", needed=3, says=(
        "Flat lines fish the top few feet. Leadcore goes down the middle, 6 to 8 ft a colour. The "
        "downrigger is exact: at trolling speed a heavy ball hardly moves off its number."
    )),
    Lesson(id="colours", title="Leadcore's colours", needed=5, says=(
        "Leadcore changes colour every 10 yards. 6 to 8 ft a colour at 1.2 to 1.5 mph with a small "
        "dodger; less when faster, more with less to pull. Let out what the depth asks, not all."
    )),
    Lesson(id="counter", title="The counter and its blowback", needed=4, says=(
        "The counter measures cable, not depth. Faster, deeper, lighter: the cable leans, and the "
        "ball is shallower than the number. Depth is about the cable times the cosine of its lean."
    )),
    Lesson(id="marks", title="Marks", needed=4, says=(
        "Each ping that meets a fish draws one column: length on the screen is time in the cone, "
        "not size. What is read is the distance from the transducer. A ball draws a steady line."
    )),
    Lesson(id="above", title="Above, and never below", needed=3, says=(
        "Fish look up. A lure just above the marks is fine, one below them useless; more than "
        "10 ft above, few come. Keep 4 ft clear of the bottom. Round a shallow school, not over it."
    )),
    Lesson(id="warming", title="Warming water", needed=4, says=(
        "The surface sets the method. Trout: under 50 °F cover water fast; 50 to 54 °F slow down "
        "under the warming surface; then two levels; past 60 °F go down. Kokanee: slow always, "
        "near the surface at 50 to 55 °F, deeper when it is warmer. Wind keeps it from warming."
    )),
    Lesson(id="one-change", title="One change at a time", needed=3, says=(
        "With two dials moved at once nobody knows which did it. Two rods side by side, one dial "
        "apart, tell in the same half hour, whatever the clock does meanwhile."
    )),
    Lesson(id="clock", title="The change, or the clock", needed=5, says=(
        "The bite comes and goes by itself. The rods that were not touched tell the clock's share: "
        "only what the changed rod did beyond them is the change's. Few hits say little."
    )),
    Lesson(id="turns", title="Turns", needed=3, says=(
        "In a turn inside lines slow and sink, and a floating plug rises instead; outside lines "
        "speed up and rise. A long line cuts the corner and slows on either side. Tight turns "
        "bring lines together."
    )),
    Lesson(id="alone", title="When to leave it alone", needed=5, says=(
        "Fish on all rods: leave it alone. One rod lags its twin: look at it. Fish passed and no "
        "bite: one small change. No fish at all: it is not the lures."
    )),
)
RESET: Final = Lesson(id="reset", title="A fish on, alone", needed=2, says=(
    "One thing at a time, with the line tight. Stop, or keep way on: schools differ; the order of "
    "the rest is the same. Pliers, never by hand, where hooks and a thrashing fish meet."
))
LESSONS: Final = {lesson.id: lesson for lesson in (*LADDER, RESET)}
_MAKERS: Final[dict[str, Callable[[np.random.Generator], Made]]] = {
    "beside": beside_boat, "one-speed": one_speed, "by-rig": by_rig, "colours": colours,
    "counter": counter, "marks": marks, "above": above, "warming": warming,
    "one-change": one_change, "clock": change_or_clock, "turns": turns, "alone": leave_alone,
    "reset": reset,
}


def make_task(lesson: str, seed: int, tried: Sequence[Sequence[Given]] = ()) -> Made:
    """Return a lesson's task.

    Parameters
    ----------
    lesson : str
        Its id.
    seed : int
        Which of its tasks, at least 0.
    tried : sequence of sequence of Given
        What was set for each stretch that has been fished, where the task has such.

    Returns
    -------
    Made

    Raises
    ------
    InvalidInputError
        If there is no such lesson, or something cannot be set.
    """
    if lesson not in LESSONS:
        raise InvalidInputError("lesson", lesson, "one of " + ", ".join(LESSONS))
    draw = (seed, list(LESSONS).index(lesson))
    if lesson != "one-change":
        return _MAKERS[lesson](np.random.default_rng(draw))
    dials = one_change(np.random.default_rng(draw)).task.dials
    fished: list[Answers] = [check_answers(dials, one) for one in tried]
    return one_change(np.random.default_rng(draw), fished)
