"""Depths in feet against a table that was derived outside the program (reference.py)."""

from __future__ import annotations

import csv
import math
from pathlib import Path

import pytest
import reference
from tackle import (
    DODGER_4,
    DODGER_5,
    FLOATING_MINNOW,
    FLY,
    HEAVY_SPOON,
    HOOCHIE,
    STRIPER_PLUG,
    downrigger,
    flat,
    leadcore,
)

from coldwake_core.constants import COLOUR_M, FOOT_M, INCH_M, MPH_MPS, OUNCE_KG, POUND_KG
from coldwake_core.lines.bodies import Ball, plug_body
from coldwake_core.lines.linerig import LineRig, Sinker
from coldwake_core.lines.materials import MATERIALS
from coldwake_core.lines.pulls import total_load
from coldwake_core.lines.towed import integrate_line
from coldwake_core.water.fresh import Water

WATER = Water(density_kgpm3=reference.RHO, viscosity_m2ps=reference.NU)
FAT = plug_body(length_m=2 * INCH_M, mass_kg=0.0075, lip="small", width_m=0.85 * INCH_M)
WEIGHTED = LineRig(
    stretches=((MATERIALS["mono-12"], 120.0),),
    bodies=(DODGER_4, HOOCHIE),
    tip_height_m=1.2,
    sinker=Sinker(ball=Ball(mass_kg=3 * OUNCE_KG), ahead_m=1.5),
)
LEADER_FT = 20.0
COLOUR_FT = COLOUR_M / FOOT_M
RIGS = {
    "fly, 190 ft of 8 lb": (flat("mono-8", FLY), 190, "lure"),
    "half-ounce spoon, 185 ft of 10 lb": (flat("mono-10", HEAVY_SPOON), 185, "lure"),
    "floating minnow, 100 ft of 12 lb": (flat("mono-12", FLOATING_MINNOW), 100, "lure"),
    "striper plug, 85 ft of 15 lb": (flat("mono-15", STRIPER_PLUG), 85, "lure"),
    "striper plug, 85 ft of 30 lb braid": (flat("braid-30", STRIPER_PLUG), 85, "lure"),
    "fat floating plug, 150 ft of 8 lb": (flat("mono-8", FAT), 150, "lure"),
    "2 colours, 18 lb, dodger and hoochie": (leadcore(), LEADER_FT + 2 * COLOUR_FT, "lure"),
    "3 colours, 18 lb, dodger and hoochie": (leadcore(), LEADER_FT + 3 * COLOUR_FT, "lure"),
    "5 colours, 27 lb, dodger and hoochie": (
        leadcore("leadcore-27"), LEADER_FT + 5 * COLOUR_FT, "lure",
    ),
    "3 oz in line, 120 ft of 12 lb, dodger and hoochie": (WEIGHTED, 120, "lure"),
    "10 lb ball, 44 ft, hoochie 20 ft back": (downrigger(), 44, "lure"),
    "10 lb ball, 44 ft, the ball": (downrigger(), 44, "ball"),
    "15 lb ball, 83 ft, the ball": (downrigger(15.0), 83, "ball"),
    "10 lb ball, 40 ft, dodger 40 ft back": (
        downrigger(10.0, 40 * FOOT_M, DODGER_4, HOOCHIE), 40, "lure",
    ),
}  # fmt: skip
with (Path(__file__).parent / "golden_depths_ft.csv").open(newline="") as file:
    TABLE = list(csv.reader(file))
ROWS = {row[0]: [float(value) for value in row[1:]] for row in TABLE[1:]}


@pytest.mark.parametrize("name", RIGS)
def test_depth_in_feet_is_that_of_the_table(name: str):
    rig, out_ft, part = RIGS[name]
    found = []
    for mph in reference.SPEEDS_MPH:
        place = rig.solve(mph * MPH_MPS, WATER).place(out_ft * FOOT_M)
        found.append((place.depth_m if part == "lure" else place.ball_depth_m) / FOOT_M)
    # The table is to the hundredth of a foot, and rigs are solved to a millimetre.
    assert found == pytest.approx(ROWS[name], abs=0.015)


def test_table_is_whole_and_is_what_the_reference_gives():
    assert set(ROWS) == set(RIGS) == set(reference.GOLDEN)
    for name in ("3 colours, 18 lb, dodger and hoochie", "10 lb ball, 40 ft, dodger 40 ft back"):
        found = [reference.GOLDEN[name](mph * reference.MPH) / 0.3048 for mph in (1.0, 1.5, 2.4)]
        assert found == pytest.approx(ROWS[name], abs=0.006)


def test_pounds_and_inches_of_both_are_the_same():
    assert pytest.approx(
        (POUND_KG, OUNCE_KG, INCH_M)
    ) == (reference.POUND, reference.OUNCE, reference.INCH)


@pytest.mark.parametrize("mph", [1.0, 1.8, 3.5])
@pytest.mark.parametrize(
    ("line", "own", "bodies"),
    [
        ("mono-8", reference.MONO_8, (FLY,)),
        ("mono-10", reference.MONO_10, (HEAVY_SPOON,)),
        ("braid-30", reference.BRAID_30, (STRIPER_PLUG,)),
        ("leadcore-18", reference.LEAD_18, (DODGER_5, HOOCHIE)),
    ],
)
def test_integration_agrees_with_an_independent_one(line: str, own, bodies, mph: float):
    # scipy's DOP853 at rtol 1e-10 in tension components; the program's own tolerance.
    speed = mph * MPH_MPS
    load = total_load(bodies, speed, WATER)
    end = integrate_line(
        [MATERIALS[line].segment(60.0, water=WATER)],
        tension_n=load.tension_n,
        angle_rad=load.angle_rad,
        speed_mps=speed,
        water=WATER,
    ).points[-1]
    stretch = reference.Stretch(60.0, own)
    forward, up, back, down = reference.follow(
        [stretch], (load.back_n, load.down_n), speed
    ).at(60.0)
    assert (end.forward_m, end.up_m) == pytest.approx((forward, up), rel=1e-5, abs=1e-6)
    assert end.tension_n == pytest.approx(math.hypot(back, down), rel=1e-5)
