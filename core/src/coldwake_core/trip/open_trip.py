"""The open trip: its record grows, and what stands after each event is a picture of its own."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

from ..errors import InvalidInputError
from ..record.events import Event, decode_event
from ..record.history import History
from ..record.old import Unread
from ..record.sound import faults, reading_can_be
from ..record.state import TripState
from ..record.trip import Trip
from .lines import LineSolver
from .now import Now
from .solutions import Solutions


class OpenTrip:
    """A trip being fished.

    Parameters
    ----------
    trip : Trip
        What the trip started with.
    events : iterable of Event or History
        What has happened, in any order; or its record, which is taken as it is.
    solutions : Solutions, optional
        What was solved before, where another look at the trip keeps it.
    unread : tuple of Unread
        What could not be read of it.
    """

    def __init__(
        self, trip: Trip, events: Iterable[Event] | History, *,
        solutions: Solutions | None = None, unread: tuple[Unread, ...] = (),
    ) -> None:
        self.trip = trip
        self.history = events if isinstance(events, History) else History(trip, events)
        self.solutions = Solutions() if solutions is None else solutions
        self.unread = unread
        self._now: Now | None = None
        self._memo: dict[str, Any] = {}

    @property
    def now(self) -> Now:
        """The trip as it stands."""
        if self._now is None:
            state, faulty = _sound_part(self.history.state)
            self._now = Now(
                state=state, lines=LineSolver(self.trip, state, self.solutions), faulty=faulty,
                unread=self.unread, memo=self._memo,
            )
        return self._now

    def add(self, data: object) -> Event:
        """Add an event from JSON data, tapped on this device.

        Parameters
        ----------
        data : object
            The event; an id that is known changes nothing.

        Returns
        -------
        Event

        Raises
        ------
        InvalidInputError
            If it cannot be, in itself or at this point of the trip, or a rod could not be shown
            after it; nothing is changed then.
        """
        event = decode_event(data)
        self.history.admit(event, here=True)
        self._now = None
        return event

    def take(self, history: History) -> None:
        """Go on with another record of the same trip.

        Parameters
        ----------
        history : History
            The record; it is not shared with anyone who changes it.
        """
        self.history = history
        self._now = None

    def merge_events(self, events: Iterable[Event]) -> None:
        """Take events that were admitted elsewhere: other devices', or those kept here.

        Parameters
        ----------
        events : iterable of Event
            In any order; those known change nothing.
        """
        self.history.insert(events)
        self._now = None

    def replace_events(self, events: Iterable[Event]) -> None:
        """Take a new set of events, as after one was refused elsewhere.

        Parameters
        ----------
        events : iterable of Event
            All events of the trip.
        """
        self.take(History(self.trip, events))

    def tell_unread(self, unread: tuple[Unread, ...]) -> None:
        """Say what could not be read of it.

        Parameters
        ----------
        unread : tuple of Unread
            All of it.
        """
        self.unread, self._now = unread, None


def _sound_part(state: TripState) -> tuple[TripState, dict[str, InvalidInputError]]:
    """The state with the rods that cannot be shown set aside, and why for each of them.

    What is admitted can be viewed; but two devices out of touch, or a check that was tightened
    since, may leave a record in which a rod makes no sense. All others are fished on.
    """
    faulty = faults(state)
    known = [r for r in state.depth_readings if reading_can_be(state.outfit, r)]
    if not faulty and len(known) == len(state.depth_readings):
        return state, faulty
    sound = state.copy()
    sound.depth_readings = known
    for rod_id in faulty:
        sound.rods[rod_id].setup, sound.rods[rod_id].status = None, "in"
    return sound, faulty
