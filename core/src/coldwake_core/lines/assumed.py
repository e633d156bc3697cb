"""Every constant of the line models that nobody measured on this boat: one registry.

The code takes its values from here, the doubt its spreads, and docs/physics.md its tables
(``scripts/write_physics.py``). One set serves every line, plug, blade and weight; nothing is fitted
to a fact of the trade.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final


@dataclass(frozen=True, slots=True)
class Assumed:
    """A constant that is taken from a source or judged.

    Parameters
    ----------
    name : str
        What it is, in words.
    value : float
        Its value, in the unit named.
    unit : str
        Its unit; empty for a ratio.
    source : str
        Where it comes from: a publication, "from memory" where nobody looked it up, or "judged".
    hangs : str
        What hangs on it.
    """

    name: str
    value: float
    unit: str
    source: str
    hangs: str


@dataclass(frozen=True, slots=True)
class Spread:
    """A standard deviation of an input, before any reading.

    Parameters
    ----------
    name : str
        What is uncertain, in words.
    value : float
        Standard deviation: of the logarithm (so near enough relative), or in the unit named.
    unit : str
        Its unit; empty for a relative one.
    reason : str
        Why so much.
    """

    name: str
    value: float
    unit: str
    reason: str


CN_INERTIAL: Final = Assumed(
    "normal drag coefficient of line at large Reynolds number", 1.0, "",
    "White 1991, Viscous Fluid Flow: Cn = 1 + 10 Re^(-2/3); from memory", "depth of every line",
)
CN_VISCOUS: Final = Assumed(
    "viscous part of it", 10.0, "", "White 1991; from memory",
    "light lures long back, which run shallow because of it",
)
CT: Final = Assumed(
    "tangential drag coefficient on the wetted surface", 0.015, "",
    "Berteaux 1976, Buoy Engineering: 0.01-0.02; from memory", "pull on long lines",
)
VORTEX_ONSET_RE: Final = Assumed(
    "Reynolds number above which a cylinder sheds vortices", 47.0, "",
    "Provansal, Mathis & Boyer 1987; Williamson 1996; from memory", "which lines strum",
)
VORTEX_FULL_RE: Final = Assumed(
    "Reynolds number at which shedding is taken to be full", 80.0, "",
    "judged: amplitudes at Re 80-150 are near those of the formula", "lines that just strum",
)
AMPLITUDE_SCALE: Final = Assumed(
    "A* = log10(this Re^0.36)", 0.41, "", "Govardhan & Williamson 2006, J. Fluid Mech. 561, "
    "147-180; from memory", "how much strumming adds",
)
AMPLITUDE_POWER: Final = Assumed(
    "power of Re in it", 0.36, "", "Govardhan & Williamson 2006; from memory", "the same",
)
STRUM_FACTOR: Final = Assumed(
    "drag grows by this (2 Yrms/D)^0.65", 1.043, "",
    "Vandiver 1983, Offshore Technology Conf. 4490; from memory", "the same",
)
STRUM_POWER: Final = Assumed(
    "the power in it", 0.65, "", "Vandiver 1983, as Skop, Griffin & Ramberg 1977; from memory",
    "the same",
)
STRUM_SHARE: Final = Assumed(
    "share of the full lock-in drag along a line: nodes stand still, and a line in sheared normal "
    "flow locks in piecewise", 0.6, "",
    "mean of |sin|^0.65 over a mode is 0.73; the rest judged", "cable and leadcore",
)
LEADCORE_GRAINS_PER_FOOT: Final = Assumed(
    "weight of leadcore in air", 13.0, "grains/ft", "common practice; from memory",
    "depth of leadcore: a colour weighed by the user replaces it",
)
PLUG_GIRTH: Final = Assumed(
    "greatest diameter over length of a plug whose width is not known", 0.20, "",
    "judged from the shapes", "generic plugs only: a measured width replaces it",
)
PLUG_FULLNESS: Final = Assumed(
    "volume over that of the ellipsoid of the same length, width and height", 0.70, "",
    "judged from the shapes", "whether a plug floats, and how hard",
)
PLUG_DRAG: Final = Assumed(
    "drag of a plug with hooks on frontal area", 0.45, "",
    "between a faired body and a blunt one (Hoerner 1965, ch. 3)", "little",
)
LIP_FORCE: Final = Assumed(
    "down-force, and drag, of a lip on its area", 0.9, "",
    "normal force 1.2-1.5 of a square plate near 45 degrees (Hoerner 1965, ch. 3), times cos 45",
    "how deep lipped plugs dive",
)
PLATE_SLOPE: Final = Assumed(
    "normal force of a spoon: this times sin a", 2.0, "",
    "between slender and wide flat plates (Hoerner 1985, Fluid-Dynamic Lift, ch. 17); from memory",
    "spoons when slow",
)
PLATE_LEVER: Final = Assumed(
    "share of a spoon's weight that its own lift carries at full speed", 0.8, "",
    "balance of moments about its nose; the share is judged (a spoon is thickest at the tail)",
    "heavy spoons when fast",
)
PLATE_DRAG: Final = Assumed(
    "drag of a spoon on planform", 0.35, "", "between edge-on and broadside; judged", "spoons",
)
BLADE_SWAY_DEG: Final = Assumed(
    "how far a swinging blade sways to either side", 45.0, "degrees", "judged from common practice",
    "lift and drag of dodgers, both means over the swing",
)
BLADE_CROSSFLOW: Final = Assumed(
    "cross-flow coefficient of a flat plate", 1.2, "",
    "Hoerner 1965, ch. 3 (1.17 broadside); from memory", "lift and drag of dodgers",
)
BLADE_CENTRE: Final = Assumed(
    "centre of pressure of a swinging blade, from its nose, over its length", 0.5, "",
    "0.25 at small angles, near mid-length for a plate past its stall (Winter 1936, NACA TM 798; "
    "Hoerner 1985, ch. 17; from memory)", "how much of a dodger's weight its lift carries",
)
BLADE_FRICTION: Final = Assumed(
    "drag of a blade's edges, swivels and surface on planform", 0.1, "", "judged", "dodgers",
)
PLANFORM: Final = Assumed(
    "area of a blade or spoon over length times width", 0.78, "", "an ellipse: pi/4",
    "blades and spoons",
)
SOFT_DRAG: Final = Assumed(
    "drag of flies, hoochies, worms on frontal area", 1.0, "",
    "bluff body (Hoerner 1965, ch. 3)", "little",
)
ROD_LINE_SHARE: Final = Assumed(
    "share of the drag of the line from clip to rod that the cable carries", 0.5, "",
    "a line held at both ends hangs half its load on each", "balls when fast, little",
)

ASSUMED: Final = tuple(value for value in list(globals().values()) if isinstance(value, Assumed))

SPREADS: Final[dict[str, Spread]] = {
    "speed_mps": Spread(
        "speed through water", 0.045, "m/s",
        "instruments show tenths of a mile an hour, and boats surge",
    ),
    "line_drag": Spread(
        "normal drag of the line", 0.28, "",
        "scatter of measured cylinder drag (Hoerner 1965, ch. 3), diameter against the label",
    ),
    "strumming": Spread(
        "what strumming adds to it", 0.5, "",
        "half to full lock-in, damping of sheaths unknown; never less than nothing",
    ),
    "weight": Spread(
        "weight of leadcore per length", 0.10, "",
        "sold as 11 to 15 grains a foot (common practice); a colour weighed by the user: 0.03",
    ),
    "setting": Spread(
        "the number itself", 0.03, "",
        "stretch, spooling, counting colours; a counter that goes by a pulley: 0.05",
    ),
    "body_drag": Spread(
        "drag of lure and attractor", 0.25, "", "shapes differ and swing",
    ),
    "body_lift": Spread(
        "force of a lip", 0.30, "", "the least known of all; printed points make it surer",
    ),
    "buoyancy": Spread(
        "volume of a plug", 0.10, "", "fullness judged from shapes, a width measured to a mm or so",
    ),
    "plate_lever": Spread(
        "weight carried by a blade's or spoon's own lift", 0.15, "",
        "centre of pressure 0.4-0.5 of the length, sway 30-60 degrees",
    ),
}
