"""The program's integration against an independent one (scipy.integrate.solve_ivp)."""

from __future__ import annotations

import pytest
from reference import reference_end
from tackle import COLD, FLOATING_MINNOW, FLY, HEAVY_SPOON, STRIPER_PLUG, flat, leadcore

from coldwake_core.constants import MPH_MPS
from coldwake_core.lines.bodies import EndLoad
from coldwake_core.lines.linerig import LineRig
from coldwake_core.lines.towed import integrate_line

RIGS = {
    "fly on a top line": flat("mono-8", FLY),
    "heavy spoon": flat("mono-10", HEAVY_SPOON),
    "floating minnow": flat("mono-12", FLOATING_MINNOW),
    "river plug on braid": flat("braid-30", STRIPER_PLUG),
    "leadcore with leader and backing": leadcore(),
}


@pytest.mark.parametrize("mph", [1.0, 1.8, 3.5])
@pytest.mark.parametrize("name", RIGS)
def test_every_kind_of_line_agrees_with_the_reference(name: str, mph: float):
    rig: LineRig = RIGS[name]
    speed = mph * MPH_MPS
    load = EndLoad(0.0, 0.0)
    for body in rig.bodies:
        load = load + body.load(speed, COLD)
    segments = [material.segment(length, water=COLD) for material, length in rig.stretches]
    options = {
        "tension_n": load.tension_n,
        "angle_rad": load.angle_rad,
        "speed_mps": speed,
        "water": COLD,
    }
    end = integrate_line(segments, **options).points[-1]
    forward, up, angle, tension = reference_end(segments, **options)
    assert end.up_m == pytest.approx(up, rel=1e-5, abs=1e-6)
    assert end.forward_m == pytest.approx(forward, rel=1e-5)
    assert end.angle_rad == pytest.approx(angle, abs=1e-5)
    assert end.tension_n == pytest.approx(tension, rel=1e-5)
