"""The structure holds: one direction of imports, documented public names, units in their names."""

from __future__ import annotations

import ast
import inspect
import pkgutil
from importlib import import_module
from pathlib import Path

import pytest

import coldwake_core
from paths import ROOT

CORE = ROOT / "core/src/coldwake_core"
LAYERS = [
    "constants",
    "errors",
    "checks",
    "decode",
    "water",
    "chart",
    "lines",
    "boat",
    "gear",
    "record",
    "sonar",
    "evidence",
    "advice",
    "fish",
    "spread",
    "bridge",
]
MODULES = [
    module.name
    for module in pkgutil.walk_packages(coldwake_core.__path__, "coldwake_core.")
    if not module.ispkg
]


def imported(path: Path) -> set[str]:
    """Return the top places within the core that a file imports from."""
    names = set()
    depth = len(path.relative_to(CORE).parts)
    for node in ast.walk(ast.parse(path.read_text("utf-8"))):
        if isinstance(node, ast.ImportFrom) and node.level == depth:
            names |= {node.module.split(".")[0]} if node.module else {a.name for a in node.names}
    return names


@pytest.mark.parametrize("path", sorted(CORE.rglob("*.py")), ids=lambda p: str(p.relative_to(CORE)))
def test_core_imports_only_downward(path: Path):
    own = path.relative_to(CORE).parts[0].removesuffix(".py")
    if own == "__init__":
        return
    for name in imported(path) - {own}:
        assert LAYERS.index(name) < LAYERS.index(own), f"{path} imports {name}"


def test_core_knows_no_interface_code():
    for path in CORE.rglob("*.py"):
        for node in ast.walk(ast.parse(path.read_text("utf-8"))):
            modules = [a.name for a in node.names] if isinstance(node, ast.Import) else []
            if isinstance(node, ast.ImportFrom) and node.level == 0:
                modules.append(node.module or "")
            if path.parent.name == "spread":
                # It stays on the server, where these are; the browser never gets its files.
                modules = [m for m in modules if m.split(".")[0] not in ("numpy", "scipy")]
            for module in modules:
                assert module.split(".")[0] in {
                    "__future__",
                    "bisect",
                    "collections",
                    "copy",
                    "dataclasses",
                    "datetime",
                    "functools",
                    "itertools",
                    "json",
                    "math",
                    "re",
                    "threading",
                    "types",
                    "typing",
                }, f"{path} imports {module}"


def test_no_rule_reads_a_clock_or_a_random_number():
    for path in CORE.rglob("*.py"):
        text = path.read_text("utf-8")
        for word in ("import time", "import random", ".now(", "utcnow("):
            assert word not in text, f"{path}: {word}"


def public_functions():
    for name in MODULES:
        module = import_module(name)
        for label, item in vars(module).items():
            if inspect.isfunction(item) and item.__module__ == name and not label.startswith("_"):
                yield pytest.param(item, id=f"{name}.{label}")


@pytest.mark.parametrize("function", public_functions())
def test_every_parameter_is_documented(function):
    text = inspect.getdoc(function) or ""
    parameters = inspect.signature(function).parameters
    if parameters:
        assert "Parameters\n---" in text
    if inspect.signature(function).return_annotation not in ("None", None):
        assert "Returns\n---" in text
    for name in parameters:
        assert any(
            name in line.split(" : ")[0].replace(",", " ").split()
            for line in text.splitlines()
            if " : " in line
        ), name


UNITS = {
    "_m": " m",
    "_mps": "m/s",
    "_n": " N",
    "_npm": "N/m",
    "_kg": "kg",
    "_rad": "rad",
    "_degc": "Celsius",
    "_s": "second",
    "_kgpm3": "kg/m3",
    "_min": "minute",
}


@pytest.mark.parametrize("function", public_functions())
def test_unit_suffixes_and_documents_agree(function):
    text = inspect.getdoc(function) or ""
    for name in inspect.signature(function).parameters:
        for suffix, unit in UNITS.items():
            if name.endswith(suffix) and not name.endswith(("_points_m",)):
                block = text.split(name, 1)[1] if name in text else ""
                assert unit.strip().lower() in block.split("\n\n")[0].lower(), name
