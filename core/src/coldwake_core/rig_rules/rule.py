"""What a rule of the rig is, and what it finds."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Final, Literal

from .facts import RodFacts

Severity = Literal["stop", "mend", "look"]
ALL: Final = "all schools"


@dataclass(frozen=True, slots=True, kw_only=True)
class Finding:
    """A rule that speaks.

    Parameters
    ----------
    rule_id : str
        The rule.
    severity : {'stop', 'mend', 'look'}
        Wrong, better mended, or worth a look.
    school : str
        Whose rule it is.
    message, remedy : str
        What is wrong and what to do.
    """

    rule_id: str
    severity: Severity
    school: str
    message: str
    remedy: str


@dataclass(frozen=True, slots=True, kw_only=True)
class Rule:
    """A rule of the rig.

    Parameters
    ----------
    id : str
        Its key.
    severity : {'stop', 'mend', 'look'}
        How bad it is.
    school : str
        Whose rule it is.
    condition : str
        When it speaks, in words.
    message, remedy : str
        What is wrong and what to do.
    fires : callable
        Whether it speaks of a rod.
    """

    id: str
    severity: Severity
    school: str
    condition: str
    message: str
    remedy: str
    fires: Callable[[RodFacts], bool]
