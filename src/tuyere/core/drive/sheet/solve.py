"""One drive, everything the sheet shows of it."""

from dataclasses import dataclass

from tuyere.core.basis.figure import Figure
from tuyere.core.basis.page import Page
from tuyere.core.basis.verdict import Flag, Problem, Verdict
from tuyere.core.drive.sheet import meant, power, shaft, strain, wheels
from tuyere.core.drive.sheet.drawing import Drawing, draw
from tuyere.core.kinds.fitted import ShortSet
from tuyere.core.kinds.spec import DriveSpec


@dataclass(frozen=True)
class Sheet:
    """Figures by key, verdicts, flags (bad practice), problems (refused input), the drawing, what to fill in next, and what a short set
    carries.
    """

    figures: dict[str, Figure]
    verdicts: tuple[Verdict, ...]
    flags: tuple[Flag, ...]
    problems: tuple[Problem, ...]
    drawing: Drawing | None
    wanted: tuple[str, ...]
    short: tuple[ShortSet, ...]


STEPS = (
    wheels.diameters,
    wheels.ratio_and_speeds,
    wheels.tachometer,
    wheels.centres,
    power.design_power,
    power.rating,
    shaft.loads,
    strain.target,
    meant.asks,
)


def solve(spec: DriveSpec) -> Sheet:
    """Compute what the known values allow; what is not known leaves its figures out and is named in `wanted`."""
    return sheet_of(spec, solve_page(spec))


def sheet_of(spec: DriveSpec, page: Page) -> Sheet:
    """A solved page as it is shown."""
    short = spec.fitted.short_sets(page) if spec.fitted else ()
    return Sheet(dict(page.figures), tuple(page.verdicts), tuple(page.flags), tuple(page.problems), draw(spec, page), wanted(spec), short)


def solve_page(spec: DriveSpec) -> Page:
    """The figures alone, for computations that build on the sheet."""
    page = Page()
    for step in STEPS:
        step(spec, page)
    return page


def wanted(spec: DriveSpec) -> tuple[str, ...]:
    """Fields still to fill in, in the order a person would measure them."""
    order = (
        *(spec.fitted.wanted if spec.fitted else ()),
        ("driver_speed", spec.driver_speed),
        ("driver_power", spec.driver_power),
        ("driven_class", spec.driven_class),
        ("hours_per_day", spec.hours_per_day),
        *(spec.fitted.count_wanted if spec.fitted else ()),
    )
    return tuple(key for key, value in order if not value)
