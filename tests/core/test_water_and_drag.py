"""Water and drag against reference libraries and published tables."""

from __future__ import annotations

import math

import CoolProp.CoolProp as coolprop
import fluids
import pytest
from tackle import COLD, FLOATING_MINNOW, HEAVY_SPOON
from trip_cases import at, event, session

from coldwake_core.constants import GRAVITY_MPS2, LEAD_DENSITY_KGPM3, POUND_KG
from coldwake_core.errors import InvalidInputError
from coldwake_core.lines.bodies import (
    Ball,
    blade_body,
    plug_body,
    sinking_speed_mps,
    soft_body,
    spoon_body,
)
from coldwake_core.lines.drag import LineLaw, sphere_drag_coefficient, strum_amplitude, strum_excess
from coldwake_core.lines.materials import MATERIALS, LineMaterial, material
from coldwake_core.water.fresh import Water, density_kgpm3, viscosity_pas


@pytest.mark.parametrize("degc", [0.5, 4.0, 10.0, 20.0, 30.0])
def test_density_and_viscosity_agree_with_a_reference_library(degc: float):
    # CoolProp (IAPWS-95 and the IAPWS viscosity formulation of 2008) at one atmosphere.
    state = ("T", degc + 273.15, "P", 101325.0, "Water")
    assert density_kgpm3(degc) == pytest.approx(coolprop.PropsSI("D", *state), rel=5e-4)
    assert viscosity_pas(degc) == pytest.approx(coolprop.PropsSI("V", *state), rel=1e-3)


def test_water_is_densest_near_four_degrees():
    assert density_kgpm3(4.0) > density_kgpm3(2.0)
    assert density_kgpm3(4.0) > density_kgpm3(6.0)


@pytest.mark.parametrize("degc", [-2.0, 60.0, math.nan, True, "9"])
def test_impossible_water_is_refused(degc: object):
    with pytest.raises(InvalidInputError, match="temperature_degc"):
        density_kgpm3(degc)  # type: ignore[arg-type]


@pytest.mark.parametrize("reynolds", [0.1, 1.0, 10.0, 1e3, 1e4, 7e4])
def test_sphere_drag_agrees_with_a_reference_library(reynolds: float):
    # fluids.drag_sphere with its default correlation; published correlations differ by a few %.
    expected = fluids.drag_sphere(reynolds)
    assert sphere_drag_coefficient(reynolds) == pytest.approx(expected, rel=0.08)


@pytest.mark.parametrize(
    ("reynolds", "measured"),
    # Wieselsberger's measurements as tabulated in Schlichting, Boundary-Layer Theory; from memory.
    [(10.0, 2.8), (40.0, 1.7), (100.0, 1.45), (1000.0, 1.0), (1e4, 1.1)],
)
def test_cylinder_drag_is_within_the_stated_scatter_of_measurements(
    reynolds: float, measured: float
):
    # The drag of a metre of line held still across the flow, over 0.5 rho d V^2.
    speed, diameter = 1.0, reynolds * COLD.viscosity_m2ps
    force = line_law(diameter, speed, strum_factor=0.0).normal(1.0)
    coefficient = force / (0.5 * COLD.density_kgpm3 * diameter * speed**2)
    assert coefficient == pytest.approx(measured, rel=0.15)


def line_law(diameter_m: float, speed_mps: float, *, strum_factor: float = 1.0) -> LineLaw:
    return LineLaw(
        diameter_m=diameter_m,
        drag_factor=1.0,
        strum_factor=strum_factor,
        mass_damping=0.07,
        speed_mps=speed_mps,
        water=COLD,
    )


@pytest.mark.parametrize(
    ("reynolds", "amplitude"),
    # Govardhan & Williamson 2006: A* = log10(0.41 Re^0.36) with no damping, worked by hand from it
    # (500: 0.41 x 9.366 = 3.840; 4000: 0.41 x 19.80 = 8.120); from memory.
    [(500.0, 0.584), (4000.0, 0.910)],
)
def test_strumming_amplitude_is_the_published_one(reynolds: float, amplitude: float):
    assert strum_amplitude(reynolds) == pytest.approx(amplitude, abs=2e-3)
    # Half the mass-damping of 0.5: 1 - 0.56 + 0.075.
    damped = strum_amplitude(reynolds, mass_damping=0.5)
    assert damped == pytest.approx(0.515 * amplitude, abs=2e-3)


def test_strumming_drag_is_vandivers_at_its_own_points():
    # 1 + 1.043 (2 Yrms/D)^0.65 (Vandiver 1983): an amplitude of half a diameter gives sqrt(2)/2.
    reynolds = 10 ** ((0.5 - math.log10(0.41)) / 0.36)
    assert strum_amplitude(reynolds) == pytest.approx(0.5)
    assert strum_excess(reynolds) == pytest.approx(1.043 * 0.7071**0.65, rel=1e-3)


@pytest.mark.parametrize("reynolds", [0.0, 10.0, 46.9])
def test_no_line_strums_below_vortex_shedding(reynolds: float):
    assert strum_amplitude(reynolds) == 0.0
    assert strum_excess(reynolds) == 0.0
    diameter = 3e-4
    speed = max(reynolds, 1e-6) * COLD.viscosity_m2ps / diameter
    assert line_law(diameter, speed).excess(1.0) == 0.0


def test_line_has_a_share_of_full_strumming_and_no_less_drag_than_none():
    diameter, speed = 8.4e-4, 0.8
    law, still = line_law(diameter, speed), line_law(diameter, speed, strum_factor=0.0)
    for a in (0.05, 0.2, 0.6, 1.0):
        full = strum_excess(speed * a * diameter / COLD.viscosity_m2ps, mass_damping=0.07)
        assert law.excess(a) == pytest.approx(0.6 * full)
        assert law.normal(a) == pytest.approx(still.normal(a) * (1.0 + 0.6 * full))
    normal, extra, rising = law.slopes(0.6)
    assert normal - extra == pytest.approx(still.normal(0.6))
    step = 1e-5
    central = (law.normal(0.6 * (1 + step)) - law.normal(0.6 * (1 - step))) / (2 * step)
    assert rising == pytest.approx(central, rel=1e-3)


def test_ball_too_fast_for_its_drag_law_says_so():
    # Past the drag crisis of a sphere, Re 3e5, nobody knows its drag.
    with pytest.raises(InvalidInputError, match="past 300 000"):
        sphere_drag_coefficient(3.1e5)
    heavy = Ball(mass_kg=15.0)
    limit = 3e5 * COLD.viscosity_m2ps / heavy.diameter_m
    assert not heavy.is_beyond_law(0.99 * limit, COLD)
    assert heavy.is_beyond_law(1.01 * limit, COLD)
    # The last value is held: drag goes on with the square of the speed.
    drags = [heavy.load(speed * limit, COLD).back_n for speed in (1.0, 1.2)]
    assert drags[1] / drags[0] == pytest.approx(1.44)
    assert not Ball(mass_kg=15.0, shape="torpedo").is_beyond_law(4.5, COLD)


def test_fast_boat_still_sees_its_rods_and_is_told():
    opened = session(
        event("temperature_read", 1, temperature_degc=25.0),
        event("line_set", 2, rod_id="rod-3", setting_m=8.0),
        event("line_set", 2, rod_id="rod-1", setting_m=30.0),
        event("speed_changed", 3, speed_mps=4.4),
    )
    lines = {rod.id: rod.line for rod in opened.view(at(4)).rods}
    assert lines["rod-3"].beyond_law
    assert not lines["rod-1"].beyond_law
    assert not any(line.beyond_law for line in opened.lines_tried(speed_mps=1.0, now_s=at(4)))


def test_blade_of_low_aspect_ratio_lifts_as_published():
    # Jones 1946: the slope of a slender wing is pi/2 times its aspect ratio.
    plate = blade_body(length_m=0.1016, width_m=0.0356, mass_kg=0.012).plate
    aspect = 0.0356**2 / (0.78 * 0.1016 * 0.0356)
    slope = plate.normal_coefficient(1e-4) / 1e-4
    assert slope == pytest.approx(math.pi / 2 * aspect, rel=1e-3)
    # Broadside it is a flat plate in cross flow, 1.2 (Hoerner 1965).
    assert plate.normal_coefficient(math.pi / 2) == pytest.approx(1.2)


@pytest.mark.parametrize("speed", [0.2, 0.5, 1.0])
def test_towed_plate_balances_its_moments(speed: float):
    # About its nose: N times the lift's arm against the weight's, whatever the angle it rides at.
    for body in (
        blade_body(length_m=0.1016, width_m=0.0356, mass_kg=0.012),
        spoon_body(length_m=0.07, width_m=0.025, mass_kg=0.014),
    ):
        weight = body.load(0.0, COLD).down_n
        q = 0.5 * COLD.density_kgpm3 * speed**2
        share = body.plate.carries(weight, q)
        angle = math.acos(math.sqrt(share / body.plate.lever))
        force = q * body.plate.area_m2 * body.plate.normal_coefficient(angle)
        assert force == pytest.approx(body.plate.lever * weight * math.cos(angle), rel=1e-6)


def test_swinging_blade_lifts_and_drags_more_than_a_spoon_of_its_size():
    size = {"length_m": 0.1016, "width_m": 0.0356, "mass_kg": 0.012}
    blade, spoon = blade_body(**size).load(1.5, COLD), spoon_body(**size).load(1.5, COLD)
    assert blade.back_n > spoon.back_n
    assert 0.0 < blade.down_n < spoon.down_n


@pytest.mark.parametrize(
    ("width_in", "floats"), [(None, False), (0.40, False), (0.85, True), (1.0, True)]
)
def test_plug_floats_or_sinks_as_its_displaced_volume_says(width_in: float | None, floats: bool):
    # 2 in long, 7.5 g: seven tenths of the ellipsoid of its girth against 7.5 ml.
    width = None if width_in is None else width_in * 0.0254
    volume = 0.7 * math.pi / 6 * 0.0508 * (width or 0.2 * 0.0508) ** 2
    assert (volume * 1000.0 > 0.0075) == floats
    body = plug_body(length_m=0.0508, mass_kg=0.0075, lip="none", width_m=width)
    assert (body.load(0.0, COLD).down_n < 0.0) == floats
    sinks = sinking_speed_mps(length_m=0.0508, mass_kg=0.0075, water=COLD, width_m=width)
    assert (sinks < 0.0) == floats


def test_drag_and_lip_of_a_plug_go_by_its_own_girth():
    slim, fat = (
        plug_body(length_m=0.06, mass_kg=0.008, lip="small", width_m=width)
        for width in (0.012, 0.024)
    )
    assert fat.drag_area_m2 == pytest.approx(4.0 * slim.drag_area_m2)
    assert fat.down_area_m2 == pytest.approx(4.0 * slim.down_area_m2)


@pytest.mark.parametrize("width", [0.0, -0.01, 0.061, math.nan])
def test_plug_wider_than_long_is_refused(width: float):
    with pytest.raises(InvalidInputError, match="width_m"):
        plug_body(length_m=0.06, mass_kg=0.008, lip="small", width_m=width)


def test_leadcore_weighs_thirteen_grains_a_foot_unless_it_was_weighed():
    grain, foot = 6.479891e-5, 0.3048
    core = MATERIALS["leadcore-18"]
    assert core.mass_kgpm / grain * foot == pytest.approx(13.0, abs=0.3)
    heavy = core.with_mass(15.0 * grain / foot)
    assert heavy.mass_kgpm / grain * foot == pytest.approx(15.0, rel=1e-6)
    assert heavy.diameter_m == core.diameter_m
    assert (heavy.weighed, core.weighed) == (True, False)


@pytest.mark.parametrize("mass", [0.0, 1e-5, 0.02, math.nan])
def test_leadcore_cannot_weigh_less_than_its_sheath_or_more_than_lead(mass: float):
    with pytest.raises(InvalidInputError, match="mass_kgpm"):
        MATERIALS["leadcore-18"].with_mass(mass)
    with pytest.raises(InvalidInputError, match="no lead core"):
        MATERIALS["mono-12"].with_mass(0.002)


def test_ball_weighs_its_weight_less_the_water_it_displaces():
    load = Ball(mass_kg=10 * POUND_KG).load(0.0, COLD)
    displaced = 10 * POUND_KG / LEAD_DENSITY_KGPM3 * COLD.density_kgpm3
    assert load.down_n == pytest.approx((10 * POUND_KG - displaced) * GRAVITY_MPS2)
    assert load.back_n == 0.0


def test_ball_drag_grows_with_the_square_of_speed():
    ball = Ball(mass_kg=4.5)
    slow, fast = ball.load(0.5, COLD), ball.load(1.0, COLD)
    assert fast.back_n / slow.back_n == pytest.approx(4.0, rel=0.1)


@pytest.mark.parametrize("change", [{"mass_kg": 0.0}, {"mass_kg": 227.0}, {"density_kgpm3": 900.0}])
def test_impossible_ball_is_refused(change: dict[str, float]):
    with pytest.raises(InvalidInputError, match=next(iter(change))):
        Ball(**({"mass_kg": 4.5} | change))


def test_plate_hangs_when_slow_and_planes_when_fast():
    weight = HEAVY_SPOON.load(0.0, COLD).down_n
    assert HEAVY_SPOON.load(0.05, COLD).down_n > 0.9 * weight
    assert HEAVY_SPOON.load(2.0, COLD).down_n < 0.25 * weight


def test_floating_plug_pulls_up_at_rest_and_dives_in_its_working_range():
    assert FLOATING_MINNOW.load(0.0, COLD).down_n < 0.0
    assert FLOATING_MINNOW.load(0.8, COLD).down_n > 0.0


def test_sinking_plug_falls_a_foot_a_second():
    # Common practice: a sinking minnow sinks 1 ft/s when stopped.
    speed = sinking_speed_mps(length_m=0.09, mass_kg=0.0166, water=COLD)
    assert speed / 0.3048 == pytest.approx(1.0, abs=0.3)
    assert sinking_speed_mps(length_m=0.09, mass_kg=0.0088, water=COLD) < 0.0


@pytest.mark.parametrize(
    "make",
    [
        lambda: plug_body(length_m=0.0, mass_kg=0.01, lip="small"),
        lambda: plug_body(length_m=0.09, mass_kg=0.01, lip="huge"),  # type: ignore[arg-type]
        lambda: spoon_body(length_m=0.09, width_m=0.0, mass_kg=0.01),
        lambda: soft_body(length_m=0.05, width_m=0.01, mass_kg=-1.0),
    ],
)
def test_impossible_lures_are_refused(make):
    with pytest.raises(InvalidInputError):
        make()


def test_materials_sink_or_float_as_their_matter_does():
    water = Water.at_degc(10.0)
    weight = {key: item.segment(1.0, water=water).weight_npm for key, item in MATERIALS.items()}
    assert weight["mono-12"] > 0.0 > weight["braid-20"]
    assert weight["fluoro-12"] > weight["mono-12"]
    assert weight["leadcore-18"] > 20 * weight["fluoro-12"]
    for item in MATERIALS.values():
        item.check()
        assert item.source


@pytest.mark.parametrize(
    "change",
    [{"diameter_m": 0.0}, {"fill": 0.0}, {"solid_density_kgpm3": 10.0}, {"core_diameter_m": 1.0}],
)
def test_impossible_materials_are_refused(change: dict[str, float]):
    good = {"id": "x", "name": "x", "diameter_m": 3e-4, "solid_density_kgpm3": 1140.0}
    with pytest.raises(InvalidInputError, match=next(iter(change))):
        LineMaterial(**(good | change)).check()


def test_unknown_material_names_what_there_is():
    with pytest.raises(InvalidInputError, match="mono-12"):
        material("string")
