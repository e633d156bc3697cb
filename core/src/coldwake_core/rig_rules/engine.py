"""All rules of the rig, and what they say of a rod."""

from __future__ import annotations

from typing import Final

from .build import RIG_RULES
from .facts import RodFacts
from .rule import Finding, Rule
from .swim import SWIM_RULES

RULES: Final[tuple[Rule, ...]] = (*SWIM_RULES, *RIG_RULES)
_ORDER: Final[dict[str, int]] = {"stop": 0, "mend": 1, "look": 2}


def check_rod(rod: RodFacts) -> tuple[Finding, ...]:
    """Return what the rules say of a rod.

    Parameters
    ----------
    rod : RodFacts
        The rod.

    Returns
    -------
    tuple of Finding
        The worst first.
    """
    found = [
        Finding(
            rule_id=rule.id, severity=rule.severity, school=rule.school, message=rule.message,
            remedy=rule.remedy,
        )
        for rule in RULES if rule.fires(rod)
    ]
    return tuple(sorted(found, key=lambda item: _ORDER[item.severity]))
