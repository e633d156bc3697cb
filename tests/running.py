"""A server of its own: uvicorn in a subprocess with its own data, as the README starts it."""

from __future__ import annotations

import http.cookiejar
import json
import os
import signal
import socket
import sqlite3
import subprocess
import sys
import time
import urllib.error
import urllib.request
from contextlib import closing
from pathlib import Path
from typing import Any

from paths import ROOT


class RunningServer:
    """Cold Wake on a port, with the demo loaded; can be killed and started again."""

    def __init__(
        self, var: Path, *, fresh: bool = True, dist: Path | None = None,
        template: Path | None = None,
    ) -> None:
        self.database = var / "coldwake.sqlite3"
        self.env = {
            **os.environ,
            "COLDWAKE_VAR": str(var),
            "COLDWAKE_DEMO": "1",
            "DJANGO_SETTINGS_MODULE": "config.settings",
            "PYTHONPATH": f"{ROOT / 'core/src'}:{ROOT / 'server'}",
        }
        if dist is not None:
            self.env["COLDWAKE_DIST"] = str(dist)
        with socket.socket() as probe:
            probe.bind(("127.0.0.1", 0))
            self.port = probe.getsockname()[1]
        self.process: subprocess.Popen[bytes] | None = None
        self.url = f"http://127.0.0.1:{self.port}"
        if template is not None:
            _copy(template, self.database)
        elif fresh:
            self.manage("migrate", "--verbosity", "0")
            self.manage("load_demo", "--verbosity", "0")

    def manage(self, *command: str) -> None:
        """Run one of the server's own commands on its data."""
        subprocess.run(
            [sys.executable, str(ROOT / "server/manage.py"), *command],
            env=self.env,
            check=True,
            capture_output=True,
        )

    def keep(self) -> None:
        """Keep the data as they stand now, to be put back."""
        _copy(self.database, self.database.with_suffix(".kept"))

    def put_back(self) -> None:
        """Put the kept data back, whether the server runs or not."""
        _copy(self.database.with_suffix(".kept"), self.database)

    @property
    def is_up(self) -> bool:
        """Whether its process runs."""
        return self.process is not None and self.process.poll() is None

    def start(self) -> None:
        """Start it and wait until it answers."""
        self.process = subprocess.Popen(
            [
                sys.executable,
                "-m",
                "uvicorn",
                "config.asgi:application",
                "--port",
                str(self.port),
                "--log-level",
                "warning",
                "--timeout-graceful-shutdown",
                "2",
            ],
            env=self.env,
            cwd=ROOT / "server",
        )
        for _ in range(200):
            try:
                urllib.request.urlopen(f"{self.url}/api/session/", timeout=2)
                return
            except (urllib.error.URLError, OSError):
                time.sleep(0.1)
        raise RuntimeError("the server did not start")

    def kill(self) -> None:
        """Kill it as a power cut would: no chance to tidy up."""
        assert self.process is not None
        self.process.send_signal(signal.SIGKILL)
        self.process.wait()

    def hang(self) -> None:
        """Let it take connections and answer none, as a link of one bar does."""
        assert self.process is not None
        self.process.send_signal(signal.SIGSTOP)

    def go_on(self) -> None:
        """Let it answer again."""
        assert self.process is not None
        self.process.send_signal(signal.SIGCONT)

    def stop(self) -> None:
        """Stop it."""
        if self.process is not None and self.is_up:
            self.process.terminate()
            self.process.wait(timeout=10)


def _copy(source: Path, target: Path) -> None:
    """Copy a database that may be in use, by SQLite's own backup."""
    with closing(sqlite3.connect(source)) as one, closing(sqlite3.connect(target)) as other:
        one.backup(other)


class ApiUser:
    """A plain HTTP client logged in to the demo account."""

    def __init__(self, url: str) -> None:
        self.url = url
        self.jar = http.cookiejar.CookieJar()
        self.opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(self.jar))
        self.get("/api/session/")
        self.post("/api/session/demo/", {})

    def get(self, road: str) -> Any:
        """Return the JSON at a road."""
        return json.load(self.opener.open(self.url + road, timeout=20))

    def post(self, road: str, body: Any) -> Any:
        """Post JSON and return the JSON answer."""
        token = next(cookie.value for cookie in self.jar if cookie.name == "csrftoken")
        request = urllib.request.Request(
            self.url + road,
            json.dumps(body).encode(),
            {"Content-Type": "application/json", "X-CSRFToken": token or ""},
        )
        return json.load(self.opener.open(request, timeout=20))
