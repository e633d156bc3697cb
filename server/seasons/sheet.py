"""Other people's spreadsheets: which column is what, in which unit, and what a row says."""

from __future__ import annotations

import hashlib
import re
from collections.abc import Callable
from dataclasses import dataclass, field
from datetime import date
from typing import Any, Final

from coldwake_core.checks import require_choice, require_number
from coldwake_core.constants import FOOT_M, INCH_M, KNOT_MPS, MPH_MPS, degc_from_degf
from coldwake_core.errors import InvalidInputError
from common.csv import table_of

MOST_ROWS: Final = 20_000
OLDEST: Final = date(1950, 1, 1)
FIELDS: Final[dict[str, tuple[str, ...]]] = {
    "date": ("date", "day", "when", "trip date"),
    "time": ("time", "hour", "clock"),
    "water": ("water", "lake", "river", "reservoir", "location", "place", "spot"),
    "species": ("species", "fish", "kind", "type"),
    "count": ("count", "number", "qty", "quantity", "fish caught", "caught", "total"),
    "kept": ("kept", "keep", "harvested", "retained"),
    "length": ("length", "size", "fish length"),
    "depth": ("depth", "lure depth", "fish depth", "depth caught"),
    "speed": ("speed", "boat speed", "troll speed", "trolling speed"),
    "temperature": (
        "temperature", "temp", "surface temp", "water temp", "surface temperature",
        "water temperature",
    ),
    "lure": ("lure", "bait", "lure used", "fly", "tackle"),
    "colour": ("colour", "color", "lure color", "lure colour"),
    "note": ("note", "notes", "comment", "comments", "remarks"),
}
"""What people call what; our own invention and common practice, nobody's file format."""
UNITS: Final[dict[str, dict[str, Callable[[float], float]]]] = {
    "length": {
        "in": lambda x: x * INCH_M, "cm": lambda x: x / 100.0, "m": lambda x: x,
        "mm": lambda x: x / 1000.0,
    },
    "depth": {"ft": lambda x: x * FOOT_M, "m": lambda x: x},
    "speed": {
        "mph": lambda x: x * MPH_MPS, "kn": lambda x: x * KNOT_MPS, "km/h": lambda x: x / 3.6,
        "m/s": lambda x: x,
    },
    "temperature": {"°F": degc_from_degf, "°C": lambda x: x},
}
_SAID: Final = {
    "in": "in", "inch": "in", "inches": "in", '"': "in", "cm": "cm", "mm": "mm", "ft": "ft",
    "feet": "ft", "foot": "ft", "'": "ft", "m": "m", "metres": "m", "meters": "m", "mph": "mph",
    "kn": "kn", "kt": "kn", "kts": "kn", "knots": "kn", "km/h": "km/h", "kmh": "km/h",
    "kph": "km/h", "m/s": "m/s", "f": "°F", "°f": "°F", "degf": "°F", "c": "°C", "°c": "°C",
    "degc": "°C",
}
_BOUNDS: Final = {
    "length": (0.03, 2.0, "m"), "depth": (0.0, 300.0, "m"), "speed": (0.0, 15.0, "m/s"),
    "temperature": (-1.0, 40.0, "degrees Celsius"),
}
_SPECIES: Final = {
    "kokanee": ("kokanee", "sockeye", "koke"), "striper": ("striper", "striped", "bass"),
    "trout": ("trout", "rainbow", "brown", "cutthroat", "laker", "char"),
}
_DATE: Final = re.compile(r"(\d{1,4})[-/. ](\d{1,2})[-/. ](\d{1,4})")
_CLOCK: Final = re.compile(r"(\d{1,2})(?::(\d{2}))?(?::\d{2})?\s*([ap])?\.?m?\.?", re.I)
_NUMBER: Final = re.compile(r"-?\d+(?:[.,]\d+)?")
_NO: Final = ("", "0", "n", "no", "none", "false", "released", "-")


@dataclass(frozen=True, kw_only=True)
class Row:
    """A row as it was understood, in SI."""

    row: int
    key: str
    day: date
    hour: float | None
    water_name: str
    species: str
    count: int
    kept: int
    length_m: float | None
    depth_m: float | None
    speed_mps: float | None
    warm_degc: float | None
    lure: str
    colour: str
    note: str


@dataclass(kw_only=True)
class Sheet:
    """A spreadsheet with what is known, said or guessed of its columns."""

    head: list[str]
    rows: list[tuple[int, list[str]]]
    mapping: dict[str, int]
    units: dict[str, str]
    dates: str
    species: str
    unsure: list[str] = field(default_factory=list)


def read_sheet(
    text: str, *, species: str, columns: Any = None, units: Any = None, dates: Any = None
) -> Sheet:
    """Return a spreadsheet with its columns named; raises InvalidInputError naming what cannot be.

    What is given of columns, units and the order of dates holds; the rest is guessed, and what
    could be otherwise is said.
    """
    head, rows = table_of(text)
    if len(rows) > MOST_ROWS:
        raise InvalidInputError("text", f"{len(rows)} rows", f"at most {MOST_ROWS} at once")
    if not rows:
        raise InvalidInputError("text", "no rows", "a first row with names, and rows below it")
    mapping = _columns(head, columns)
    if "date" not in mapping:
        raise InvalidInputError(
            "columns.date", ", ".join(head)[:120], "a column with the day of each row"
        )
    sheet = Sheet(
        head=head, rows=rows, mapping=mapping, units={}, dates="",
        species=require_choice("species", species, tuple(_SPECIES)),
    )
    for name in UNITS:
        if name in mapping:
            sheet.units[name] = _unit(sheet, name, units)
    sheet.dates = _order(sheet, dates)
    return sheet


def _columns(head: list[str], given: Any) -> dict[str, int]:
    mapping: dict[str, int] = {}
    if given is not None and not isinstance(given, dict):
        raise InvalidInputError("columns", given, "an object of names and numbers of columns")
    for name, index in (given or {}).items():
        require_choice("columns", name, tuple(FIELDS))
        if index is None or index == -1:
            mapping[name] = -1
        else:
            found = require_number(f"columns.{name}", index, low=0, high=len(head) - 1)
            mapping[name] = int(found)
    bare = [_bare(cell) for cell in head]
    for name, called in FIELDS.items():
        free = [i for i, cell in enumerate(bare) if cell in called and i not in mapping.values()]
        if name not in mapping and free:
            mapping[name] = free[0]
    return {name: index for name, index in mapping.items() if index >= 0}


def _bare(cell: str) -> str:
    """A head without its unit: "Surface Temp (F)" and "depth_ft" are temperature and depth."""
    words = re.split(r"[\s_]+", re.sub(r"[(\[].*?[)\]]", " ", cell.lower()).strip())
    if len(words) > 1 and words[-1].strip(".") in _SAID:
        words.pop()
    return " ".join(words).strip(" :#")


def _cells(sheet: Sheet, name: str) -> list[str]:
    index = sheet.mapping[name]
    return [cells[index] for _, cells in sheet.rows if index < len(cells) and cells[index]]


def _unit(sheet: Sheet, name: str, given: Any) -> str:
    if isinstance(given, dict) and name in given:
        return str(require_choice(f"units.{name}", given[name], tuple(UNITS[name])))
    head = sheet.head[sheet.mapping[name]].lower()
    for word in re.findall(r"[°a-z/\"']+", head)[::-1]:
        said = _SAID.get(word)
        if said in UNITS[name]:
            return str(said)
    for cell in _cells(sheet, name):
        said = _SAID.get(_NUMBER.sub("", cell).strip(" .").lower())
        if said in UNITS[name]:
            return str(said)
    found = _by_size(name, _numbers(_cells(sheet, name)))
    sheet.unsure.append(f"{name} taken as {found}: neither its name nor a cell says")
    return found


def _numbers(cells: list[str]) -> list[float]:
    found = (_NUMBER.search(cell) for cell in cells)
    return sorted(float(one[0].replace(",", ".")) for one in found if one)


def _by_size(name: str, numbers: list[float]) -> str:
    middle = numbers[len(numbers) // 2] if numbers else 0.0
    if name == "temperature":
        return "°F" if middle > 32.0 else "°C"
    if name == "length":
        return "in" if middle < 32.0 else "cm" if middle < 200.0 else "mm"
    return {"depth": "ft", "speed": "mph"}[name]


def _order(sheet: Sheet, given: Any) -> str:
    if given is not None:
        return str(require_choice("dates", given, ("ymd", "mdy", "dmy")))
    parts = [found.groups() for cell in _cells(sheet, "date") if (found := _DATE.match(cell))]
    if any(len(first) == 4 for first, *_ in parts):
        return "ymd"
    if any(int(first) > 12 for first, *_ in parts):
        return "dmy"
    if not any(int(second) > 12 for _, second, _ in parts):
        sheet.unsure.append("dates taken as month/day/year: no day is beyond the twelfth")
    return "mdy"


def understood(sheet: Sheet) -> tuple[list[Row], list[str]]:
    """Return the rows that are understood, and of each other one why not."""
    good: list[Row] = []
    bad: list[str] = []
    for number, cells in sheet.rows:
        try:
            good.append(_row(sheet, number, cells))
        except InvalidInputError as error:
            bad.append(f"row {number}: {error}")
    return good, bad


def _row(sheet: Sheet, number: int, cells: list[str]) -> Row:
    def cell(name: str) -> str:
        index = sheet.mapping.get(name, -1)
        return cells[index] if 0 <= index < len(cells) else ""

    def measure(name: str) -> float | None:
        text = cell(name)
        if not text:
            return None
        found = _NUMBER.search(text)
        if found is None:
            raise InvalidInputError(name, text[:40], "a number, or empty")
        low, high, unit = _BOUNDS[name]
        value = UNITS[name][sheet.units[name]](float(found[0].replace(",", ".")))
        return require_number(name, value, low=low, high=high, unit=unit)

    count = _whole("count", cell("count"), 1)
    return Row(
        row=number, key=hashlib.sha256("\x1f".join(cells).encode()).hexdigest(),
        day=_day(cell("date"), sheet.dates), hour=_hour(cell("time")),
        water_name=cell("water")[:120], species=_species(cell("species"), sheet.species),
        count=count, kept=_kept(cell("kept").lower(), count), length_m=measure("length"),
        depth_m=measure("depth"), speed_mps=measure("speed"),
        warm_degc=measure("temperature"), lure=cell("lure")[:120],
        colour=cell("colour")[:120], note=cell("note")[:300],
    )


def _kept(text: str, count: int) -> int:
    """How many were kept: a number, or yes for all of them."""
    if text.isascii() and text.isdigit():
        return min(int(text[:6]), count)
    return 0 if text in _NO else count


def _whole(name: str, text: str, usual: int) -> int:
    if not text:
        return usual
    if not text.isascii() or not text.isdigit():
        raise InvalidInputError(name, text[:40], "a whole number, or empty")
    return int(require_number(name, int(text[:9]), low=0, high=1000))


def _day(text: str, order: str) -> date:
    found = _DATE.match(text)
    if found is None:
        raise InvalidInputError("date", text[:40], "a day such as 2026-04-14")
    numbers = dict(zip(order, (int(part) for part in found.groups()), strict=True))
    year = numbers["y"] + (2000 if numbers["y"] < 70 else 1900 if numbers["y"] < 100 else 0)
    try:
        day = date(year, numbers["m"], numbers["d"])
    except ValueError:
        raise InvalidInputError("date", text[:40], "a day of the calendar") from None
    if not OLDEST <= day <= date.today():
        raise InvalidInputError("date", text[:40], "a day that has been, since 1950")
    return day


def _hour(text: str) -> float | None:
    if not text:
        return None
    found = _CLOCK.fullmatch(text.strip())
    hour = None if found is None else int(found[1]) + int(found[2] or 0) / 60.0
    if found is not None and hour is not None and found[3]:
        hour = hour % 12.0 + (12.0 if found[3].lower() == "p" else 0.0)
    if hour is None or not 0.0 <= hour < 24.0:
        raise InvalidInputError("time", text[:40], "a clock time such as 6:40, or empty")
    return hour


def _species(text: str, usual: str) -> str:
    if not text:
        return usual
    for species, words in _SPECIES.items():
        if any(word in text.lower() for word in words):
            return species
    raise InvalidInputError("species", text[:40], "trout, kokanee or striper, or empty")
