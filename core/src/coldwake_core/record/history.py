"""The events of a trip in the order they happened, folded as far as each question needs.

A tap at the end of a long day is one step on from the state before it. What comes late, or takes
something back, is folded anew from the nearest state that was kept before it.
"""

from __future__ import annotations

from bisect import bisect_left, bisect_right, insort
from collections.abc import Iterable
from typing import Final

from ..errors import InvalidInputError, UnknownItemError
from .admit import check_against
from .events import Event
from .fold import apply, begin
from .order import undone_ids, when
from .payloads import Undone
from .sound import faults
from .state import TripState
from .trip import Trip

KEEP_EVERY: Final = 256
"""A state is kept after so many events, so that a late one folds at most as many anew."""
_CHANGES_RODS: Final = frozenset({
    "rod_rigged", "line_set", "move_taken", "tackle_brought", "undone", "tip_moved", "board_reset",
})
"""Events after which a rod may be one that cannot be shown."""

Key = tuple[float, int, str]


class History:
    """The record of a trip, as far as it is known here.

    Parameters
    ----------
    trip : Trip
        What the trip started with.
    events : iterable of Event
        What has happened, in any order; an id may come twice.
    """

    def __init__(self, trip: Trip, events: Iterable[Event] = ()) -> None:
        self.trip = trip
        self.events: dict[str, Event] = {}
        self._order: list[Key] = []
        self._undoings: list[Event] = []
        self._undone: set[str] = set()
        # States that were kept, by how many events of the order they hold; never changed.
        self._kept: list[tuple[int, TripState]] = [(0, begin(trip))]
        self.insert(events)

    def fork(self) -> History:
        """Return a record that can go on without this one.

        Returns
        -------
        History
        """
        other = History.__new__(History)
        other.trip, other.events = self.trip, dict(self.events)
        other._order, other._undoings = list(self._order), list(self._undoings)
        other._undone, other._kept = set(self._undone), list(self._kept)
        return other

    def until(self, at_s: float) -> History:
        """Return the record as it is known now, as far as it had come at a moment.

        Parameters
        ----------
        at_s : float
            The moment, seconds since 1970-01-01 UTC: what happened at it is in.

        Returns
        -------
        History
            What was taken back since, whenever that was, is not in it.
        """
        other = self.fork()
        count = bisect_right(self._order, at_s, key=lambda key: key[0])
        gone = {key[2] for key in self._order[count:]}
        del other._order[count:]
        other.events = {key: event for key, event in self.events.items() if key not in gone}
        other._forget(count)
        return other

    @property
    def state(self) -> TripState:
        """What the events add up to. Shared: copy it before changing it."""
        return self._folded(len(self._order))

    def insert(self, events: Iterable[Event]) -> None:
        """Take events that have been admitted elsewhere: the server's, or those kept here.

        Parameters
        ----------
        events : iterable of Event
            In any order; those known already change nothing.
        """
        fresh = [event for event in events if event.id not in self.events]
        if not fresh:
            return
        undoings = False
        for event in fresh:
            if event.id in self.events:
                continue
            self.events[event.id] = event
            if isinstance(event.payload, Undone):
                self._undoings.append(event)
                undoings = True
            else:
                self._order.append(when(event))
        self._order.sort()
        plain = [when(event) for event in fresh if not isinstance(event.payload, Undone)]
        if plain:
            self._forget(bisect_left(self._order, min(plain)))
        if undoings:
            self._settle_undone()

    def admit(self, event: Event, *, here: bool = False) -> None:
        """Take an event that happened, when the record with it can be shown.

        Parameters
        ----------
        event : Event
            The event; one that is known changes nothing.
        here : bool
            Whether it is being tapped on this very device: then the last sounding it knows is the
            bottom. What another device tapped may have been tapped over deeper water.

        Raises
        ------
        UnknownItemError
            If it names something that was not aboard, or takes back what never was.
        InvalidInputError
            If it could not be at its time, or a rod could not be shown after it; nothing is
            changed then.

        Notes
        -----
        An event is held against what stood at its own time: what another device sounds, takes back
        or changes later is no reason to refuse it.
        """
        if event.id in self.events:
            return
        if isinstance(event.payload, Undone):
            self._admit_undoing(event, event.payload)
        else:
            self._admit_plain(event, here=here)

    def _admit_plain(self, event: Event, *, here: bool) -> None:
        at = bisect_left(self._order, when(event))
        before = self._folded(at)
        try:
            after = _after(before, event, here=here)
        except InvalidInputError:
            # What it names may have been aboard then, and been taken back since.
            if not any(when(undoing) > when(event) for undoing in self._undoings):
                raise
            _after(self._as_known(event), event, here=here)
            after = before.copy()
            apply(after, event)
        self.events[event.id] = event
        insort(self._order, when(event))
        self._forget(at)
        # A late one is often followed by more of its kind: go on from here.
        self._keep(at + 1, before if event.id in self._undone else after)

    def _as_known(self, event: Event) -> TripState:
        """The state before an event as it was known then: without what was taken back later."""
        earlier = [known for known in self.events.values() if when(known) < when(event)]
        return History(self.trip, earlier).state

    def _admit_undoing(self, event: Event, payload: Undone) -> None:
        target = self.events.get(payload.event_id)
        if target is None:
            raise UnknownItemError("payload.event_id", payload.event_id, "an event of this trip")
        if isinstance(target.payload, Undone) and when(target) >= when(event):
            raise InvalidInputError(
                "payload.event_id", payload.event_id, "an event that happened before this one"
            )
        tried = self.fork()
        tried.insert([event])
        before = faults(self._folded(bisect_left(self._order, when(event))))
        after = tried._folded(bisect_left(tried._order, when(event)))
        _refuse_new(before, after, what="this is taken back")
        self.events, self._order = tried.events, tried._order
        self._undoings, self._undone, self._kept = tried._undoings, tried._undone, tried._kept

    def _settle_undone(self) -> None:
        """Work out anew what stands, and forget the states that held what does no longer."""
        self._undoings.sort(key=when)
        undone = undone_ids(self._undoings)
        changed = [
            when(self.events[key]) for key in undone ^ self._undone
            if key in self.events and not isinstance(self.events[key].payload, Undone)
        ]
        self._undone = undone
        if changed:
            self._forget(bisect_left(self._order, min(changed)))

    def _forget(self, at: int) -> None:
        """Drop the states that hold more than the first so many events of the order."""
        while self._kept[-1][0] > at:
            self._kept.pop()

    def _folded(self, count: int) -> TripState:
        """The state after so many events of the order."""
        held, kept = next(pair for pair in reversed(self._kept) if pair[0] <= count)
        if held == count:
            return kept
        state = kept.copy()
        for index in range(held, count):
            if index > held and index % KEEP_EVERY == 0:
                self._keep(index, state.copy())
            event = self.events[self._order[index][2]]
            if event.id not in self._undone:
                apply(state, event)
        self._keep(count, state)
        return state

    def _keep(self, count: int, state: TripState) -> None:
        """Keep a state; of those between the regular ones only the last two are worth it."""
        loose = [index for index, (held, _) in enumerate(self._kept) if held % KEEP_EVERY]
        if len(loose) > 1:
            self._kept.pop(loose[0])
        at = bisect_left(self._kept, count, key=lambda pair: pair[0])
        if at == len(self._kept) or self._kept[at][0] != count:
            self._kept.insert(at, (count, state))


def _after(before: TripState, event: Event, *, here: bool) -> TripState:
    """The state after an event, when it can follow and be shown."""
    check_against(before, event, bottom_m=before.bottom_m if here else before.deepest_m)
    after = before.copy()
    apply(after, event)
    if event.type in _CHANGES_RODS:
        _refuse_new(faults(before), after, what="this stands")
    return after


def _refuse_new(before: dict[str, InvalidInputError], after: TripState, *, what: str) -> None:
    """Raise for the first rod that could be shown before and cannot be after."""
    for rod_id, error in faults(after).items():
        if rod_id not in before:
            name = after.outfit.rod(rod_id).name
            raise InvalidInputError(
                f"payload.{error.field}", error.value,
                f"otherwise, or {name} cannot be shown once {what} ({error.message})",
                low=error.low, high=error.high, reason=error.reason,
            )

