"""The water column through a day: closed forms, energy, and what the trade sees of it."""

from __future__ import annotations

import math
from datetime import UTC, datetime, timedelta

import CoolProp.CoolProp as coolprop
import numpy as np
import pandas
import pvlib
import pytest
from astral import Observer
from astral.sun import elevation

from coldwake_core.column.ensemble import (
    forecast_day,
    start_from_month,
    start_from_profile,
    start_from_surface,
)
from coldwake_core.column.heat import (
    PAULSON_SIMPSON,
    absorption,
    albedo,
    clear_sky_wpm2,
    cloud_factor,
    sky_longwave_wpm2,
    surface_heat_wpm2,
    vapour_pressure_hpa,
)
from coldwake_core.column.mixing import Column, density_kgpm3
from coldwake_core.column.run import (
    DIFFUSIVITY_M2PS,
    HEAT_JPKGK,
    Air,
    _conduction,
    layers,
    run_column,
)
from coldwake_core.constants import GRAVITY_MPS2, degc_from_degf
from coldwake_core.errors import InvalidInputError
from coldwake_core.water import fresh
from coldwake_core.water.forecast import SlidDay
from coldwake_core.water.weather import TypedDay, WeatherHour, step_count, typed_hours

DAWN = datetime(2026, 4, 14, 11, tzinfo=UTC)
"""Five o'clock, six hours behind UTC."""
HOME = Observer(latitude=44.0, longitude=-105.0)


def air(steps=102, **changes):
    """An April day from 5 to 22 o'clock at 44 degrees north, calm and clear."""
    when = [DAWN + timedelta(minutes=10 * i + 5) for i in range(steps)]
    hours = np.array([5.0 + (i + 0.5) / 6.0 for i in range(steps)])
    values = {
        "elevation_deg": np.array([elevation(HOME, t) for t in when]),
        "air_degc": 8.0 - 6.0 * np.cos(2.0 * np.pi * (hours - 3.0) / 24.0),
        "humidity": np.full(steps, 0.55), "cloud": np.zeros(steps),
        "wind_east_mps": np.full(steps, 1.0), "wind_north_mps": np.zeros(steps),
    }
    return Air(**{**values, **changes})


def run(start_degf=48.6, depth_m=43.0, **changes):
    thickness = layers(depth_m)
    start = np.full((1, len(thickness)), degc_from_degf(start_degf))
    return thickness, run_column(start, thickness, air(**changes), secchi_m=4.0, latitude_deg=44.0)


def test_clear_sky_is_haurwitz_s():
    # pvlib's own implementation of the published formula.
    heights = np.array([3.0, 10.0, 30.0, 60.0, 89.0])
    zenith = pandas.Series(90.0 - heights)
    expected = pvlib.clearsky.haurwitz(zenith)["ghi"].to_numpy()
    assert clear_sky_wpm2(heights) == pytest.approx(expected, rel=1e-6)
    assert clear_sky_wpm2(np.array([-0.1])) == 0.0


def test_cloud_and_albedo_at_their_published_ends():
    # Kasten & Czeplak: overcast lets a quarter through; Fresnel: 2.04 % straight down on n = 1.333.
    assert cloud_factor(np.array([0.0, 1.0])) == pytest.approx([1.0, 0.25])
    straight = albedo(np.array([90.0]), np.array([0.0]))[0]
    assert straight == pytest.approx(((1.333 - 1) / (1.333 + 1)) ** 2, rel=1e-6)
    # Hecht, Optics: unpolarised light on water at 60 degrees of incidence is thrown back by 6 %.
    assert albedo(np.array([30.0]), np.array([0.0]))[0] == pytest.approx(0.0597, abs=0.001)


@pytest.mark.parametrize("degc", [0.5, 10.0, 20.0, 30.0])
def test_vapour_pressure_against_a_library_of_fluids(degc):
    expected = coolprop.PropsSI("P", "T", degc + 273.15, "Q", 1, "Water") / 100.0
    assert vapour_pressure_hpa(np.array([degc]))[0] == pytest.approx(expected, rel=0.005)


def test_sky_of_idso_by_hand():
    # 20 degrees, 10 hPa of vapour: 0.70 + 5.95e-5 * 10 * exp(1500 / 293.15) = 0.7993.
    humidity = 10.0 / vapour_pressure_hpa(np.array([20.0]))
    clear = sky_longwave_wpm2(np.array([20.0]), humidity, np.array([0.0]))[0]
    assert clear == pytest.approx(0.7993 * 5.670374e-8 * 293.15**4, rel=1e-3)
    cloudy = sky_longwave_wpm2(np.array([20.0]), humidity, np.array([1.0]))[0]
    assert cloudy == pytest.approx(1.17 * clear, rel=1e-6)


def test_surface_loses_more_in_wind_and_dry_air_and_gains_from_warm():
    def heat(**changes):
        values = {"air_degc": 12.0, "humidity": 0.6, "cloud": 0.3, "wind_mps": 3.0, **changes}
        return surface_heat_wpm2(
            np.array([10.0]), **{name: np.array([value]) for name, value in values.items()}
        )[0]

    assert heat(humidity=0.3) < heat() < heat(humidity=0.9)
    assert heat(humidity=0.3, wind_mps=8.0) < heat(humidity=0.3, wind_mps=1.0)
    assert heat(air_degc=5.0) < heat() < heat(air_degc=20.0)
    assert heat(cloud=0.0) < heat(cloud=1.0)
    # Air at the water's own temperature and saturated: only long-wave is left.
    left = heat(air_degc=10.0, humidity=1.0, wind_mps=9.0)
    assert left == pytest.approx(heat(air_degc=10.0, humidity=1.0, wind_mps=0.0))


def test_light_fades_by_two_bands():
    # Paulson & Simpson (1977), type I at 1 m: 0.58 exp(-1/0.35) + 0.42 exp(-1/23).
    first = PAULSON_SIMPSON[0].left(np.array([0.0, 1.0]))
    assert first == pytest.approx([1.0, 0.58 * math.exp(-1 / 0.35) + 0.42 * math.exp(-1 / 23)])
    deep = np.array([6.0])
    assert absorption(8.0).left(deep) > 3.0 * absorption(2.0).left(deep)
    # Poole & Atkins: the long band at the Secchi depth has exp(-1.7) left.
    assert absorption(5.0).left(np.array([5.0])) == pytest.approx(0.42 * math.exp(-1.7), rel=1e-4)


def test_density_is_the_core_s_own():
    for degc in (0.5, 4.0, 9.0, 25.0):
        assert density_kgpm3(np.array(degc)) == pytest.approx(fresh.density_kgpm3(degc), rel=1e-12)


@pytest.mark.parametrize("depth_m", [3.0, 10.0, 43.0, 120.0])
def test_layers_fill_the_depth_and_are_thin_on_top(depth_m):
    thickness = layers(depth_m)
    assert thickness.sum() == pytest.approx(depth_m)
    assert thickness[0] <= 0.1 + 1e-9
    assert (np.diff(thickness) >= -1e-12).all()


@pytest.mark.parametrize("wind", [0.0, 2.5, 7.0])
def test_heat_in_is_heat_stored(wind):
    rng = np.random.default_rng(3)
    thickness, found = run(
        wind_east_mps=np.full(102, wind), cloud=rng.uniform(0, 1, 102), start_degf=39.0
    )
    gained = (found.temperature_degc[-1] - found.temperature_degc[0]) @ thickness
    stored = gained * 1000.0 * HEAT_JPKGK
    assert np.abs(stored - found.heat_in_jpm2).max() <= 1e-6 * np.abs(found.heat_in_jpm2).max()


def test_no_water_is_left_under_lighter_water():
    _, found = run(start_degf=37.0, wind_east_mps=np.full(102, 2.0))
    rho = density_kgpm3(found.temperature_degc)
    assert np.diff(rho, axis=2).min() > -5e-6


def test_a_gale_makes_a_slab():
    # Slab limit: 5 m in 20 m/s is one temperature, and warms by heat / (rho c h).
    thickness, found = run(depth_m=5.0, wind_east_mps=np.full(102, 20.0))
    end = found.temperature_degc[-1, 0]
    assert end.max() - end.min() < 0.02
    rise = found.heat_in_jpm2[0] / (1000.0 * HEAT_JPKGK * 5.0)
    assert end.mean() - degc_from_degf(48.6) == pytest.approx(rise, abs=0.01)
    assert thickness.sum() == pytest.approx(5.0)


def test_still_water_conducts_as_the_error_function_says():
    # A step between 15 and 5 degrees, a day later: 10 + 5 erf((1 - z) / sqrt(4 a t)).
    thickness = np.full(200, 0.01)
    z = np.cumsum(thickness) - 0.005
    row = np.where(z < 1.0, 15.0, 5.0)
    matrix = _conduction(thickness, 600.0)
    for _ in range(144):
        row = row @ matrix
    scale = math.sqrt(4.0 * DIFFUSIVITY_M2PS * 86_400.0)
    expected = [10.0 + 5.0 * math.erf((1.0 - depth) / scale) for depth in z]
    assert np.abs(row - expected).max() < 0.02


def column(upper_degc, lower_degc, *, speed_mps, depth_m=2.0):
    """Two layers of water in twenty slices: the upper ones move, the lower ones stand."""
    thickness = np.full(20, 0.5)
    upper = np.cumsum(thickness) <= depth_m + 1e-9
    return Column(
        thickness_m=thickness,
        temperature_degc=np.where(upper, upper_degc, lower_degc)[None, :].astype(float),
        east_mps=np.where(upper, speed_mps, 0.0)[None, :].astype(float),
        north_mps=np.zeros((1, 20)),
    )


@pytest.mark.parametrize(("share", "deepens"), [(0.98, False), (1.02, True)])
def test_a_layer_entrains_at_a_bulk_richardson_number_of_065(share, deepens):
    # By hand: g drho h / (rho V2) = 0.65 gives the speed at which 2 m of water is on the edge.
    jump = fresh.density_kgpm3(10.0) - fresh.density_kgpm3(14.0)
    edge = math.sqrt(GRAVITY_MPS2 * jump * 2.0 / (1000.0 * 0.65))
    tried = column(14.0, 10.0, speed_mps=share * edge)
    deep = tried.entrain(np.array([3]))
    assert bool(deep[0] > 3) is deepens


def test_a_sheared_interface_is_stirred_past_a_quarter():
    tried = column(10.5, 10.0, speed_mps=0.3)
    heat = tried.temperature_degc.sum()
    for _ in range(20):
        tried.shear()
    rho = density_kgpm3(tried.temperature_degc)[0]
    shear2 = np.diff(tried.east_mps[0]) ** 2
    number = GRAVITY_MPS2 * np.diff(rho) * 0.5 / (1000.0 * np.maximum(shear2, 1e-12))
    # It is neared from both sides, each stir a little past it.
    assert number[shear2 > 1e-8].min() >= 0.95 * 0.25
    assert tried.temperature_degc.sum() == pytest.approx(heat, rel=1e-12)
    still = column(10.5, 10.0, speed_mps=0.0)
    still.shear()
    assert (still.temperature_degc[0] == column(10.5, 10.0, speed_mps=0.0).temperature_degc).all()


def test_wind_gives_the_water_its_momentum_and_the_earth_turns_it():
    still = column(12.0, 12.0, speed_mps=0.0)
    still.blow(
        np.array([3]), stress_east_pa=np.array([0.1]), stress_north_pa=np.array([0.0]),
        coriolis_ps=0.0, step_s=600.0,
    )
    # 0.1 Pa for 600 s on 2 m of water: 60 / 2000 m/s; nothing below.
    assert still.east_mps[0, :4] == pytest.approx(0.03)
    assert (still.east_mps[0, 4:] == 0.0).all()
    north = column(12.0, 12.0, speed_mps=0.2)
    quarter = 0.5 * math.pi / 1e-4
    north.blow(
        np.array([3]), stress_east_pa=np.zeros(1), stress_north_pa=np.zeros(1),
        coriolis_ps=1e-4, step_s=quarter,
    )
    # A quarter of an inertial day later it runs to the right, south (northern half of the earth).
    assert north.east_mps[0, 0] == pytest.approx(0.0, abs=1e-12)
    assert north.north_mps[0, 0] == pytest.approx(-0.2)


def test_cooled_water_sinks_as_far_as_it_is_heavier():
    tried = column(12.0, 10.0, speed_mps=0.0)
    tried.temperature_degc[0, 0] = 8.0
    deep = tried.convect()
    # 8 and three times 12 mix to 11: still over the 10 below.
    assert deep[0] == 3
    assert tried.temperature_degc[0, :4] == pytest.approx(11.0)
    assert tried.temperature_degc[0, 4:] == pytest.approx(10.0)


def surface_degf(hours, *, wind, cloud, start_degf=48.6):
    """The surface that a boat's thermometer reads, by local hour."""
    forecast = forecast_day(
        start_from_surface(
            degc_from_degf(start_degf), month=4, latitude_deg=44.0, deepest_m=43.0, fetch_m=3000.0
        ),
        typed(wind=wind, cloud=cloud), elevation_deg=heights(), deepest_m=43.0, secchi_m=4.0,
        latitude_deg=44.0, members=1,
    )
    day = SlidDay(forecast)
    return [day.surface(DAWN.timestamp() + 3600.0 * (h - 5)).middle * 1.8 + 32.0 for h in hours]


def typed(*, wind, cloud):
    return typed_hours(
        TypedDay(
            air_low_degc=2.0, air_high_degc=14.0, humidity=0.55, cloud=cloud, wind_mps=wind,
            wind_from_deg=225.0,
        ),
        midnight_s=DAWN.timestamp() - 5 * 3600.0, first_h=5, last_h=22,
    )


def heights():
    return [elevation(HOME, DAWN + timedelta(minutes=10 * i + 5)) for i in range(102)]


def test_calm_fair_day_lifts_48_49_to_50_51_by_late_morning():
    # Common practice; 54 on the best day of a week. Nothing in the model is fitted to it.
    eleven, noon, *rest = surface_degf([11, 12, 13, 15, 16, 17], wind=1.0, cloud=0.2)
    assert 49.5 <= eleven <= 51.0
    assert 50.0 <= noon <= 51.8
    assert 52.5 <= max(rest) <= 55.0


def test_windy_day_hardly_warms():
    # Common practice: under 2 °F.
    assert max(surface_degf(range(6, 22), wind=6.0, cloud=0.2)) - 48.6 < 2.0
    assert max(surface_degf(range(6, 22), wind=8.0, cloud=0.8)) - 48.6 < 1.0


def test_calm_builds_a_layer_of_under_a_metre_and_six_metres_a_second_none():
    def warm_layer(wind):
        thickness, found = run(wind_east_mps=np.full(102, wind))
        depth = np.cumsum(thickness) - 0.5 * thickness
        row = found.temperature_degc[8 * 6, 0]
        return depth[row > 0.5 * (row[0] + row[-1])].max(), row[0] - row[-1]

    calm, step = warm_layer(1.0)
    assert calm < 1.0
    assert step > 1.5
    deep, none = warm_layer(6.0)
    assert deep > 5.0
    assert none < 0.3


def test_wind_from_noon_takes_the_warm_layer_down():
    calm_hours = typed(wind=1.0, cloud=0.0)
    turned = [
        hour if i < 8 else WeatherHour(
            at_s=hour.at_s, air_degc=hour.air_degc, humidity=hour.humidity, cloud=hour.cloud,
            wind_mps=5.0, wind_from_deg=hour.wind_from_deg,
        )
        for i, hour in enumerate(calm_hours)
    ]
    start = start_from_profile([(0.0, 9.2), (43.0, 9.2)])

    def at(hours, clock):
        day = SlidDay(forecast_day(
            start, hours, elevation_deg=heights(), deepest_m=43.0, secchi_m=4.0, latitude_deg=44.0,
            members=1,
        ))
        return day.surface(DAWN.timestamp() + 3600.0 * (clock - 5)).middle

    assert at(turned, 12) == pytest.approx(at(calm_hours, 12), abs=0.1)
    assert at(turned, 18) < at(turned, 13) - 0.2
    assert at(turned, 18) < at(calm_hours, 18) - 1.5


def test_ensemble_is_the_same_twice_and_spreads_with_the_day():
    def day(seed=1):
        return forecast_day(
            start_from_profile([(0.0, 9.2), (43.0, 9.0)]), typed(wind=1.5, cloud=0.3),
            elevation_deg=heights(), deepest_m=43.0, secchi_m=4.0, latitude_deg=44.0, members=8,
            seed=seed,
        )

    assert day() == day()
    assert day() != day(seed=2)
    slid = SlidDay(day())
    dawn, noon = (slid.surface(DAWN.timestamp() + 3600.0 * h) for h in (0.5, 8.0))
    assert dawn.high - dawn.low < noon.high - noon.low


def test_start_without_a_profile_is_mixed_when_cold_and_layered_in_summer():
    spring = start_from_surface(
        9.9, month=4, latitude_deg=44.0, deepest_m=43.0, fetch_m=3000.0
    )
    assert {t for _, t in spring.profile} == {9.9}
    summer = start_from_surface(22.0, month=8, latitude_deg=44.0, deepest_m=43.0, fetch_m=3000.0)
    # Patalas (1984): 4.6 * 3 ** 0.41 = 7.2 m of upper water.
    assert summer.profile[1] == (pytest.approx(7.2, abs=0.05), 22.0)
    assert summer.profile[-1] == (43.0, 6.0)
    assert summer.layer_sd > spring.layer_sd
    south = start_from_surface(22.0, month=2, latitude_deg=-44.0, deepest_m=43.0, fetch_m=3000.0)
    assert south.profile == summer.profile
    old = start_from_surface(
        8.0, month=4, latitude_deg=44.0, deepest_m=43.0, fetch_m=3000.0, age_h=12.0
    )
    assert old.sd_degc > spring.sd_degc
    month = start_from_month(month=4, latitude_deg=44.0, deepest_m=43.0, fetch_m=3000.0)
    ancient = start_from_surface(
        8.0, month=4, latitude_deg=44.0, deepest_m=43.0, fetch_m=3000.0, age_h=2000.0
    )
    # What was read weeks ago says no more than the month.
    assert month.sd_degc == ancient.sd_degc > old.sd_degc


def test_month_alone_is_warmest_in_late_summer_on_either_side_of_the_equator():
    def surface(month, latitude):
        return start_from_month(
            month=month, latitude_deg=latitude, deepest_m=43.0, fetch_m=3000.0
        ).profile[0][1]

    north = [surface(month, 44.0) for month in range(1, 13)]
    assert north.index(max(north)) == 7
    assert north.index(min(north)) == 1
    assert [surface(month, -44.0) for month in range(1, 13)] == pytest.approx(
        north[6:] + north[:6]
    )
    # Mid-April at 44 degrees: some forty to fifty degrees Fahrenheit (common practice).
    assert degc_from_degf(40.0) < surface(4, 44.0) < degc_from_degf(50.0)
    assert surface(8, 35.0) > surface(8, 55.0)


@pytest.mark.parametrize(("profile", "field"), [
    ([], "profile"),
    ([(0.0, 10.0), (5.0, 9.0), (4.0, 8.0)], "profile[2].depth_m"),
    ([(0.0, 10.0), (0.0, 9.0)], "profile[1].depth_m"),
    ([(0.0, 99.0)], "profile[0].temperature_degc"),
    ([(0.0, math.nan)], "profile[0].temperature_degc"),
    ([(-1.0, 9.0)], "profile[0].depth_m"),
])
def test_profile_that_cannot_be_is_named(profile, field):
    with pytest.raises(InvalidInputError) as caught:
        start_from_profile(profile)
    assert caught.value.field == field


def test_hours_that_do_not_run_on_are_named():
    hours = list(typed(wind=1.0, cloud=0.1))
    with pytest.raises(InvalidInputError) as caught:
        step_count([hours[0], hours[2], hours[1]])
    assert caught.value.field == "hours[2].at_s"
    with pytest.raises(InvalidInputError) as caught:
        step_count([hours[0], hours[-1]])
    assert caught.value.field == "hours[1].at_s"
    with pytest.raises(InvalidInputError):
        step_count(hours[:1])


def test_typed_day_swings_between_its_two_temperatures():
    hours = typed_hours(
        TypedDay(
            air_low_degc=2.0, air_high_degc=14.0, humidity=0.6, cloud=0.4, wind_mps=2.0,
            wind_from_deg=90.0,
        ),
        midnight_s=0.0, first_h=3, last_h=23,
    )
    airs = {round(h.at_s / 3600): h.air_degc for h in hours}
    assert airs[6] == pytest.approx(2.0)
    assert airs[15] == pytest.approx(14.0)
    assert airs[3] > airs[6] < airs[9] < airs[15] > airs[22]
    damp = {round(h.at_s / 3600): h.humidity for h in hours}
    # The same vapour in warmer air is a smaller share of what it can hold.
    assert damp[15] < 0.6 < damp[6] <= 1.0
    with pytest.raises(InvalidInputError) as caught:
        typed_hours(
            TypedDay(
                air_low_degc=14.0, air_high_degc=2.0, humidity=0.6, cloud=0.4, wind_mps=2.0,
                wind_from_deg=90.0,
            ),
            midnight_s=0.0, first_h=3, last_h=23,
        )
    assert caught.value.field == "air_high_degc"


def test_water_that_the_sun_warms_at_the_bed_rises_as_far_as_it_floats():
    column = Column(
        thickness_m=np.array([1.0, 1.0, 1.0, 2.0]),
        temperature_degc=np.array([[12.0, 10.0, 9.0, 14.0], [12.0, 11.0, 10.0, 9.0]]),
        east_mps=np.array([[0.0, 0.0, 0.0, 0.4], [0.0, 0.0, 0.0, 0.4]]),
        north_mps=np.zeros((2, 4)),
    )
    column.convect()
    # By hand: with the third alone 12.33, which floats on 10; with the second too 11.75, under 12.
    assert column.temperature_degc[0] == pytest.approx([12.0, 11.75, 11.75, 11.75])
    assert column.east_mps[0] == pytest.approx([0.0, 0.2, 0.2, 0.2])
    assert column.temperature_degc[1] == pytest.approx([12.0, 11.0, 10.0, 9.0])
