"""A stand-in boat: it trolls along a contour of a chart and speaks NMEA 0183 to who connects.

``python -m standins.boat --chart demo/charts/sallow_tarn.json --depth 14 --port 10110``. It has
laws of its own: a hand on the throttle that wanders, gusts, a wheel that flickers, a receiver off
by a few metres, a surface that warms, schools that it passes over. ``--pace 60`` sails an hour in a
minute. On a river ``--current 0.5 --flows 190`` carries it along, and ``--speed`` is through the
water all the same.
"""

from __future__ import annotations

import argparse
import asyncio
import functools
import json
import os
import time
from collections.abc import Iterator
from pathlib import Path

from coldwake_core.chart.features import Feature
from coldwake_core.chart.grid import DepthGrid, moved
from coldwake_core.decode import decode
from coldwake_core.lakesim.sailing import TURN_M, Sailing, along

KNOT_MPS = 1852.0 / 3600.0
TRANSDUCER_M = 0.4


def sentence(body: str) -> str:
    """Return a body with its frame and checksum."""
    check = functools.reduce(lambda sum_, char: sum_ ^ ord(char), body, 0)
    return f"${body}*{check:02X}\r\n"


def _angle(degrees: float, whole: int, letters: str) -> str:
    size = abs(degrees)
    return (
        f"{int(size):0{whole}d}{60.0 * (size % 1.0):07.4f},{letters[0 if degrees >= 0.0 else 1]}"
    )


class Boat(Sailing):
    """The same, and it says what its instruments say."""

    def says(self, now_s: float) -> Iterator[str]:
        """Yield what its instruments say at a moment."""
        rng = self.rng
        clock = time.strftime("%H%M%S", time.gmtime(now_s))
        day = time.strftime("%d%m%y", time.gmtime(now_s))
        fix = moved(
            self.place, course_deg=rng.uniform(0.0, 360.0), distance_m=abs(rng.normal(0.0, 1.5))
        )
        knots = self.ground_mps / KNOT_MPS
        yield sentence(
            f"GPRMC,{clock},A,{_angle(fix.latitude_deg, 2, 'NS')},"
            f"{_angle(fix.longitude_deg, 3, 'EW')},{knots:.2f},{self.ground_deg:.1f},{day},,,A"
        )
        wheel = max(self.speed_mps + rng.normal(0.0, 0.03), 0.0) / KNOT_MPS
        yield sentence(f"IIVHW,,T,{self.course_deg:.1f},M,{wheel:.2f},N,{wheel * 1.852:.2f},K")
        under = self.depth_m - TRANSDUCER_M + rng.normal(0.0, 0.04)
        yield sentence(f"SDDPT,{max(under, 0.0):.2f},{TRANSDUCER_M:.1f}")
        yield sentence(f"IIMTW,{self.warm_degc + rng.normal(0.0, 0.03):.1f},C")
        if self._mark_m is not None and self._mark_m > 0.3:
            yield sentence(f"PCWK,{self._mark_m:.1f}")


async def serve(boat: Boat, port: int, pace: float, parent: int | None) -> None:
    """Speak to everybody who connects until stopped, or until the starter has ended."""
    listeners: set[asyncio.StreamWriter] = set()

    async def connected(reader: asyncio.StreamReader, writer: asyncio.StreamWriter) -> None:
        listeners.add(writer)
        try:
            while await reader.read(1024):
                pass
        except OSError:
            pass
        finally:
            listeners.discard(writer)
            writer.close()

    async with await asyncio.start_server(connected, "127.0.0.1", port):
        while parent is None or os.getppid() == parent:
            text = ""
            for _ in range(max(round(pace), 1)):
                boat.step(1.0)
                text = "".join(boat.says(time.time()))
            for writer in tuple(listeners):
                # Who does not read is not waited for.
                if writer.transport.get_write_buffer_size() < 100_000:
                    writer.write(text.encode("ascii"))
            await asyncio.sleep(1.0)


def main() -> None:
    """Sail until stopped."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--chart", type=Path, required=True)
    parser.add_argument("--features", type=Path, help="a water's JSON, whose closed water it keeps")
    parser.add_argument("--depth", type=float, default=16.0, help="depth of the bottom, m")
    parser.add_argument("--port", type=int, default=10110)
    parser.add_argument("--pace", type=float, default=1.0)
    parser.add_argument("--speed", type=float, default=0.74, help="through the water, m/s")
    parser.add_argument("--current", type=float, default=0.0, help="m/s")
    parser.add_argument("--flows", type=float, default=0.0, help="whither the current sets, deg")
    parser.add_argument("--turn", type=float, default=TURN_M, help="radius of its turns, m")
    parser.add_argument("--fish", type=float, default=6.0, help="depth of the schools, m")
    parser.add_argument("--with-parent", action="store_true", help="end when who started it ends")
    asked = parser.parse_args()
    chart = decode(DepthGrid, json.loads(asked.chart.read_text("utf-8")))
    features: tuple[Feature, ...] = ()
    if asked.features:
        stands = json.loads(asked.features.read_text("utf-8")).get("features", [])
        features = tuple(decode(Feature, one) for one in stands)
    boat = Boat(
        chart=chart, path=along(chart, asked.depth, features, asked.turn),
        speed_mps=asked.speed, turn_m=asked.turn, current_mps=asked.current,
        flows_deg=asked.flows, fish_m=asked.fish,
    )
    asyncio.run(serve(boat, asked.port, asked.pace, os.getppid() if asked.with_parent else None))


if __name__ == "__main__":
    main()
