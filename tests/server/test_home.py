"""The own network: an authority made once, and nothing without a lock but how to get one."""

from __future__ import annotations

import os
import ssl
import subprocess
import sys
from datetime import UTC, datetime, timedelta

import pytest
from django.test import Client

from home.certificates import RENEW_DAYS, make_identity
from paths import ROOT

NAMES = ["localhost", "boat", "boat.local"]
NOW = datetime(2026, 4, 14, tzinfo=UTC)


def shakes_hands(identity, name):
    """Whether a client that believes this authority, and no other, believes the server by a name.

    Openssl's own handshake, in memory: what a browser does.
    """
    client = ssl.create_default_context(cafile=str(identity.authority))
    server = ssl.SSLContext(ssl.PROTOCOL_TLS_SERVER)
    server.load_cert_chain(identity.server, identity.server_key)
    there, back = ssl.MemoryBIO(), ssl.MemoryBIO()
    ends = [
        client.wrap_bio(back, there, server_hostname=name),
        server.wrap_bio(there, back, server_side=True),
    ]
    done = [False, False]
    for _ in range(10):
        for i, end in enumerate(ends):
            try:
                end.do_handshake()
                done[i] = True
            except ssl.SSLWantReadError:
                continue
            except ssl.SSLError:
                return False
    return all(done)


def test_a_phone_that_believes_the_authority_believes_this_machine_by_its_own_names(tmp_path):
    identity = make_identity(tmp_path, NAMES, ["127.0.0.1", "192.168.4.7"])
    for name in (*NAMES, "127.0.0.1", "192.168.4.7"):
        assert shakes_hands(identity, name), name
    for name in ("example.org", "192.168.4.8", "boats.local"):
        assert not shakes_hands(identity, name), name
    for key in (identity.authority_key, identity.server_key):
        assert key.stat().st_mode & 0o777 == 0o600
    assert tmp_path.stat().st_mode & 0o777 == 0o700


def test_whoever_stole_the_authority_could_not_be_a_bank(tmp_path):
    # The same key signs for a public name: no client takes it.
    make_identity(tmp_path, NAMES, ["127.0.0.1"])
    stolen = make_identity(tmp_path, [*NAMES, "bank.example.org"], ["127.0.0.1", "93.184.215.14"])
    assert not shakes_hands(stolen, "bank.example.org")
    assert not shakes_hands(stolen, "93.184.215.14")


def test_the_authority_is_made_once_and_the_certificate_when_it_has_to_be(tmp_path):
    first = make_identity(tmp_path, NAMES, ["127.0.0.1"], now=NOW)
    authority, made = first.authority.read_bytes(), first.server.read_bytes()
    again = make_identity(tmp_path, NAMES, ["127.0.0.1"], now=NOW + timedelta(days=30))
    assert again.server.read_bytes() == made
    moved = make_identity(tmp_path, NAMES, ["127.0.0.1", "10.0.0.9"], now=NOW).server.read_bytes()
    assert moved != made
    late = NOW + timedelta(days=397 - RENEW_DAYS + 2)
    renewed = make_identity(tmp_path, NAMES, ["127.0.0.1"], now=late).server.read_bytes()
    assert renewed not in (made, moved)
    (tmp_path / "server.crt").write_text("spoilt")
    mended = make_identity(tmp_path, NAMES, ["127.0.0.1"], now=late)
    assert mended.server.read_bytes().startswith(b"-----BEGIN")
    assert mended.authority.read_bytes() == authority


@pytest.fixture
def served(settings, tmp_path):
    settings.HTTPS_PORT, settings.TLS = 8443, tmp_path
    return make_identity(tmp_path, NAMES, ["127.0.0.1"])


@pytest.mark.django_db
def test_without_a_lock_there_is_only_the_page_that_says_how_to_get_one(served):
    client = Client()
    for path in ("/", "/fish", "/api/session/", "/api/trips/"):
        answer = client.get(path)
        assert (answer.status_code, answer["Location"]) == (302, "/trust/"), path
    page = client.get("/trust/")
    assert b"https://testserver:8443/" in page.content
    assert b"VPN and device management" in page.content
    assert b"Encryption and credentials" in page.content
    assert b"<svg" in client.get("/trust/address.svg").content
    given = client.get("/trust/cold-wake.crt")
    assert given.content == served.authority.read_bytes()
    assert b"PRIVATE" not in given.content
    assert client.get("/api/session/", secure=True).status_code == 200
    assert client.post("/trust/", {}).status_code == 405


@pytest.mark.django_db
def test_on_its_own_machine_nothing_asks_for_a_lock_and_no_certificate_is_given():
    client = Client()
    assert client.get("/api/session/").status_code == 200
    assert client.get("/trust/cold-wake.crt").status_code == 404
    assert b"HTTPS=1 make run" in client.get("/trust/").content


def test_settings_of_the_own_network_pass_the_framework_s_own_check(tmp_path):
    own = {k: v for k, v in os.environ.items() if k != "DJANGO_ALLOW_ASYNC_UNSAFE"}
    said = subprocess.run(
        [sys.executable, "server/manage.py", "check", "--deploy", "--fail-level", "WARNING"],
        cwd=ROOT, capture_output=True, text=True, check=False,
        env={**own, "COLDWAKE_HTTPS": "8443", "COLDWAKE_VAR": str(tmp_path)},
    )
    assert said.returncode == 0, said.stderr
