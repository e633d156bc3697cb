"""Records written by an earlier version: what is understood is fished on, the rest is said.

A check that was tightened since must never keep a trip from opening.
"""

from __future__ import annotations

import copy
import re
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Any, Final

from ..decode import decode
from ..errors import CoreError, InvalidInputError
from .events import Event, decode_event
from .trip import Trip

_ITEM: Final = re.compile(r"trip\.(?:(outfit)\.)?([a-z_]+)\[([0-9]+)\]")
_LEFT_OUT: Final = re.compile(r"trip\.(chart|rules|plan)\b")
_MOST: Final = 500


@dataclass(frozen=True, slots=True, kw_only=True)
class Unread:
    """Something in the record that this version does not understand.

    Parameters
    ----------
    id : str
        Id of the event, or the field of the trip.
    what : str
        Type of the event, or "trip".
    message : str
        What is wrong with it.
    """

    id: str
    what: str
    message: str


def read_events(documents: Iterable[object]) -> tuple[list[Event], tuple[Unread, ...]]:
    """Return events from the record, and those that are not understood.

    Parameters
    ----------
    documents : iterable of object
        Events in JSON, admitted once.

    Returns
    -------
    (list of Event, tuple of Unread)
    """
    events, unread = [], []
    for document in documents:
        try:
            events.append(decode_event(document))
        except CoreError as error:
            known: Any = document if isinstance(document, Mapping) else {}
            unread.append(Unread(
                id=str(known.get("id", ""))[:60], what=str(known.get("type", ""))[:60],
                message=error.message,
            ))
    return events, tuple(unread)


def read_trip(document: Any) -> tuple[Trip, tuple[Unread, ...]]:
    """Return what a trip started with, and what of it is not understood.

    Parameters
    ----------
    document : dict
        The trip in JSON.

    Returns
    -------
    (Trip, tuple of Unread)
        Without the pieces, readings, chart or rules that cannot be read.

    Raises
    ------
    InvalidInputError
        If the trip itself cannot be read: its name, species, times or boat.
    """
    unread: list[Unread] = []
    while True:
        try:
            return decode(Trip, document, field="trip"), tuple(unread)
        except InvalidInputError as error:
            if not unread:
                document = copy.deepcopy(document)
            if len(unread) >= _MOST or not _take_out(document, error.field):
                raise
            unread.append(Unread(id=error.field, what="trip", message=error.message))


def _take_out(document: Any, field: str) -> bool:
    """Take out what a field stands in; say whether anything could be."""
    item, whole = _ITEM.match(field), _LEFT_OUT.match(field)
    if whole:
        document[whole[1]] = None
        return True
    if field in ("trip.earlier", "trip.keep_out"):
        document[field.removeprefix("trip.")] = []
        return True
    if item is None:
        return False
    holder = document["outfit"] if item[1] else document
    del holder[item[2]][int(item[3])]
    return True
