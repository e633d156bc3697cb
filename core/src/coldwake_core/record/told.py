"""What is told of a bite afterwards, of a pass through fish, and of whatever else was seen."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Any, Final, Literal

from ..checks import require_number, require_text
from ..errors import InvalidInputError
from .fold_beside import look_again
from .payloads import PassBegun, TurnBegun, check_photo
from .state import Pass, TimedNote, ToldBite, TripState, Turn

SAME_BITE_S: Final = 1800.0
"""What is told of a rod later than this after its bite is told of nothing."""

Felt = Literal["short", "solid"]
LostWhere = Literal["at_once", "fight", "at_the_boat"]
Doing = Literal[
    "steady", "dropping", "rising", "popped", "inside_turn", "outside_turn", "surging", "easing",
    "long_lined",
]


@dataclass(frozen=True, slots=True, kw_only=True)
class BiteTold:
    """More about the latest bite of a rod: how it felt, where the fish came off, what the line did.

    Parameters
    ----------
    rod_id : str
        The rod.
    felt : {'short', 'solid'} or None
        A nip, or taken.
    lost : {'at_once', 'fight', 'at_the_boat'} or None
        Where it came off.
    doing : Doing or None
        What the line was doing, where what the app took it to do is not right.
    """

    rod_id: str
    felt: Felt | None = None
    lost: LostWhere | None = None
    doing: Doing | None = None

    def check(self) -> None:
        """Raise InvalidInputError where nothing is told."""
        if self.felt is None and self.lost is None and self.doing is None:
            raise InvalidInputError("felt", None, "how it felt, where it came off, or the line")


@dataclass(frozen=True, slots=True, kw_only=True)
class Noted:
    """Something seen: birds, a place to come back to, or what somebody wants to remember."""

    kind: Literal["note", "birds", "waypoint"]
    text: str = ""
    latitude_deg: float | None = None
    longitude_deg: float | None = None
    photo_id: str | None = None

    def check(self) -> None:
        """Raise InvalidInputError unless a note says or shows something and a place is whole."""
        check_photo(self.photo_id)
        wordless = self.kind != "note" or self.photo_id is not None
        require_text("text", self.text, longest=300, empty=wordless)
        if (self.latitude_deg is None) != (self.longitude_deg is None):
            raise InvalidInputError("latitude_deg", self.latitude_deg, "both, or neither")
        if self.latitude_deg is not None and self.longitude_deg is not None:
            require_number("latitude_deg", self.latitude_deg, low=-85.0, high=85.0)
            require_number("longitude_deg", self.longitude_deg, low=-180.0, high=180.0)


def _told(state: TripState, at_s: float, item: BiteTold, _: str) -> None:
    latest = next((b for b in reversed(state.bites) if b[1] == item.rod_id), None)
    if latest is None or at_s - latest[0] > SAME_BITE_S:
        return
    bite_s = next(b[0] for b in reversed(state.bites) if b[1] == item.rod_id and b[2] != "lost")
    known = state.told.get((item.rod_id, bite_s), ToldBite(bite_s, item.rod_id))
    given = {
        name: value for name in ("felt", "lost", "doing")
        if (value := getattr(item, name)) is not None
    }
    state.told[item.rod_id, bite_s] = replace(known, **given)


def begin_pass(state: TripState, at_s: float, item: PassBegun, _: str) -> None:
    """Begin a pass; the one before is over.

    Parameters
    ----------
    state : TripState
        Changed in place.
    at_s : float
        When, seconds since 1970-01-01 UTC.
    item : PassBegun
        Which way it goes.
    _ : str
        Id of the event, which nobody asks for.
    """
    _ended(state, at_s, None, "")
    state.passes.append(Pass(at_s, toward_deg=item.toward_deg))


def _ended(state: TripState, at_s: float, _: Any, __: str) -> None:
    if state.passes and state.passes[-1].end_s is None:
        state.passes[-1] = replace(state.passes[-1], end_s=at_s)


def begin_turn(state: TripState, at_s: float, item: TurnBegun, _: str) -> None:
    """Begin a turn; the one before is over, and lines in turns are looked at again.

    Parameters
    ----------
    state : TripState
        Changed in place.
    at_s : float
        When, seconds since 1970-01-01 UTC.
    item : TurnBegun
        To which side.
    _ : str
        Id of the event, which nobody asks for.
    """
    _straight(state, at_s, None, "")
    state.turns.append(Turn(at_s, item.toward))
    look_again(state, at_s, "turn")


def _straight(state: TripState, at_s: float, _: Any, __: str) -> None:
    if state.turns and state.turns[-1].end_s is None:
        state.turns[-1] = replace(state.turns[-1], end_s=at_s)


def _noted(state: TripState, at_s: float, item: Noted, event_id: str) -> None:
    place = (
        None if item.latitude_deg is None or item.longitude_deg is None
        else (item.latitude_deg, item.longitude_deg)
    )
    state.notes.append(TimedNote(
        at_s, item.kind, item.text, place, event_id, item.photo_id
    ))


APPLY_TOLD: Final[dict[str, Callable[[TripState, float, Any, str], None]]] = {
    "bite_told": _told, "pass_begun": begin_pass, "pass_ended": _ended, "noted": _noted,
    "turn_begun": begin_turn, "turn_ended": _straight,
}
