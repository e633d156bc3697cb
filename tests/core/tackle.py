"""Tackle of the trade facts, put together as common practice describes it."""

from __future__ import annotations

import json
from typing import Any

from coldwake_core.constants import COLOUR_M, FOOT_M, INCH_M, OUNCE_KG, POUND_KG
from coldwake_core.lines.bodies import Ball, TowedBody, blade_body, plug_body, soft_body, spoon_body
from coldwake_core.lines.downrigger import ClippedLine, DownriggerRig
from coldwake_core.lines.linerig import LineRig
from coldwake_core.lines.materials import MATERIALS
from coldwake_core.water.fresh import Water
from paths import ROOT

COLD = Water.at_degc(10.0)
TIP_M = 1.2

FLY = soft_body(length_m=0.05, width_m=0.009, mass_kg=0.0018)
HEAVY_SPOON = spoon_body(length_m=0.07, width_m=0.025, mass_kg=0.5 * OUNCE_KG)
FLOATING_MINNOW = plug_body(length_m=0.09, mass_kg=0.0088, lip="small")
STRIPER_PLUG = plug_body(length_m=5 * INCH_M, mass_kg=0.024, lip="small")
DODGER_5 = blade_body(length_m=5 * INCH_M, width_m=0.045, mass_kg=0.020)
DODGER_4 = blade_body(length_m=4 * INCH_M, width_m=0.0356, mass_kg=0.012)
HOOCHIE = soft_body(length_m=0.045, width_m=0.010, mass_kg=0.002)
LEADER_M = 20.0 * FOOT_M


def flat(line: str, *bodies: Any, tip_height_m: float = TIP_M) -> LineRig:
    return LineRig(stretches=((MATERIALS[line], 120.0),), bodies=bodies, tip_height_m=tip_height_m)


def leadcore(line: str = "leadcore-18", blade: TowedBody = DODGER_5) -> LineRig:
    return LineRig(
        stretches=(
            (MATERIALS["fluoro-12"], LEADER_M),
            (MATERIALS[line], 10 * COLOUR_M),
            (MATERIALS["mono-15"], 50.0),
        ),
        bodies=(blade, HOOCHIE),
        tip_height_m=TIP_M,
    )


def downrigger(
    pounds: float = 10.0, setback_m: float = 6.0, *bodies: TowedBody
) -> DownriggerRig:
    return DownriggerRig(
        cable=MATERIALS["cable-steel-150"],
        cable_length_m=60.0,
        ball=Ball(mass_kg=pounds * POUND_KG),
        boom_height_m=0.8,
        clipped=ClippedLine(
            line=MATERIALS["mono-12"], setback_m=setback_m, bodies=bodies or (HOOCHIE,)
        ),
    )


def demo_outfit() -> dict[str, Any]:
    outfit: dict[str, Any] = json.loads(
        (ROOT / "demo/outfits/open_boat_16ft.json").read_text("utf-8")
    )
    return outfit


def demo_rigged_events() -> list[dict[str, Any]]:
    document = json.loads((ROOT / "demo/trips/sallow_april.json").read_text("utf-8"))
    return [event for event in document["events"] if event["type"] == "rod_rigged"]


def large_outfit(*, rods: int, pieces: int) -> dict[str, Any]:
    """The demo's boat with more rods, and its box filled up with tackle that differs a little."""
    outfit = demo_outfit()
    lures, blades = list(outfit["lures"]), list(outfit["attractors"])
    for index in range(pieces - len(lures) - len(blades)):
        if index % 5 == 4:
            blade = blades[index // 5 % len(blades)]
            outfit["attractors"].append({**blade, "id": f"{blade['id']}-{index}"})
        else:
            lure = lures[index % len(lures)]
            outfit["lures"].append(
                {
                    **lure,
                    "id": f"{lure['id']}-{index}",
                    "colour": f"colour {index}",
                    "length_m": lure["length_m"] * (1.0 + 0.001 * (index % 90)),
                    "count": 1 + index % 2,
                }
            )
    for number in range(len(outfit["rods"]) + 1, rods + 1):
        side = -12.0 - number if number % 2 else 12.0 + number
        outfit["rods"].append({"id": f"rod-{number}", "name": f"Rod {number}", "shape": "cross"})
        outfit["places"].append(
            {
                "id": f"board-{number}",
                "name": f"board {number}",
                "kind": "board",
                "side_m": side,
                "tip_height_m": 1.2,
            }
        )
    for line in outfit["lines"]:
        line["count"] = 4
    return outfit
