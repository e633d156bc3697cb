"""Which rod wears what at which depth: a small mixed-integer program, solved exactly.

HiGHS (Huangfu & Hall 2018, "Parallelizing the dual revised simplex method") does the work through
``scipy.optimize.milp``: whole numbers, counts and "covered at least once" are what it is for, it
proves its answer, and the same input gives the same answer.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np
from scipy.optimize import Bounds, LinearConstraint, milp
from scipy.sparse import csr_array

PAIR: Final = 0.6
"""Worth of two rods alike: a change can be told from the clock only beside its like (judged)."""
ANOTHER: Final = 0.2
ANOTHER_KIND: Final = 0.4
"""Worth of each further look, and more of each further kind: two colours of one plug are two looks
of one kind, a spoon beside them is another (judged)."""
COVER: Final = 1.2
AGAIN: Final = 0.3
"""Worth of a lure at a wanted depth, and of a second one there (judged)."""
FISHING: Final = 2.0
"""Worth of a rod that fishes at all."""
_LATER: Final = 1e-3
"""What a candidate at the end of the list is worth less than its equal at the head: all rods
together less than the least of the worths above (`_SIDE`, `_REMARK` in ``candidates``)."""
_GOLDEN: Final = 0.6180339887498949


@dataclass(frozen=True, slots=True, kw_only=True)
class Candidate:
    """One rod with one look at one number.

    Parameters
    ----------
    rod : int
        Index of the rod.
    look : int
        Index of the look.
    score : float
        How well it suits by itself.
    uses : tuple of str
        Keys of the pieces it takes from the box.
    covers : tuple of int
        Indices of the wanted depths it runs at.
    slot : str
        What a forbidden pair is made of: the rod and its number.
    kind : str
        Class of its look.
    """

    rod: int
    look: int
    score: float
    uses: tuple[str, ...]
    covers: tuple[int, ...]
    slot: str
    kind: str = ""


class _Program:
    """Rows and columns of a program while it is written."""

    def __init__(self) -> None:
        self.worth: list[float] = []
        self.rows: list[tuple[dict[int, float], float, float]] = []

    def column(self, worth: float) -> int:
        self.worth.append(worth)
        return len(self.worth) - 1

    def row(self, terms: Mapping[int, float], *, at_most: float) -> None:
        self.rows.append((dict(terms), -np.inf, at_most))

    def solve(self) -> list[bool]:
        """The best answer."""
        data, row_at, column_at = [], [], []
        for index, (terms, _, _) in enumerate(self.rows):
            for column, factor in terms.items():
                row_at.append(index)
                column_at.append(column)
                data.append(factor)
        matrix = csr_array(
            (data, (row_at, column_at)), shape=(len(self.rows), len(self.worth))
        )
        # Doing nothing is always allowed, so there is always an answer.
        found = milp(
            -np.asarray(self.worth), integrality=np.ones(len(self.worth)), bounds=Bounds(0, 1),
            constraints=[LinearConstraint(
                matrix, [row[1] for row in self.rows], [row[2] for row in self.rows]
            )],
            options={"mip_rel_gap": 0.0},
        ).x
        return [value > 0.5 for value in found]


def choose(
    candidates: Sequence[Candidate], *, counts: Mapping[str, int], depths: Sequence[float],
    most_rods: int, forbidden: Sequence[tuple[str, str]] = (),
) -> list[Candidate]:
    """Return the best set of candidates: one a rod at most.

    Parameters
    ----------
    candidates : sequence of Candidate
        What could be.
    counts : mapping of str to int
        How many of each piece are in the box.
    depths : sequence of float
        Worth of each wanted depth, about 1.
    most_rods : int
        Most rods that may be out.
    forbidden : sequence of (str, str)
        Pairs of slots that tangle.

    Returns
    -------
    list of Candidate
        In the order of rods.

    Notes
    -----
    Maximised is the sum of the scores, of every rod that fishes, of wanted depths covered once and
    a second time, of pairs alike (one in every three rods: two alike, one different), of different
    looks and of different kinds of look. Among equals the earlier candidates win.
    """
    program = _Program()
    # Places in the list, each a little off a whole number by the golden ratio: hardly two sets of
    # them have one sum, so that of equals there is one best, whatever way the solver takes to it.
    # (Asked for in a second program over the best answers of the first, it took ten times as long.)
    later = _LATER / max(len(candidates), 1)
    columns = [
        program.column(
            FISHING + item.score - later * (index + math.modf((index + 1) * _GOLDEN)[0])
        )
        for index, item in enumerate(candidates)
    ]
    by_rod: dict[int, dict[int, float]] = {}
    by_look: dict[int, dict[int, float]] = {}
    by_piece: dict[str, dict[int, float]] = {}
    by_slot: dict[str, dict[int, float]] = {}
    by_kind: dict[str, dict[int, float]] = {}
    by_depth: dict[int, dict[int, float]] = {}
    for column, item in zip(columns, candidates, strict=True):
        by_rod.setdefault(item.rod, {})[column] = 1.0
        by_look.setdefault(item.look, {})[column] = 1.0
        by_slot.setdefault(item.slot, {})[column] = 1.0
        by_kind.setdefault(item.kind, {})[column] = 1.0
        for piece in item.uses:
            by_piece.setdefault(piece, {})[column] = 1.0
        for depth in item.covers:
            by_depth.setdefault(depth, {})[column] = 1.0
    for terms in by_rod.values():
        program.row(terms, at_most=1.0)
    program.row(dict.fromkeys(columns, 1.0), at_most=float(most_rods))
    for piece, terms in by_piece.items():
        program.row(terms, at_most=float(counts[piece]))
    for one, other in forbidden:
        program.row({**by_slot.get(one, {}), **by_slot.get(other, {})}, at_most=1.0)
    for depth, terms in by_depth.items():
        once, twice = (
            program.column(COVER * depths[depth]), program.column(AGAIN * depths[depth])
        )
        program.row({once: 1.0, twice: 1.0, **{c: -1.0 for c in terms}}, at_most=0.0)
        program.row({twice: 1.0, once: -1.0}, at_most=0.0)
    rods = min(len(by_rod), most_rods)
    _looks(program, by_look, rods)
    for terms in by_kind.values():
        program.row({program.column(ANOTHER_KIND): 1.0, **{c: -1.0 for c in terms}}, at_most=0.0)
    chosen = program.solve()
    return sorted(
        (item for column, item in zip(columns, candidates, strict=True) if chosen[column]),
        key=lambda item: item.rod,
    )


def _looks(program: _Program, by_look: Mapping[int, Mapping[int, float]], rods: int) -> None:
    """Two alike, one different: as many pairs as there are threes, all other looks different."""
    pairs, others = {}, {}
    for terms in by_look.values():
        pair, one = program.column(PAIR), program.column(ANOTHER)
        program.row({pair: 2.0, **{c: -1.0 for c in terms}}, at_most=0.0)
        program.row({one: 1.0, **{c: -1.0 for c in terms}}, at_most=0.0)
        pairs[pair], others[one] = 1.0, 1.0
    if rods >= 2:
        program.row(pairs, at_most=float(max(rods // 3, 1 if rods >= 3 else 0)))
    program.row(others, at_most=float(max(rods - rods // 3, 1)))
