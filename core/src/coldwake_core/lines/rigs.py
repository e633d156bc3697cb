"""All rigs there are: what they share is ``solve``, and then ``place`` and ``setting_for``."""

from __future__ import annotations

from .downrigger import DownriggerRig, SolvedDownrigger
from .linerig import LineRig, SolvedLine

Rig = LineRig | DownriggerRig
Solved = SolvedLine | SolvedDownrigger
