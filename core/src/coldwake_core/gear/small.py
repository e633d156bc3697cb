"""The small things of a tackle box: weights, releases, leaders, snubbers, boards, baits, scents."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from ..checks import require_number, require_text
from ..lines.materials import material

WeightStyle = Literal["in_line", "split_shot", "dropper", "ball"]
Hold = Literal["light", "medium", "heavy"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Weight:
    """A weight for the line or the cable; ``mass_kg`` in kg."""

    id: str
    name: str
    mass_kg: float
    style: WeightStyle = "in_line"
    count: int = 1

    def check(self) -> None:
        """Raise InvalidInputError unless a line or cable could carry it."""
        _check_small(self)
        require_number(
            "mass_kg", self.mass_kg, above=0.0, high=15.0 if self.style == "ball" else 1.0,
            unit="kg",
        )


@dataclass(frozen=True, slots=True, kw_only=True)
class Release:
    """A release clip, by how hard it holds."""

    id: str
    name: str
    hold: Hold = "medium"
    count: int = 1

    def check(self) -> None:
        """Raise InvalidInputError unless it has a name."""
        _check_small(self)


@dataclass(frozen=True, slots=True, kw_only=True)
class Leader:
    """A tied leader; ``length_m`` in m."""

    id: str
    name: str
    material_id: str
    length_m: float
    count: int = 1

    def check(self) -> None:
        """Raise InvalidInputError unless it is a length of a known line."""
        _check_small(self)
        material(self.material_id, field="material_id")
        require_number("length_m", self.length_m, above=0.0, high=10.0, unit="m")


@dataclass(frozen=True, slots=True, kw_only=True)
class Bait:
    """A bait; ``length_m`` in m, ``check_after_s`` how long it is trusted, s."""

    id: str
    name: str
    length_m: float
    check_after_s: float = 25.0 * 60.0
    count: int = 1

    def check(self) -> None:
        """Raise InvalidInputError unless it could be on a hook."""
        _check_small(self)
        require_number("length_m", self.length_m, above=0.0, high=0.5, unit="m")
        require_number("check_after_s", self.check_after_s, low=60.0, high=6 * 3600.0, unit="s")


@dataclass(frozen=True, slots=True, kw_only=True)
class Scent:
    """A scent, or a cure of bait, by its name."""

    id: str
    name: str
    count: int = 1

    def check(self) -> None:
        """Raise InvalidInputError unless it has a name."""
        _check_small(self)


@dataclass(frozen=True, slots=True, kw_only=True)
class Snubber:
    """A stretch of rubber ahead of the attractor; ``length_m`` in m, unstretched."""

    id: str
    name: str
    length_m: float
    count: int = 1

    def check(self) -> None:
        """Raise InvalidInputError unless it is a length of rubber."""
        _check_small(self)
        require_number("length_m", self.length_m, above=0.0, high=1.0, unit="m")


@dataclass(frozen=True, slots=True, kw_only=True)
class Board:
    """A planer board that carries lines outward; ``lines_most`` how many it is trusted with."""

    id: str
    name: str
    lines_most: int = 4
    count: int = 1

    def check(self) -> None:
        """Raise InvalidInputError unless it carries a line or more."""
        _check_small(self)
        require_number("lines_most", self.lines_most, low=1, high=12)


def _check_small(
    piece: Weight | Release | Leader | Bait | Scent | Snubber | Board
) -> None:
    require_text("id", piece.id, longest=40)
    require_text("name", piece.name, longest=60)
    require_number("count", piece.count, low=0, high=99)
