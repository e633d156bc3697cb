"""Make the gridded depth charts of the made-up demo waters: smooth shapes, nobody's lake."""

from __future__ import annotations

import json
import math
import random
from collections.abc import Callable
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent / "demo"
DEMO = ROOT / "charts"


def write(name: str, *, latitude: float, longitude: float, cell_m: float, rows: list) -> None:
    """Write a chart with one row of the grid a line."""
    head = {
        "south_west": {"latitude_deg": latitude, "longitude_deg": longitude},
        "cell_m": cell_m,
        "origin": "made up for the demo",
    }
    lines = ",\n  ".join(json.dumps(row) for row in rows)
    text = json.dumps(head, indent=1)[:-2] + f',\n "rows": [\n  {lines}\n ]\n}}\n'
    (DEMO / f"{name}.json").write_text(text, "utf-8")


def sallow(x: float, y: float) -> float | None:
    """A drowned valley: dam in the south, creek mouth in the north, a bar across two thirds up."""
    along = y / 2400.0
    middle = 520.0 + 90.0 * math.sin(3.0 * along * math.pi / 2.0)
    half = 430.0 * (1.0 - 0.72 * along**2)
    across = (x - middle) / half
    if abs(across) >= 1.0:
        return None
    deepest = 42.0 * (1.0 - 0.86 * along**1.3)
    depth = deepest * (1.0 - across**2) ** 0.8
    bar = math.exp(-(((y - 1500.0) / 110.0) ** 2)) * (0.45 + 0.25 * math.tanh(3.0 * across))
    return max(round(depth * (1.0 - bar), 1), 0.3)


def skerrel(x: float, y: float) -> float | None:
    """A river reach: a channel that swings between sandbars and necks down to a V."""
    if not 8.0 < x < 172.0:
        return None
    swing = 90.0 + 42.0 * math.sin(y / 190.0)
    width = 42.0 - 16.0 * math.exp(-(((y - 720.0) / 90.0) ** 2))
    channel = 6.6 * math.exp(-(((x - swing) / width) ** 2))
    return round(max(0.6 + channel, 0.3), 1)


def sound(
    name: str, depth: Callable[[float, float], float | None], *, latitude: float, longitude: float,
    width_m: float, length_m: float, count: int,
) -> None:
    """Write invented soundings as a boat makes them: to and fro across, a hand's breadth wrong."""
    draw = random.Random(7)
    places = ROOT / "soundings"
    places.mkdir(exist_ok=True)
    rows = ["latitude,longitude,depth"]
    crossings = int(math.sqrt(count * length_m / width_m))
    each = count // crossings
    for i in range(crossings):
        for k in range(each):
            x = width_m * (k + draw.random()) / each
            y = length_m * (i + 0.3 * draw.random()) / crossings
            found = depth(x, y)
            if found is not None:
                north = latitude + y / 111_195.0
                east = longitude + x / (111_195.0 * math.cos(math.radians(latitude)))
                rows.append(f"{north:.6f},{east:.6f},{max(found + draw.gauss(0.0, 0.12), 0.2):.2f}")
    (places / f"{name}.csv").write_text("\n".join(rows) + "\n", "utf-8")


def main() -> None:
    """Write both charts, and soundings of both waters to bring in."""
    sound(
        "sallow_tarn", sallow, latitude=43.9892, longitude=-115.0065, width_m=1040.0,
        length_m=2400.0, count=4500,
    )
    sound(
        "lower_skerrel", skerrel, latitude=38.4955, longitude=-121.5010, width_m=180.0,
        length_m=1008.0, count=2400,
    )
    DEMO.mkdir(exist_ok=True)
    write(
        "sallow_tarn", latitude=43.9892, longitude=-115.0065, cell_m=40.0,
        rows=[[sallow(40.0 * i, 40.0 * j) for i in range(27)] for j in range(61)],
    )
    write(
        "lower_skerrel", latitude=38.4955, longitude=-121.5010, cell_m=12.0,
        rows=[[skerrel(12.0 * i, 12.0 * j) for i in range(16)] for j in range(85)],
    )


if __name__ == "__main__":
    main()
