"""What a rule of the rig may look at."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from ..gear.leader import LeaderSchool
from ..gear.pieces import Attractor, Lure, SpeedRange
from ..gear.setup import RodSetup
from ..gear.tackle import Outfit
from .law import WaterRules


@dataclass(frozen=True, slots=True, kw_only=True)
class RodFacts:
    """What a rule may look at.

    Parameters
    ----------
    outfit : Outfit
        What is aboard.
    setup : RodSetup
        What is on the rod.
    mates : tuple of RodSetup
        Other lines on the same cable.
    speed_mps : float
        Speed through water, m/s.
    clearance_m : float or None
        Lure or weight above the bottom, m.
    schools : mapping of str to str
        Which school the user follows, by topic.
    species : str
        What is fished for.
    others : tuple of RodSetup
        What is on the other rods.
    water_rules : WaterRules or None
        What the user entered as the rules of this water.
    hits, hooked : int
        What this rod has had so far.
    """

    outfit: Outfit
    setup: RodSetup
    speed_mps: float
    mates: tuple[RodSetup, ...] = ()
    clearance_m: float | None = None
    schools: Mapping[str, str]
    species: str = "trout"
    others: tuple[RodSetup, ...] = ()
    water_rules: WaterRules | None = None
    hits: int = 0
    hooked: int = 0

    @property
    def lure(self) -> Lure:
        """The lure on the rod."""
        return self.outfit.lure(self.setup.lure_id)

    @property
    def attractor(self) -> Attractor | None:
        """The attractor ahead of it."""
        if self.setup.attractor_id is None:
            return None
        return self.outfit.attractor(self.setup.attractor_id)

    @property
    def lure_works(self) -> SpeedRange:
        """Speeds at which this very lure works."""
        return self.lure.works_at()

    @property
    def blade_works(self) -> SpeedRange | None:
        """Speeds at which this very attractor works on its tow point."""
        return None if self.attractor is None else self.attractor.works_at(self.setup.tow_point)

    @property
    def leader_school(self) -> LeaderSchool | None:
        """The leader school the user has chosen, if any."""
        chosen = self.schools.get("leader")
        return None if chosen is None else chosen  # type: ignore[return-value]
