"""What boats and rigs usually have: where a form begins, every figure to be changed by its user."""

from __future__ import annotations

from typing import Final

from ..constants import FOOT_M, POUND_KG
from .tackle import Place

USUAL_PLACES: Final = (
    Place(id="holder", name="holder", kind="holder", side_m=1.7, tip_height_m=1.0),
    Place(
        id="downrigger", name="rigger", kind="downrigger", side_m=1.1, tip_height_m=1.0,
        cable_material_id="cable-steel-150", cable_length_m=200.0 * FOOT_M, ball_kg=10.0 * POUND_KG,
    ),
    Place(id="board", name="board clip", kind="board", side_m=20.0, tip_height_m=1.5),
)
"""A rod reaching out from a 16 ft boat's side; 200 ft of steel cable and a 10 lb ball (common
practice); a board 65 ft out (judged)."""
