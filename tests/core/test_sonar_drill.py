"""The sonar drill: what is drawn is what the cone gives, and is told from all else by its shape."""

from __future__ import annotations

import math
from collections import Counter

import pytest

from coldwake_core.errors import InvalidInputError
from coldwake_core.sonar.drill import KINDS, drill_screen, judge_drill


def pieces(kind, count=8):
    """Pieces of screen of a kind, with how long a fish under the middle would be on."""
    found = []
    for seed in range(400):
        told = judge_drill(seed, kind)
        if told.right:
            found.append((drill_screen(seed), told.middle_s))
        if len(found) == count:
            return found
    raise AssertionError(f"too few of {kind}")


def length_s(screen):
    times = [t for t, _ in screen.echoes]
    return max(times) - min(times)


def test_each_kind_comes_about_as_often():
    counts = Counter(judge_drill(seed, "under").kind for seed in range(1200))
    assert set(counts) == set(KINDS)
    assert min(counts.values()) > 120


@pytest.mark.parametrize("kind", KINDS)
def test_a_kind_can_be_told_by_what_the_cone_gives(kind):
    for screen, middle_s in pieces(kind):
        depths = [depth for _, depth in screen.echoes]
        rise = max(depths) - min(depths)
        if kind == "under":
            # As long as the cone is wide there, symmetric, its ends deeper.
            assert length_s(screen) == pytest.approx(middle_s, abs=0.3)
            assert depths[0] == pytest.approx(depths[-1], abs=0.05)
            assert depths[0] - min(depths) > 0.03
        elif kind == "aside":
            assert length_s(screen) < 0.5 * middle_s
        elif kind == "half":
            assert length_s(screen) == pytest.approx(0.5 * middle_s, abs=0.3)
            # Its middle depth is at one end.
            assert min(depths) in (depths[0], depths[-1])
        elif kind == "along":
            assert length_s(screen) > 1.5 * middle_s
            assert length_s(screen) < screen.seconds - 1.0
        elif kind == "ball":
            assert length_s(screen) == pytest.approx(screen.seconds)
            assert rise == 0.0
        else:
            assert rise > 1.5
            assert len(screen.echoes) == 90
        assert max(depths) < screen.bottom_m
        assert all(0.0 <= t <= screen.seconds for t, _ in screen.echoes)


def test_a_wrong_answer_is_told_what_it_was_and_why():
    seed = next(s for s in range(99) if judge_drill(s, "ball").right)
    told = judge_drill(seed, "bait")
    assert (told.right, told.kind) == (False, "ball")
    assert "hangs on the boat" in told.words
    assert math.isfinite(told.middle_s)


@pytest.mark.parametrize(("seed", "answer", "field"), [
    (-1, "ball", "seed"), (2_000_000, "ball", "seed"), (1, "whale", "answer"),
])
def test_what_is_none_is_refused(seed, answer, field):
    with pytest.raises(InvalidInputError) as refused:
        judge_drill(seed, answer)
    assert refused.value.field == field
