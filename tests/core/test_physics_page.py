"""docs/physics.md says what the code does."""

from __future__ import annotations

from coldwake_core.lines.assumed import ASSUMED, SPREADS
from coldwake_core.lines.calibration import PARAMETERS, InputSpread
from paths import ROOT, script

PAGE = (ROOT / "docs/physics.md").read_text("utf-8")


def test_tables_of_the_page_are_those_of_the_code():
    assert script("write_physics").written(PAGE) == PAGE, (
        "docs/physics.md is stale: run scripts/write_physics.py"
    )


def test_every_assumed_constant_has_a_source_and_says_what_hangs_on_it():
    assert len(ASSUMED) > 20
    for item in ASSUMED:
        assert item.source
        assert item.hangs
        # Published, from memory, geometry or judged: nothing else.
        said = ("19", "20", "judged", "memory", "practice", "ellipse", "line held", "mean of")
        assert any(word in item.source for word in said), item.name


def test_every_parameter_of_the_fit_has_a_stated_spread():
    assert set(SPREADS) == {*PARAMETERS, "speed_mps"}
    stated = InputSpread()
    assert all(getattr(stated, name) == SPREADS[name].value > 0.0 for name in SPREADS)
