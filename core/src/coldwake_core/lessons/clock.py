"""Was it the change: one change at a time, the change or the clock, and leaving it alone."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Final

import numpy as np

from ..errors import InvalidInputError
from ..evidence.control import Sides, compare_with_control
from ..evidence.rates import Exposure
from .small_day import COLOURS, DEPTHS_M, SmallDay, shown
from .task import Answers, Ask, Fact, Given, Judged, Log, LogRod, Made, Option, Task, choice

STRETCH_MIN: Final = 30
MOST_TRIES: Final = 8
RODS: Final = ("rod-1", "rod-2")
_COLOURS: Final = tuple((name, name) for name in COLOURS)


def _hits(rng: np.random.Generator, rate_pmin: float, begin: float, end: float) -> list[float]:
    count = int(rng.poisson(rate_pmin * (end - begin)))
    return sorted(float(value) for value in rng.uniform(begin, end, count))


def _depth(key: str, label: str) -> Ask:
    return Ask(key=key, label=label, kind="choice", options=tuple(
        Option(key=f"{depth:g}", words="", depth_m=depth) for depth in DEPTHS_M
    ))


def _dials() -> tuple[Ask, ...]:
    return tuple(
        ask for i, rod in enumerate(RODS) for ask in (
            choice(f"{rod}-colour", f"Rod {i + 1}, colour", _COLOURS),
            _depth(f"{rod}-depth", f"Rod {i + 1}, depth"),
        )
    )


def one_change(rng: np.random.Generator, tried: Sequence[Answers] = ()) -> Made:
    """Make a task: find colour and depth with two rods and some half hours.

    Parameters
    ----------
    rng : numpy.random.Generator
        What comes by chance.
    tried : sequence of mapping
        What was set for each half hour that has been fished.

    Returns
    -------
    Made

    Raises
    ------
    InvalidInputError
        If more half hours were fished than there are.
    """
    if len(tried) > MOST_TRIES:
        raise InvalidInputError("tried", len(tried), f"at most {MOST_TRIES} half hours")
    seed = int(rng.integers(2**31))
    day = SmallDay(seed)
    colour, depth = day.wanted
    hits: dict[str, list[float]] = {rod: [] for rod in RODS}
    changed: dict[str, list[float]] = {rod: [] for rod in RODS}
    on: dict[str, tuple[str, float] | None] = dict.fromkeys(RODS)
    for stretch, set_to in enumerate(tried):
        begin = float(STRETCH_MIN * stretch)
        for i, rod in enumerate(RODS):
            lure = shown(set_to[f"{rod}-colour"].choice, float(set_to[f"{rod}-depth"].choice))
            now = lure.recipe.colour, lure.recipe.depth_m
            if on[rod] not in (None, now):
                changed[rod].append(begin)
            on[rod] = now
            # The same half hour fished the same way goes the same way.
            luck = np.random.default_rng((seed, 3, stretch, i))
            hits[rod] += _hits(
                luck, day.rates(STRETCH_MIN * stretch, [lure])[0], begin, begin + STRETCH_MIN
            )
    task = Task(
        words="A small lake, two rods, hungry fish that want one colour at one depth. The bite "
              "itself comes and goes. Fish half hours, then say what they want.",
        log=Log(minutes=float(STRETCH_MIN * MOST_TRIES), rods=tuple(
            LogRod(
                name=f"Rod {i + 1}", words=what[0] if what else "", hits=tuple(hits[rod]),
                changed=tuple(changed[rod]), depth_m=what[1] if what else None,
            )
            for i, (rod, what) in enumerate(on.items())
        )),
        asks=(choice("colour", "They want", _COLOURS), _depth("depth", "at")),
        tries=MOST_TRIES - len(tried), dials=_dials(),
    )
    said = "Only what one rod did beside the other in the same half hour tells; change one dial " \
           "at a time, or nobody knows which of two did it."

    def judge(answers: Answers) -> tuple[Judged, ...]:
        return (
            Judged(
                key="colour", right=answers["colour"].choice == colour,
                words=f"They wanted {colour}. {said}",
            ),
            Judged(
                key="depth", right=answers["depth"].choice == f"{depth:g}",
                words="They lay there:", facts=(
                    Fact(label="Depth", quantity="long", value=depth),
                ),
            ),
        )

    return Made(task=task, judge=judge, solution=(
        Given(key="colour", choice=colour), Given(key="depth", choice=f"{depth:g}"),
    ))


_VERDICTS: Final = (
    ("helped", "the change helped"), ("worse", "the change made it worse"),
    ("clock", "they bite otherwise on every rod: the clock"),
    ("early", "too early to tell"),
)
_WHY: Final = {
    "helped": "The changed rod gained while those beside it went on as before.",
    "worse": "The changed rod lost while those beside it went on as before.",
    "clock": "All rods gained, or lost, alike: what changed on one of them cannot have done it. "
             "The rods that were not touched tell the clock's share.",
    "early": "So few hits in so few minutes come about by chance. Wait, and change nothing else.",
}
_SIDE_RODS: Final = 3
_BEFORE_MIN: Final = 90.0


def change_or_clock(rng: np.random.Generator) -> Made:
    """Make a task: whether a change did it, or the hour.

    Parameters
    ----------
    rng : numpy.random.Generator
        What comes by chance.

    Returns
    -------
    Made

    Notes
    -----
    Only a log that the app's own verdict (evidence.control) reads as it was drawn is shown.
    """
    what = _VERDICTS[int(rng.integers(4))][0]
    mine, clock, after_min = {
        "helped": (6.0, 1.0, 90.0), "worse": (0.0, 1.0, 90.0), "early": (1.0, 1.0, 12.0),
        "clock": (1.0, (4.0, 0.15)[int(rng.integers(2))], 90.0),
    }[what]
    while True:
        base = float(rng.uniform(0.02, 0.035)) * (2.5 if what == "worse" or clock < 1.0 else 1.0)
        end = _BEFORE_MIN + after_min
        names = [f"Rod {i + 1}" for i in range(_SIDE_RODS + 1)]
        which = int(rng.integers(len(names)))
        hits = [
            _hits(rng, base, 0.0, _BEFORE_MIN)
            + _hits(rng, base * clock * (mine if i == which else 1.0), _BEFORE_MIN, end)
            for i in range(len(names))
        ]
        if _reads_as(what, hits, which, clock, after_min):
            break
    task = Task(
        words="The colour of one rod was changed where its line is marked; nobody touched the "
              "others. What do you say now?",
        log=Log(minutes=end, rods=tuple(
            LogRod(
                name=name, words="changed" if i == which else "left alone", hits=tuple(hits[i]),
                changed=(_BEFORE_MIN,) if i == which else (),
            )
            for i, name in enumerate(names)
        )),
        asks=(choice("verdict", "I say", _VERDICTS),),
    )

    def judge(answers: Answers) -> tuple[Judged, ...]:
        return (
            Judged(key="verdict", right=answers["verdict"].choice == what, words=_WHY[what]),
        )

    return Made(task=task, judge=judge, solution=(Given(key="verdict", choice=what),))


def _reads_as(
    what: str, hits: list[list[float]], which: int, clock: float, after_min: float
) -> bool:
    """Whether the log shows what it was drawn for, to one who counts."""

    def side(after: bool) -> tuple[Sides, int, int]:
        minutes = after_min if after else _BEFORE_MIN
        counts = [sum((at >= _BEFORE_MIN) == after for at in rod) for rod in hits]
        others = sum(counts) - counts[which]
        return Sides(
            changed=Exposure(hits=counts[which], minutes=minutes),
            control=Exposure(hits=others, minutes=minutes * _SIDE_RODS),
        ), counts[which], others

    (before, own, others), (after, own_after, others_after) = side(False), side(True)
    verdict = compare_with_control(before=before, after=after)
    per_others = (others_after / after_min) / (max(others, 1) / _BEFORE_MIN)
    if what == "early":
        return own_after <= 1 and others_after <= 2 and others >= 3
    if own < 2 or others < 5:
        return False
    if what == "clock":
        moved = per_others >= 2.5 and own_after >= 2 * own
        fell = per_others <= 0.35 and own_after <= 0.5 * own
        tells_nothing = verdict.verdict in ("too_early", "no_difference")
        return tells_nothing and (moved if clock > 1.0 else fell)
    steady = 0.6 <= per_others <= 1.6
    return steady and verdict.verdict == {"helped": "better", "worse": "worse"}[what]


_DO: Final = (
    ("alone", "leave everything alone"), ("look", "look at the rod that lags: tuning and bait"),
    ("small", "one small change on one rod"), ("place", "go and look for fish elsewhere"),
)
_TWINS: Final = ("small dodger, pink", "thin spoon, copper")
_DO_WHY: Final = {
    "alone": "Fish come on every rod: each change now risks what works, and tells nothing. "
             "Leaving it alone is the usual answer of a good day.",
    "look": "It is rigged like its neighbour, which earns fish: its tuning and bait are looked at "
            "before its lure is blamed.",
    "small": "Fish are passed and none answers: one small change, on one rod, the others beside "
             "it to compare. Not all at once.",
    "place": "No marks for so long: nothing in the water can be judged by fish that are not "
             "there. Lures are not at fault; go where fish are.",
}


def leave_alone(rng: np.random.Generator) -> Made:
    """Make a task: whether to do anything, and what.

    Parameters
    ----------
    rng : numpy.random.Generator
        What comes by chance.

    Returns
    -------
    Made
    """
    what = _DO[int(rng.integers(4))][0]
    minutes, quiet = 120.0, 70.0
    lagging = int(rng.integers(4))
    base = float(rng.uniform(0.05, 0.08))
    while True:
        rods = []
        for i in range(4):
            if what in ("alone", "look"):
                rate = 0.0 if what == "look" and i == lagging else base
                rods.append(_hits(rng, rate, 0.0, minutes))
            else:
                rods.append(_hits(rng, base, 0.0, minutes - quiet))
        late = [sum(at > quiet for at in rod) for rod in rods]
        alive = [i for i in range(4) if what != "look" or i != lagging]
        if what not in ("alone", "look") or all(late[i] >= 2 for i in alive):
            break
    passed = _hits(rng, 0.25, 0.0, minutes - quiet if what == "place" else minutes)
    task = Task(
        words="Two hours on the water, the four rods rigged alike in pairs; below them the minutes "
              "in which fish were marked under the boat. What do you do?",
        log=Log(minutes=minutes, marks=tuple(passed), rods=tuple(
            LogRod(
                name=f"Rod {i + 1}", words=_TWINS[i // 2],
                hits=tuple(rods[i]),
            )
            for i in range(4)
        )),
        asks=(choice("do", "I", _DO),),
    )

    def judge(answers: Answers) -> tuple[Judged, ...]:
        return (Judged(key="do", right=answers["do"].choice == what, words=_DO_WHY[what]),)

    return Made(task=task, judge=judge, solution=(Given(key="do", choice=what),))
