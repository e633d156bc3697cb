"""Write docs/advice.md: the bench of advice on all shipped worlds, reliability, verdicts.

The days come from .build/bench and are fished where they are not there yet; it can be stopped.
"""

from __future__ import annotations

import math
import shutil
import sys
import time
from concurrent.futures import ProcessPoolExecutor
from pathlib import Path

import numpy as np

ROOT = Path(__file__).resolve().parent.parent
sys.path.insert(0, str(ROOT / "core/src"))

from coldwake_core.evidence.control import (  # noqa: E402
    ROD_SD,
    Sides,
    compare_with_control,
    sure_of,
)
from coldwake_core.evidence.rates import Exposure  # noqa: E402
from coldwake_core.lakesim import bench  # noqa: E402
from coldwake_core.lakesim.boat import RIVER_BOX  # noqa: E402
from coldwake_core.lakesim.claims import Claim, claims_of, tenths_of  # noqa: E402
from coldwake_core.lakesim.day import Outing, play  # noqa: E402
from coldwake_core.lakesim.policies import POLICIES as KNOWN  # noqa: E402
from coldwake_core.lakesim.river import River  # noqa: E402
from coldwake_core.lakesim.world import DAY_MIN  # noqa: E402

POLICIES = ("fixed", "habit", "advisor", "oracle")
WORLDS = (
    # The learner knows how the standard world's days are drawn, and no other's.
    ("coldwake_core.lakesim.standard:Standard", 300, (*POLICIES[:3], "learner", "oracle")),
    ("coldwake_core.lakesim.other:Lively", 300, POLICIES),
    ("coldwake_core.lakesim.other:OtherLaws", 60, POLICIES),
    ("coldwake_core.lakesim.other:Reversed", 200, POLICIES),
)
OUT = ROOT / ".build/bench"
RIVER_DAYS = range(201, 261)
CLAIM_DAYS = range(2600, 2680)
TRIPS = 2000
CASES = (
    ("does nothing, clock still", 1.0, "still"),
    ("does nothing, bite comes on x4", 1.0, "on"),
    ("does nothing, bite dies to a quarter", 1.0, "off"),
    ("earns x3, clock still", 3.0, "still"),
    ("earns x3, bite x4", 3.0, "four"),
    ("earns a third, bite x4", 1.0 / 3.0, "four"),
)
Line = tuple[int, float, str, float]
LINES: list[Line] = [
    (changed, effect, bite, own_sd)
    for changed in (1, 3) for _, effect, bite in CASES for own_sd in (0.0, ROD_SD)
]
START, END = "<!-- measured: begin -->", "<!-- measured: end -->"


def worlds() -> list[str]:
    """The table of each world, its plot beside the page."""
    text = []
    for path, days, policies in WORLDS:
        name = path.replace(":", ".")
        rows = bench.run(
            path, range(1, days + 1), policies, jobs=2, file=OUT / f"{name}.csv"
        )
        bench.draw(rows, policies, OUT / f"{name}.svg")
        short = path.split(":")[1].lower()
        shutil.copy(OUT / f"{name}.svg", ROOT / f"docs/advice-{short}.svg")
        text += [
            f"### `{path}`, {days} days, seeds 1 to {days}", "", bench.table(rows, policies), "",
            f"![days of each policy](advice-{short}.svg)", "",
        ]
    return text


def river_day(asked: tuple[str, int]) -> bench.Row:
    """A day of stripers: there and back along two bars, over a bed that rises and falls."""
    name, seed = asked
    world = River(seed)
    world.lay(((0.3, 1.0), (0.7, 1.6)))
    way = [
        (abs((minute / 40.0) % 2.0 - 1.0), 2.6 + 0.4 * math.sin(minute / 9.0))
        for minute in range(DAY_MIN)
    ]
    result = play(
        world, KNOWN[name](), seed, clock=time.perf_counter,
        outing=Outing(box=RIVER_BOX, rods=4, way=way),
    )
    return bench.row_of("river", seed, name, result)


def river() -> list[str]:
    """The table of the river, whose boat goes along the bars whatever its policy."""
    asked = [(name, seed) for name in POLICIES for seed in RIVER_DAYS]
    with ProcessPoolExecutor(2) as pool:
        rows = list(pool.map(river_day, asked))
    return [
        f"### `coldwake_core.lakesim.river:River`, {len(RIVER_DAYS)} days, seeds "
        f"{RIVER_DAYS[0]} to {RIVER_DAYS[-1]}", "",
        "Stripers over a bed of 2.2 to 3 m, four plugs; there and back along two bars, whoever "
        "fishes.", "", bench.table(rows, POLICIES), "",
    ]


def claims_of_day(seed: int) -> list[Claim]:
    """The claims of one day of the standard world."""
    return claims_of(WORLDS[0][0], [seed])


def reliability() -> list[str]:
    """Stated against true, by tenths."""
    with ProcessPoolExecutor(2) as pool:
        claims = [c for day in pool.map(claims_of_day, CLAIM_DAYS) for c in day]
    text = [
        "| stated | moves taken: how many, stated, true | all weighed: how many, stated, true |",
        "| --- | --- | --- |",
    ]
    taken = {t.low: t for t in tenths_of([c for c in claims if c.taken])}
    for tenth in tenths_of(claims):
        mine = taken.get(tenth.low)
        shown = "none" if mine is None else f"{mine.count}, {mine.stated:.0%}, {mine.true:.0%}"
        text.append(
            f"| {tenth.low:.0%} to {tenth.low + 0.1:.0%} | {shown} "
            f"| {tenth.count}, {tenth.stated:.0%}, {tenth.true:.0%} |"
        )
    return text


def verdicts() -> list[str]:
    """How often a change is said to have helped, at any look in three hours."""
    text: list[str] = []
    with ProcessPoolExecutor(2) as pool:
        told = dict(zip(LINES, pool.map(trips_of, LINES), strict=True))
    for changed, name in ((1, "one rod"), (3, "three rods")):
        helped, harmed = sure_of(changed, 6 - changed)
        text += [
            f"| {name} of six changed, said from {helped:.0%}, harm from {harmed:.0%} | helped | "
            f"made it worse | no difference | rods that differ by {ROD_SD}: helped | "
            "made it worse | no difference |",
            "| --- | --- | --- | --- | --- | --- | --- |",
        ]
        for words, effect, bite in CASES:
            shares = []
            for own_sd in (0.0, ROD_SD):
                said = told[changed, effect, bite, own_sd]
                shares += [
                    sum(verdict in trip for trip in said) / TRIPS
                    for verdict in ("better", "worse", "no_difference")
                ]
            text.append(f"| {words} | " + " | ".join(f"{share:.1%}" for share in shares) + " |")
        text.append("")
    return text


def trips_of(line: Line) -> list[set[str]]:
    """The trips of a line of the table."""
    changed, effect, bite, own_sd = line
    draw = np.random.default_rng(5)
    return [one_trip(draw, effect, bite, changed, own_sd) for _ in range(TRIPS)]


def one_trip(
    draw: np.random.Generator, effect: float, bite: str, changed: int, own_sd: float
) -> set[str]:
    """All that is ever said in looks every five minutes for three hours."""
    level = np.exp(draw.normal(0.0, own_sd, 6))
    before = draw.poisson(level)
    earns = np.array([effect] * changed + [1.0] * (6 - changed))
    said, hits = set(), np.zeros(6)
    for look in range(1, 37):
        clock = {
            "still": 1.0, "four": 4.0, "on": min(1.0 + look, 4.0),
            "off": max(1.0 - 0.25 * look, 0.25),
        }[bite]
        hits += draw.poisson(level * earns * clock * 5.0 / 60.0)
        said.add(compare_with_control(
            before=_sides(before, 60.0, changed), after=_sides(hits, 5.0 * look, changed),
            changed_rods=changed, control_rods=6 - changed,
        ).verdict)
    return said


def _sides(hits: np.ndarray, minutes: float, changed: int) -> Sides:  # type: ignore[type-arg]
    return Sides(
        changed=Exposure(hits=int(hits[:changed].sum()), minutes=changed * minutes),
        control=Exposure(hits=int(hits[changed:].sum()), minutes=(6 - changed) * minutes),
    )


def main() -> None:
    """Write the measured part of the page anew; what is said about it stands."""
    page = ROOT / "docs/advice.md"
    text = page.read_text("utf-8")
    first, last = text.index(START) + len(START), text.index(END)
    parts = [
        "", *worlds(), *river(), "### Are stated probabilities what they say?", "",
        f"Standard world, seeds {CLAIM_DAYS[0]} to {CLAIM_DAYS[-1]}: that a change earns more a "
        "minute than what is out, against the truth of the minute.", "", *reliability(), "",
        "### Did that change do it, or the clock?", "",
        f"{TRIPS} trips a line, a hit an hour a rod, an hour before the change, then a look every "
        "five minutes for three hours.",
        "", *verdicts(), "",
    ]
    page.write_text(text[:first] + "\n".join(parts) + text[last:], "utf-8")


if __name__ == "__main__":
    main()
