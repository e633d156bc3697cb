"""Instruments on screen: a boat on a socket is set up, heard, and moves Fish."""

from __future__ import annotations

import re
import subprocess
import sys
import time
from collections.abc import Iterator
from pathlib import Path

import pytest
from playwright.sync_api import Page, expect

from coldwake_core.lakesim.spoken import sentence
from paths import ROOT
from running import ApiUser, RunningServer

PORT = 18_211


@pytest.fixture
def boat() -> Iterator[subprocess.Popen[bytes]]:
    process = subprocess.Popen(
        [
            sys.executable, "-m", "standins.boat", "--chart", "demo/charts/sallow_tarn.json",
            "--features", "demo/waters/sallow_tarn.json", "--depth", "14", "--port", str(PORT),
        ],
        cwd=ROOT, env={"PYTHONPATH": str(ROOT / "core/src")},
    )
    yield process
    process.kill()
    process.wait()


def test_a_boat_is_set_up_heard_and_moves_fish(
    fish: Page, server: RunningServer, boat: subprocess.Popen[bytes]
):
    listener = subprocess.Popen([sys.executable, "server/manage.py", "listen"],
                                cwd=ROOT, env=server.env)
    try:
        expect(fish.get_by_test_id("speed-input")).to_have_value("1.8")
        fish.get_by_test_id("menu").click()
        fish.get_by_test_id("to-instruments").click()
        fish.get_by_test_id("source-new").click()
        fish.get_by_test_id("source-name").fill("Sounder")
        fish.get_by_test_id("source-host").fill("8.8.8.8")
        fish.get_by_test_id("source-port").fill(str(PORT))
        fish.get_by_test_id("source-keep").click()
        expect(fish.get_by_test_id("instruments")).to_contain_text("boat's own network")
        fish.get_by_test_id("source-host").fill("127.0.0.1")
        fish.get_by_test_id("source-keep").click()
        depth = fish.get_by_test_id("heard-depth")
        expect(depth).to_contain_text("ft", timeout=30_000)
        expect(depth).to_have_attribute("data-state", "used")
        expect(fish.get_by_test_id("recorded")).to_contain_text("April morning")
        fish.get_by_role("link", name="Fish").click()
        expect(fish.get_by_test_id("live")).to_contain_text("instruments heard")
        # A boat that trolls at 0.74 m/s: what was typed gives way to what is heard.
        expect(fish.get_by_test_id("speed-input")).not_to_have_value("1.8", timeout=30_000)
        # It falls silent, and that is said.
        boat.kill()
        expect(fish.get_by_test_id("live")).to_contain_text("instruments silent", timeout=90_000)
        fish.get_by_test_id("menu").click()
        fish.get_by_test_id("to-instruments").click()
        expect(fish.get_by_test_id("source-state-0")).to_contain_text("Nothing listens")
        expect(fish.get_by_test_id("heard-depth")).to_have_attribute("data-state", "stale")
    finally:
        listener.terminate()
        listener.wait()


def test_a_log_is_brought_played_again_and_taken_into_its_trip(
    fish: Page, server: RunningServer, tmp_path: Path
):
    trip = next(
        t for t in ApiUser(server.url).get("/api/trips/")["trips"] if t["name"] == "April morning"
    )
    log = tmp_path / "card.nmea"
    log.write_text("".join(
        sentence(f"GPRMC,{clock},A,4359.8800,N,11500.1200,W,1.50,0.0,{day},,,A")
        + sentence(f"SDDPT,{10.0 + 0.5 * i:.1f},0.0")
        for i in range(200)
        for day, clock in [time.strftime(
            "%d%m%y %H%M%S", time.gmtime(trip["started_at_s"] + 600.0 + 5.0 * i)
        ).split()]
    ))
    listener = subprocess.Popen([sys.executable, "server/manage.py", "listen"],
                                cwd=ROOT, env=server.env)
    try:
        fish.get_by_test_id("menu").click()
        fish.get_by_test_id("to-instruments").click()
        fish.get_by_test_id("log-file").set_input_files(log)
        expect(fish.get_by_test_id("log-told")).to_contain_text("400 lines, 400 understood")
        fish.get_by_test_id("log-play").click()
        depth = fish.get_by_test_id("heard-depth")
        expect(depth).to_have_attribute("data-state", "replayed", timeout=30_000)
        fish.get_by_test_id(f"log-into-{trip['id']}").click()
        expect(fish.get_by_test_id("log-taken")).to_have_text(
            re.compile(r"\d{2,} things that said something new went in\.")
        )
        expect(fish.get_by_test_id("phone-state")).to_contain_text("Not listened to")
    finally:
        listener.terminate()
        listener.wait()
