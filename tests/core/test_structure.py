"""The structure holds: one direction of imports, documented public names, units in their names."""

from __future__ import annotations

import ast
import inspect
import pkgutil
import re
from importlib import import_module

import pytest

import coldwake_core
from paths import ROOT

CORE = ROOT / "core/src/coldwake_core"
SERVER = ("spread", "column", "survey", "lakesim", "season", "lessons")
COMMAND = CORE / "lakesim/bench.py"
"""The one command of the core: it reads, writes and looks at a clock."""
ALLOWED_THERE = ("numpy", "scipy", "contourpy", "shapely")
MODULES = [
    module.name
    for module in pkgutil.walk_packages(coldwake_core.__path__, "coldwake_core.")
    if not module.ispkg
]


def test_core_knows_no_interface_code():
    for path in set(CORE.rglob("*.py")) - {COMMAND}:
        for node in ast.walk(ast.parse(path.read_text("utf-8"))):
            modules = [a.name for a in node.names] if isinstance(node, ast.Import) else []
            if isinstance(node, ast.ImportFrom) and node.level == 0:
                modules.append(node.module or "")
            if path.parent.name in SERVER:
                # They stay on the server, where these are; the browser never gets their files.
                modules = [m for m in modules if m.split(".")[0] not in ALLOWED_THERE]
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
                    "operator",
                    "re",
                    "threading",
                    "types",
                    "typing",
                }, f"{path} imports {module}"


def test_no_rule_reads_a_clock_or_a_random_number():
    for path in set(CORE.rglob("*.py")) - {COMMAND}:
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


def test_most_functions_of_a_model_name_their_source():
    models = {"lines", "tow", "boat", "evidence", "water"}
    texts = [
        inspect.getdoc(case.values[0]) or "" for case in public_functions()
        if case.values[0].__module__.split(".")[1] in models
    ]
    named = sum("References\n---" in text for text in texts)
    assert named >= 0.6 * len(texts), f"{named} of {len(texts)}"


UNITS = {
    "_m": r"\bm\b|\b[Mm]etres?\b",
    "_mps": r"\bm/s\b",
    "_n": r"\bN\b",
    "_npm": r"\bN/m\b",
    "_kg": r"\bkg\b",
    "_rad": r"\brad\b",
    "_deg": r"\b[Dd]egrees?\b",
    "_degps": r"\bdegrees a second\b",
    "_degc": r"\b[Dd]egrees? Celsius\b",
    "_s": r"\bs\b|\b[Ss]econds?\b",
    "_kgpm3": r"\bkg/m3\b",
    "_min": r"\bmin\b|\b[Mm]inutes?\b",
    "_pa": r"\bPa\b",
}


def described(function) -> dict[str, str]:
    """What each parameter's own entry says, type line included, in a numpy docstring."""
    text = inspect.getdoc(function) or ""
    if "Parameters\n---" not in text:
        return {}
    section = re.split(r"\n\n\w[\w ]*\n-{3,}\n", text.split("Parameters\n", 1)[1])[0]
    found, names = {}, []
    for line in section.splitlines()[1:]:
        head = re.match(r"^(\w+(?:, \w+)*) : ", line)
        if head:
            names = head[1].split(", ")
        for name in names:
            found[name] = found.get(name, "") + line + "\n"
    return found


@pytest.mark.parametrize("function", public_functions())
def test_unit_of_every_quantity_stands_in_its_own_entry(function):
    entries = described(function)
    for name in inspect.signature(function).parameters:
        suffix = next((s for s in sorted(UNITS, key=len, reverse=True) if name.endswith(s)), None)
        if suffix is not None:
            assert re.search(UNITS[suffix], entries.get(name, "")), f"{name}: {suffix}"


def test_unit_lint_is_not_satisfied_by_a_neighbour_or_by_a_letter():
    def sample(depth_m: float, speed_mps: float) -> None:
        """Do something.

        Parameters
        ----------
        depth_m : float
            Some depth among many.
        speed_mps : float
            Its speed, m/s; a depth would be in m.
        """

    entries = described(sample)
    assert not re.search(UNITS["_m"], entries["depth_m"])
    assert re.search(UNITS["_mps"], entries["speed_mps"])


def test_nothing_is_imported_once_the_core_has_started():
    # In the browser it runs from a picture of its memory, with no library beside it.
    lazy = []
    for path in CORE.rglob("*.py"):
        if path.parent.name in SERVER:
            continue
        tree = ast.parse(path.read_text("utf-8"))
        for function in ast.walk(tree):
            if isinstance(function, ast.FunctionDef):
                lazy += [
                    f"{path}: {function.name}" for node in ast.walk(function)
                    if isinstance(node, ast.Import | ast.ImportFrom)
                ]
    assert lazy == []

