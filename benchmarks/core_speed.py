"""How fast the core solves a spread, and how near an independent reference it comes.

Run by `make bench`. Every figure is held against its budget, over the machine's pace at the moment.
"""

from __future__ import annotations

import math

from pace import Budgets
import reference
from tackle import (
    COLD,
    DODGER_5,
    FLOATING_MINNOW,
    FLY,
    HEAVY_SPOON,
    HOOCHIE,
    STRIPER_PLUG,
    downrigger,
    flat,
    large_outfit,
    leadcore,
)
from trip_cases import at, event, session

from coldwake_core.constants import MPH_MPS
from coldwake_core.places.rig.bench import check_spread
from coldwake_core.trip.open_trip import OpenTrip
from coldwake_core.lines.calibration import (DepthReading, fit_line)
from coldwake_core.lines.doubt import solve_with_doubt
from coldwake_core.lines.pulls import total_load
from coldwake_core.lines.materials import MATERIALS
from coldwake_core.lines.towed import integrate_line
from coldwake_core.lines.turn import turn_line
from coldwake_core.spread.opening import build_opening
from coldwake_core.water.fresh import Water

SPREAD = [
    flat("mono-12", FLOATING_MINNOW), flat("mono-8", FLY), flat("mono-10", HEAVY_SPOON),
    flat("braid-30", STRIPER_PLUG), leadcore(), leadcore("leadcore-27"), downrigger(),
    downrigger(6.0),
]


def speed(run: int) -> float:
    """A speed not seen before, m/s: 1.0 to 1.8 mph."""
    return (1.0 + 0.03 * (run % 26) + 1e-4 * run) * MPH_MPS


def plain(run: int) -> None:
    for rig in SPREAD:
        rig.solve(speed(run), COLD).place(14.0)


def with_doubt(run: int) -> None:
    for rig in SPREAD:
        solve_with_doubt(rig, speed(run), COLD).place(14.0)


def turns(run: int) -> None:
    for index, rig in enumerate(SPREAD):
        turn_line(
            rig, 14.0, speed_mps=speed(run), water=COLD, radius_m=50.0,
            tip_radius_m=50.0 + index - 3.5,
        )


def worst_error() -> float:
    """Return the greatest relative error of depth against the independent solution."""
    water = Water(density_kgpm3=reference.RHO, viscosity_m2ps=reference.NU)
    lines = {
        "mono-8": (reference.MONO_8, (FLY,)), "mono-10": (reference.MONO_10, (HEAVY_SPOON,)),
        "braid-30": (reference.BRAID_30, (STRIPER_PLUG,)),
        "leadcore-18": (reference.LEAD_18, (DODGER_5, HOOCHIE)),
    }
    worst = 0.0
    for name, (own, bodies) in lines.items():
        for mph in (1.0, 1.5, 2.0, 3.0):
            load = total_load(bodies, mph * MPH_MPS, water)
            found = integrate_line(
                [MATERIALS[name].segment(60.0, water=water)], tension_n=load.tension_n,
                angle_rad=load.angle_rad, speed_mps=mph * MPH_MPS, water=water,
            ).points[-1].up_m
            up = reference.follow(
                [reference.Stretch(60.0, own)], (load.back_n, load.down_n), mph * MPH_MPS
            ).at(60.0)[1]
            worst = max(worst, abs(found - up) / max(abs(up), 0.1))
    return worst


READINGS = [
    DepthReading(
        id=str(i), rig=leadcore(), setting_m=15.0 + 2.0 * i, depth_m=2.5 + 0.5 * i,
        speed_mps=(1.2 + 0.02 * i) * MPH_MPS,
    )
    for i in range(20)
]


def main() -> None:
    budgets = Budgets()
    budgets.time("8 lines re-solved without doubt", plain, 4.0)
    budgets.time("8 lines re-solved with doubt", with_doubt, 8.0)
    budgets.time("a turn of 8 lines", turns, 40.0)
    budgets.time("a line fitted to 20 readings", lambda _: fit_line(READINGS, COLD), 200.0, 7)
    trip = session(
        event("speed_changed", 1, speed_mps=0.8),
        *(
            event("line_set", 2, rod_id=f"rod-{rod}", setting_m=setting)
            for rod, setting in ((1, 35.0), (2, 25.0), (3, 8.0), (4, 10.0), (5, 40.0), (6, 50.0))
        ),
    )
    big = session(
        event("temperature_read", 1, temperature_degc=10.6),
        event("mark_seen", 50, depth_m=9.0, count=6), event("mark_seen", 52, depth_m=5.0, count=2),
        outfit=large_outfit(rods=9, pieces=500),
    )

    def opening(_: int) -> None:
        # Opened anew at each run: solutions kept from the run before would flatter it.
        build_opening(OpenTrip(big.trip, big.history.events.values()).now, at(60))

    budgets.time(
        "six rods at a speed that is dragged, with doubt",
        lambda run: trip.lines_tried(speed_mps=speed(run), now_s=at(5)), 8.0,
    )
    budgets.time("rules of a spread of six rods", lambda _: check_spread(trip.now), 20.0, 7)
    budgets.time(
        "the tightest safe turns of six rods", lambda _: trip.tightest(now_s=at(5)), 600.0, 5
    )
    budgets.time(
        "an S-turn of six rods, 25 moments",
        lambda run: trip.manoeuvre(kind="s_turn", toward="port", radius_m=40.0 + 0.1 * run),
        250.0, 7,
    )
    budgets.time(
        "two speeds at once for a leadcore rod",
        lambda run: trip.numbers_at(
            rod_id="rod-5", depth_m=8.0, speeds_mps=[speed(run), speed(run) + 0.3]
        ), 60.0, 7,
    )
    budgets.time("an opening spread for 9 rods out of 500 pieces", opening, 2000.0, 3)
    error = worst_error()
    assert math.isfinite(error)
    budgets.hold("greatest error of depth against the reference", error, 1e-5, "", 1.0)
    budgets.end()


if __name__ == "__main__":
    main()
