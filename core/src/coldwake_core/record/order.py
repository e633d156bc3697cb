"""In which order events happened, and which of them stand."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from typing import Final

from .events import Event
from .payloads import Undone

_RANK: Final = {"tackle_brought": 0, "rod_rigged": 1, "reading_set_aside": 3, "undone": 4}
"""Of one moment, what makes others possible comes first, and what speaks of others last."""


def standing(events: Iterable[Event]) -> list[Event]:
    """Return the events that stand: without those taken back, and without the undoings.

    Parameters
    ----------
    events : iterable of Event
        In any order, each once.

    Returns
    -------
    list of Event
        In the order they happened (``when``), the same on every device.

    Notes
    -----
    An undoing can itself be undone, by a later one only: so no chain of them runs in a circle,
    and one walk from the latest back settles all.
    """
    ordered = sorted(events, key=when)
    undone = undone_ids([event for event in ordered if isinstance(event.payload, Undone)])
    return [e for e in ordered if not isinstance(e.payload, Undone) and e.id not in undone]


def when(event: Event) -> tuple[float, int, str]:
    """Return what events are ordered by: time, then what makes others possible, then id.

    Parameters
    ----------
    event : Event
        The event.

    Returns
    -------
    (float, int, str)
        Seconds since 1970-01-01 UTC, rank of the type and the id.

    Notes
    -----
    Of two taps in the same moment the rod is rigged before its line is set, on every device.
    """
    return event.at_s, _RANK.get(event.type, 2), event.id


def undone_ids(undoings: Sequence[Event]) -> set[str]:
    """Return the ids that are taken back.

    Parameters
    ----------
    undoings : sequence of Event
        All undoings, in the order they happened.

    Returns
    -------
    set of str
        Ids of events and of undoings.
    """
    undone: set[str] = set()
    for event in reversed(undoings):
        # From the latest back: whether this one stands is settled by those after it.
        if isinstance(event.payload, Undone) and event.id not in undone:
            undone.add(event.payload.event_id)
    return undone
