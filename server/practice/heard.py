"""The instruments of a practised day: they speak in sentences and are heard as any others."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Final

import numpy as np

from coldwake_core.boat.instruments import Board, News, Source, Sources, Thinner
from coldwake_core.lakesim.sailing import Sailing
from coldwake_core.lakesim.spoken import TRANSDUCER_M, Around, says
from instruments.sentences import Reader

MINUTE_S: Final = 60
SOURCE: Final = Source(
    id="practice", name="practice boat", kind="udp", port=1024, transducer_m=TRANSDUCER_M
)
MOST_DAYS: Final = 8
"""Days whose instruments are held in memory; another begins as if just switched on."""


@dataclass
class Ears:
    """What hears one day's instruments: what they said last, and what of it was new."""

    reader: Reader = field(default_factory=Reader)
    board: Board = field(default_factory=lambda: Board(Sources(sources=(SOURCE,))))
    thinner: Thinner = field(default_factory=Thinner)

    def minute(
        self, boat: Sailing, rng: np.random.Generator, *, begin_s: float, marks: tuple[float, ...],
        surface_degc: float, fall_m: float, sails: bool,
    ) -> list[tuple[float, News]]:
        """Sail a minute second by second, and return what was heard that is new, and when.

        Depths are in m, ``fall_m`` what the level lies under the chart's; a boat that does not
        sail lies still.
        """
        found = []
        for second in range(MINUTE_S):
            if sails:
                boat.step(1.0)
            at_s = begin_s + second
            # Fish come one after the other, so that two of them are not taken for one.
            nth, of = divmod(second * len(marks), MINUTE_S)
            mark_m = marks[nth] if marks and of < len(marks) else None
            around = Around(
                depth_m=max(boat.depth_m - fall_m, 0.3), surface_degc=surface_degc, mark_m=mark_m
            )
            for line in says(boat, around, at_s, rng):
                for said in self.reader.read(line.encode("ascii")):
                    self.board.hear(SOURCE.id, said, at_s)
            found += [(at_s, one) for one in self.thinner.take(self.board.values(at_s), at_s)]
        return found


_held: dict[tuple[object, int], Ears] = {}


def ears_of(day: object, minute: int) -> Ears:
    """Return what hears a day in a minute: the same as in the minute before, if it is known."""
    ears = _held.pop((day, minute), None) or Ears()
    while len(_held) >= MOST_DAYS:
        _held.pop(next(iter(_held)))
    _held[day, minute + 1] = ears
    return ears
