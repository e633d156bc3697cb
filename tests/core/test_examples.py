"""The examples in the core's docstrings are true."""

from __future__ import annotations

import doctest
import pkgutil
from importlib import import_module
from pathlib import Path

import pytest

import coldwake_core

MODULES = [
    name
    for name in (m.name for m in pkgutil.walk_packages(coldwake_core.__path__, "coldwake_core."))
    if ">>>" in Path(import_module(name).__file__ or "").read_text("utf-8")
]


@pytest.mark.parametrize("name", MODULES)
def test_examples_are_true(name: str):
    result = doctest.testmod(import_module(name))
    assert result.attempted > 0
    assert result.failed == 0
