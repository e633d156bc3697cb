"""The locker as CSV (RFC 4180), in the units anglers write: one row a piece, one column a property.

Units are converted here and in the front end's ``shared/units`` only.
"""

from __future__ import annotations

import re
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any, Final

from coldwake_core.constants import FOOT_M, INCH_M, MPH_MPS, OUNCE_KG

ALL: Final = (
    "line", "attractor", "lure", "weight", "release", "leader", "snubber", "board", "bait", "scent",
)
SWIMS: Final = ("attractor", "lure")


class CellError(ValueError):
    """A cell that cannot be read; the text says what it must be."""


@dataclass(frozen=True)
class Column:
    """A column: which kinds have it, where it goes, and how a cell is read and written."""

    name: str
    kinds: tuple[str, ...]
    path: tuple[str, ...]
    read: Callable[[str], Any]
    write: Callable[[Any], str]
    unit: float | None = None
    """SI units in one of the column's, for numbers."""


def _text(cell: str) -> str:
    return cell


def _bool(cell: str) -> bool:
    if cell.lower() in ("yes", "y", "true", "1"):
        return True
    if cell.lower() in ("no", "n", "false", "0"):
        return False
    raise CellError("yes or no")


_N: Final = r"(\d{1,15}(?:\.\d{0,15})?|\.\d{1,15})"
"""A number in a cell. Bounded, and with one way to read each digit: a pattern with two would take
the square of the cell's length, and nobody else would be served meanwhile."""
LONGEST_CELL: Final = 600
"""A dozen own ranges with their beats; more than that is no cell of a locker."""


def _number(cell: str) -> float:
    text = cell.replace(",", ".") if cell.count(",") == 1 and "." not in cell else cell
    if not re.fullmatch(rf"[+-]?{_N}(?:[eE][+-]?\d{{1,2}})?", text):
        raise CellError("a number")
    return float(text)


def _whole(cell: str) -> int:
    value = _number(cell)
    if value != int(value):
        raise CellError("a whole number")
    return int(value)


def plain(value: float) -> str:
    """Return a number as people write it, ten digits at most."""
    return f"{value:.10g}"


def _in_unit(name: str, kinds: tuple[str, ...], path: str, unit: float) -> Column:
    return Column(
        name, kinds, tuple(path.split(".")), lambda cell: _number(cell) * unit,
        lambda value: plain(value / unit), unit,
    )


def _words(name: str, kinds: tuple[str, ...], path: str) -> Column:
    return Column(name, kinds, (path,), _text, str)


def _flag(name: str, kinds: tuple[str, ...], path: str) -> Column:
    return Column(name, kinds, (path,), _bool, lambda value: "yes" if value else "no")


def _list(cell: str, pattern: str, example: str) -> list[re.Match[str]]:
    found = []
    for part in filter(None, (item.strip() for item in cell.split(";"))):
        match = re.fullmatch(pattern, part)
        if match is None:
            raise CellError(f"such as {example}, several parted by semicolons")
        found.append(match)
    return found


def _read_points(cell: str) -> list[dict[str, Any]]:
    found = _list(cell, rf"{_N}>{_N}@{_N} ([\w-]+)", "100>12@3.5 mono-17")
    return [
        {
            "out_m": float(m[1]) * FOOT_M, "depth_m": float(m[2]) * FOOT_M,
            "speed_mps": float(m[3]) * MPH_MPS, "material_id": m[4],
        }
        for m in found
    ]


def _write_points(points: list[dict[str, Any]]) -> str:
    return "; ".join(
        f"{plain(p['out_m'] / FOOT_M)}>{plain(p['depth_m'] / FOOT_M)}"
        f"@{plain(p['speed_mps'] / MPH_MPS)} {p['material_id']}"
        for p in points
    )


def _range(low: str, high: str) -> dict[str, float]:
    return {"low_mps": float(low) * MPH_MPS, "high_mps": float(high) * MPH_MPS}


def _mph(works: dict[str, float]) -> str:
    return f"{plain(works['low_mps'] / MPH_MPS)}-{plain(works['high_mps'] / MPH_MPS)}"


def _read_tow_points(cell: str) -> list[dict[str, Any]]:
    found = _list(cell, rf"([^:;|@]{{1,30}}):{_N}-{_N}", "tight:1.2-1.6")
    return [{"name": m[1].strip(), "works": _range(m[2], m[3])} for m in found]


def _write_tow_points(points: list[dict[str, Any]]) -> str:
    return "; ".join(f"{p['name']}:{_mph(p['works'])}" for p in points)


def _read_own(cell: str) -> list[dict[str, Any]]:
    found = _list(
        cell, rf"{_N}-{_N}@{_N}(?:\|([^;|@~]{{1,30}}))?(?:~(\d{{1,4}})/{_N}@{_N})?",
        "1.0-1.4@1776171600, or with a beat 1.0-1.4@1776171600~12/10@1.2",
    )
    return [
        {
            "works": _range(m[1], m[2]), "at_s": float(m[3]), "tow_point": m[4] or "",
            "beat": None if m[5] is None else {
                "beats": int(m[5]), "seconds": float(m[6]), "speed_mps": float(m[7]) * MPH_MPS,
            },
        }
        for m in found
    ]


def _beat(beat: dict[str, Any] | None) -> str:
    if beat is None:
        return ""
    speed = plain(beat["speed_mps"] / MPH_MPS)
    return f"~{beat['beats']}/{plain(beat['seconds'])}@{speed}"


def _write_own(ranges: list[dict[str, Any]]) -> str:
    return "; ".join(
        f"{_mph(item['works'])}@{plain(item['at_s'])}"
        + (f"|{item['tow_point']}" if item.get("tow_point") else "") + _beat(item.get("beat"))
        for item in ranges
    )


COLUMNS: Final[tuple[Column, ...]] = (
    _words("colour", ("lure",), "colour"),
    _words("finish", ("attractor",), "finish"),
    _words("style", ("attractor", "weight"), "style"),
    _words("lure_kind", ("lure",), "kind"),
    _in_unit("length_in", ("attractor", "lure", "leader", "snubber", "bait"), "length_m", INCH_M),
    _in_unit("width_in", SWIMS, "width_m", INCH_M),
    _in_unit("weight_oz", ("attractor", "lure", "weight"), "mass_kg", OUNCE_KG),
    _in_unit("low_mph", SWIMS, "works.low_mps", MPH_MPS),
    _in_unit("high_mph", SWIMS, "works.high_mps", MPH_MPS),
    Column("own_ranges_mph", SWIMS, ("own",), _read_own, _write_own),
    Column("tow_points_mph", ("attractor",), ("tow_points",), _read_tow_points, _write_tow_points),
    _flag("gives_action", ("attractor",), "gives_action"),
    _flag("own_action", ("lure",), "own_action"),
    _flag("takes_bait", ("lure",), "takes_bait"),
    _flag("fly", ("lure",), "is_fly"),
    _flag("uv", SWIMS, "uv"),
    _flag("glow", SWIMS, "glow"),
    _in_unit("flash", SWIMS, "flash", 1.0),
    _in_unit("thump", SWIMS, "thump", 1.0),
    _words("lip", ("lure",), "lip"),
    Column("depth_points_ft", ("lure",), ("points",), _read_points, _write_points),
    _words("hook", ("lure",), "hook"),
    _in_unit("hook_from_tail_in", ("lure",), "hook_from_tail_m", INCH_M),
    _in_unit("bait_room_in", ("lure",), "bait_room_m", INCH_M),
    _words("line_kind", ("line",), "kind"),
    _words("material", ("line", "leader"), "material_id"),
    _in_unit("line_length_ft", ("line",), "length_m", FOOT_M),
    _words("core_material", ("line",), "core_material_id"),
    _in_unit("core_length_ft", ("line",), "core_length_m", FOOT_M),
    _words("leader_material", ("line",), "leader_material_id"),
    _in_unit("leader_length_ft", ("line",), "leader_length_m", FOOT_M),
    _in_unit("colour_weight_oz", ("line",), "colour_mass_kg", OUNCE_KG),
    _words("hold", ("release",), "hold"),
    _in_unit("check_after_min", ("bait",), "check_after_s", 60.0),
    Column("carries_lines", ("board",), ("lines_most",), _whole, str),
)
HEAD: Final = ("kind", "key", "name", "count")
HEADER: Final = (*HEAD, *(column.name for column in COLUMNS))
BY_NAME: Final = {column.name: column for column in COLUMNS}
read_whole = _whole


def column_of(kind: str, field: str) -> Column | None:
    """Return the column that a field of a piece is read from, such as ``works.low_mps``."""
    parts = tuple(re.sub(r"\[\d+\]", "", field).split("."))
    own = [column for column in COLUMNS if kind in column.kinds]
    for column in own:
        if column.path in (parts, parts[:1]):
            return column
    return next((column for column in own if column.path[:1] == parts), None)
