"""What a task of a lesson is: what is shown, what is asked, and what came of an answer."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

from ..checks import require_choice, require_number
from ..errors import InvalidInputError
from ..sonar.drill import DrillScreen

Quantity = Literal["speed", "long", "temperature", "degrees", "count", "seconds", "words"]
AskKind = Literal["choice", "number", "order"]
MOST_GIVEN = 20


@dataclass(frozen=True, slots=True, kw_only=True)
class Fact:
    """Something that is told.

    Parameters
    ----------
    label : str
        What it is.
    quantity : Quantity
        What is measured, in SI.
    value : float or None
        How much; None where words say it.
    to : float or None
        Where it ends, for a range.
    words : str
        In words.
    """

    label: str
    quantity: Quantity = "words"
    value: float | None = None
    to: float | None = None
    words: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class Option:
    """One answer among several: its words, or the depth that it says, m."""

    key: str
    words: str
    depth_m: float | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Ask:
    """One question.

    Parameters
    ----------
    key, label : str
        Which, and how it is put.
    kind : {'choice', 'number', 'order'}
        What answers it.
    options : tuple of Option
        Of a choice, or what is brought into order.
    quantity : Quantity
        Of a number, in SI.
    low, high : float
        Between which a number lies.
    """

    key: str
    label: str
    kind: AskKind
    options: tuple[Option, ...] = ()
    quantity: Quantity = "words"
    low: float = 0.0
    high: float = 0.0


@dataclass(frozen=True, slots=True, kw_only=True)
class Beside:
    """A lure seen beside the boat.

    Parameters
    ----------
    outline : {'blade', 'spoon', 'plug'}
        What is drawn.
    swing_deg : float
        To either side, degrees.
    beat_hz : float
        Swings in a second.
    turns_over : bool
        Whether it goes right round.
    aside_deg : float
        How far off the line of the boat its middle is, degrees.
    """

    outline: Literal["blade", "spoon", "plug"]
    swing_deg: float
    beat_hz: float
    turns_over: bool
    aside_deg: float


@dataclass(frozen=True, slots=True, kw_only=True)
class InColumn:
    """A lure in the column: its name and depth, m."""

    name: str
    depth_m: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Column:
    """Water from the side.

    Parameters
    ----------
    bottom_m : float
        Depth of the bottom, m.
    marks : tuple of float
        Depths of fish that were marked, m.
    lures : tuple of InColumn
        What hangs in it.
    """

    bottom_m: float
    marks: tuple[float, ...]
    lures: tuple[InColumn, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class LogRod:
    """A rod of a log: what is on it, minutes of its hits, minutes at which it was changed, and
    its depth, m, where that matters.
    """

    name: str
    words: str
    hits: tuple[float, ...]
    changed: tuple[float, ...] = ()
    depth_m: float | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Log:
    """Hits of the rods over some hours.

    Parameters
    ----------
    minutes : float
        How long.
    rods : tuple of LogRod
        Each rod's.
    marks : tuple of float
        Minutes at which fish were marked under the boat.
    """

    minutes: float
    rods: tuple[LogRod, ...]
    marks: tuple[float, ...] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class OnPlan:
    """A place seen from above: m to starboard of the boat and m ahead of it."""

    side_m: float
    ahead_m: float


@dataclass(frozen=True, slots=True, kw_only=True)
class TurnLook:
    """A boat from above as it begins a turn, its lines still straight behind it.

    Parameters
    ----------
    toward : {'port', 'starboard'}
        To which side it turns.
    radius_m : float
        Of the turn, m.
    tips, lures : tuple of OnPlan
        Rod tips and lures of rods 1, 2, 3.
    """

    toward: Literal["port", "starboard"]
    radius_m: float
    tips: tuple[OnPlan, ...]
    lures: tuple[OnPlan, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class Task:
    """What is shown and asked.

    Parameters
    ----------
    words : str
        What is to be done.
    asks : tuple of Ask
        Every one has to be answered.
    facts : tuple of Fact
        What is known.
    beside : Beside or None
        A lure beside the boat.
    column : Column or None
        Water from the side.
    log : Log or None
        What the rods did.
    screen : DrillScreen or None
        A piece of sonar screen.
    turn : TurnLook or None
        A boat that begins a turn.
    tries : int
        How many stretches may be fished before answering.
    dials : tuple of Ask
        What may be set for each stretch that is fished.
    """

    words: str
    asks: tuple[Ask, ...]
    facts: tuple[Fact, ...] = ()
    beside: Beside | None = None
    column: Column | None = None
    log: Log | None = None
    screen: DrillScreen | None = None
    turn: TurnLook | None = None
    tries: int = 0
    dials: tuple[Ask, ...] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class Given:
    """The answer to one question: the one of the three that its kind wants."""

    key: str
    choice: str = ""
    number: float | None = None
    order: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class Judged:
    """How one question was answered.

    Parameters
    ----------
    key : str
        Which question.
    right : bool
        Whether it was answered right.
    words : str
        What is right, and why.
    facts : tuple of Fact
        In numbers.
    path : tuple of OnPlan
        Where its line lies, where that tells why.
    """

    key: str
    right: bool
    words: str
    facts: tuple[Fact, ...] = ()
    path: tuple[OnPlan, ...] = ()


Answers = Mapping[str, Given]


@dataclass(frozen=True, slots=True, kw_only=True)
class Made:
    """A task, how its answers are judged, and an answer that is right."""

    task: Task
    judge: Callable[[Answers], tuple[Judged, ...]]
    solution: tuple[Given, ...]


def check_answers(asks: Sequence[Ask], given: Sequence[Given]) -> Answers:
    """Return answers by their questions.

    Parameters
    ----------
    asks : sequence of Ask
        What was asked.
    given : sequence of Given
        What was answered.

    Returns
    -------
    mapping of str to Given

    Raises
    ------
    InvalidInputError
        If a question is left open, is none, or is answered with what it does not take.
    """
    by_key = {one.key: one for one in given[:MOST_GIVEN]}
    for ask in asks:
        one = by_key.get(ask.key)
        if one is None:
            raise InvalidInputError(ask.key, None, "an answer to every question")
        if ask.kind == "number":
            if one.number is None:
                raise InvalidInputError(ask.key, None, "a number")
            require_number(ask.key, one.number, low=ask.low, high=ask.high)
        elif ask.kind == "choice":
            require_choice(ask.key, one.choice, tuple(option.key for option in ask.options))
        elif sorted(one.order) != sorted(option.key for option in ask.options):
            raise InvalidInputError(ask.key, list(one.order), "each of the acts once")
    return {ask.key: by_key[ask.key] for ask in asks}


def choice(key: str, label: str, options: Sequence[tuple[str, str]]) -> Ask:
    """Return a question with a choice of answers.

    Parameters
    ----------
    key, label : str
        Which, and how it is put.
    options : sequence of (str, str)
        Key and words of each.

    Returns
    -------
    Ask
    """
    return Ask(
        key=key, label=label, kind="choice",
        options=tuple(Option(key=one, words=words) for one, words in options),
    )
