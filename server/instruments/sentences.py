"""Sentences of NMEA 0183 as values in SI; bytes as they come, cut anywhere, as whole lines."""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Iterator
from typing import Any, Final

import pynmea2

from coldwake_core.boat.instruments import Quantity, Said
from coldwake_core.chart.grid import GeoPoint
from coldwake_core.constants import FOOT_M, KNOT_MPS

LONGEST: Final = 120
"""A sentence has 82 characters at most; some talkers write a few more."""
KMH_MPS: Final = 1.0 / 3.6
_CLOCK: Final = re.compile(rb"\$..(?:RMC|GGA),(\d\d)(\d\d)(\d\d(?:\.\d+)?),")


class Lines:
    """Bytes in, whole lines out; what never ends is dropped, so that no noise fills the memory."""

    def __init__(self) -> None:
        self._rest = b""
        self._is_overlong = False
        self.overlong = 0

    def feed(self, data: bytes) -> Iterator[bytes]:
        """Yield the lines that are whole now."""
        parts = (self._rest + data).replace(b"\r", b"\n").split(b"\n")
        self._rest = parts.pop()
        for part in parts:
            if self._is_overlong or len(part) > LONGEST:
                self.overlong += 1
                self._is_overlong = False
            elif part:
                yield part
        if len(self._rest) > LONGEST:
            self._rest, self._is_overlong = b"", True


class Reader:
    """Reads lines of one source and counts what it could not use.

    ``counts``: 'good', 'checksum', 'unknown' and 'broken' lines.
    """

    def __init__(self) -> None:
        self.counts: Counter[str] = Counter()

    def read(self, line: bytes) -> tuple[Said, ...]:
        """Return what a line says; nothing of one that is broken, never half of it."""
        try:
            text = line.decode("ascii").strip()
            # What was cut off before it stands in front of it, where its end was lost.
            start = text.rindex("$")
            sentence = pynmea2.parse(text[start:], check=True)
            said = tuple(_SAYS[_kind(sentence)](sentence))
        except pynmea2.ChecksumError:
            self.counts["checksum"] += 1
            return ()
        except (pynmea2.SentenceTypeError, KeyError):
            self.counts["unknown"] += 1
            return ()
        except Exception:
            # Anything may come over a wire, and one line of it must not end the listening.
            self.counts["broken"] += 1
            return ()
        self.counts["good"] += 1
        return said


def _kind(sentence: Any) -> str:
    if isinstance(sentence, pynmea2.ProprietarySentence):
        return f"P{sentence.manufacturer}"
    return str(sentence.sentence_type)


def clock_of(line: bytes) -> float | None:
    """Return the time of day that a line tells, s; None where it tells none.

    Only where a log stands in its time: the line itself is read, or refused, elsewhere.
    """
    found = _CLOCK.search(line)
    if found is None:
        return None
    hours, minutes, seconds = (float(part) for part in found.groups())
    return hours * 3600.0 + minutes * 60.0 + seconds


def _number(value: Any) -> float | None:
    return None if value in (None, "") else float(value)


def _one(quantity: Quantity, value: Any, by: float = 1.0) -> Iterator[Said]:
    number = _number(value)
    if number is not None:
        yield Said(quantity=quantity, value=number * by)


def _place(sentence: Any, hdop: float) -> Iterator[Said]:
    if sentence.lat and sentence.lon:
        yield Said(quantity="place", value=hdop, place=GeoPoint(
            latitude_deg=sentence.latitude, longitude_deg=sentence.longitude
        ))


def _rmc(sentence: Any) -> Iterator[Said]:
    if sentence.status != "A":
        return
    yield from _place(sentence, 0.0)
    yield from _one("ground_speed", sentence.spd_over_grnd, KNOT_MPS)
    yield from _one("course", sentence.true_course)


def _gga(sentence: Any) -> Iterator[Said]:
    if int(sentence.gps_qual or 0) > 0:
        yield from _place(sentence, _number(sentence.horizontal_dil) or 0.0)


def _vtg(sentence: Any) -> Iterator[Said]:
    yield from _one("course", sentence.true_track)
    yield from _one("ground_speed", sentence.spd_over_grnd_kts, KNOT_MPS)


def _vhw(sentence: Any) -> Iterator[Said]:
    knots = _number(sentence.water_speed_knots)
    if knots is not None:
        yield Said(quantity="water_speed", value=knots * KNOT_MPS)
    else:
        yield from _one("water_speed", sentence.water_speed_km, KMH_MPS)


def _dpt(sentence: Any) -> Iterator[Said]:
    depth, offset = _number(sentence.depth), _number(sentence.offset) or 0.0
    if depth is not None:
        # Above 0 the offset is the way up to the surface; below, the way down to the keel.
        yield Said(quantity="depth", value=depth + max(offset, 0.0), below_surface=offset > 0.0)


def _dbt(sentence: Any) -> Iterator[Said]:
    metres, feet = _number(sentence.depth_meters), _number(sentence.depth_feet)
    if metres is not None:
        yield Said(quantity="depth", value=metres)
    elif feet is not None:
        yield Said(quantity="depth", value=feet * FOOT_M)


def _mtw(sentence: Any) -> Iterator[Said]:
    number = _number(sentence.temperature)
    if number is not None:
        celsius = (number - 32.0) / 1.8 if sentence.units == "F" else number
        yield Said(quantity="water_temperature", value=celsius)


def _mwv(sentence: Any) -> Iterator[Said]:
    # Only the wind over the boat as she goes: what is reckoned from it has another speed in it.
    if sentence.status != "A" or sentence.reference != "R":
        return
    by = {"N": KNOT_MPS, "K": KMH_MPS, "M": 1.0}[sentence.wind_speed_units]
    yield from _one("wind_angle", sentence.wind_angle)
    yield from _one("wind_speed", sentence.wind_speed, by)


def _hdg(sentence: Any) -> Iterator[Said]:
    heading = _number(sentence.heading)
    if heading is not None:
        for value, side in (
            (sentence.deviation, sentence.dev_dir), (sentence.variation, sentence.var_dir)
        ):
            heading += (_number(value) or 0.0) * (-1.0 if side == "W" else 1.0)
        yield Said(quantity="heading", value=heading % 360.0)


def _mark(sentence: Any) -> Iterator[Said]:
    # Our own sentence, since none of the standard's tells of fish: $PCWK,<depth of the mark, m>.
    yield from _one("mark", sentence.data[1])


_SAYS: Final = {
    "RMC": _rmc, "GGA": _gga, "VTG": _vtg, "VHW": _vhw, "DPT": _dpt, "DBT": _dbt, "MTW": _mtw,
    "MWV": _mwv, "HDG": _hdg, "PCWK": _mark,
}
