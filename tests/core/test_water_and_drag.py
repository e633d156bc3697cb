"""Water and drag against reference libraries and published tables."""

from __future__ import annotations

import math

import CoolProp.CoolProp as coolprop
import fluids
import pytest
from tackle import COLD, FLOATING_MINNOW, HEAVY_SPOON

from coldwake_core.constants import GRAVITY_MPS2, LEAD_DENSITY_KGPM3, POUND_KG
from coldwake_core.errors import InvalidInputError
from coldwake_core.lines.bodies import Ball, plate_body, plug_body, sinking_speed_mps, soft_body
from coldwake_core.lines.drag import LINE_DRAG, sphere_drag_coefficient
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
    assert LINE_DRAG.normal_coefficient(reynolds) == pytest.approx(measured, rel=0.15)


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
        lambda: plate_body(length_m=0.09, width_m=0.0, mass_kg=0.01),
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
