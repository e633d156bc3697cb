"""How the server holds: long trips, long batches, five devices at once, a large import.

Run: .venv/bin/python benchmarks/server_load.py [seconds of load, 60 when left out]
Figures are of one run on the machine it runs on; budgets stand beside them.
"""

from __future__ import annotations

import json
import sys
import tempfile
import threading
import time
import urllib.request
import uuid
from pathlib import Path
from statistics import median, quantiles
from typing import Any

sys.path[:0] = [str(Path(__file__).parent.parent / "tests")]

from running import ApiUser, RunningServer

RODS = [f"rod-{index}" for index in range(1, 7)]


def hits(count: int, at_s: float) -> list[dict[str, Any]]:
    """Events of a day: mostly hits, with resets, temperatures and marks between."""
    made = []
    for index in range(count):
        rod = RODS[index % 6]
        kind, payload = [
            ("hit", {"rod_id": rod}),
            ("line_set", {"rod_id": rod, "setting_m": 8.0 + index % 5}),
            ("temperature_read", {"temperature_degc": 10.0 + index % 3, "depth_m": 0.0}),
            ("mark_seen", {"depth_m": 6.0, "count": 2}),
            ("bait_checked", {"rod_id": rod}),
        ][index % 5]
        made.append({
            "id": str(uuid.uuid4()), "at_s": at_s + 0.001 * index, "type": kind, "payload": payload,
        })
    return made


def timed(act: Any, rounds: int = 5) -> float:
    """Median milliseconds of some rounds."""
    times = []
    for _ in range(rounds):
        start = time.perf_counter()
        act()
        times.append(1000.0 * (time.perf_counter() - start))
    return median(times)


def long_trips(server: RunningServer, user: ApiUser, trip: str) -> None:
    road = f"/api/trips/{trip}"
    print(f"{'events':>7} {'opening':>9} {'(restarted)':>12} {'tap':>7} {'poll':>7}  ms")
    for goal in (100, 1000, 5000, 20_000):
        while (have := user.get(f"{road}/events/?after=0")["after"]) < goal:
            batch = hits(min(400, goal - have), time.time())
            user.post(f"{road}/events/", {"events": batch})
        after = user.get(f"{road}/events/")["after"]

        def opening() -> None:
            user.get(f"{road}/")
            user.get(f"{road}/fish/")
            user.get(f"{road}/events/")

        warm = timed(opening)
        tap = timed(lambda: user.post(f"{road}/events/", {"events": hits(1, time.time())}))
        poll = timed(lambda after=after: user.get(f"{road}/events/?after={after + 5}"))
        server.stop()
        server.start()
        cold = timed(opening, rounds=1)
        print(f"{goal:>7} {warm:>9.0f} {cold:>12.0f} {tap:>7.0f} {poll:>7.1f}")
    start = time.perf_counter()
    user.post(f"{road}/events/", {"events": hits(400, time.time())})
    print(f"a batch of 400 on 20 000: {time.perf_counter() - start:.2f} s (budget 2)")


def load(server: RunningServer, trip: str, seconds: float) -> None:
    """Five devices, fifty posts a second together."""
    sent: list[str] = []
    times: list[float] = []
    lock = threading.Lock()

    def device(index: int) -> None:
        user = ApiUser(server.url)
        start = time.perf_counter()
        count = 0
        while (due := start + count * 0.1 + 0.02 * index) < start + seconds:
            time.sleep(max(0.0, due - time.perf_counter()))
            event = hits(1, time.time())
            begun = time.perf_counter()
            user.post(f"/api/trips/{trip}/events/", {"events": event})
            with lock:
                times.append(1000.0 * (time.perf_counter() - begun))
                sent.append(event[0]["id"])
            count += 1

    threads = [threading.Thread(target=device, args=(index,)) for index in range(5)]
    begun = time.perf_counter()
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    took = time.perf_counter() - begun
    user = ApiUser(server.url)
    kept = {item["id"] for item in user.get(f"/api/trips/{trip}/events/")["events"]}
    lost = len(set(sent) - kept)
    cut = quantiles(times, n=100)
    print(
        f"5 devices, {len(sent)} posts in {took:.0f} s ({len(sent) / took:.0f}/s): lost {lost}, "
        f"p50 {cut[49]:.0f} ms, p95 {cut[94]:.0f} ms (budget 100), p99 {cut[98]:.0f} ms"
    )


def large_import(user: ApiUser) -> None:
    head = "kind,key,name,colour,lure_kind,length_in,width_in,weight_oz,low_mph,high_mph,own_action"
    rows = "\n".join(
        f"lure,bulk-{i},Bulk {i},copper,spoon,2.2,0.9,0.18,1.5,3.5,yes" for i in range(4900)
    )
    token = next(cookie.value for cookie in user.jar if cookie.name == "csrftoken")
    request = urllib.request.Request(
        f"{user.url}/api/locker/import/?rows=all", f"{head}\n{rows}\n".encode(),
        {"Content-Type": "text/csv", "X-CSRFToken": token or ""},
    )
    start = time.perf_counter()
    answer = json.load(user.opener.open(request, timeout=60))
    print(f"import of {answer['good']} rows: {time.perf_counter() - start:.2f} s (budget 2)")


def start_trip(user: ApiUser, name: str) -> str:
    """A trip with the 16 ft boat, rigged as it was left, by a clock that goes on."""
    lists = user.get("/api/trips/")
    started: str = user.post("/api/trips/", {
        "name": name, "water_id": lists["waters"][0]["id"], "species": "trout",
        "outfit_id": next(o["id"] for o in lists["outfits"] if "16 ft" in o["name"]),
    })["id"]
    return started


def main() -> None:
    seconds = float(sys.argv[1]) if len(sys.argv) > 1 else 60.0
    with tempfile.TemporaryDirectory() as var:
        server = RunningServer(Path(var))
        server.start()
        try:
            user = ApiUser(server.url)
            large_import(user)
            load(server, start_trip(user, "Five devices"), seconds)
            long_trips(server, user, start_trip(user, "Long day"))
        finally:
            server.stop()


if __name__ == "__main__":
    main()
