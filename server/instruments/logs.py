"""A recorded log: what is in it, and what of it says something new, by its own clock."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

import pynmea2

from coldwake_core.boat.instruments import Board, News, Source, Sources, Thinner

from .sentences import Lines, Reader, clock_of


@dataclass(frozen=True, kw_only=True)
class LogTold:
    """What is in a log: its lines, those understood, and when it begins and ends by its GPS."""

    lines: int
    good: int
    first_s: float | None
    last_s: float | None


def look(data: bytes) -> LogTold:
    """Read a log through."""
    reader, lines, count = Reader(), Lines(), 0
    first = last = None
    for line in lines.feed(data + b"\n"):
        count += 1
        reader.read(line)
        told = dated(line)
        if told is not None:
            first = told if first is None else first
            last = told
    return LogTold(
        lines=count + lines.overlong, good=reader.counts["good"], first_s=first, last_s=last
    )


def dated(line: bytes) -> float | None:
    """Return the moment that a line tells with its date, seconds since 1970-01-01 UTC."""
    if b"RMC," not in line:
        return None
    try:
        sentence = pynmea2.parse(line[line.rindex(b"$"):].decode("ascii").strip(), check=True)
        # Until its receiver has a fix its clock may be anything.
        return float(sentence.datetime.timestamp()) if sentence.status == "A" else None
    except Exception:
        return None  # counted where it is read


def news(data: bytes, source: Source) -> Iterator[tuple[float, News]]:
    """Yield what says something new in a log, with its moment by the log's own clock.

    What stands before the first dated line has no moment and is left out; a clock that is set back
    is followed again when it has passed where it was.
    """
    heard = Source(
        id=source.id, name=source.name, kind="udp", port=1024, transducer_m=source.transducer_m,
        wheel_factor=source.wheel_factor, warm_degc=source.warm_degc,
    )
    board, thinner, reader = Board(Sources(sources=(heard,))), Thinner(), Reader()
    now_s: float | None = None
    is_behind = False
    for line in Lines().feed(data + b"\n"):
        told, clock = dated(line), clock_of(line)
        if told is None and now_s is not None and clock is not None:
            # A line that tells the time of day alone, after one with its date.
            ahead = (clock - now_s % 86400.0 + 43200.0) % 86400.0 - 43200.0
            told = now_s + max(ahead, 0.0)
        if told is not None:
            is_behind = now_s is not None and told < now_s
        if told is not None and (now_s is None or told > now_s):
            if now_s is not None:
                yield from ((now_s, one) for one in thinner.take(board.values(now_s), now_s))
            now_s = told
        if now_s is None or is_behind:
            continue
        for said in reader.read(line):
            board.hear(source.id, said, now_s)
    if now_s is not None:
        yield from ((now_s, one) for one in thinner.take(board.values(now_s), now_s))
