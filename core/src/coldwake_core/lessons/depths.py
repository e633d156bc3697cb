"""How deep: each rig's own way down, leadcore by its colours, the counter, and marks."""

from __future__ import annotations

import math
from typing import Final

import numpy as np

from ..constants import COLOUR_M, FOOT_M, MPH_MPS, POUND_KG
from ..lakesim.boat import LURES, WATER, Look, RodState, at_depth, depth_of
from ..lines.bodies import Ball
from ..lines.downrigger import ClippedLine, DownriggerRig
from ..lines.materials import MATERIALS
from .task import Answers, Ask, Column, Fact, Given, InColumn, Judged, Made, Task, choice

LEADER_M: Final = 6.0
"""Leader between leadcore and lure on the boat of the lessons, m."""
_COLOURS: Final = 8.0
_NEAR_M: Final = 2.0 * FOOT_M
"""So near is as good as there (judged: half the step of depth that anglers make)."""
_OFF_BOTTOM_M: Final = 4.0 * FOOT_M
"""Kept clear above the bottom (common practice)."""
_WORKED: Final = Look(lure="small hoochie", colour="pink", attractor="small dodger", leader_m=0.4)
_SPOON: Final = Look(lure="thin spoon", colour="copper", attractor="none", leader_m=1.5)
_PLUG: Final = Look(lure="minnow plug", colour="perch", attractor="none", leader_m=1.5)


def _leadcore(look: Look) -> RodState:
    return RodState(kind="leadcore", look=look, setback_m=LEADER_M, setting_m=LEADER_M)


def _set_in_colours(look: Look, colours: float, speed_mps: float) -> float:
    """Depth, m, of a leadcore lure."""
    rod = RodState(
        kind="leadcore", look=look, setback_m=LEADER_M, setting_m=LEADER_M + colours * COLOUR_M
    )
    return depth_of(rod, speed_mps)


def _is_near(depth_m: float, wanted_m: float, share: float) -> bool:
    return abs(depth_m - wanted_m) <= max(_NEAR_M, share * wanted_m)


def _speed(speed_mps: float) -> Fact:
    return Fact(label="Speed through the water", quantity="speed", value=speed_mps)


def _colours(label: str = "Colours out") -> Ask:
    return Ask(key="colours", label=label, kind="number", quantity="count", low=0.5, high=_COLOURS)


def by_rig(rng: np.random.Generator) -> Made:
    """Make a task: three depths for three rigs, and the counter's number for the deepest.

    Parameters
    ----------
    rng : numpy.random.Generator
        What comes by chance.

    Returns
    -------
    Made
    """
    speed = float(rng.uniform(1.2, 1.7)) * MPH_MPS
    flat = RodState(kind="flat", look=_PLUG, setback_m=30.0, setting_m=30.0)
    depths = {
        "flat": depth_of(flat, speed),
        "leadcore": _set_in_colours(_WORKED, float(rng.uniform(2.5, 5.0)), speed),
        "downrigger": float(rng.uniform(18.0, 30.0)),
    }
    order = [tuple(depths)[i] for i in rng.permutation(3)]
    deep = depths["downrigger"]
    names = (
        ("flat", "a flat line with a minnow plug"), ("leadcore", "leadcore"),
        ("downrigger", "the downrigger, a 10 lb ball"),
    )
    task = Task(
        words="Fish lie at three depths, and three rods are ready: each takes the depth that it "
              "holds best. What does the counter read for the deepest?",
        facts=(_speed(speed), *(
            Fact(label=f"Fish {letter}", quantity="long", value=depths[key])
            for letter, key in zip("ABC", order, strict=True)
        )),
        asks=(
            *(choice(f"fish-{letter}", f"Fish {letter}", names) for letter in "ABC"),
            Ask(
                key="counter", label="Counter for the deepest", kind="number", quantity="long",
                low=1.0, high=36.0,
            ),
        ),
    )
    whys = {
        "flat": "A plug on a flat line stays in the top few feet, however much line is out.",
        "leadcore": "Leadcore goes 6 to 8 ft a colour at 1.2 to 1.5 mph with a small dodger: the "
                    "middle of the column.",
        "downrigger": "Only a downrigger holds a lure so deep to the foot.",
    }

    def judge(answers: Answers) -> tuple[Judged, ...]:
        said = answers["counter"].number or 0.0
        return (
            *(
                Judged(
                    key=f"fish-{letter}", right=answers[f"fish-{letter}"].choice == key,
                    words=whys[key],
                )
                for letter, key in zip("ABC", order, strict=True)
            ),
            Judged(
                key="counter", right=abs(said - deep) <= 0.05 * deep,
                words="At such speeds a 10 lb ball hardly moves off its number.",
                facts=(Fact(label="Counter", quantity="long", value=deep),),
            ),
        )

    return Made(task=task, judge=judge, solution=(
        *(Given(key=f"fish-{letter}", choice=key)
          for letter, key in zip("ABC", order, strict=True)),
        Given(key="counter", number=deep),
    ))


def colours(rng: np.random.Generator) -> Made:
    """Make a task: how many colours reach a depth at a speed.

    Parameters
    ----------
    rng : numpy.random.Generator
        What comes by chance.

    Returns
    -------
    Made
    """
    while True:
        look = _WORKED if rng.random() < 0.5 else _SPOON
        fastest = 1.6 if look is _WORKED else 2.4
        speed = float(rng.uniform(1.1, fastest)) * MPH_MPS
        truth = float(rng.integers(2, 14)) / 2.0
        wanted = _set_in_colours(look, truth, speed)
        there = at_depth(_leadcore(look), speed, wanted)
        if there is not None:
            break
    gear = "a small dodger and a hoochie" if look is _WORKED else "a thin spoon"
    task = Task(
        words=f"Leadcore with {gear} behind a leader. How many colours take it to the marks?",
        facts=(
            _speed(speed), Fact(label="Marks", quantity="long", value=wanted),
            Fact(label="Leader", quantity="long", value=LEADER_M),
            Fact(label="A colour", quantity="long", value=COLOUR_M),
        ),
        asks=(_colours(),),
    )

    def judge(answers: Answers) -> tuple[Judged, ...]:
        ran = _set_in_colours(look, answers["colours"].number or 0.0, speed)
        return (
            Judged(
                key="colours", right=_is_near(ran, wanted, 0.12),
                words="Six to eight feet a colour at 1.2 to 1.5 mph, and less the faster: what "
                      "pulls less behind it hangs deeper too.",
                facts=(
                    Fact(label="That many run at", quantity="long", value=ran),
                    Fact(label="It takes colours", quantity="count", value=truth),
                    Fact(label="A colour is worth", quantity="long", value=wanted / truth),
                ),
            ),
        )

    return Made(task=task, judge=judge, solution=(Given(key="colours", number=truth),))


def _rigger(pounds: float, cable: str) -> DownriggerRig:
    return DownriggerRig(
        cable=MATERIALS[cable], cable_length_m=60.0, ball=Ball(mass_kg=pounds * POUND_KG),
        boom_height_m=0.8, clipped=ClippedLine(
            line=MATERIALS["mono-12"], setback_m=12.0, bodies=(LURES["thin spoon"].body,)
        ),
    )


def counter(rng: np.random.Generator) -> Made:
    """Make a task: what the counter has to read while the ball blows back.

    Parameters
    ----------
    rng : numpy.random.Generator
        What comes by chance.

    Returns
    -------
    Made
    """
    pounds = float(rng.choice([4.0, 6.0, 8.0, 10.0, 12.0, 15.0]))
    speed = float(rng.uniform(1.2, 3.3)) * MPH_MPS
    number = float(rng.uniform(12.0, 36.0))
    solved = _rigger(pounds, "cable-steel-150").solve(speed, WATER)
    placed = solved.place(number)
    # The ball with this number lies there: that is what is wanted.
    wanted, trail = placed.ball_depth_m or 0.0, placed.ball_trail_m or 0.0
    leans = math.degrees(math.atan2(trail, wanted))
    task = Task(
        words=f"The ball weighs {pounds:g} lb. You are to bring it to the depth of the marks; the "
              "cable leans back by as much as the eye sees at the boom, and more of it has to go "
              "out. What does the counter read then?",
        facts=(
            _speed(speed), Fact(label="Ball wanted at", quantity="long", value=wanted),
            Fact(label="From boom to ball the cable leans", quantity="degrees", value=leans),
        ),
        asks=(Ask(
            key="counter", label="Counter", kind="number", quantity="long", low=5.0, high=50.0,
        ),),
    )

    def judge(answers: Answers) -> tuple[Judged, ...]:
        ran = solved.place(answers["counter"].number or 5.0).ball_depth_m or 0.0
        return (
            Judged(
                key="counter", right=abs(ran - wanted) <= max(0.3, 0.03 * wanted),
                words="Depth over the cosine of the lean, a little more for the bow of the cable. "
                      "A heavier ball or a slower boat brings it back under the boom.",
                facts=(
                    Fact(label="With yours the ball is at", quantity="long", value=ran),
                    Fact(label="Counter", quantity="long", value=number),
                ),
            ),
        )

    return Made(task=task, judge=judge, solution=(Given(key="counter", number=number),))


_MOVES: Final = (("raise", "raise it"), ("leave", "leave it"), ("lower", "lower it"))


def above(rng: np.random.Generator) -> Made:
    """Make a task: which lines go up, which down, which stay, for fish at their marks.

    Parameters
    ----------
    rng : numpy.random.Generator
        What comes by chance.

    Returns
    -------
    Made
    """
    bottom = float(rng.uniform(14.0, 30.0))
    tight = bool(rng.random() < 0.4)
    # Glued to the bottom, or a school in open water.
    top = bottom - float(rng.uniform(0.5, 0.9)) if tight else float(rng.uniform(5.0, bottom - 4.0))
    thick = 0.4 if tight else 1.5
    marks = tuple(sorted(float(top + thick * rng.random() ** 2) for _ in range(6)))
    top = marks[0]
    lowest = min(top, bottom - _OFF_BOTTOM_M)
    moves = [("raise", "leave", "lower")[i] for i in rng.integers(0, 3, 3)]
    depths = []
    for move in moves:
        off = {
            "raise": -float(rng.uniform(0.5, 1.1 if tight else 3.0)),
            "leave": float(rng.uniform(0.1, 0.9)), "lower": float(rng.uniform(3.5, 4.8)),
        }[move]
        depths.append(min(lowest - off, bottom - 0.15))
    task = Task(
        words="Fish were marked; three lines are down. What is done with each?",
        column=Column(
            bottom_m=bottom, marks=marks, lures=tuple(
                InColumn(name=f"Rod {i + 1}", depth_m=depth) for i, depth in enumerate(depths)
            ),
        ),
        facts=(
            Fact(label="Uppermost mark", quantity="long", value=top),
            Fact(label="Bottom", quantity="long", value=bottom), *(
                Fact(label=f"Rod {i + 1} runs at", quantity="long", value=depth)
                for i, depth in enumerate(depths)
            ),
        ),
        asks=tuple(choice(f"rod-{i + 1}", f"Rod {i + 1}", _MOVES) for i in range(3)),
    )
    whys = {
        "raise": "It runs below the fish, or closer than 4 ft to the bottom: fish look up, a lure "
                 "below them is no use, and the bottom takes it.",
        "leave": "Just above the marks and clear of the bottom: right.",
        "lower": "More than 10 ft above them: few come up so far. Down to just above the marks.",
    }

    def judge(answers: Answers) -> tuple[Judged, ...]:
        return tuple(
            Judged(
                key=f"rod-{i + 1}", right=answers[f"rod-{i + 1}"].choice == move, words=whys[move],
                facts=(Fact(label="Right above them", quantity="long", value=lowest),),
            )
            for i, move in enumerate(moves)
        )

    return Made(task=task, judge=judge, solution=tuple(
        Given(key=f"rod-{i + 1}", choice=move) for i, move in enumerate(moves)
    ))
