"""A turn with lines out: which sinks, which rises, which will cross."""

from __future__ import annotations

import math
from dataclasses import dataclass
from itertools import pairwise
from typing import Final, Literal

import numpy as np

from ..constants import COLOUR_M, MPH_MPS, POUND_KG
from ..lakesim.boat import LURES, WATER
from ..lines.bodies import Ball, plug_body
from ..lines.downrigger import ClippedLine, DownriggerRig
from ..lines.linerig import LineRig
from ..lines.materials import MATERIALS
from ..lines.turn import TurnedLine, turn_line
from ..tow.tangles import likely_tangles
from ..tow.turns import TipInTurn
from .task import Answers, Fact, Given, Judged, Made, OnPlan, Task, TurnLook, choice

_LITTLE_M: Final = 0.35
"""A lure whose depth changes less than this is where it was, to a fish (judged)."""
_CLEAR_M: Final = 0.8
"""A change that nobody takes for none."""
_STEP_M: Final = 2.0
_CLOSE_M: Final = (-2.0, -1.5, 1.5, 2.0)
_WIDE_M: Final = (-12.0, -2.0, 1.5, 2.5, 12.0)
"""Where rod tips and boards are, to starboard, m."""
_FLOATS: Final = plug_body(length_m=0.09, mass_kg=0.007, lip="medium")
"""A plug that floats at rest and digs when it is pulled."""
Where = Literal["sinks", "rises", "stays"]


@dataclass(frozen=True, slots=True)
class _Rod:
    words: str
    rig: LineRig | DownriggerRig
    setting_m: float
    side_m: float


def _line(kind: str, out_m: float) -> tuple[str, LineRig | DownriggerRig, float]:
    spoon, worked = (LURES["thin spoon"].body,), (LURES["small hoochie"].body,)
    if kind == "downrigger":
        return "downrigger, 10 lb", DownriggerRig(
            cable=MATERIALS["cable-steel-150"], cable_length_m=60.0,
            ball=Ball(mass_kg=10.0 * POUND_KG), boom_height_m=0.8,
            clipped=ClippedLine(line=MATERIALS["mono-12"], setback_m=6.0, bodies=worked),
        ), 10.0
    if kind == "leadcore":
        return "leadcore, 4 colours", LineRig(
            stretches=((MATERIALS["fluoro-12"], 6.0), (MATERIALS["leadcore-18"], 8 * COLOUR_M)),
            bodies=spoon, tip_height_m=1.2,
        ), 6.0 + 4 * COLOUR_M
    body = (_FLOATS,) if kind == "plug" else spoon
    name = "flat line, floating plug" if kind == "plug" else "flat line, thin spoon"
    return name, LineRig(
        stretches=((MATERIALS["mono-12"], 90.0),), bodies=body, tip_height_m=1.2
    ), out_m


def _in_space(turned: TurnedLine, tip: TipInTurn) -> list[tuple[float, float, float]]:
    """A line's path in the turn, m, in points close enough to tell how near two come."""
    own = math.atan2(tip.aft_m, tip.radius_m + tip.outward_m)
    corners = [
        (p.radius_m * math.cos(own + p.behind_rad), p.radius_m * math.sin(own + p.behind_rad),
         p.depth_m)
        for p in turned.path
    ]
    found = [corners[0]]
    for a, b in pairwise(corners):
        pieces = max(1, math.ceil(math.dist(a, b) / _STEP_M))
        found += [
            (a[0] + (b[0] - a[0]) * n / pieces, a[1] + (b[1] - a[1]) * n / pieces,
             a[2] + (b[2] - a[2]) * n / pieces)
            for n in range(1, pieces + 1)
        ]
    return found


def _where(before_m: float, after_m: float) -> Where | None:
    """What its depth did; None where one would argue."""
    change = after_m - before_m
    if abs(change) <= _LITTLE_M:
        return "stays"
    if abs(change) < _CLEAR_M:
        return None
    return "sinks" if change > 0.0 else "rises"


def _seen(turned: TurnedLine, tip: TipInTurn) -> tuple[OnPlan, ...]:
    """A line in the turn from above, from its tip to its lure, beside the boat as it is then."""
    # The boat is on the circle abeam of its middle, which lies to the side it turns to. Of a lure
    # that comes up to the surface the line is solved to a few metres of its tip: drawn from it.
    across = 1.0 if tip.toward == "starboard" else -1.0
    return (OnPlan(side_m=tip.side_m, ahead_m=-tip.aft_m), *(
        OnPlan(side_m=across * (tip.radius_m - x), ahead_m=-y)
        for x, y, depth_m in _in_space(turned, tip) if depth_m >= 0.0
    ))


_PAIRS: Final = (("none", "none of them"), ("1-2", "rods 1 and 2"), ("1-3", "rods 1 and 3"),
                 ("2-3", "rods 2 and 3"))
_SAYS: Final = (("sinks", "sinks"), ("stays", "stays about where it is"), ("rises", "rises"))
_KINDS: Final = ("downrigger", "leadcore", "plug", "spoon")


def turns(rng: np.random.Generator) -> Made:
    """Make a task: what three lines do in a turn.

    Parameters
    ----------
    rng : numpy.random.Generator
        What comes by chance.

    Returns
    -------
    Made
    """
    crosses = bool(rng.integers(2))
    while True:
        speed = float(rng.uniform(1.4, 2.0)) * MPH_MPS
        radius = float(rng.uniform(12.0, 40.0))
        toward: Literal["port", "starboard"] = "port" if rng.integers(2) else "starboard"
        # Lines that are spread wide hardly ever meet.
        tips_m = _CLOSE_M if crosses else _WIDE_M
        sides = sorted(float(side) for side in rng.choice(tips_m, 3, replace=False))
        rods = []
        for side in sides:
            kind = str(rng.choice(_KINDS[1:] if abs(side) > 5.0 else _KINDS))
            words, rig, setting = _line(kind, float(rng.uniform(25.0, 60.0)))
            rods.append(_Rod(words, rig, setting, side))
        tips = [
            TipInTurn(radius_m=radius, toward=toward, aft_m=0.0, side_m=rod.side_m) for rod in rods
        ]
        if any(tip.is_beyond_centre or tip.tip_radius_m < 4.0 for tip in tips):
            continue
        lures = [rod.rig.solve(speed, WATER).place(rod.setting_m) for rod in rods]
        straight = [placed.depth_m for placed in lures]
        turned = [
            turn_line(
                rod.rig, rod.setting_m, speed_mps=speed, water=WATER, radius_m=radius,
                tip_radius_m=tip.tip_radius_m,
            )
            for rod, tip in zip(rods, tips, strict=True)
        ]
        if any(one.is_slack or len(one.path) < 2 for one in turned):
            continue
        wheres = [_where(a, one.lure.depth_m) for a, one in zip(straight, turned, strict=True)]
        near = likely_tangles({
            str(i + 1): _in_space(one, tip)
            for i, (one, tip) in enumerate(zip(turned, tips, strict=True))
        })
        if None not in wheres and len(near) == crosses and set(wheres) != {"stays"}:
            break
    crossing = "-".join(near[0].rod_ids) if near else "none"
    task = Task(
        words=f"The boat turns to {toward} with three lines out.",
        facts=(
            Fact(label="Speed through the water", quantity="speed", value=speed),
            Fact(label="Radius of the turn", quantity="long", value=radius), *(
                Fact(
                    label=f"Rod {i + 1}, {rod.words}, "
                          f"{'out to' if abs(rod.side_m) > 5 else 'near, to'} "
                          f"{'port' if rod.side_m < 0 else 'starboard'}",
                    quantity="long", value=rod.setting_m,
                )
                for i, rod in enumerate(rods)
            ),
        ),
        turn=TurnLook(
            toward=toward, radius_m=radius,
            tips=tuple(OnPlan(side_m=rod.side_m, ahead_m=0.0) for rod in rods),
            lures=tuple(
                OnPlan(side_m=rod.side_m, ahead_m=-placed.trail_m)
                for rod, placed in zip(rods, lures, strict=True)
            ),
        ),
        asks=(
            *(choice(f"rod-{i + 1}", f"Rod {i + 1}", _SAYS) for i in range(3)),
            choice("cross", "Too near each other come", _PAIRS),
        ),
    )

    def judge(answers: Answers) -> tuple[Judged, ...]:
        return (
            *(
                Judged(
                    key=f"rod-{i + 1}", right=answers[f"rod-{i + 1}"].choice == where,
                    words=_why(str(where), rods[i], turned[i].speed_mps < speed),
                    facts=(
                        Fact(label="Straight", quantity="long", value=straight[i]),
                        Fact(label="In the turn", quantity="long", value=turned[i].lure.depth_m),
                    ),
                    path=_seen(turned[i], tips[i]),
                )
                for i, where in enumerate(wheres)
            ),
            Judged(
                key="cross", right=answers["cross"].choice == crossing,
                words="In the turn they lie clear of each other." if crossing == "none" else
                f"Rods {crossing.replace('-', ' and ')}: a line that is cut short on the inside "
                "runs under, or into, the one that swings wide. A wider turn keeps them apart.",
            ),
        )

    return Made(task=task, judge=judge, solution=(
        *(Given(key=f"rod-{i + 1}", choice=str(where)) for i, where in enumerate(wheres)),
        Given(key="cross", choice=crossing),
    ))


def _why(where: str, rod: _Rod, slower: bool) -> str:
    if where == "stays":
        return "Too short, or held too firmly, for the turn to change much."
    lure = "Its lure slows: it is inside, or so long that it cuts the corner" if slower else \
        "Its lure is pulled faster, outside"
    if "plug" in rod.words:
        return f"{lure}. A floating plug rises as it slows, and digs as it is pulled."
    return f"{lure}. A line that sinks hangs {'deeper' if where == 'sinks' else 'shallower'} then."
