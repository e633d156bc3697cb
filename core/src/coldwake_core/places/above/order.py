"""In which order lines go out and come in, so that none has to pass another."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from ..fish.view import RodView


@dataclass(frozen=True, slots=True, kw_only=True)
class OrderStep:
    """One line, and why it has its turn."""

    rod_id: str
    why: str


@dataclass(frozen=True, slots=True, kw_only=True)
class LineOrders:
    """The order of letting out and of taking in.

    Parameters
    ----------
    out, back : tuple of OrderStep
        First to last.
    """

    out: tuple[OrderStep, ...]
    back: tuple[OrderStep, ...]


def line_orders(rods: Sequence[RodView]) -> LineOrders:
    """Return the order in which to let the lines out, and to take them in.

    Parameters
    ----------
    rods : sequence of RodView
        Rods with the numbers they have or had.

    Returns
    -------
    LineOrders

    Notes
    -----
    Common practice: boards from the outermost inward, since a clip runs out along the tow line past
    none that is out; then long lines before short ones, the outer before the inner, so that no
    lure drifts back past one that already swims; cables last, the ball's own line before those
    stacked on it. Taking in is the other way round: what is short and close comes first and leaves
    room for the long ones.
    """
    rigged = [rod for rod in rods if rod.setup is not None]
    ordered = sorted(rigged, key=_key)
    out = tuple(OrderStep(rod_id=rod.id, why=_why(rod)) for rod in ordered)
    return LineOrders(out=out, back=tuple(
        OrderStep(rod_id=rod.id, why=_why_back(rod)) for rod in reversed(ordered)
    ))


def _key(rod: RodView) -> tuple[float, ...]:
    if rod.on_board:
        return (0.0, -abs(rod.side_m))
    if rod.kind in ("downrigger", "stacked", "slider"):
        assert rod.setup is not None
        return (2.0, rod.side_m, rod.setup.above_ball_m)
    length = rod.line.trail_m if rod.line is not None else rod.last_setting_m or 0.0
    return (1.0, -length, -abs(rod.side_m))


def _why(rod: RodView) -> str:
    if rod.on_board:
        return "boards go out outermost first"
    if rod.kind == "downrigger":
        return "cables go down when the long lines are out"
    if rod.kind in ("stacked", "slider"):
        return "it rides a cable that is already down"
    return "long lines go out before short ones"


def _why_back(rod: RodView) -> str:
    if rod.on_board:
        return "boards come in innermost first"
    if rod.kind in ("downrigger", "stacked", "slider"):
        return "cables come up first: nothing is left to foul"
    return "short lines come in before long ones"
