"""Listening to a boat's instruments: connections that come and go, and what they say now."""

from __future__ import annotations

import asyncio
import errno
import time
from collections.abc import Callable
from contextlib import suppress
from pathlib import Path
from typing import Any, Final

import serial

from coldwake_core.boat.instruments import Board, News, Said, Source, Sources, Thinner
from coldwake_core.decode import encode

from .sentences import Lines, Reader, clock_of

SILENT_S: Final = 15.0
AGAIN_S: Final = (1.0, 2.0, 5.0, 15.0)
CONNECT_S: Final = 5.0
AT_ONCE: Final = 16_384
NO_CLOCK_S: Final = 0.2
"""How long a line of a log that tells no time takes."""
LONGEST_GAP_S: Final = 60.0
"""A log's clock that leaps further was set, or the log was laid aside: not waited for."""


class Ear:
    """One source: its connection, its lines, and how it is with it, in words."""

    def __init__(
        self, source: Source, hear: Callable[[str, Said], None], log: Path | None = None
    ) -> None:
        self.source, self._log = source, log
        self.lines, self.reader = Lines(), Reader()
        self.trouble = "" if source.is_on else "Switched off."
        self.heard_s: float | None = None
        self._hear = hear

    def feed(self, data: bytes) -> None:
        """Take in bytes as they come."""
        for line in self.lines.feed(data):
            for said in self.reader.read(line):
                self._hear(self.source.id, said)
                self.heard_s = time.time()

    async def listen(self) -> None:
        """Listen until cancelled; what breaks is told and tried again."""
        tries = 0
        while True:
            begun = time.monotonic()
            try:
                await self._hear_out()
                self.trouble = "It closed the connection; it is tried again."
            except _PlayedError as played:
                self.trouble = str(played)
                return
            except TimeoutError:
                self.trouble = "No answer at this address: is it switched on, and on this network?"
            except serial.SerialException as error:
                self.trouble = _cable_words(error)
            except OSError as error:
                self.trouble = _words(error)
            tries = 0 if time.monotonic() - begun > 60.0 else tries + 1
            await asyncio.sleep(AGAIN_S[min(tries, len(AGAIN_S)) - 1])

    async def _hear_out(self) -> None:
        kinds = {"tcp": self._tcp, "udp": self._udp, "serial": self._cable, "log": self._replay}
        await kinds[self.source.kind]()

    async def _cable(self) -> None:
        # Opening and reading a device may block: in a thread, a short while at a time.
        port = await asyncio.to_thread(
            serial.Serial, self.source.device, self.source.baud, timeout=0.5, exclusive=True
        )
        self.trouble = ""
        try:
            while True:
                self.feed(await asyncio.to_thread(lambda: port.read(max(port.in_waiting, 1))))
        finally:
            port.close()

    async def _replay(self) -> None:
        if self._log is None or not self._log.exists():
            raise _PlayedError("No log has been brought here yet.")
        has_clock, last_s, due = False, 0.0, time.monotonic()
        with self._log.open("rb") as file:
            self.trouble = ""
            while line := file.readline(AT_ONCE):
                told_s = clock_of(line)
                if told_s is not None:
                    gap = (told_s - last_s) % 86400.0
                    if has_clock and gap <= LONGEST_GAP_S:
                        due += gap / self.source.pace
                    has_clock, last_s = True, told_s
                elif not has_clock:
                    due += NO_CLOCK_S / self.source.pace
                # Always a moment for the others, however fast it is played.
                await asyncio.sleep(max(due - time.monotonic(), 0.0))
                self.feed(line if line.endswith(b"\n") else line + b"\n")
        raise _PlayedError("Played to its end: switch it off and on to play it again.")

    async def _tcp(self) -> None:
        asked = asyncio.open_connection(self.source.host, self.source.port)
        reader, writer = await asyncio.wait_for(asked, CONNECT_S)
        self.trouble = ""
        try:
            while data := await reader.read(AT_ONCE):
                self.feed(data)
        finally:
            writer.close()
            with suppress(OSError):
                await writer.wait_closed()

    async def _udp(self) -> None:
        ear = self

        class Heard(asyncio.DatagramProtocol):
            def datagram_received(self, data: bytes, addr: Any) -> None:
                # A datagram is whole lines: what has no end of its own is ended here.
                ear.feed(data if data.endswith(b"\n") else data + b"\n")

        loop = asyncio.get_running_loop()
        transport, _ = await loop.create_datagram_endpoint(
            Heard, local_addr=("0.0.0.0", self.source.port)
        )
        self.trouble = ""
        try:
            await asyncio.Event().wait()
        finally:
            transport.close()

    def state(self, now_s: float) -> dict[str, Any]:
        """Return how it is with it, for the page."""
        age = None if self.heard_s is None else max(now_s - self.heard_s, 0.0)
        words = self.trouble
        if not words and (age is None or age > SILENT_S):
            words = "Connected, and nothing that is understood has come."
        return {
            "id": self.source.id, "name": self.source.name, "words": words, "age_s": age,
            "good": self.reader.counts["good"], "checksum": self.reader.counts["checksum"],
            "unknown": self.reader.counts["unknown"],
            "broken": self.reader.counts["broken"] + self.lines.overlong,
        }


class _PlayedError(Exception):
    """A log that has nothing more to play; the text says why."""


_PULLED_OUT: Final = "The device was pulled out or does not answer; it is tried again."


def _cable_words(error: serial.SerialException) -> str:
    if error.errno == errno.ENOENT:
        return "There is no such device: is its cable plugged in?"
    if error.errno == errno.EACCES:
        return "This machine does not let the server open it: add its user to the device's group."
    if error.errno in (errno.EBUSY, errno.EAGAIN, errno.EWOULDBLOCK):
        return "Another program has this device open: close it there."
    return _PULLED_OUT


def _words(error: OSError) -> str:
    if error.errno == errno.ECONNREFUSED:
        return "Nothing listens at this address and port."
    if error.errno == errno.EADDRINUSE:
        return "Another program has this port on this machine: give it another."
    if error.errno in (errno.EHOSTUNREACH, errno.ENETUNREACH):
        return "This address is not on a network of this machine."
    if error.errno in (errno.EIO, errno.ENXIO, errno.ENODEV):
        return _PULLED_OUT
    return f"The connection broke ({error.strerror or error}); it is tried again."


class Hub:
    """All sources of one boat.

    ``take`` gives what the record takes, ``state`` what the page shows.
    """

    def __init__(self, sources: Sources, log: Path | None = None) -> None:
        self.board, self.thinner = Board(sources), Thinner()
        self.ears = [Ear(source, self._hear, log) for source in sources.sources]
        self._tasks: list[asyncio.Task[None]] = []

    def _hear(self, source_id: str, said: Said) -> None:
        self.board.hear(source_id, said, time.time())

    def start(self) -> None:
        """Begin to listen."""
        self._tasks = [
            asyncio.create_task(ear.listen()) for ear in self.ears if ear.source.is_on
        ]

    async def stop(self) -> None:
        """End all connections."""
        for task in self._tasks:
            task.cancel()
        await asyncio.gather(*self._tasks, return_exceptions=True)

    def take(self) -> tuple[News, ...]:
        """Return what says something new since it was asked last."""
        now_s = time.time()
        return self.thinner.take(self.board.values(now_s), now_s)

    def state(self) -> dict[str, Any]:
        """Return what is heard, from whom, how old, and which of it is used."""
        now_s = time.time()
        return {
            "at_s": now_s, "sources": [ear.state(now_s) for ear in self.ears],
            "values": encode(self.board.values(now_s)),
        }
