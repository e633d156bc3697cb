"""A stand-in forecast service: a handful of invented days over HTTP and JSON.

``python -m standins.forecast --port 8765``; ``GET /days`` names the days, and ``GET
/forecast?date=2026-04-14&midnight_s=...`` answers with that date's (each date has one of them, the
same every time; ``&name=`` asks for another).
"""

from __future__ import annotations

import argparse
import json
import math
import os
import threading
import time
from datetime import date
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from typing import Any
from urllib.parse import parse_qs, urlsplit

# Wind m/s and cloud at hours 3, 9, 13, 17, 23; warmest and coldest air as departures from the
# season's own, degrees Celsius; the wind's direction at dawn and how far it veers by night.
DAYS: dict[str, dict[str, Any]] = {
    "calm and fair": {
        "wind": (0.6, 0.8, 1.6, 1.4, 0.5), "cloud": (0.1, 0.1, 0.2, 0.2, 0.1),
        "air": (-5.0, 5.0), "from": (190.0, 40.0), "humidity": 0.55,
    },
    "fair, wind after lunch": {
        "wind": (0.8, 1.2, 4.8, 6.0, 2.0), "cloud": (0.1, 0.2, 0.4, 0.4, 0.2),
        "air": (-4.0, 4.0), "from": (210.0, 50.0), "humidity": 0.5,
    },
    "grey and still": {
        "wind": (0.8, 1.0, 1.5, 1.5, 1.0), "cloud": (0.9, 0.95, 0.9, 0.85, 0.9),
        "air": (-1.5, 2.0), "from": (120.0, 10.0), "humidity": 0.8,
    },
    "a front at noon": {
        "wind": (2.0, 3.0, 8.0, 9.0, 6.0), "cloud": (0.3, 0.6, 1.0, 0.8, 0.4),
        "air": (-2.0, 1.0), "from": (170.0, 130.0), "humidity": 0.7,
        "thunder": (0.0, 0.1, 0.6, 0.4, 0.0),
    },
    "windy all day": {
        "wind": (4.0, 5.5, 7.5, 7.0, 4.5), "cloud": (0.3, 0.4, 0.5, 0.4, 0.3),
        "air": (-3.0, 2.0), "from": (270.0, 30.0), "humidity": 0.5,
    },
}
AT_H = (3.0, 9.0, 13.0, 17.0, 23.0)


def season_degc(day: date, latitude_deg: float) -> float:
    """Return the usual mean air of a day: a year's cosine, warmest in late July (invented)."""
    turned = day.timetuple().tm_yday if latitude_deg >= 0.0 else day.timetuple().tm_yday + 182
    return 11.0 - 11.0 * math.cos(2.0 * math.pi * (turned - 25) / 365.0)


def name_of(day: date) -> str:
    """Return the name of a date's weather: one of the days, the same every time."""
    return list(DAYS)[(day.toordinal() * 7 + day.month + 1) % len(DAYS)]


def between(values: tuple[float, ...], hour: float) -> float:
    """Return a value at an hour, linear between those known."""
    if hour <= AT_H[0]:
        return values[0]
    for i in range(1, len(AT_H)):
        if hour <= AT_H[i]:
            share = (hour - AT_H[i - 1]) / (AT_H[i] - AT_H[i - 1])
            return values[i - 1] + share * (values[i] - values[i - 1])
    return values[-1]


def hours_of(
    name: str, day: date, midnight_s: float, latitude_deg: float
) -> list[dict[str, float]]:
    """Return a day's weather from 3 to 23 o'clock."""
    kind = DAYS[name]
    season = season_degc(day, latitude_deg)
    found = []
    for hour in range(3, 24):
        warm = math.cos(2.0 * math.pi * (hour - 15.0) / 24.0)
        low, high = kind["air"]
        found.append({
            "at_s": midnight_s + 3600.0 * hour,
            "air_degc": round(season + 0.5 * (low + high) + 0.5 * (high - low) * warm, 1),
            "humidity": round(min(kind["humidity"] - 0.15 * warm, 1.0), 2),
            "cloud": round(between(kind["cloud"], hour), 2),
            "wind_mps": round(between(kind["wind"], hour), 1),
            "thunder": round(between(kind.get("thunder", (0.0,) * 5), hour), 2),
            "wind_from_deg": round((kind["from"][0] + kind["from"][1] * hour / 23.0) % 360.0),
        })
    return found


class Handler(BaseHTTPRequestHandler):
    """Answers GET and nothing else."""

    def do_GET(self) -> None:
        """Answer ``/days`` and ``/forecast``."""
        address = urlsplit(self.path)
        if address.path == "/days":
            self._answer(200, {"days": list(DAYS)})
        elif address.path == "/forecast":
            asked = {key: values[0] for key, values in parse_qs(address.query).items()}
            try:
                day = date.fromisoformat(asked["date"])
                name = asked.get("name") or name_of(day)
                hours = hours_of(
                    name, day, float(asked["midnight_s"]), float(asked.get("latitude", 44.0))
                )
            except (KeyError, ValueError, OverflowError) as error:
                self._answer(400, {"error": f"ask for date and midnight_s: {error!r}"})
                return
            self._answer(200, {"name": f"{name} (stand-in forecast, invented)", "hours": hours})
        else:
            self._answer(404, {"error": "there are /days and /forecast"})

    def _answer(self, status: int, body: dict[str, Any]) -> None:
        text = json.dumps(body).encode()
        self.send_response(status)
        self.send_header("Content-Type", "application/json")
        self.send_header("Content-Length", str(len(text)))
        self.end_headers()
        self.wfile.write(text)

    def log_message(self, format: str, *args: Any) -> None:
        """Say nothing: nobody reads it."""


def _end_with(parent: int) -> None:
    while os.getppid() == parent:
        time.sleep(1.0)
    os._exit(0)


def main() -> None:
    """Serve until stopped."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--port", type=int, default=8765)
    parser.add_argument("--with-parent", action="store_true", help="end when who started it ends")
    asked = parser.parse_args()
    port = asked.port
    if asked.with_parent:
        threading.Thread(target=_end_with, args=(os.getppid(),), daemon=True).start()
    with ThreadingHTTPServer(("127.0.0.1", port), Handler) as service:
        service.serve_forever()


if __name__ == "__main__":
    main()
