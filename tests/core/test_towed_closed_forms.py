"""Towed lines against closed forms, derived in the comments."""

from __future__ import annotations

import math

import pytest

from coldwake_core.errors import InvalidInputError
from coldwake_core.lines.drag import CylinderDrag
from coldwake_core.lines.towed import Segment, critical_angle_rad, integrate_line
from coldwake_core.water.fresh import Water

WATER = Water(density_kgpm3=1000.0, viscosity_m2ps=1.3e-6)
# A constant coefficient, no tangential drag, held still: what the closed forms are for.
NORMAL_ONLY = CylinderDrag(cn_inertial=1.2, cn_viscous=0.0, ct=0.0, strum_share=0.0)


def test_long_heavy_line_with_a_free_end_is_straight_at_the_critical_angle():
    # Pode (1951): cos(phi) / sin(phi)**2 = 0.5 rho Cn d V**2 / w.
    speed, diameter, weight = 0.7, 0.9e-3, 0.02
    line = integrate_line(
        [Segment(length_m=100.0, diameter_m=diameter, weight_npm=weight)],
        tension_n=0.0,
        angle_rad=0.0,
        speed_mps=speed,
        water=WATER,
        drag=NORMAL_ONLY,
        tolerance=1e-9,
    )
    end = line.points[-1]
    ratio = 0.5 * 1000.0 * 1.2 * diameter * speed**2 / weight
    assert math.cos(end.angle_rad) / math.sin(end.angle_rad) ** 2 == pytest.approx(ratio, rel=1e-6)
    assert end.up_m == pytest.approx(100.0 * math.sin(end.angle_rad), rel=1e-6)
    assert end.forward_m == pytest.approx(100.0 * math.cos(end.angle_rad), rel=1e-6)


@pytest.mark.parametrize("start_rad", [0.05, 0.4, 1.2])
def test_weightless_line_follows_the_closed_form(start_rad: float):
    # T dphi/ds = -k' sin(phi)**2 with T constant; u = cot(phi) gives du/ds = k, k = k'/T, so
    # depth = [asinh u]/k and trail = [sqrt(1 + u**2)]/k between the two ends.
    tension, speed, diameter, length = 2.0, 0.8, 0.3e-3, 40.0
    k = 0.5 * 1000.0 * 1.2 * diameter * speed**2 / tension
    line = integrate_line(
        [Segment(length_m=length, diameter_m=diameter, weight_npm=0.0)],
        tension_n=tension,
        angle_rad=start_rad,
        speed_mps=speed,
        water=WATER,
        drag=NORMAL_ONLY,
        tolerance=1e-11,
    )
    u0 = 1.0 / math.tan(start_rad)
    u1 = u0 + k * length
    end = line.points[-1]
    assert end.tension_n == pytest.approx(tension, rel=1e-9)
    assert end.up_m == pytest.approx((math.asinh(u1) - math.asinh(u0)) / k, rel=1e-8)
    assert end.forward_m == pytest.approx((math.hypot(1, u1) - math.hypot(1, u0)) / k, rel=1e-8)


def test_still_water_gives_the_inextensible_catenary():
    # With horizontal pull H and weight w: y = (H/w)(cosh(wx/H) - 1), s = (H/w) sinh(wx/H).
    pull, weight, length = 5.0, 0.4, 30.0
    line = integrate_line(
        [Segment(length_m=length, diameter_m=1e-3, weight_npm=weight)],
        tension_n=pull,
        angle_rad=0.0,
        speed_mps=0.0,
        water=WATER,
        tolerance=1e-10,
    )
    a = pull / weight
    x = a * math.asinh(length / a)
    assert line.points[-1].forward_m == pytest.approx(x, rel=1e-9)
    assert line.points[-1].up_m == pytest.approx(a * (math.cosh(x / a) - 1.0), rel=1e-9)


def test_catenary_agrees_with_a_published_mooring_library():
    # MoorPy's catenary (Jonkman 2007 equations) for still water with an end load, to 0.5 %.
    from moorpy.Catenary import catenary

    span, height, length, weight = 60.0, 30.0, 69.0, 5.0
    pull_x, pull_z = (float(value) for value in catenary(span, height, length, 1e12, weight)[:2])
    assert pull_z > 0.0  # no part of it lies on the ground
    line = integrate_line(
        [Segment(length_m=length, diameter_m=1e-3, weight_npm=weight)],
        tension_n=math.hypot(pull_x, pull_z),
        angle_rad=math.atan2(pull_z, pull_x),
        speed_mps=0.0,
        water=WATER,
    )
    assert line.points[-1].forward_m == pytest.approx(span, rel=5e-3)
    assert line.points[-1].up_m == pytest.approx(height, rel=5e-3)


@pytest.mark.parametrize("speed", [0.0, 1e-9, 1e-4])
def test_a_weight_in_still_water_hangs_straight_down(speed: float):
    line = integrate_line(
        [Segment(length_m=20.0, diameter_m=1e-3, weight_npm=0.02)],
        tension_n=3.0,
        angle_rad=math.pi / 2,
        speed_mps=speed,
        water=WATER,
    )
    assert line.points[-1].up_m == pytest.approx(20.0, rel=1e-6)
    assert line.points[-1].forward_m == pytest.approx(0.0, abs=1e-3)


def test_critical_angle_is_steep_when_slow_and_flat_when_fast():
    angles = [
        critical_angle_rad(
            Segment(length_m=1.0, diameter_m=0.87e-3, weight_npm=0.016),
            speed_mps=speed,
            water=WATER,
        )
        for speed in (0.0, 0.3, 0.6, 1.2)
    ]
    assert angles[0] == pytest.approx(math.pi / 2)
    assert angles == sorted(angles, reverse=True)


def test_interpolation_between_steps_is_as_good_as_the_steps():
    segment = Segment(length_m=40.0, diameter_m=0.3e-3, weight_npm=0.0)
    options = {"tension_n": 0.5, "angle_rad": 0.6, "speed_mps": 0.8, "water": WATER}
    line = integrate_line([segment], **options)
    for length in (0.37, 3.3, 11.7, 29.0):
        exact = integrate_line(
            [Segment(length_m=length, diameter_m=0.3e-3, weight_npm=0.0)],
            **options,
            tolerance=1e-11,
        ).points[-1]
        point = line.at(length)
        assert point.up_m == pytest.approx(exact.up_m, rel=1e-5)
        assert point.angle_rad == pytest.approx(exact.angle_rad, abs=1e-4)


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"speed_mps": -1.0}, "speed_mps"),
        ({"speed_mps": math.nan}, "speed_mps"),
        ({"tension_n": -0.1}, "tension_n"),
        ({"angle_rad": math.inf}, "angle_rad"),
    ],
)
def test_bad_input_is_named(change: dict[str, float], field: str):
    good = {"tension_n": 1.0, "angle_rad": 0.3, "speed_mps": 0.8}
    with pytest.raises(InvalidInputError) as caught:
        integrate_line(
            [Segment(length_m=10.0, diameter_m=1e-3, weight_npm=0.0)],
            water=WATER,
            **(good | change),
        )
    assert caught.value.field == field


@pytest.mark.parametrize("change", [{"length_m": 0.0}, {"length_m": 6000.0}, {"diameter_m": 0.0}])
def test_impossible_line_is_refused(change: dict[str, float]):
    good = {"length_m": 10.0, "diameter_m": 1e-3, "weight_npm": 0.0}
    with pytest.raises(InvalidInputError, match=next(iter(change))):
        integrate_line(
            [Segment(**(good | change))], tension_n=1.0, angle_rad=0.3, speed_mps=0.8, water=WATER
        )
