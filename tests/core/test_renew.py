"""What `make dev` does to the core in the browser when a file of it is saved."""

import importlib
import importlib.util
import sys
from pathlib import Path

import pytest

RENEW = Path(__file__).parents[2] / "web/build/renew.py"
PACKAGE = "pond"
FIRST = {
    "pond/__init__.py": "",
    "pond/depth.py": "FEET = 20\n",
    "pond/tackle/__init__.py": "",
    "pond/tackle/spoon.py": "from ..depth import FEET\nSAID = f'a spoon at {FEET} ft'\n",
    "pond/knots.py": "TIED = object()\n",
    "pond/day.py": (
        "from . import knots\nfrom .tackle import spoon\n"
        "def told():\n    return spoon.SAID, knots.TIED\n"
    ),
}


@pytest.fixture
def bench(tmp_path, monkeypatch):
    """A package imported from one place, its workbench laying edits in another."""
    spec = importlib.util.spec_from_file_location("renew", RENEW)
    renew = importlib.util.module_from_spec(spec)
    spec.loader.exec_module(renew)
    for path, text in FIRST.items():
        (tmp_path / "first" / path).parent.mkdir(parents=True, exist_ok=True)
        (tmp_path / "first" / path).write_text(text)
    monkeypatch.setattr(sys, "path", [str(tmp_path / "first"), *sys.path])
    importlib.invalidate_caches()
    importlib.import_module("pond.day")
    yield renew.Workbench(PACKAGE, dict(FIRST), str(tmp_path / "edited"))
    for name in [name for name in sys.modules if name.split(".")[0] == PACKAGE]:
        del sys.modules[name]


def told():
    return importlib.import_module("pond.day").told()


def test_an_edit_reaches_all_that_builds_on_it_and_leaves_the_rest(bench):
    said, tied = told()
    assert said == "a spoon at 20 ft"
    assert bench.take({**FIRST, "pond/depth.py": "FEET = 35\n"}) is True
    assert told() == ("a spoon at 35 ft", tied)


def test_nothing_is_imported_anew_where_nothing_was_edited(bench):
    before = sys.modules["pond.day"]
    assert bench.take(dict(FIRST)) is False
    assert sys.modules["pond.day"] is before


@pytest.mark.parametrize("broken", ["FEET = = 1\n", "raise RuntimeError\n", "DEPTH = 1\n"])
def test_an_edit_that_cannot_be_imported_leaves_all_as_it_was(bench, broken):
    before = told()
    with pytest.raises((SyntaxError, RuntimeError, ImportError)):
        bench.take({**FIRST, "pond/depth.py": broken})
    assert told() == before
    assert importlib.import_module("pond").depth.FEET == 20
    assert bench.take({**FIRST, "pond/depth.py": "FEET = 7\n"}) is True
    assert told()[0] == "a spoon at 7 ft"


def test_an_edit_taken_back_is_seen_too(bench):
    bench.take({**FIRST, "pond/depth.py": "FEET = 35\n"})
    assert bench.take(dict(FIRST)) is True
    assert told()[0] == "a spoon at 20 ft"


def test_a_new_module_can_be_used_and_a_deleted_one_no_more(bench):
    more = {
        **FIRST,
        "pond/reels.py": "from .depth import FEET\nCLICKS = FEET * 2\n",
        "pond/depth.py": "FEET = 21\n",
        "pond/day.py": "from .reels import CLICKS\ndef told():\n    return CLICKS\n",
    }
    assert bench.take(more) is True
    assert told() == 42
    less = {path: text for path, text in more.items() if path != "pond/reels.py"}
    with pytest.raises(ImportError):
        bench.take(less)
    assert told() == 42


def test_several_edits_in_one_save(bench):
    both = {**FIRST, "pond/depth.py": "FEET = 9\n", "pond/knots.py": "TIED = 'improved'\n"}
    bench.take(both)
    assert told() == ("a spoon at 9 ft", "improved")
