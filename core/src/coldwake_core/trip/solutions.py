"""Solutions that are kept from one look at a trip to the next, by several threads at once."""

from __future__ import annotations

import threading
from collections.abc import Callable
from typing import Any, TypeVar

from ..gear.tackle import Outfit
from ..lines.calibration import LineFit
from ..lines.doubt import DepthEstimate, DoubtfulRig
from ..lines.linerig import Placement

_CACHED_RIGS = 2048
_CACHED_PLACES = 1024
_CACHED_FITS = 64
_CACHED_OUTFITS = 8


class Solutions:
    """Lines that were solved, by tackle, calibration and speed.

    A lure's key says which lure only within one outfit: so each outfit that was looked at has a
    number, and the number is part of every key. Several threads may look at one trip at once.
    """

    def __init__(self) -> None:
        self._lock = threading.Lock()
        self._solved: dict[tuple[Any, ...], DoubtfulRig] = {}
        self._placed: dict[tuple[Any, ...], tuple[Placement, DepthEstimate]] = {}
        self._fits: dict[tuple[Any, ...], LineFit] = {}
        self._outfits: list[Outfit] = []
        self._numbered = 0

    def number(self, outfit: Outfit) -> int:
        """Return the number of an outfit, the same for equal ones.

        Parameters
        ----------
        outfit : Outfit
            What is aboard.

        Returns
        -------
        int
        """
        with self._lock:
            if outfit not in self._outfits:
                # A number is never given twice, so no key of a forgotten outfit is met again.
                self._outfits.append(outfit)
                if len(self._outfits) > _CACHED_OUTFITS:
                    self._outfits.pop(0)
                    self._numbered += 1
            return self._numbered + self._outfits.index(outfit)

    def rig(self, key: tuple[Any, ...], solve: Callable[[], DoubtfulRig]) -> DoubtfulRig:
        """Return a solved rig: the one that is kept, or one solved now.

        Parameters
        ----------
        key : tuple
            Everything that it hangs on.
        solve : callable
            Solves it.

        Returns
        -------
        DoubtfulRig
        """
        return _kept(self._solved, key, solve, _CACHED_RIGS, self._lock)

    def place(
        self, key: tuple[Any, ...], solve: Callable[[], tuple[Placement, DepthEstimate]]
    ) -> tuple[Placement, DepthEstimate]:
        """Return where a lure is: as it was found before, or found now.

        Parameters
        ----------
        key : tuple
            Everything that it hangs on.
        solve : callable
            Finds it.

        Returns
        -------
        (Placement, DepthEstimate)
        """
        return _kept(self._placed, key, solve, _CACHED_PLACES, self._lock)

    def fit(self, key: tuple[Any, ...], solve: Callable[[], LineFit]) -> LineFit:
        """Return a fitted line: the one that is kept, or one fitted now.

        Parameters
        ----------
        key : tuple
            Everything that it hangs on.
        solve : callable
            Fits it.

        Returns
        -------
        LineFit
        """
        return _kept(self._fits, key, solve, _CACHED_FITS, self._lock)


_T = TypeVar("_T")


def _kept(
    kept: dict[tuple[Any, ...], _T], key: tuple[Any, ...], solve: Callable[[], _T], most: int,
    lock: threading.Lock,
) -> _T:
    found = kept.get(key)
    if found is None:
        found = solve()
        with lock:
            if len(kept) >= most:
                kept.pop(next(iter(kept)))
            kept[key] = found
    return found
