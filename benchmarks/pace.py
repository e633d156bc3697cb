"""How fast this machine is at this moment, so that budgets can be held as ratios."""

from __future__ import annotations

import statistics
import sys
import time
from collections.abc import Callable

QUIET_MS = 21.0
"""What the loop below took on the machine the budgets were set on, with nothing else running."""


def _loop() -> float:
    total = 0.0
    for index in range(200_000):
        total += (index % 7) * 0.5 - total * 1e-6
    return total


def pace(runs: int = 7) -> float:
    """Return how many times slower than quiet the machine is now: median of a fixed loop."""
    times = []
    for _ in range(runs):
        start = time.perf_counter()
        _loop()
        times.append((time.perf_counter() - start) * 1e3)
    return statistics.median(times) / QUIET_MS


class Budgets:
    """Budgets held as ratios: what was measured over the machine's pace at that moment."""

    def __init__(self) -> None:
        self.over: list[str] = []

    def hold(self, name: str, measured: float, budget: float, unit: str, at_pace: float) -> None:
        """Print a figure with its share of the budget, and remember it if it is over."""
        share = measured / max(at_pace, 1.0) / budget
        sys.stdout.write(
            f"{name}: {measured:.3g} {unit} at pace {at_pace:.2f}, "
            f"{share:.2f} of {budget:g} {unit}\n"
        )
        if share > 1.0:
            self.over.append(name)

    def time(
        self, name: str, act: Callable[[int], object], budget_ms: float, runs: int = 25
    ) -> None:
        """Hold the median of an act, called with a number that it never saw before, ms."""
        act(-1)
        times, paces = [], []
        for run in range(runs):
            if run % 5 == 0:
                paces.append(pace(3))
            start = time.perf_counter()
            act(run)
            times.append((time.perf_counter() - start) * 1e3)
        self.hold(name, statistics.median(times), budget_ms, "ms", statistics.median(paces))

    def end(self) -> None:
        """Fail if anything is over its budget."""
        if self.over:
            raise SystemExit("over budget: " + "; ".join(self.over))
