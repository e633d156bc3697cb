"""Layers, light and the day's slide, against a library of lakes and against closed forms."""

from __future__ import annotations

import math

import gsw
import numpy as np
import pylake
import pytest
from day_cases import clock
from hypothesis import given
from hypothesis import strategies as st

from coldwake_core.advice.bands import LEAST_OXYGEN_MGPL, published_band, species_layers
from coldwake_core.errors import InvalidInputError
from coldwake_core.water.forecast import DayForecast, SlidDay, SurfaceReading
from coldwake_core.water.fresh import density_kgpm3
from coldwake_core.water.layers import (
    Bowl,
    schmidt_stability_jpm2,
    temperature_at,
    thermocline_m,
    wind_tilt,
)
from coldwake_core.water.light import (
    PURE_WATER_PM,
    attenuation_pm,
    colours_at,
    daylight,
    light_left,
    spectral_attenuation_pm,
)
from coldwake_core.water.oxygen import oxygen_saturation_mgpl

SUMMER = [
    (0.0, 22.0), (2.0, 21.8), (4.0, 21.5), (6.0, 20.5), (8.0, 16.0), (10.0, 12.0), (12.0, 10.0),
    (16.0, 8.5), (20.0, 7.5), (30.0, 6.5), (40.0, 6.0),
]
LAKE = Bowl(deepest_m=40.0, area_m2=4.0e6)


def lake_of_pylake():
    depth = np.array([z for z, _ in SUMMER])
    return depth, np.array([t for _, t in SUMMER]), LAKE.area_m2 * (1.0 - depth / 40.0)


def test_thermocline_against_a_library_of_lakes():
    # pylake, after Read et al. (2011), on the same profile; salt left out.
    depth, degc, _ = lake_of_pylake()
    expected, _ = pylake.thermocline(degc, depth, s=0.0)
    assert thermocline_m(SUMMER) == pytest.approx(expected, rel=0.02)
    assert thermocline_m([(0.0, 9.0), (20.0, 9.0)]) is None
    assert thermocline_m([(0.0, 9.0)]) is None
    # Two readings alone: between them.
    assert thermocline_m([(0.0, 20.0), (10.0, 10.0)]) == 5.0


def test_schmidt_stability_against_a_library_of_lakes():
    depth, degc, area = lake_of_pylake()
    expected = pylake.schmidt_stability(degc, depth, bthA=area, bthD=depth, sal=0.0)
    assert schmidt_stability_jpm2(SUMMER, LAKE) == pytest.approx(float(expected), rel=0.02)
    assert schmidt_stability_jpm2([(0.0, 9.0), (40.0, 9.0)], LAKE) == pytest.approx(0.0, abs=1e-6)


def test_schmidt_stability_of_two_layers_by_hand():
    # Straight walls, 10 m, the lower half heavier by drho: g drho h^2 / 8 (half of each half's
    # weight lifted by a quarter of the depth).
    walls = Bowl(deepest_m=10.0, area_m2=1e6, shape=0.0)
    profile = [(0.0, 20.0), (4.999, 20.0), (5.001, 10.0), (10.0, 10.0)]
    jump = density_kgpm3(10.0) - density_kgpm3(20.0)
    assert schmidt_stability_jpm2(profile, walls) == pytest.approx(
        9.80665 * jump * 100.0 / 8.0, rel=1e-3
    )


def test_wedderburn_and_lake_numbers_against_a_library_of_lakes():
    tilt = wind_tilt(SUMMER, LAKE, wind_mps=6.0, fetch_m=2000.0)
    depth, _, area = lake_of_pylake()
    line = thermocline_m(SUMMER)
    friction = math.sqrt(1.22 * 1.3e-3 * 36.0 / 998.0)
    st_jpm2 = schmidt_stability_jpm2(SUMMER, LAKE)
    expected = pylake.Lake_number(area, depth, friction, st_jpm2, line, line, 999.8)
    assert tilt.lake_number == pytest.approx(float(expected), rel=0.03)
    # By hand: means above and below are near 21.5 and 10 degrees.
    rough = pylake.wedderburn(
        density_kgpm3(9.5) - density_kgpm3(21.6), line, friction, density_kgpm3(9.5), Lo=2000.0
    )
    assert tilt.wedderburn == pytest.approx(float(rough), rel=0.2)


def test_wind_tilts_a_lake_the_more_it_blows():
    def tilt(wind, fetch=2000.0):
        return wind_tilt(SUMMER, LAKE, wind_mps=wind, fetch_m=fetch)

    assert tilt(0.0).verdict == "firm"
    assert tilt(2.0).verdict == "firm"
    assert tilt(25.0).verdict == "wells_up"
    assert tilt(6.0).wedderburn == pytest.approx(4.0 * tilt(12.0).wedderburn, rel=1e-9)
    assert tilt(6.0, 4000.0).wedderburn == pytest.approx(0.5 * tilt(6.0).wedderburn, rel=1e-9)
    assert tilt(12.0).lean_m == pytest.approx(4.0 * tilt(6.0).lean_m, rel=1e-9)
    assert tilt(40.0).lean_m == thermocline_m(SUMMER)
    # Merian: two layers of a narrow lake swing in 2 L / sqrt(g' h1 h2 / H).
    assert tilt(6.0, 4000.0).period_s == pytest.approx(2.0 * tilt(6.0).period_s, rel=1e-9)
    mixed = wind_tilt([(0.0, 8.0), (40.0, 8.0)], LAKE, wind_mps=10.0, fetch_m=2000.0)
    assert (mixed.verdict, mixed.wedderburn) == ("mixed", None)


def test_bowl_s_volume_and_its_middle_are_the_integrals():
    for shape in (0.0, 1.0, 2.0):
        bowl = Bowl(deepest_m=20.0, area_m2=1e6, shape=shape)
        z = np.linspace(0.0, 20.0, 20_001)
        area = np.array([bowl.area_at_m2(float(d)) for d in z])
        assert bowl.volume_m3 == pytest.approx(np.trapezoid(area, z), rel=1e-4)
        assert bowl.centre_m == pytest.approx(
            np.trapezoid(area * z, z) / np.trapezoid(area, z), rel=1e-4
        )


def test_temperature_between_readings_and_beyond():
    assert temperature_at(SUMMER, 7.0) == pytest.approx(18.25)
    assert temperature_at(SUMMER, 99.0) == 6.0
    assert temperature_at([(1.0, 9.0), (2.0, 8.0)], 0.0) == 9.0


def test_light_at_depth_is_poole_and_atkins():
    assert attenuation_pm(3.4) == pytest.approx(0.5)
    assert light_left(4.0, 3.4) == pytest.approx(math.exp(-2.0))
    assert light_left(0.0, 1.0) == 1.0
    for bad in (0.0, math.nan, 100.0):
        with pytest.raises(InvalidInputError):
            attenuation_pm(bad)


def test_daylight_is_the_sine_of_the_sun_and_a_quarter_of_it_under_a_closed_sky():
    """Kasten & Czeplak 1980: 1 - 0.75 N^3.4, so a quarter with eight eighths of cloud."""
    assert daylight(90.0, 0.0) == 1.0
    assert daylight(30.0, 0.0) == pytest.approx(0.5)
    assert daylight(30.0, 1.0) == pytest.approx(0.125)
    # Half a sky of cloud takes next to nothing.
    assert daylight(30.0, 0.5) == pytest.approx(0.5 * (1.0 - 0.75 * 0.5**3.4))
    assert daylight(-5.0, 0.0) == 0.0


def test_green_fades_as_the_disc_says_and_red_as_pure_water_at_least():
    assert spectral_attenuation_pm(550.0, 3.4) == pytest.approx(0.5)
    assert spectral_attenuation_pm(650.0, 3.4) > PURE_WATER_PM[650]
    # So clear that pure water is all there is: Pope & Fry's own values.
    assert spectral_attenuation_pm(650.0, 40.0) == pytest.approx(PURE_WATER_PM[650], abs=0.001)
    with pytest.raises(InvalidInputError):
        spectral_attenuation_pm(390.0, 3.0)


def test_red_goes_first_and_stain_takes_the_blue():
    clear = {c.name: c for c in colours_at(15.0, 40.0)}
    assert clear["red"].left < clear["orange"].left < clear["yellow"].left < clear["green"].left
    assert clear["green"].left < clear["blue"].left
    assert not clear["red"].shows
    assert clear["green"].shows
    assert colours_at(15.0, 40.0)[0].name == "blue"
    stained = {c.name: c for c in colours_at(3.0, 2.0)}
    assert stained["blue"].left < stained["green"].left
    assert {c.shows for c in colours_at(60.0, 1.0)} == {False}
    assert colours_at(0.0, 3.0)[0].against == 1.0


def test_bands_are_lists_of_layers_and_oxygen_squeezes_them():
    band, source = published_band("trout")
    assert band[0] < 17.2 < band[1]
    assert "Hokanson" in source
    inverted = [(0.0, 9.0), (4.0, 13.0), (8.0, 9.0), (20.0, 5.0)]
    found = species_layers(inverted, (10.0, 12.0), bottom_m=30.0)
    assert [(round(x.top_m, 6), round(x.base_m, 6)) for x in found] == [(1.0, 3.0), (5.0, 7.0)]
    # 5 mg/l is left at 6 m: half of 8 to 2 between 4 and 8 m.
    air = [(0.0, 8.0), (4.0, 8.0), (8.0, 2.0), (20.0, 0.0)]
    squeezed = species_layers(
        inverted, (10.0, 12.0), bottom_m=30.0, oxygen=air, least_mgpl=LEAST_OXYGEN_MGPL["trout"]
    )
    assert (squeezed[1].top_m, squeezed[1].base_m) == pytest.approx((5.0, 6.0))


def flat(*degc, hours=(6, 12, 18)):
    """Members that stay at a temperature all day, half of it at 10 m."""
    return DayForecast(
        at_s=tuple(clock(h) for h in hours), depths_m=(0.3, 10.0),
        members_degc=tuple(tuple((t, 0.5 * t) for _ in hours) for t in degc),
    )


def read(degc, hour=12.0):
    return SurfaceReading(at_s=clock(hour), temperature_degc=degc)


def test_without_readings_all_members_weigh_the_same():
    day = SlidDay(flat(8.0, 9.0, 10.0, 11.0, 12.0))
    assert day.weights == pytest.approx([0.2] * 5)
    assert day.surface(clock(10)).middle == pytest.approx(10.0)
    # Fifths: the middles of the weights stand at 0.1, 0.3 ... 0.9.
    assert day.surface(clock(10)).low == pytest.approx(8.0)
    assert day.surface(clock(10)).high == pytest.approx(12.0)


def test_weights_follow_the_likelihood_of_a_reading():
    members = [10.0, 10.2, 10.4, 10.1, 10.3, 9.9, 10.5, 9.8]
    day = SlidDay(flat(*members), [read(10.1)])
    raw = [math.exp(-0.5 * ((10.1 - t) / 0.4) ** 2) for t in members]
    assert day.weights == pytest.approx([w / sum(raw) for w in raw])


def test_never_fewer_than_five_members_carry_it():
    day = SlidDay(flat(*[8.0 + 0.5 * i for i in range(20)]), [read(9.0)])
    assert 1.0 / sum(w * w for w in day.weights) >= 5.0 - 1e-6
    assert max(day.weights) == day.weights[2]


def test_what_no_member_explains_is_carried_on_and_fades():
    day = SlidDay(flat(10.0), [read(12.0)])
    assert day.surface(clock(12)).middle == pytest.approx(12.0)
    assert day.surface(clock(15)).middle == pytest.approx(11.0)
    assert day.surface(clock(18)).middle == pytest.approx(10.5)
    (_, top), (_, deep) = day.profile(clock(12))
    assert top == pytest.approx(10.0 + 2.0 * math.exp(-0.15))
    assert deep == pytest.approx(5.0, abs=0.02)


def test_readings_outside_the_day_say_nothing_and_order_is_no_matter():
    day = flat(9.0, 10.0, 11.0, 12.0, 13.0, 14.0)
    assert SlidDay(day, [read(14.0, 30.0)]).weights == SlidDay(day).weights
    both = [read(10.0, 8.0), read(11.0, 11.0)]
    assert SlidDay(day, both).weights == SlidDay(day, both[::-1]).weights
    # Two within half an hour are one: the later.
    assert SlidDay(day, [read(13.0, 8.0), read(10.0, 8.2)]).weights == SlidDay(
        day, [read(10.0, 8.2)]
    ).weights


@given(st.lists(st.floats(0.0, 25.0), min_size=1, max_size=12), st.floats(0.0, 25.0),
       st.floats(6.0, 18.0))
def test_a_reading_pulls_the_day_toward_itself(members, degc, hour):
    day = flat(*members)
    band = SlidDay(day, [read(degc, hour)]).surface(clock(hour))
    assert band.middle == pytest.approx(degc, abs=1e-9)
    assert band.low <= band.middle <= band.high


@pytest.mark.parametrize(("changes", "field"), [
    ({"at_s": (1.0,)}, "at_s"),
    ({"at_s": (3.0, 2.0, 4.0)}, "at_s[1]"),
    ({"depths_m": (0.3, 0.3)}, "depths_m[1]"),
    ({"members_degc": ()}, "members_degc"),
    ({"members_degc": (((1.0, 2.0),),)}, "members_degc[0]"),
    ({"members_degc": (((1.0, 2.0), (1.0, 2.0), (1.0, math.inf)),)}, "members_degc[0]"),
])
def test_forecast_that_cannot_be_is_named(changes, field):
    good = flat(10.0)
    values = {name: getattr(good, name) for name in ("at_s", "depths_m", "members_degc")}
    with pytest.raises(InvalidInputError) as caught:
        DayForecast(**{**values, **changes}).check()
    assert caught.value.field == field


@pytest.mark.parametrize("degc", [0.5, 4.0, 12.0, 20.0, 30.0])
def test_oxygen_saturation_against_a_library_of_oceans(degc):
    # gsw.O2sol, Garcia & Gordon's fit to Benson & Krause's measurements, without salt: umol/kg.
    expected = gsw.O2sol(0.0, gsw.CT_from_t(0.0, degc, 0.0), 0.0, 0.0, 0.0)
    milligrams = float(expected) * 31.9988e-6 * density_kgpm3(degc)
    assert oxygen_saturation_mgpl(degc) == pytest.approx(milligrams, rel=0.003)
    # Benson & Krause 1984: 9.09 mg/l at 20 degrees.
    assert oxygen_saturation_mgpl(20.0) == pytest.approx(9.09, abs=0.005)
