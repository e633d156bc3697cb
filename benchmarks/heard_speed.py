"""Instruments: sentences a second, noise, and how long from the socket to every browser."""

from __future__ import annotations

import asyncio
import json
import random
import subprocess
import sys
import tempfile
import threading
import time
import tracemalloc
from pathlib import Path
from statistics import quantiles

from pace import pace

from instruments.sentences import Lines, Reader
from running import ApiUser, RunningServer
from coldwake_core.lakesim.spoken import sentence

KINDS = (
    "GPRMC,123519,A,4807.038,N,01131.000,E,022.4,084.4,230394,003.1,W",
    "IIVHW,,T,245.1,M,1.56,N,2.89,K", "SDDPT,12.3,0.5", "IIMTW,9.8,C",
    "GPVTG,54.7,T,34.4,M,5.5,N,10.2,K,A",
)


def sentences_a_second() -> None:
    data = "".join(sentence(KINDS[i % len(KINDS)]) for i in range(100_000)).encode()
    before = pace()
    lines, reader = Lines(), Reader()
    begun = time.perf_counter()
    for start in range(0, len(data), 4096):
        for line in lines.feed(data[start:start + 4096]):
            reader.read(line)
    took = time.perf_counter() - begun
    rate = reader.counts["good"] / took
    at = 0.5 * (before + pace())
    share = 20_000 / (rate * at)
    print(f"sentences: {rate:.0f}/s at pace {at:.2f}, {share:.2f} of the time allowed")
    assert reader.counts["good"] == 100_000


def noise() -> None:
    """An hour of a line at 38 400 baud that carries nothing but noise and half sentences."""
    rng, size = random.Random(2), 3600 * 3840
    tracemalloc.start()
    lines, reader, fed, most = Lines(), Reader(), 0, 0
    while fed < size:
        data = rng.randbytes(2048) + sentence(rng.choice(KINDS)).encode()[: rng.randrange(60)]
        fed += len(data)
        for line in lines.feed(data):
            reader.read(line)
        most = max(most, tracemalloc.get_traced_memory()[0])
    tracemalloc.stop()
    print(f"noise: {fed / 1e6:.0f} MB, {dict(reader.counts)}, {lines.overlong} overlong, "
          f"{most / 1e6:.2f} MB held at most")


def to_browsers() -> None:
    """From the socket to five to whom it is pushed."""
    before = pace()
    with tempfile.TemporaryDirectory() as folder:
        server = RunningServer(Path(folder))
        server.start()
        users = [ApiUser(server.url) for _ in range(5)]
        said: dict[float, float] = {}
        seen: list[float] = []
        over = threading.Event()

        async def device(_: asyncio.StreamReader, writer: asyncio.StreamWriter) -> None:
            degrees = 5.0
            try:
                while not over.is_set():
                    degrees = round(degrees + 0.1, 1)
                    said[degrees] = time.monotonic()
                    writer.write(sentence(f"IIMTW,{degrees:.1f},C").encode())
                    await writer.drain()
                    await asyncio.sleep(1.0)
            except (OSError, asyncio.CancelledError):
                pass

        async def speak() -> None:
            async with await asyncio.start_server(device, "127.0.0.1", 18_110):
                while not over.is_set():
                    await asyncio.sleep(0.1)

        def listen(user: ApiUser) -> None:
            """As the page's EventSource does."""
            last = 0.0
            with user.opener.open(user.url + "/api/instruments/live/", timeout=20) as pushed:
                for line in pushed:
                    if over.is_set():
                        return
                    if not line.startswith(b"data: {"):
                        continue
                    for value in json.loads(line[6:])["values"]:
                        if value["value"] != last and value["value"] in said:
                            last = value["value"]
                            seen.append(time.monotonic() - said[last])

        threading.Thread(target=lambda: asyncio.run(speak()), daemon=True).start()
        server.manage("load_boat", "--port", "18110")
        listener = subprocess.Popen(
            [sys.executable, "server/manage.py", "listen"], env=server.env
        )
        try:
            time.sleep(6.0)
            threads = [threading.Thread(target=listen, args=(user,), daemon=True) for user in users]
            for thread in threads:
                thread.start()
            time.sleep(30.0)
        finally:
            over.set()
            listener.terminate()
            server.stop()
        # The first of each had waited for nobody.
        ages = seen[5:]
        p95 = quantiles(ages, n=20)[-1]
        at = 0.5 * (before + pace())
        print(f"socket to browser, five of them: p50 {1e3 * quantiles(ages, n=2)[0]:.0f} ms, "
              f"p95 {1e3 * p95:.0f} ms of 1000 at pace {at:.2f} ({len(ages)} values)")


if __name__ == "__main__":
    sentences_a_second()
    noise()
    to_browsers()
