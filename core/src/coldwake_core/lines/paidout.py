"""From the curve of a towed line to the line paid out from a rod tip above the water, and back."""

from __future__ import annotations

import math
from dataclasses import dataclass, field

from ..errors import InvalidInputError, TooDeepError, TooShallowError
from .catenary import AirSpan, air_span
from .curve import LinePoint, TowedLine, interpolate

_ITERATIONS = 60
_RELATIVE = 1e-8


@dataclass(slots=True, kw_only=True)
class PaidOutLine:
    """A towed line together with the piece in the air up to the rod tip or boom.

    Parameters
    ----------
    line : TowedLine
        Curve from the towed end upward.
    tip_height_m : float
        Height of the rod tip above the water, m.
    air_weights_npm : tuple of float
        Weight in air of each stretch of the line, N/m, one per stretch.
    longest_m : float
        Line on the reel, m: the greatest that can be out. The curve may end before it, where only
        so much is asked about.
    """

    line: TowedLine
    tip_height_m: float
    air_weights_npm: tuple[float, ...]
    longest_m: float
    _outs: dict[int, float] = field(default_factory=dict, repr=False)

    def _out(self, index: int) -> float:
        """Line paid out when the surface stands at a point of the curve, m; inf where the line
        cannot climb to the tip. Kept, since few points are asked about and some often."""
        found = self._outs.get(index)
        if found is None:
            point = self.line.points[index]
            found = self._outs[index] = point.arc_m + self._span(point, index).length_m
        return found

    def stretch_of(self, index: int) -> int:
        """Return which stretch of the line a point of the curve belongs to.

        Parameters
        ----------
        index : int
            The point.

        Returns
        -------
        int
        """
        stretch = 0
        for number, start in enumerate(self.line.breaks):
            if index >= start:
                stretch = number
        return stretch

    def _span(self, point: LinePoint, index: int) -> AirSpan:
        span = air_span(
            height_m=self.tip_height_m, tension_n=point.tension_n, angle_rad=point.angle_rad,
            weight_npm=self.air_weights_npm[self.stretch_of(index)],
        )
        return span if span is not None else AirSpan(math.inf, math.inf)

    @property
    def deepest_m(self) -> float:
        """Depth of the towed end with the whole reel out, m, or of the deepest length before."""
        end = self.waterline(self.longest_m)
        inside = [
            point.up_m for index, point in enumerate(self.line.points)
            if self._out(index) <= self.longest_m
        ]
        return max([end[0].up_m if end else 0.0, *inside])

    def waterline(self, out_m: float) -> tuple[LinePoint, AirSpan] | None:
        """Return where the surface cuts the line when so much is out.

        Parameters
        ----------
        out_m : float
            Line out from the rod tip, m.

        Returns
        -------
        (LinePoint, AirSpan) or None
            The point of the line at the surface and the piece in the air; None when so little is
            out that the lure skips on the surface.

        Raises
        ------
        InvalidInputError
            If more is out than the reel holds.

        Notes
        -----
        Line out is not always a rising function of line in the water (a dragging lure first
        flattens the line): the deepest of the answers is the one a line settles at when paid out.
        """
        if out_m > self.longest_m * (1 + 1e-9):
            raise InvalidInputError(
                "out_m", round(out_m, 2), f"<= {self.longest_m:.1f} m on the reel"
            )
        points = self.line.points
        for index in range(len(points) - 2, -1, -1):
            a, b = points[index], points[index + 1]
            if b.arc_m <= a.arc_m:
                if self._out(index) < out_m < self._out(index + 1):
                    return self._at_joint(index, out_m)
                continue
            if self._out(index) <= out_m and (
                out_m <= self._out(index + 1) or index == len(points) - 2
            ):
                return self._root(index, out_m)
        return None

    def _at_joint(self, index: int, out_m: float) -> tuple[LinePoint, AirSpan]:
        """The joint of two lines stands at the surface while the lighter takes over in the air."""
        a, b = self.line.points[index], self.line.points[index + 1]
        share = (out_m - self._out(index)) / (self._out(index + 1) - self._out(index))
        low, high = self._span(a, index).forward_m, self._span(b, index + 1).forward_m
        return b, AirSpan(out_m - b.arc_m, low + share * (high - low))

    def _root(self, index: int, out_m: float) -> tuple[LinePoint, AirSpan]:
        """Find the waterline between two neighbouring points by bisection with regula falsi."""
        a, b = self.line.points[index], self.line.points[index + 1]
        low, high = a.arc_m, b.arc_m
        f_low, f_high = self._out(index) - out_m, self._out(index + 1) - out_m
        point, span = b, self._span(b, index)
        for count in range(_ITERATIONS):
            if f_high == f_low:
                break
            mid = high - f_high * (high - low) / (f_high - f_low)
            if not low < mid < high or count % 3 == 2:
                mid = 0.5 * (low + high)
            point = interpolate(a, b, mid)
            span = self._span(point, index)
            value = mid + span.length_m - out_m
            if abs(value) <= _RELATIVE * max(out_m, 1.0):
                break
            if value > 0.0:
                high, f_high = mid, value
            else:
                low, f_low = mid, value
        return point, span

    def out_for_height(self, up_m: float, *, field: str = "depth_m") -> float:
        """Return the line out that leaves the towed end this far below the surface.

        Parameters
        ----------
        up_m : float
            Depth of the towed end, m, > 0.
        field : str
            Name of the wanted depth, for the message.

        Returns
        -------
        float
            Line out from the rod tip, m.

        Raises
        ------
        TooDeepError, TooShallowError
            If the line cannot reach that depth, or cannot run so shallow; ``limit`` is the
            nearest it can, m.
        """
        points = self.line.points
        deepest = self.deepest_m
        if up_m > deepest:
            raise _too_deep(field, deepest)
        for index in range(len(points) - 2, -1, -1):
            a, b = points[index], points[index + 1]
            if b.arc_m > a.arc_m and a.up_m <= up_m <= b.up_m:
                point = _arc_for_height(a, b, up_m)
                span = self._span(point, index)
                out = point.arc_m + span.length_m
                # Line out must still be rising here, or the line would settle deeper.
                settled = self.waterline(out) if out <= self.longest_m else None
                if settled is None or settled[0].up_m - up_m > 1e-3 + 1e-3 * up_m:
                    limit = self._shallowest()
                    raise TooShallowError(
                        f"cannot be held so shallow at this speed: shallowest is {limit:.1f} m",
                        field=field, limit=limit,
                    )
                return out
        raise _too_deep(field, deepest)

    def _shallowest(self) -> float:
        """Depth below which line out rises with depth all the way down, m."""
        best = len(self.line.points) - 1
        for index in range(len(self.line.points) - 2, -1, -1):
            if self._out(index) > self._out(best):
                break
            best = index
        return max(self.line.points[best].up_m, 0.0)


def _too_deep(field: str, deepest_m: float) -> TooDeepError:
    return TooDeepError(
        f"cannot be reached at this speed: deepest is {deepest_m:.1f} m", field=field,
        limit=deepest_m,
    )


def _arc_for_height(a: LinePoint, b: LinePoint, up_m: float) -> LinePoint:
    low, high = a.arc_m, b.arc_m
    point = b
    for _ in range(_ITERATIONS):
        mid = 0.5 * (low + high)
        point = interpolate(a, b, mid)
        if abs(point.up_m - up_m) < 1e-9:
            break
        if point.up_m > up_m:
            high = mid
        else:
            low = mid
    return point
