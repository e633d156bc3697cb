"""Shared fixtures: settings that write nowhere near the user's data."""

from __future__ import annotations

import atexit
import os
import shutil
import tempfile
from pathlib import Path
from typing import Any

import pytest
from hypothesis import settings

if "COLDWAKE_VAR" not in os.environ:
    # Made once: the workers are given it, and it goes with who made it.
    os.environ["COLDWAKE_VAR"] = tempfile.mkdtemp(prefix="coldwake-test-")
    atexit.register(shutil.rmtree, os.environ["COLDWAKE_VAR"], ignore_errors=True)
os.environ["COLDWAKE_DEMO"] = "1"
# The same examples at every run of the pipeline; new ones at every run by hand.
settings.register_profile(
    "quick",
    max_examples=int(os.environ.get("EXAMPLES", "40")),
    deadline=None,
    derandomize=bool(os.environ.get("CI")),
)
settings.load_profile("quick")
# Playwright's own loop runs in the thread that sets up the database.
os.environ["DJANGO_ALLOW_ASYNC_UNSAFE"] = "true"


@pytest.fixture(autouse=True)
def test_client_is_at_this_machine(settings: Any) -> None:
    """Django's test client calls the server by a name of its own."""
    settings.LOCAL_NAMES = [*settings.LOCAL_NAMES, "testserver"]


@pytest.fixture(scope="session")
def django_db_setup(django_db_setup: None, django_db_blocker: Any) -> None:
    """The demo, loaded once as the README's command loads it: every test gets it fresh."""
    from django.core.management import call_command

    with django_db_blocker.unblock():
        call_command("load_demo", verbosity=0)


@pytest.fixture
def demo(db: None) -> Any:
    """The demo's open trip."""
    from trips.models import Trip

    return Trip.objects.get(name="April morning")


@pytest.fixture
def user(demo: Any) -> Any:
    """The demo account."""
    return demo.owner


@pytest.fixture
def client_in(user: Any) -> Any:
    """An API client logged in to the demo account."""
    from rest_framework.test import APIClient

    client = APIClient()
    client.force_login(user)
    return client


@pytest.fixture
def stranger(db: None) -> Any:
    """An API client of another user."""
    from django.contrib.auth import get_user_model
    from rest_framework.test import APIClient

    client = APIClient()
    client.force_login(get_user_model().objects.create_user("stranger", password="long-enough-1"))
    return client


@pytest.fixture(scope="session")
def demo_database(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """A database with the demo, as the README's commands make it: made once, copied by servers."""
    from running import RunningServer

    return RunningServer(tmp_path_factory.mktemp("template")).database
