"""The bench of advice: policies on the same days of a world, with intervals, and what they cost.

``python -m coldwake_core.lakesim.bench --world module:Class --days 300
--policies fixed,habit,advisor,oracle --jobs 2`` writes one CSV, which a run that was stopped goes
on with, and one plot. The one file of the core that reads, writes and looks at a clock.
"""

from __future__ import annotations

import argparse
import csv
import importlib
import sys
import time
from collections.abc import Iterable, Sequence
from concurrent.futures import ProcessPoolExecutor, as_completed
from dataclasses import dataclass
from pathlib import Path
from typing import Final

import numpy as np
from numpy.typing import NDArray

from .day import DECIDE_MIN, DayResult, play
from .policies import POLICIES
from .world import DAY_MIN, World

FIELDS: Final = ("world", "seed", "policy", "hits", "hooked", "landed", "changes", "decide_ms")
STANDARD: Final = "coldwake_core.lakesim.standard:Standard"
RESAMPLES: Final = 2000


@dataclass(frozen=True, slots=True, kw_only=True)
class Row:
    """A day of a policy."""

    world: str
    seed: int
    policy: str
    hits: int
    hooked: int
    landed: int
    changes: int
    decide_ms: float


def load_world(path: str) -> type[World]:
    """Return the class of a world.

    Parameters
    ----------
    path : str
        ``module:Class``.

    Returns
    -------
    type of World

    Raises
    ------
    SystemExit
        If it cannot be loaded or is no world: what is wrong, in words.
    """
    module, _, name = path.partition(":")
    try:
        found = getattr(importlib.import_module(module), name)
    except (ImportError, AttributeError, ValueError) as error:
        raise SystemExit(
            f"--world {path}: cannot be loaded ({error}). Give module:Class, with the module on "
            "PYTHONPATH."
        ) from None
    for method in ("seen", "marks", "rates", "fate"):
        if not callable(getattr(found, method, None)):
            raise SystemExit(
                f"--world {path}: has no method {method}: see docs/lakesim.md."
            )
    world: type[World] = found
    return world


def fish_day(path: str, seed: int, policy: str) -> Row:
    """Fish one day.

    Parameters
    ----------
    path : str
        The world, ``module:Class``.
    seed : int
        The day.
    policy : str
        Who fishes it.

    Returns
    -------
    Row
    """
    sys.path.insert(0, "")
    result = play(load_world(path)(seed), POLICIES[policy](), seed, clock=time.perf_counter)
    return row_of(path, seed, policy, result)


def row_of(world: str, seed: int, policy: str, result: DayResult) -> Row:
    """Return a day as a row of the table.

    Parameters
    ----------
    world, policy : str
        Names.
    seed : int
        The day.
    result : DayResult
        What came of it.

    Returns
    -------
    Row
    """
    decisions = (DAY_MIN - 1) // DECIDE_MIN
    return Row(
        world=world, seed=seed, policy=policy, hits=result.hits, hooked=result.hooked,
        landed=result.landed, changes=result.changes,
        decide_ms=1000.0 * result.decide_s / decisions,
    )


def read_rows(file: Path) -> list[Row]:
    """Return the days that a CSV holds.

    Parameters
    ----------
    file : Path
        The CSV.

    Returns
    -------
    list of Row
        Without a line that was cut off: that day is fished again.
    """
    if not file.exists():
        return []
    found = []
    with file.open(newline="", encoding="utf-8") as text:
        for line in csv.DictReader(text):
            try:
                found.append(Row(
                    world=line["world"], seed=int(line["seed"]), policy=line["policy"],
                    hits=int(line["hits"]), hooked=int(line["hooked"]),
                    landed=int(line["landed"]), changes=int(line["changes"]),
                    decide_ms=float(line["decide_ms"]),
                ))
            except (KeyError, TypeError, ValueError):
                continue
    return found


def run(
    path: str, seeds: Sequence[int], policies: Sequence[str], *, jobs: int, file: Path
) -> list[Row]:
    """Fish what the CSV does not hold yet, and add it, a line a day as it comes.

    Parameters
    ----------
    path : str
        The world, ``module:Class``.
    seeds : sequence of int
        The days.
    policies : sequence of str
        Who fishes them.
    jobs : int
        Processes.
    file : Path
        The CSV.

    Returns
    -------
    list of Row
        All that were asked for.
    """
    load_world(path)
    known = {(r.world, r.seed, r.policy): r for r in read_rows(file)}
    wanted = [(path, seed, policy) for seed in seeds for policy in policies]
    todo = [item for item in wanted if item not in known]
    file.parent.mkdir(parents=True, exist_ok=True)
    fresh = not file.exists()
    with file.open("a", newline="", encoding="utf-8") as text:
        out = csv.DictWriter(text, FIELDS)
        if fresh:
            out.writeheader()
        for number, row in enumerate(_fished(todo, jobs), start=1):
            known[row.world, row.seed, row.policy] = row
            out.writerow({name: getattr(row, name) for name in FIELDS})
            text.flush()
            print(f"\r{number} of {len(todo)} days", end="", file=sys.stderr, flush=True)
    if todo:
        print(file=sys.stderr)
    return [known[item] for item in wanted]


def _fished(todo: Sequence[tuple[str, int, str]], jobs: int) -> Iterable[Row]:
    if jobs <= 1:
        for item in todo:
            yield fish_day(*item)
        return
    with ProcessPoolExecutor(jobs) as pool:
        for done in as_completed([pool.submit(fish_day, *item) for item in todo]):
            yield done.result()


@dataclass(frozen=True, slots=True, kw_only=True)
class Line:
    """A policy in the table: means a day with their 95 % interval, and its shares of the others."""

    policy: str
    hits: float
    low: float
    high: float
    landed: float
    changes: float
    decide_ms: float


def lines_of(rows: Sequence[Row], policies: Sequence[str]) -> list[Line]:
    """Return the table, with intervals by the bootstrap over days (Efron 1979).

    Parameters
    ----------
    rows : sequence of Row
        The days.
    policies : sequence of str
        In which order.

    Returns
    -------
    list of Line
    """
    found = []
    for policy in policies:
        mine = [row for row in rows if row.policy == policy]
        hits = np.array([row.hits for row in mine], float)
        low, high = np.percentile(_resampled(hits), (2.5, 97.5))
        found.append(Line(
            policy=policy, hits=float(hits.mean()), low=float(low), high=float(high),
            landed=float(np.mean([row.landed for row in mine])),
            changes=float(np.mean([row.changes for row in mine])),
            decide_ms=float(np.mean([row.decide_ms for row in mine])),
        ))
    return found


def ratio_of(rows: Sequence[Row], one: str, other: str) -> tuple[float, float, float]:
    """Return the ratio of two policies' hits, and its 95 % interval, days drawn in pairs.

    Parameters
    ----------
    rows : sequence of Row
        The days of both.
    one, other : str
        The policies.

    Returns
    -------
    (float, float, float)
        Ratio, low, high.
    """
    pairs = {row.seed: row.hits for row in rows if row.policy == other}
    both = np.array(
        [(row.hits, pairs[row.seed]) for row in rows if row.policy == one and row.seed in pairs],
        float,
    )
    means = _resampled(both)
    ratios = means[:, 0] / np.maximum(means[:, 1], 1e-9)
    low, high = np.percentile(ratios, (2.5, 97.5))
    return float(both[:, 0].mean() / max(both[:, 1].mean(), 1e-9)), float(low), float(high)


def _resampled(values: NDArray[np.float64]) -> NDArray[np.float64]:
    draw = np.random.default_rng(1)
    picks = draw.integers(0, len(values), (RESAMPLES, len(values)))
    return np.asarray(values[picks].mean(axis=1))


def table(rows: Sequence[Row], policies: Sequence[str]) -> str:
    """Return the table in Markdown.

    Parameters
    ----------
    rows : sequence of Row
        The days.
    policies : sequence of str
        In which order.

    Returns
    -------
    str
    """
    text = [
        "| policy | hits a day (95 %) | landed | changes a day | a decision, ms |",
        "| --- | --- | --- | --- | --- |",
    ]
    text += [
        f"| {x.policy} | {x.hits:.1f} ({x.low:.1f}-{x.high:.1f}) | {x.landed:.1f} "
        f"| {x.changes:.0f} | {x.decide_ms:.0f} |"
        for x in lines_of(rows, policies)
    ]
    for other in ("fixed", "habit", "learner", "oracle"):
        if "advisor" in policies and other in policies:
            ratio, low, high = ratio_of(rows, "advisor", other)
            text.append(f"\nadvisor / {other}: {ratio:.2f} ({low:.2f}-{high:.2f})")
    return "\n".join(text)


def draw(rows: Sequence[Row], policies: Sequence[str], file: Path) -> None:
    """Draw the days of each policy, lowest to highest.

    Parameters
    ----------
    rows : sequence of Row
        The days.
    policies : sequence of str
        In which order.
    file : Path
        Where to.

    Returns
    -------
    None
    """
    import matplotlib

    matplotlib.use("Agg")
    from matplotlib import pyplot

    figure, axes = pyplot.subplots(figsize=(7.0, 4.0))
    for policy, style in zip(policies, ("-", "--", "-.", ":", "-", "--"), strict=False):
        hits = sorted(row.hits for row in rows if row.policy == policy)
        share = [(i + 0.5) / len(hits) for i in range(len(hits))]
        axes.plot(hits, share, style, label=policy, color="black")
    axes.set_xscale("symlog", linthresh=10)
    axes.set_xlabel("hits a day")
    axes.set_ylabel("share of days with fewer")
    axes.legend(frameon=False)
    figure.tight_layout()
    figure.savefig(file)
    pyplot.close(figure)


def main(arguments: Sequence[str] | None = None) -> int:
    """Run the bench from the command line.

    Parameters
    ----------
    arguments : sequence of str, optional
        Those of the command line when left out.

    Returns
    -------
    int
        0 when it went through.
    """
    parser = argparse.ArgumentParser(prog="python -m coldwake_core.lakesim.bench")
    parser.add_argument("--world", default=STANDARD, help="module:Class of a world")
    parser.add_argument("--days", type=int, default=300)
    parser.add_argument("--first", type=int, default=1, help="the first seed")
    parser.add_argument("--policies", default="fixed,habit,advisor,oracle")
    parser.add_argument("--jobs", type=int, default=2)
    parser.add_argument("--out", type=Path, default=Path(".build/bench"))
    asked = parser.parse_args(arguments)
    policies = [name.strip() for name in asked.policies.split(",")]
    unknown = [name for name in policies if name not in POLICIES]
    if unknown or not policies:
        parser.error(f"--policies {asked.policies}: choose among {', '.join(POLICIES)}")
    if asked.days < 1 or asked.jobs < 1:
        parser.error("--days and --jobs must be 1 at least")
    name = asked.world.replace(":", ".").replace("/", ".")
    rows = run(
        asked.world, range(asked.first, asked.first + asked.days), policies, jobs=asked.jobs,
        file=asked.out / f"{name}.csv",
    )
    print(f"{asked.world}, {asked.days} days from seed {asked.first}\n")
    print(table(rows, policies))
    draw(rows, policies, asked.out / f"{name}.svg")
    return 0


if __name__ == "__main__":
    raise SystemExit(main())
