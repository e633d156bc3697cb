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
import json
import os
import time
from collections.abc import Iterator
from pathlib import Path

from coldwake_core.chart.features import Feature
from coldwake_core.chart.grid import DepthGrid
from coldwake_core.decode import decode
from coldwake_core.lakesim.sailing import TURN_M, Sailing, along
from coldwake_core.lakesim.spoken import Around, says


class Boat(Sailing):
    """The same, and it says what its instruments say."""

    def says(self, now_s: float) -> Iterator[str]:
        """Yield what its instruments say at a moment."""
        around = Around(
            depth_m=self.depth_m, surface_degc=self.warm_degc, mark_m=self._mark_m
        )
        yield from says(self, around, now_s, self.rng)


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
