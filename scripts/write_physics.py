"""Write the tables of docs/physics.md from the code, between their marks.

Run after any change of a constant, a model or a material; a test holds the page to it.
"""

from __future__ import annotations

from pathlib import Path

from coldwake_core.constants import COLOUR_M, FOOT_M, INCH_M, MPH_MPS, OUNCE_KG, POUND_KG
from coldwake_core.lines.assumed import ASSUMED, SPREADS
from coldwake_core.lines.bodies import (
    Ball,
    TowedBody,
    blade_body,
    plug_body,
    sinking_speed_mps,
    soft_body,
    spoon_body,
)
from coldwake_core.lines.doubt import solve_with_doubt
from coldwake_core.lines.downrigger import ClippedLine, DownriggerRig
from coldwake_core.lines.linerig import LineRig
from coldwake_core.lines.materials import MATERIALS
from coldwake_core.lines.rigs import Rig
from coldwake_core.water.fresh import Water

PAGE = Path(__file__).resolve().parent.parent / "docs" / "physics.md"
WATER = Water.at_degc(10.0)
LEADER_M, TIP_M = 20 * FOOT_M, 1.2
FLY = soft_body(length_m=0.05, width_m=0.009, mass_kg=0.0018)
SPOON = spoon_body(length_m=0.07, width_m=0.025, mass_kg=0.5 * OUNCE_KG)
MINNOW = plug_body(length_m=0.09, mass_kg=0.0088, lip="small")
STRIPER = plug_body(length_m=5 * INCH_M, mass_kg=0.024, lip="small")
DODGER_5 = blade_body(length_m=5 * INCH_M, width_m=0.045, mass_kg=0.020)
DODGER_4 = blade_body(length_m=4 * INCH_M, width_m=0.0356, mass_kg=0.012)
HOOCHIE = soft_body(length_m=0.045, width_m=0.010, mass_kg=0.002)


def flat(line: str, *bodies: TowedBody) -> LineRig:
    """Return a lure on a flat line."""
    return LineRig(stretches=((MATERIALS[line], 120.0),), bodies=bodies, tip_height_m=TIP_M)


def leadcore() -> LineRig:
    """Return an 18 lb leadcore with a five inch dodger and a hoochie."""
    return LineRig(
        stretches=(
            (MATERIALS["fluoro-12"], LEADER_M), (MATERIALS["leadcore-18"], 10 * COLOUR_M),
            (MATERIALS["mono-15"], 50.0),
        ),
        bodies=(DODGER_5, HOOCHIE), tip_height_m=TIP_M,
    )


def downrigger(pounds: float, setback_m: float, *bodies: TowedBody) -> DownriggerRig:
    """Return a line clipped to a downrigger's cable."""
    return DownriggerRig(
        cable=MATERIALS["cable-steel-150"], cable_length_m=60.0,
        ball=Ball(mass_kg=pounds * POUND_KG), boom_height_m=0.8,
        clipped=ClippedLine(line=MATERIALS["mono-12"], setback_m=setback_m, bodies=bodies),
    )


def _band(rig: Rig, out_ft: float, mph: float) -> str:
    _, band = solve_with_doubt(rig, mph * MPH_MPS, WATER).place(out_ft * FOOT_M, picture=False)
    depth, shallow, deep = (v / FOOT_M for v in (band.depth_m, band.shallow_m, band.deep_m))
    return f"{depth:.1f} ft, {shallow:.1f} to {deep:.1f}"


def _ball(rig: DownriggerRig, out_ft: float, mph: float) -> float:
    place = rig.solve(mph * MPH_MPS, WATER).place(out_ft * FOOT_M, picture=False)
    assert place.ball_depth_m is not None
    return place.ball_depth_m / FOOT_M


def facts() -> list[tuple[str, str, str, str]]:
    """Return the facts of the trade: what, expected, with the model of 366c28a, and with this."""
    colour_ft = COLOUR_M / FOOT_M
    rows = []
    before = {
        (2, 1.2): "17.0 ft", (2, 1.5): "12.2 ft", (3, 1.2): "26.1 ft ± 6.1",
        (3, 1.5): "19.6 ft ± 4.7", (5, 1.5): "34.4 ft",
    }
    for (colours, mph), old in before.items():
        rows.append((
            f"{colours} colours of 18 lb leadcore, 5 in dodger and hoochie, {mph} mph",
            f"{6 * colours}-{8 * colours} ft", old,
            _band(leadcore(), 20 + colours * colour_ft, mph),
        ))
    slow, fast = (_ball(downrigger(10, 6.0, HOOCHIE), 44, mph) for mph in (1.0, 1.8))
    clipped = downrigger(10, 40 * FOOT_M, DODGER_4, HOOCHIE).solve(1.2 * MPH_MPS, WATER)
    rows += [
        ("floating minnow, 12 lb line, 100 ft, 1.8 mph", "2-4 ft", "3.7 ft ± 1.3",
         _band(flat("mono-12", MINNOW), 100, 1.8)),
        ("small-lipped 5 in striper plug, 85 ft, 4 mph", "5-8 ft", "6.9 ft ± 2.3",
         _band(flat("mono-15", STRIPER), 85, 4.0)),
        ("small weighted fly, 190 ft, 1.8 mph", "0-4 ft", "2.6 ft ± 0.5",
         _band(flat("mono-8", FLY), 190, 1.8)),
        ("half-ounce spoon, 185 ft, 3.5 mph", "about 2 ft", "1.8 ft ± 2.8",
         _band(flat("mono-10", SPOON), 185, 3.5)),
        ("10 lb ball, 44 ft of cable, 1.0 to 1.8 mph", "changes by under 3 %", "0.5 %",
         f"{100 * (slow - fast) / slow:.1f} %"),
        ("4 in dodger and hoochie, 40 ft behind a clip, 1.2 mph",
         "within 4 ft of the ball", "4.0 ft below it",
         f"{clipped.lure_below_ball_m / FOOT_M:.1f} ft below it"),
        ("15 lb ball, 83 ft of cable, 2.75 mph", "(no fact)", "80.4 ft",
         f"{_ball(downrigger(15, 6.0, HOOCHIE), 83, 2.75):.1f} ft"),
        ("sinking minnow when stopped", "1 ft/s", "1.00 ft/s",
         f"{sinking_speed_mps(length_m=0.09, mass_kg=0.0166, water=WATER) / FOOT_M:.2f} ft/s"),
    ]  # fmt: skip
    return rows


def _rows(head: tuple[str, ...], rows: list[tuple[str, ...]]) -> str:
    lines = [head, ("---",) * len(head), *rows]
    return "\n".join("| " + " | ".join(line) + " |" for line in lines)


def tables() -> dict[str, str]:
    """Return every generated table as Markdown, by its mark."""
    return {
        "assumed constants": _rows(
            ("constant", "value", "source", "what hangs on it"),
            [
                (item.name, f"{item.value:g} {item.unit}".strip(), item.source, item.hangs)
                for item in ASSUMED
            ],
        ),
        "spreads": _rows(
            ("input", "standard deviation", "why"),
            [
                (item.name, f"{item.value:g} {item.unit}".strip() if item.unit
                 else f"{100 * item.value:g} %", item.reason)
                for item in SPREADS.values()
            ],
        ),
        "lines": _rows(
            ("line", "diameter, mm", "weight in air, g/m", "in water, g/m", "damping", "source"),
            [
                (
                    item.name, f"{1000 * item.diameter_m:.2f}", f"{1000 * item.mass_kgpm:.3f}",
                    f"{1000 * item.segment(1.0, water=WATER).weight_npm / 9.80665:.3f}",
                    f"{item.damping:g}", item.source,
                )
                for item in MATERIALS.values()
            ],
        ),
        "facts": _rows(("fact", "expected", "before", "now: depth, band of 80 %"), facts()),
    }  # fmt: skip


def written(text: str) -> str:
    """Return the page with its tables made anew."""
    for name, table in tables().items():
        begin, end = f"<!-- {name}: begin -->", f"<!-- {name}: end -->"
        head, rest = text.split(begin)
        text = f"{head}{begin}\n{table}\n{end}{rest.split(end)[1]}"
    return text


if __name__ == "__main__":
    PAGE.write_text(written(PAGE.read_text("utf-8")), "utf-8")
