"""A toothed belt on two pulleys."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from functools import cache
from typing import TYPE_CHECKING

from tuyere.core.drives import synchronous
from tuyere.core.drives.counter import CounterSlip
from tuyere.core.drives.family import Family
from tuyere.core.drives.fitted import SMALL, Duty, On, Role, StockWheel, small_wheel
from tuyere.core.drives.line import LineDrive, LineWheel
from tuyere.core.drives.loop import LoopRead
from tuyere.core.drives.meshing import Meshing, teeth_written
from tuyere.core.drives.slide import slide_needed
from tuyere.core.drives.survey import Part, Surveyed
from tuyere.core.drives.synchronous import Profile, identify, told
from tuyere.core.drives.synchronous.counter import slip_of
from tuyere.core.drives.synchronous.loop import read_loop
from tuyere.core.drives.synchronous.pair import lay_out
from tuyere.core.drives.synchronous.rating import mass_per_width, rated_power
from tuyere.core.drives.synchronous.tension import tension_ratio
from tuyere.core.drives.teeth import DriveReading, ToothedDrive
from tuyere.core.drives.template import Template
from tuyere.core.drives.told import Asked, Told
from tuyere.core.drives.workings import factor_line, own_capacity, put, teeth_line
from tuyere.core.drives.written import Written
from tuyere.core.entry.quantity import System, show
from tuyere.core.geometry import open_belt
from tuyere.core.geometry.open_belt import GeometryError
from tuyere.core.identify.by_size import Kind, Size
from tuyere.core.identify.toothed import Named, ToothedReading
from tuyere.core.limit import Limit
from tuyere.core.origin import Origin
from tuyere.core.rating.duties import Numbers
from tuyere.core.rating.service import speed_up_added
from tuyere.core.speed import CAST_IRON_RIM_LIMIT, CAST_IRON_RIM_LIMIT_M_PER_S
from tuyere.core.table import rows
from tuyere.core.working.figure import Line, given_figure
from tuyere.core.working.page import Page
from tuyere.core.working.verdict import Verdict

if TYPE_CHECKING:
    from tuyere.core.rating.own_table import OwnRatings, OwnTable
    from tuyere.core.selection.kind import Kind as Choice


@dataclass(frozen=True)
class ToothedLine(LineDrive):
    """`of`: its profile; `size`: its width (m)."""

    of: Profile = field(kw_only=True)

    @property
    def family(self) -> Family:
        return TOOTHED

    @property
    def name(self) -> str:
        return self.of.name

    @property
    def broad_m(self) -> float | None:
        return self.size

    @property
    def mass_of_one(self) -> float:
        return mass_per_width(self.of)

    def tension_ratio(self, wrap_rad: Numbers) -> tuple[Numbers, str]:
        return tension_ratio(self.of, wrap_rad)

    @property
    def least_wrap(self) -> Limit | None:
        return None

    @property
    def missing(self) -> tuple[str, str] | None:
        if self.size is not None:
            return None
        return "The belt's width is missing", "Measure it, or take it from the name: the rating goes by it."

    def too_small(self, page: Page) -> None:
        """The smallest toothed pulley grows with speed."""
        role, fast = small_wheel(page)
        teeth = (self.driver if role == "driver" else self.driven).teeth or 0
        fewest = max(float(synchronous.least_teeth_at(self.of, fast)), float(self.of.fewest_teeth or 0))
        if teeth >= fewest:
            return
        at = show(fast, "rotation", System.US)
        wants = f"it wants {fewest:.0f} there" if math.isfinite(fewest) else "no pulley is tabled for that speed"
        page.flag(SMALL, f"{role}_diameter", f"{teeth} teeth are too few for {self.of.name} at {at}: {wants} (GB/T 11362, IP-24, JB/T 7512; from memory). Bent so sharply so often, cords and teeth crack early.")  # fmt: skip

    def rate(self, own: "OwnRatings", duty: Duty, page: Page) -> None:
        small, fast = small_wheel(page)
        wheel, table = self.driver if small == "driver" else self.driven, own.of(self.of.name)
        assert wheel.teeth and self.size is not None
        wrap = page.values[f"wrap_{small}"].n if page.has(f"wrap_{small}") else None
        if table:
            self._by_own(table, wheel.teeth, math.pi if wrap is None else wrap, small, fast, page)
        elif wrap is not None:
            self._by_standard(self.size, wheel.teeth, wrap, fast, page)

    def _by_own(self, own: "OwnTable", teeth: int, wrap_rad: float, small: str, fast: float, page: Page) -> None:
        assert self.size is not None
        ratio = max(page.values["ratio"].n, 1 / page.values["ratio"].n)
        belt = rated_power(self.of, self.size, teeth, fast, teeth * wrap_rad / math.tau, own, ratio)
        factors = (("K_z", "teeth in mesh", belt.mesh_factor), ("K_w", "width against the table's", belt.width_factor))
        own_capacity(page, own, teeth_line("wheel", teeth), teeth, fast, small, belt.power_w, factors, belt.source)

    def _by_standard(self, width_m: float, teeth: int, wrap_rad: float, fast: float, page: Page) -> None:
        in_mesh = teeth * wrap_rad / math.tau
        found = rated_power(self.of, width_m, teeth, fast, in_mesh)
        whole = f"{int(in_mesh + 1e-9)}"
        mesh = Line("z_m", "teeth in mesh, whole", whole, whole, Origin.COMPUTED, Origin.MEASURED)
        width = given_figure("belt_width", "belt width", "b", "length", width_m, 0.0, Origin.MEASURED, (3, 1)).line()
        k_z = factor_line("K_z", "teeth-in-mesh factor", found.mesh_factor)
        k_w = factor_line("K_w", "width factor", found.width_factor)
        formula = "P = (pull allowed - m v²) v" if found.estimate else "P = (K_z K_w T_a - (b/b_0) m v²) v"
        put(page, "capacity", "power the belt carries", "P", "power", found.power_w, [width, mesh, k_z, *([] if found.estimate else [k_w]), *page.lines(("belt_speed", "v"))], formula, found.source,
            note=found.estimate, confidence=found.confidence, origin=Origin.ASSUMED if found.estimate else Origin.COMPUTED)  # fmt: skip
        if found.estimate:
            page.flag("estimated-rating", "name", f"No standard that is known here rates {self.of.name}. {found.estimate}")

    def stock(self) -> tuple[StockWheel, ...]:
        p = self.of
        return tuple(
            StockWheel(synchronous.pitch_diameter(p, int(r["teeth"])), synchronous.outside_diameter(p, int(r["teeth"])), int(r["teeth"]))
            for r in rows("toothed_pulleys")
            if r["pitch_name"] == p.pitch_name
        )

    def pair_written(self, driver: StockWheel, driven: StockWheel, new: Sequence[Role], on: On) -> Written:
        return teeth_written(driver, driven, on)

    def runs_on(self, driver: StockWheel, driven: StockWheel, centre_m: float, now_m: float) -> On:
        p, listed = self.of, synchronous.standard_teeth(self.of)
        if not listed:
            return On("", False, now_m)
        wanted = open_belt.belt_length(driver.line_m, driven.line_m, centre_m) / p.pitch_m
        teeth = min(listed, key=lambda z: abs(z - wanted))
        try:
            at = open_belt.centre_distance(driver.line_m, driven.line_m, teeth * p.pitch_m)
        except GeometryError:
            return On("", False, now_m)
        return On(synchronous.ToothedBelt(p, teeth, None, True).designation, False, at, slide_needed(at, now_m))

    def speaks_against(self, driver: StockWheel, driven: StockWheel, fastest: float) -> list[str]:
        small_teeth = min(driver.teeth or 999, driven.teeth or 999)
        return ["too few teeth at this speed"] if small_teeth < synchronous.least_teeth_at(self.of, fastest) else []


def toothed_line(of: Profile, driver: LineWheel, driven: LineWheel, centre_m: float | None, width_m: float | None) -> ToothedLine:
    """A toothed belt on two pulleys."""
    return ToothedLine(
        driver, driven, centre_m, of.belt_height_m, of.belt_height_m - of.tooth_height_m - of.line_under_tip_m, CAST_IRON_RIM_LIMIT_M_PER_S,
        f"IP-24: {CAST_IRON_RIM_LIMIT} on cast iron; faster wants balanced wheels (high)", size=width_m, of=of,
    )  # fmt: skip


class Toothed(Meshing):
    """A belt with teeth: no slip, and faster driven shafts wear its teeth."""

    key = "synchronous"
    label = "toothed belt"
    group = "synchronous"
    overhung_factor = 1.25
    sizes = ("tooth_height", "belt_thickness", "belt_width", "wheel_outside")
    answers: Mapping[str, tuple[str, ...]] = {"shape": ("straight", "round"), "material": ("rubber", "polyurethane")}
    wheel_size = "wheel_outside"

    def kinds(self, own: "OwnRatings") -> "Sequence[Choice]":
        from tuyere.core.drives.synchronous.choose import kinds  # the search knows what is fitted, and comes after it

        return kinds(own)

    def speed_up(self, ratio_up: float) -> tuple[float, float, str]:
        """IP-24 adds to the factor."""
        added = speed_up_added(ratio_up)
        return 1.0, added, f" Speeding up {ratio_up:.2f} times adds {added:.1f}." if added else ""

    def names(self) -> tuple[str, ...]:
        return tuple(synchronous.profiles())

    def candidates(self) -> tuple[Kind, ...]:
        return _candidates()

    def wheel_measures(self, name: str, teeth: int) -> Size:
        return identify.wheel_measures(name, teeth)

    def named(self, text: str) -> Named:
        return identify.named(text)

    def alike(self, name: str) -> list[Verdict]:
        return identify.alike(name)

    def described(self, name: str) -> tuple[str, Template]:
        of = synchronous.profile(name)
        return f"{of.form} teeth, {of.material}", identify.template(of)

    def lay_out(self, name: str, z1: int, z2: int, centre_m: float | None, count: int | None, open_ended: bool) -> ToothedDrive:
        return lay_out(synchronous.profile(name), z1, z2, centre_m, count, open_ended)

    def line(self, drive: ToothedDrive, wheels: tuple[LineWheel, LineWheel], seen: ToothedReading, driven: DriveReading) -> LineDrive:
        width = seen.width_m or (seen.named.width_m if seen.named else None)
        return toothed_line(synchronous.profile(drive.of), *wheels, drive.fittings[0].centre_m if drive.fittings else None, width)

    def loop(self, part: Part) -> LoopRead:
        return read_loop(part)

    def facts(self, part: Part) -> tuple[str, ...]:
        return ("carriage",) if told.linear_of(part) else ()

    def beside(self, part: Part) -> Surveyed:
        linear = told.linear_of(part)
        return Surveyed(problems=linear.problems, verdicts=linear.verdicts) if linear else Surveyed()

    def told(self, part: Part, asked: Asked) -> Told:
        return told.told(part)

    def slip_of(self, seen: ToothedReading, driven: DriveReading, machine_part: str) -> CounterSlip | None:
        named = seen.named.of if seen.named else None
        return slip_of(named if isinstance(named, synchronous.ToothedBelt) else None, driven, seen.width_m, machine_part)


@cache
def _candidates() -> tuple[Kind, ...]:
    return tuple(identify.candidate(p) for p in synchronous.profiles().values())


TOOTHED = Toothed()
