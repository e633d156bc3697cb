"""How fast the core solves a spread, and how near an independent reference it comes.

Run: PYTHONPATH=tests:tests/core .venv/bin/python benchmarks/core_speed.py
"""

from __future__ import annotations

import statistics
import time
from collections.abc import Callable

from coldwake_core.boat.turns import line_in_turn
from coldwake_core.constants import MPH_MPS
from coldwake_core.fish.bench import check_spread
from coldwake_core.fish.session import FishSession
from coldwake_core.lines.bodies import EndLoad
from coldwake_core.lines.calibration import DepthReading, fit_line
from coldwake_core.lines.doubt import solve_with_doubt
from coldwake_core.lines.linerig import LineRig
from coldwake_core.lines.towed import integrate_line
from coldwake_core.spread.opening import build_opening
from reference import reference_end
from trip_cases import at, event, session
from tackle import (
    COLD,
    FLOATING_MINNOW,
    FLY,
    HEAVY_SPOON,
    STRIPER_PLUG,
    downrigger,
    flat,
    large_outfit,
    leadcore,
)

SPREAD = [
    flat("mono-12", FLOATING_MINNOW), flat("mono-8", FLY), flat("mono-10", HEAVY_SPOON),
    flat("braid-30", STRIPER_PLUG), leadcore(), leadcore("leadcore-27"), downrigger(),
    downrigger(6.0),
]


def milliseconds(act: Callable[[float], object], runs: int = 40) -> tuple[float, float]:
    """Return median and 95th percentile over runs, each at a speed not seen before."""
    times = []
    for run in range(runs + 5):
        speed = (1.0 + 0.03 * run) * MPH_MPS
        start = time.perf_counter()
        act(speed)
        times.append((time.perf_counter() - start) * 1e3)
    times = sorted(times[5:])
    return statistics.median(times), times[int(0.95 * len(times))]


def plain(speed: float) -> None:
    for rig in SPREAD:
        rig.solve(speed, COLD).place(14.0)


def with_doubt(speed: float) -> None:
    for rig in SPREAD:
        solve_with_doubt(rig, speed, COLD).place(14.0)


def worst_error() -> float:
    """Return the greatest relative error of depth against the reference."""
    worst = 0.0
    for rig in SPREAD:
        if not isinstance(rig, LineRig):
            continue
        for mph in (1.0, 1.5, 2.0, 3.0):
            speed = mph * MPH_MPS
            load = EndLoad(0.0, 0.0)
            for body in rig.bodies:
                load = load + body.load(speed, COLD)
            segments = [m.segment(length, water=COLD) for m, length in rig.stretches]
            options = {
                "tension_n": load.tension_n, "angle_rad": load.angle_rad, "speed_mps": speed,
                "water": COLD,
            }
            found = integrate_line(segments, **options).points[-1].up_m
            expected = reference_end(segments, **options)[1]
            worst = max(worst, abs(found - expected) / max(abs(expected), 0.1))
    return worst


def turns_and_directions() -> float:
    """Return the time for 8 rods, 2 directions of the pass and 2 turns, ms, median of 20."""
    times = []
    for run in range(25):
        start = time.perf_counter()
        for direction in (1.4, 1.8):
            for toward in ("port", "starboard"):
                for index, rig in enumerate(SPREAD):
                    speed = (direction + 0.001 * run) * MPH_MPS
                    line = line_in_turn(
                        radius_m=60.0, toward=toward, tip_side_m=index - 3.5, trail_m=20.0,
                        speed_mps=speed,
                    )
                    rig.solve(speed * line.speed_factor, COLD).place(14.0)
        times.append((time.perf_counter() - start) * 1e3)
    return statistics.median(times[5:])


def calibration() -> float:
    """Return the time to fit a line with 20 observations, ms, median of 9."""
    readings = [
        DepthReading(
            id=str(i), rig=leadcore(), setting_m=15.0 + 2.0 * i, depth_m=2.5 + 0.5 * i,
            speed_mps=(1.2 + 0.02 * i) * MPH_MPS,
        )
        for i in range(20)
    ]
    times = []
    for _ in range(9):
        start = time.perf_counter()
        fit_line(readings, COLD)
        times.append((time.perf_counter() - start) * 1e3)
    return statistics.median(times)


def of_a_trip() -> list[tuple[str, Callable[[], object], float]]:
    """Return what is asked of a whole trip, with its budget, ms."""
    trip = session(
        event("speed_changed", 1, speed_mps=0.8),
        *(
            event("line_set", 2, rod_id=f"rod-{rod}", setting_m=setting)
            for rod, setting in ((1, 35.0), (2, 25.0), (3, 8.0), (4, 10.0), (5, 40.0), (6, 50.0))
        ),
    )
    # Opened anew at each run: solutions kept from the run before would flatter it.
    def fresh() -> FishSession:
        return FishSession(big.trip, big.history.events.values())

    big = session(
        event("temperature_read", 1, temperature_degc=10.6),
        event("mark_seen", 50, depth_m=9.0, count=6), event("mark_seen", 52, depth_m=5.0, count=2),
        outfit=large_outfit(rods=9, pieces=500),
    )
    return [
        ("rules of a spread of six rods", lambda: check_spread(trip), 20.0),
        ("an opening spread for 9 rods out of 500 pieces",
         lambda: build_opening(fresh(), at(60)), 2000.0),
        ("an S-turn of six rods, 25 moments",
         lambda: trip.manoeuvre(kind="s_turn", toward="port", radius_m=40.0), 250.0),
        ("two speeds at once for a leadcore rod",
         lambda: trip.numbers_at(rod_id="rod-5", depth_m=8.0, speeds_mps=[0.6, 0.9]), 60.0),
    ]


def median_ms(act: Callable[[], object], runs: int = 15) -> float:
    """Return the median time of an act over runs, ms, after one to warm up."""
    act()
    times = []
    for _ in range(runs):
        start = time.perf_counter()
        act()
        times.append((time.perf_counter() - start) * 1e3)
    return statistics.median(times)


if __name__ == "__main__":
    for name, act, budget in (("without doubt", plain, 10.0), ("with doubt", with_doubt, 40.0)):
        median, p95 = milliseconds(act)
        print(
            f"8 lines re-solved {name}: median {median:.1f} ms, p95 {p95:.1f} ms, "
            f"{median / budget:.2f} of the budget of {budget:.0f} ms"
        )
    for name, time_ms, budget in (
        ("8 rods x 2 directions x 2 turns", turns_and_directions(), 60.0),
        ("a line fitted to 20 observations", calibration(), 200.0),
    ):
        print(f"{name}: {time_ms:.0f} ms, {time_ms / budget:.2f} of the budget of {budget:.0f} ms")
    for name, ask, budget in of_a_trip():
        took = median_ms(ask)
        print(f"{name}: {took:.1f} ms, {took / budget:.2f} of the budget of {budget:.0f} ms")
    print(f"greatest error of depth against the reference: {worst_error():.1e} (budget 1e-4)")
