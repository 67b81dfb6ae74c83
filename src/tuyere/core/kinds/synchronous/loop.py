"""A toothed belt round the pulleys of a layout."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import TYPE_CHECKING

from tuyere.core.basis.limit import Limit, limit
from tuyere.core.basis.numbers import Numbers
from tuyere.core.basis.reader import FieldReader
from tuyere.core.basis.table import rows
from tuyere.core.basis.verdict import Problem
from tuyere.core.kinds.about import About
from tuyere.core.kinds.loop import Loop, LoopRead, MadeLoop, Rim, Seating, Stated, Strand, Turning, on_roller
from tuyere.core.kinds.rating.duties import OutOfRangeError
from tuyere.core.kinds.stock_wheel import StockWheel
from tuyere.core.kinds.survey import Part
from tuyere.core.kinds.synchronous.about import ABOUT
from tuyere.core.kinds.synchronous.identify import named
from tuyere.core.kinds.synchronous.linear import CARRIAGE
from tuyere.core.kinds.synchronous.name import ToothedBelt, standard_teeth
from tuyere.core.kinds.synchronous.profile import Profile, ToothedError, least_teeth_at, outside_diameter, pitch_diameter, profile
from tuyere.core.kinds.synchronous.rating import mass_per_width, rated_power
from tuyere.core.kinds.synchronous.tension import tension_ratio
from tuyere.core.mechanics.on_wheels.wheels import Seat
from tuyere.core.mechanics.speed import CAST_IRON_RIM_LIMIT, CAST_IRON_RIM_LIMIT_M_PER_S

if TYPE_CHECKING:
    from tuyere.core.kinds.rating.own_table import OwnRatings


@dataclass(frozen=True)
class ToothedLoop(Loop):
    """A belt of one profile; `width`: its width (m), `teeth`: how many it has, `weighs`: kg/m by its data, None while not known.

    `asked`: what the manual of the carriage that it moves asks of it.
    """

    profile: Profile
    width: float | None = None
    teeth: int | None = None
    weighs: float | None = None
    asked: Stated | None = None
    seat: Seat = field(default="teeth", init=False)

    @property
    def family(self) -> About:
        return ABOUT

    @property
    def of(self) -> str:
        return self.profile.name

    def _made(self, teeth: int) -> MadeLoop:
        belt = ToothedBelt(self.profile, teeth, self.width, teeth in standard_teeth(self.profile))
        return MadeLoop(belt.designation, belt.length_m)

    @property
    def made(self) -> MadeLoop | None:
        return self._made(self.teeth) if self.teeth else None

    def nearest(self, length_m: float) -> Sequence[MadeLoop]:
        wanted = length_m / self.profile.pitch_m + 1e-9
        most = limit("near length").value
        counts = sorted(n for n in standard_teeth(self.profile) if abs(n - wanted) <= most * max(n, wanted))
        below, above = [n for n in counts if n <= wanted], [n for n in counts if n > wanted]
        return [self._made(n) for n in (*below[-1:], *above[:1])]

    @property
    def pitch_m(self) -> float:
        return self.profile.pitch_m

    @property
    def stated(self) -> Stated | None:
        return self.asked

    @property
    def mass_kg_per_m(self) -> float:
        if self.weighs is not None:
            return self.weighs
        return mass_per_width(self.profile) * (self.width or 0.0)

    @property
    def width_m(self) -> float:
        return self.width or 0.0

    @property
    def faces(self) -> tuple[float, float]:
        """Its teeth stand inside of its line; its back is what is left of its height over their roots and the cords."""
        inside = self.profile.line_under_tip_m + self.profile.tooth_height_m
        return inside, max(0.0, self.profile.belt_height_m - inside)

    @property
    def half_turn_ratio(self) -> float:
        """What a design supposes of its strands."""
        return float(tension_ratio(self.profile, math.pi)[0])

    @property
    def missing(self) -> tuple[str, str] | None:
        if self.width is not None:
            return None
        return "The belt's width is missing", "Measure it, or take it from the name: the rating goes by it."

    @property
    def broad_m(self) -> float | None:
        return self.width

    @property
    def fastest(self) -> tuple[float | None, str]:
        return CAST_IRON_RIM_LIMIT_M_PER_S, f"IP-24: {CAST_IRON_RIM_LIMIT} on cast iron; faster wants balanced wheels (high)"

    @property
    def least_wrap(self) -> Limit | None:
        return None

    def stock(self) -> Sequence[StockWheel]:
        p = self.profile
        counts = [int(r["teeth"]) for r in rows("toothed_pulleys") if r["pitch_name"] == p.pitch_name]
        return [StockWheel(pitch_diameter(p, z), outside_diameter(p, z), z) for z in counts]

    def speaks_against(self, driver: StockWheel, driven: StockWheel, fastest: float) -> list[str]:
        small_teeth = min(driver.teeth or 999, driven.teeth or 999)
        return ["too few teeth at this speed"] if small_teeth < least_teeth_at(self.profile, fastest) else []

    @property
    def strand(self) -> Strand:
        return Strand("belt", self.mass_kg_per_m, self.profile.belt_height_m)

    def grips(self, wrap_rad: Numbers) -> tuple[Numbers, str]:
        return tension_ratio(self.profile, wrap_rad)

    def sits(self, rim: Rim) -> Seating | None:
        if rim.face == "flat" or rim.contact == "back":
            return on_roller(rim.diameter_m / 2, rim.contact, self.faces) if rim.diameter_m else None
        if rim.teeth is None:
            return None
        line = pitch_diameter(self.profile, rim.teeth) / 2
        return Seating(line, outside_diameter(self.profile, rim.teeth) / 2, line)

    def rated(self, on: Turning, own: "OwnRatings") -> float:
        if self.width is None:
            raise OutOfRangeError("The belt's width is missing: measure it, the rating goes by it.")
        if on.teeth is None:
            raise OutOfRangeError("On a face without teeth a toothed belt is not rated.")
        table, in_mesh = own.of(self.profile.name), on.teeth * on.wrap_rad / math.tau
        return rated_power(self.profile, self.width, on.teeth, on.speed, in_mesh, table, on.ratio).power_w


def read_loop(part: Part) -> LoopRead:
    """By its profile, width, and teeth where they were counted."""
    drive, label = part.more.get("drive", Part()), part.words.get("label", "") or part.more.get("words", Part()).words.get("label", "")
    reader = FieldReader(part.quantities, drive.words)
    width, teeth = reader.value("belt_width"), reader.whole("count", 10, 5000)
    name = drive.words.get("name", "").strip()
    try:
        found = profile(name) if name else None
    except ToothedError as refusal:
        return LoopRead(None, (*reader.problems, Problem("name", str(refusal))), reader.notes)
    if width is None and label.strip():
        width = _width_of(label)
    weighs, asked = _carriage(part.more.get("linear", Part()))
    return LoopRead(ToothedLoop(found, width, teeth, weighs, asked) if found else None, tuple(reader.problems), reader.notes)


def _width_of(label: str) -> float | None:
    """The width that a belt's name says."""
    try:
        belt = named(label).of
    except ToothedError:
        return None
    return belt.width_m if isinstance(belt, ToothedBelt) else None


def _carriage(part: Part) -> tuple[float | None, Stated | None]:
    """Mass and tension by the manual of a carriage's belt; what is wrong with them is said at Survey."""
    if part.words.get("fitted") != "yes":
        return None, None
    reader = FieldReader(part.quantities, part.words)
    target, span = reader.value("linear_target", "belt_tension"), reader.value("linear_span", "point_tape")
    share = reader.number("linear_within", 1, 60, "")
    asked = Stated(target, share / 100 if share else limit("manual's tolerance").value, span, CARRIAGE) if target else None
    return reader.value("linear_mass"), asked
