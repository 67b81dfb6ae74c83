"""A stage as the Tension station looks at it: what goes round, its wheels in the plane, what holds it, what it carries."""

import math
from dataclasses import dataclass, replace
from functools import cached_property

from tuyere.core.kinds.held import HeldBy
from tuyere.core.kinds.loop import Loop, Strand
from tuyere.core.mechanics.on_wheels.strain import FLAT
from tuyere.core.mechanics.on_wheels.wheels import Contact, Face
from tuyere.core.mechanics.tension import published, window
from tuyere.core.mechanics.tension.window import Strained

HELD: dict[HeldBy, published.HeldBy] = {
    "spring idler, slack side": "slack_side",
    "weight idler, slack side": "slack_side",
    "lever idler, slack side": "slack_side",
    "idler, tight side": "tight_side",
    "pivoted base": "fixed",
}


@dataclass(frozen=True)
class StageWheel:
    """A wheel of the stage.

    Place and radius of the belt's line and of the rim (m), power into the belt (W, - out of it), speed (rad/s, None: not known).

    `rolls_m`: the radius that its speed goes by, where it is not the line's.
    """

    name: str
    role: str
    x_m: float
    y_m: float
    line_m: float
    rim_m: float
    contact: Contact = "inside"
    face: Face = "grooved"
    power_w: float = 0.0
    speed: float | None = None
    rolls_m: float | None = None


@dataclass(frozen=True)
class Span:
    """A free run: between which wheels, its length (m), how far from level it lies (rad)."""

    between: str
    length_m: float
    slope_rad: float


@dataclass(frozen=True)
class TightStage:
    """`count`: strands side by side that share the load (belts times ribs).

    `factor`: its service factor. `take_up_m`: how far the base can still move away. `arms`: of a pivoted base, square to each run (m).

    `high_torque`: of its driver. `share`: what it carries by its rating over what it is to carry, with its service factor (None: not
    rated).
    """

    number: int
    title: str
    loop: Loop
    wheels: tuple[StageWheel, ...]
    rotation: int = 1
    crossed: bool = False
    held_by: HeldBy = ""
    factor: float | None = None
    driven_class: str | None = None
    belt_length_m: float | None = None
    take_up_m: float | None = None
    arms: tuple[float, ...] | None = None
    high_torque: bool = False
    share: float | None = None

    @property
    def strand(self) -> Strand:
        """One of what is tensioned."""
        return self.loop.strand

    @property
    def count(self) -> int:
        """Strands that share the load: belts, or ribs of all bands; one where width makes it stronger."""
        return self.loop.count * self.loop.ribs if self.loop.counted else 1

    @property
    def hangs(self) -> bool:
        """Whether its slack side hangs free, so that its sag is set and not its tension."""
        return self.loop.hangs

    @property
    def loaded(self) -> bool:
        """Whether power and speed are known, so that it has a window."""
        return any(w.power_w > 0 for w in self.wheels) and all(w.speed for w in self.wheels)

    @property
    def holds(self) -> published.HeldBy:
        """What holds its tension, as strands share a load by it. A pivoted base counts as fixed centres until its arms are known."""
        return HELD.get(self.held_by, "fixed")

    @cached_property
    def at_rest(self) -> Strained:
        """Its path and how its strands share the load, before any factor. Raises GeometryError, WindowError."""
        return window.strain(self.as_window())

    def as_window(self) -> window.WindowStage:
        """As the window's model takes it; without power or speed it only has a path. Pull goes by the speed of the pitch line."""
        first = self.wheels[0]
        speed = first.speed * (first.rolls_m or first.line_m) if self.loaded and first.speed else 1.0
        wheels = tuple(
            window.WindowWheel(
                w.x_m,
                w.y_m,
                w.line_m,
                w.contact,
                self._friction(w),
                w.power_w if self.loaded else 0.0,
                speed / w.line_m,
                self.loop.groove_rad(2 * w.rim_m) if w.face == "grooved" and (w.contact == "inside" or self.loop.both_faces) else None,
                not self.loop.slips and w.face == "grooved" and w.contact == "inside",
            )
            for w in self.wheels
        )
        return window.WindowStage(
            wheels,
            self.rotation,
            self.count,
            self.strand.mass_kg_per_m,
            self.holds,
            design_factor=self.factor or 1.0,
            crossed=self.crossed,
            arms=self.arms if self.held_by == "pivoted base" else None,
        )

    def _friction(self, w: StageWheel) -> float:
        own = self.strand.friction or FLAT
        return own if w.face == "grooved" and (w.contact == "inside" or self.loop.both_faces) else min(own, FLAT)

    def gripping(self, half_turn: float, flat: float) -> window.WindowStage:
        """The same with wheels that let go at `half_turn` to one at half a turn in the belt's own groove, and at a friction where they have none."""
        whole = self.as_window()
        own = math.log(half_turn) / math.pi if math.isfinite(half_turn) else 0.0

        def gripped(at: StageWheel, w: window.WindowWheel) -> window.WindowWheel:
            if at.face == "grooved" and (at.contact == "inside" or self.loop.both_faces):
                return replace(w, friction=own, groove_rad=None)
            return replace(w, friction=min(own, flat) if own else flat)

        return replace(whole, wheels=tuple(gripped(a, w) for a, w in zip(self.wheels, whole.wheels, strict=True)))

    @cached_property
    def spans(self) -> tuple[Span, ...]:
        """The free runs, in the order of the belt's travel from the first wheel. Raises GeometryError."""
        runs = self.at_rest.path.runs
        names = [w.name for w in self.wheels]
        return tuple(
            Span(
                f"{names[i]} to {names[(i + 1) % len(names)]}",
                r.length_m,
                abs(math.asin((r.y2_m - r.y1_m) / r.length_m)) if r.length_m else 0.0,
            )
            for i, r in enumerate(runs)
        )

    @property
    def steepest_rad(self) -> float:
        """Of its free runs."""
        return max((s.slope_rad for s in self.spans), default=0.0)

    @property
    def longest(self) -> int:
        """Which run is the longest; of runs alike the first: it leaves the driver, and is a chain's slack one."""
        return max(range(len(self.spans)), key=lambda i: round(self.spans[i].length_m, 6))

    @property
    def length_m(self) -> float:
        """Of the belt's line: the one that is on, or by its path."""
        return self.belt_length_m or self.at_rest.path.length_m
