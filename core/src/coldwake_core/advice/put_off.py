"""Moves that were put off: for half an hour, or for the day where what they need is not aboard."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from ..record.payloads import MoveAnswered
from ..record.state import Answer
from .marks import NEAR_MARK_M

NOT_NOW_S: Final = 30.0 * 60.0
"""How long a move that was put off stays away."""


@dataclass(frozen=True, slots=True, kw_only=True)
class PutOff:
    """A move that stays away for now.

    Parameters
    ----------
    answer : MoveAnswered
        The move, with why it was put off where anybody said.
    until_s : float or None
        Until when, seconds since 1970-01-01 UTC; None for as long as the trip lasts.
    """

    answer: MoveAnswered
    until_s: float | None


def put_off_now(answers: Sequence[Answer], now_s: float) -> tuple[PutOff, ...]:
    """Return the moves that stay away, the latest first, each once.

    Parameters
    ----------
    answers : sequence of Answer
        Moves that were taken and put off.
    now_s : float
        Seconds since 1970-01-01 UTC.

    Returns
    -------
    tuple of PutOff
    """
    found: dict[str, PutOff] = {}
    for answer in reversed(answers):
        if answer.taken or answer.at_s > now_s or answer.move.key in found:
            continue
        # Another speed may ask for other tackle: it is not lacking for good.
        speed = answer.move.change.speed_changed is not None
        for_good = answer.move.why == "lacking" and not speed
        if for_good or now_s - answer.at_s < NOT_NOW_S:
            found[answer.move.key] = PutOff(
                answer=answer.move, until_s=None if for_good else answer.at_s + NOT_NOW_S
            )
    return tuple(found.values())


def stays_away(move: MoveAnswered, put_off: Sequence[PutOff]) -> bool:
    """Return whether a move is one that was put off, or like enough to it.

    Parameters
    ----------
    move : MoveAnswered
        The move.
    put_off : sequence of PutOff
        Those that stay away.

    Returns
    -------
    bool
        Its target may have moved on a little since, whatever the speed does meanwhile. What is not
        aboard is asked for with no other rod either.
    """
    piece = _piece(move)
    return any(
        _is_same(move, one.answer)
        or (one.answer.why == "lacking" and piece is not None and piece == _piece(one.answer))
        for one in put_off
    )


def _piece(move: MoveAnswered) -> tuple[str, str] | None:
    """Which piece of tackle a move asks for."""
    setup = move.change.rod_rigged
    if setup is None:
        return None
    if move.kind in ("colour", "lure", "copy"):
        return "lure", setup.lure_id
    if move.kind == "attractor" and setup.attractor_id is not None:
        return "attractor", setup.attractor_id
    if move.kind == "bait" and setup.bait_id is not None:
        return "bait", setup.bait_id
    if move.kind == "scent" and setup.scent_id is not None:
        return "scent", setup.scent_id
    return None


def _is_same(move: MoveAnswered, refused: MoveAnswered) -> bool:
    line, other = move.change.line_set, refused.change.line_set
    tried = f"{move.kind}:{move.rod_id}:"
    if line is not None and move.key.startswith(tried) and refused.key.startswith(tried):
        # Who puts off a trial of a rod's line is not asked for the next number of it.
        return True
    if move.kind == refused.kind == "depth" and line is not None and other is not None:
        depth, wanted = line.wanted_depth_m, other.wanted_depth_m
        return depth is not None and wanted is not None and abs(depth - wanted) <= NEAR_MARK_M
    return move.key == refused.key
