"""How fast a day is planned: the forecast's ensemble, its slide, the phases, legs on a large chart.

Run by `make bench`. Every figure is held against its budget, over the machine's pace at the moment.
"""

from __future__ import annotations

import math
from datetime import UTC, datetime, timedelta

import numpy as np
from astral import Observer
from astral.sun import elevation
from day_cases import SUN, clock, planned, rising
from pace import Budgets

from coldwake_core.chart.features import Feature
from coldwake_core.chart.grid import DepthGrid, GeoPoint
from coldwake_core.column.ensemble import forecast_day, start_from_profile
from coldwake_core.lakesim.day import play
from coldwake_core.lakesim.policies import Advisor
from coldwake_core.lakesim.standard import Standard
from coldwake_core.places.plan.day import day_view
from coldwake_core.survey.legs import LegsWish, plan_legs
from coldwake_core.survey.soundings import Sounding, grid_soundings
from coldwake_core.water.forecast import SurfaceReading
from coldwake_core.water.weather import TypedDay, typed_hours

DAWN = datetime(2026, 4, 14, 9, tzinfo=UTC)
START = start_from_profile([(0.0, 9.2), (43.0, 8.8)])


def day(wind_mps: float, members: int = 50) -> None:
    """So many members on a hundred layers, twenty hours, the wind so strong."""
    hours = typed_hours(
        TypedDay(
            air_low_degc=2.0, air_high_degc=14.0, humidity=0.55, cloud=0.2, wind_mps=wind_mps,
            wind_from_deg=225.0,
        ),
        midnight_s=DAWN.timestamp() - 3 * 3600.0, first_h=3, last_h=23,
    )
    forecast_day(
        START, hours, elevation_deg=SUNS, deepest_m=43.0, secchi_m=4.0, latitude_deg=44.0,
        members=members,
    )


SUNS = [
    elevation(Observer(latitude=44.0, longitude=-105.0), DAWN + timedelta(minutes=10 * i + 5))
    for i in range(120)
]
PLAN = planned(rising(spread_degf=2.0, members=50))
READ = [SurfaceReading(at_s=clock(6 + 0.5 * i), temperature_degc=9.0) for i in range(10)]


def slide(run: int) -> None:
    day_view(PLAN, species="trout", sun=SUN, bottom_m=40.0, readings=READ[: 1 + run % 10])


def chart(side: int) -> DepthGrid:
    """A lake of bumps, side by side cells of 10 m."""
    rows = []
    for r in range(side):
        rows.append(tuple(
            12.0 + 8.0 * math.sin(r / 23.0) * math.cos(c / 31.0) + 3.0 * math.sin(c / 7.0)
            for c in range(side)
        ))
    return DepthGrid(
        south_west=GeoPoint(latitude_deg=44.0, longitude_deg=-105.0), cell_m=10.0, rows=tuple(rows)
    )


def main() -> None:
    """Time all of it."""
    budgets = Budgets()
    for wind in (1.0, 4.0, 8.0):
        budgets.time(
            f"a day ahead, 50 members on 100 layers, wind {wind:g} m/s",
            lambda _, blowing=wind: day(blowing), 2000.0, 3,  # type: ignore[misc]
        )
    budgets.time(
        "a day while it is drawn over, 12 members, and how it looks",
        lambda run: (day(4.0 + 0.1 * run, members=12), slide(run)), 1000.0, 10,
    )
    budgets.time("the day slid by what was read, with its phases", slide, 60.0, 10)
    large = chart(400)
    ring = Feature(
        id="r", name="x", kind="closed_ring", radius_m=300.0, rule="x", origin="x",
        entered_on="2026-04-01", corners=(GeoPoint(latitude_deg=44.018, longitude_deg=-104.975),),
    )
    wish = LegsWish(depth_m=12.0, least_depth_m=5.0, radius_m=35.0, speed_mps=0.8, sun_deg=140.0)
    budgets.time(
        "legs on a chart of 400 by 400", lambda _: plan_legs(large, wish, [ring]), 2000.0, 5
    )
    rng = np.random.default_rng(1)
    soundings = [
        Sounding(
            place=GeoPoint(latitude_deg=44.0 + a, longitude_deg=-105.0 + b),
            depth_m=10.0 + 300.0 * a,
        )
        for a, b in rng.uniform(0.0, 0.03, (4000, 2))
    ]
    budgets.time("a chart made of 4 000 soundings", lambda _: grid_soundings(soundings), 5000.0, 3)
    budgets.time(
        "a simulated day of 8 hours, six rods, with advice",
        lambda run: play(Standard(9000 + run), Advisor(), 9000 + run), 5000.0, 3,
    )
    budgets.end()


if __name__ == "__main__":
    main()
