"""What keeps the server's own: the demo at home, threads free, files whole and closed to others."""

from __future__ import annotations

import asyncio
import io
import sqlite3
from pathlib import Path
from types import SimpleNamespace
from typing import Any

import pytest
from rest_framework.exceptions import ParseError
from rest_framework.test import APIClient

from apart import played
from common import patience
from common.patience import in_time
from common.raw import RawParser
from upkeep.apps import close_to_others

pytest_db = pytest.mark.django_db


@pytest_db
@pytest.mark.parametrize("sent", [
    {"HTTP_X_FORWARDED_FOR": "198.51.100.4"}, {"HTTP_FORWARDED": "for=198.51.100.4"},
    {"HTTP_VIA": "1.1 proxy"}, {"HTTP_HOST": "boat.example"}, {"HTTP_HOST": "192.168.4.9:8000"},
    {"REMOTE_ADDR": "192.168.4.9"}, {"REMOTE_ADDR": "nonsense"},
])
def test_the_demo_is_not_reached_from_afar_or_through_a_proxy(
    demo: Any, client_in: APIClient, settings: Any, sent: dict[str, str]
):
    settings.ALLOWED_HOSTS = ["*"]
    assert APIClient().get("/api/session/", **sent).json()["demo_offered"] is False
    # A login that was made at home ends where it travels.
    assert client_in.get("/api/trips/", **sent).status_code == 401
    assert client_in.get("/api/trips/").status_code == 401


@pytest_db
@pytest.mark.parametrize("host", ["localhost:8000", "127.0.0.1:8000", "[::1]:8000", "127.0.0.1"])
def test_at_home_it_is_offered(demo: Any, host: str, settings: Any):
    settings.ALLOWED_HOSTS = ["*"]
    assert APIClient().get("/api/session/", HTTP_HOST=host).json()["demo_offered"] is True


@pytest_db
def test_switched_off_the_demo_s_logins_end_and_nobody_else_s(
    client_in: APIClient, stranger: APIClient, settings: Any
):
    assert client_in.get("/api/trips/").status_code == 200
    settings.DEMO = False
    assert client_in.get("/api/trips/").status_code == 401
    assert stranger.get("/api/trips/").status_code == 200


class Sender:
    """A client that sends its body piece by piece, and then no more."""

    def __init__(self, *messages: dict[str, Any]) -> None:
        self.messages = list(messages)

    async def receive(self) -> dict[str, Any]:
        if not self.messages:
            await asyncio.sleep(3600.0)
        return self.messages.pop(0)


def piece(*, more: bool) -> dict[str, Any]:
    return {"type": "http.request", "body": b"x", "more_body": more}


def test_a_body_that_does_not_come_on_is_taken_for_broken_off(monkeypatch: pytest.MonkeyPatch):
    monkeypatch.setattr(patience, "IDLE_S", 0.05)

    async def play() -> None:
        receive = in_time(Sender(piece(more=True)).receive)
        assert await receive() == piece(more=True)
        assert (await receive())["type"] == "http.disconnect"

    played(play())


def test_a_body_that_drips_has_an_end_and_one_that_is_whole_may_be_waited_on(
    monkeypatch: pytest.MonkeyPatch
):
    monkeypatch.setattr(patience, "WHOLE_S", -1.0)

    async def drip() -> None:
        receive = in_time(Sender().receive)
        assert (await receive())["type"] == "http.disconnect"

    played(drip())
    monkeypatch.setattr(patience, "WHOLE_S", 60.0)
    monkeypatch.setattr(patience, "IDLE_S", 0.02)

    async def whole() -> None:
        receive = in_time(Sender(piece(more=False)).receive)
        await receive()
        with pytest.raises(TimeoutError):
            # Nobody ends it: what is computed may take its time.
            await asyncio.wait_for(receive(), 0.2)

    played(whole())


@pytest.mark.parametrize(("told", "whole"), [("9000", False), ("14", True), ("", True)])
def test_a_file_that_broke_off_on_its_way_is_not_taken_for_a_whole_one(told: str, whole: bool):
    class Parser(RawParser):
        media_type = "text/plain"
        most_bytes = 100

    def parse() -> bytes:
        asked = {"request": SimpleNamespace(META={"CONTENT_LENGTH": told})}
        return bytes(Parser().parse(io.BytesIO(b"$SDDPT,1.0,0.0"), "text/plain", asked))

    if whole:
        assert parse() == b"$SDDPT,1.0,0.0"
    else:
        with pytest.raises(ParseError, match="broke off after 14 of 9000 bytes"):
            parse()


def test_of_a_file_that_is_too_large_one_byte_more_is_read():
    class Parser(RawParser):
        media_type = "text/plain"
        most_bytes = 100

    assert len(Parser().parse(io.BytesIO(b"x" * 5000), "text/plain")) == 101


def test_the_database_s_files_are_closed_to_others(tmp_path: Path):
    path = tmp_path / "old.sqlite3"
    sqlite3.connect(path).close()
    wal = tmp_path / "old.sqlite3-wal"
    for file in (path, wal):
        file.touch()
        file.chmod(0o644)

    class Connection:
        settings_dict = {"NAME": str(path)}

    close_to_others(None, Connection())
    assert [file.stat().st_mode & 0o777 for file in (path, wal)] == [0o600, 0o600]
