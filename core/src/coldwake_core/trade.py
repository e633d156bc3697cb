"""What is fished for: the word that waters, trips and rules share."""

from __future__ import annotations

from typing import Literal

Species = Literal["trout", "kokanee", "striper"]
