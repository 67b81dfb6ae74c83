"""A get-home fix: a narrower belt in the groove, or fewer belts than the set, and what share of the load it carries.

What a short set carries is `short_set`'s; here it is set down as a fix, with its working and the day it comes off.
"""

from dataclasses import dataclass
from math import pi

from tuyere.core import short_set
from tuyere.core.families.v_belt import BeltError, Section, datum_from_outside, groove_at_outside
from tuyere.core.fit.pairing import a, in_groove
from tuyere.core.fit.seat import Trapezoid, seat
from tuyere.core.geometry.open_belt import GeometryError
from tuyere.core.origin import Origin
from tuyere.core.rating import ip20, vee
from tuyere.core.sheet.figure import Figure, Line, figure
from tuyere.core.sheet.page import Page
from tuyere.core.sheet.solve import solve_page
from tuyere.core.sheet.spec import DriveSpec
from tuyere.core.sheet.verdict import Problem, Tone, Verdict
from tuyere.core.uncertainty import exact

_AREA_CREDIT = 0.8  # of the ratio of belt areas, where a rating is missing: an estimate
_WRONG_GROOVE = 0.8  # of its rating in its own groove: common practice, no source
NARROW_DAYS = 3


@dataclass(frozen=True)
class Fix:
    """What was put on to get home: the section run, and how many belts."""

    section: Section
    count: int


@dataclass(frozen=True)
class GetHome:
    """The share of the design load the fix carries (None: not known), how hard to run, by when it comes off, and what to say."""

    what: str
    share: float | None
    share_text: str
    days: int
    run: str
    figures: tuple[Figure, ...]
    verdicts: tuple[Verdict, ...]
    problems: tuple[Problem, ...]


def get_home(spec: DriveSpec, fix: Fix) -> GetHome:
    """Judge a get-home fix on a drive. A fix that would destroy itself is a problem, not a fix."""
    made_for = spec.section
    if made_for is None or not spec.belt_count:
        return _refused("section", "Survey the drive first: its own section and the number of belts it should have.")
    narrower = fix.section.groove != made_for.groove and fix.section.name != made_for.name
    whole = _whole(spec, narrower)
    if fix.count > whole:
        what = "grooves in use" if narrower or spec.ribs == 1 else "belts of several ribs"
        return _refused("fix_count", f"The drive has {whole} {what}: write 1 to {whole}.")
    if narrower:
        pair = in_groove(fix.section, made_for)
        if pair.match not in ("narrower", "right"):
            return _refused("fix_section", f"{pair.verdict.headline}: {pair.verdict.detail}")
    elif fix.count == whole:
        return _refused("fix_count", "That is the full set in its own groove: nothing to record as a get-home fix.")
    return _judge(spec, fix, narrower)


def _whole(spec: DriveSpec, narrower: bool) -> int:
    """How many make the full set: belts or bands of its own; narrower single belts, one a groove."""
    return (spec.parallel or 0) // (1 if narrower else spec.ribs)


def _refused(field: str, sentence: str) -> GetHome:
    return GetHome("", None, "", 0, "", (), (), (Problem(field, sentence),))


def _judge(spec: DriveSpec, fix: Fix, narrower: bool) -> GetHome:
    assert spec.section and spec.parallel
    page, whole = solve_page(spec), _whole(spec, narrower)
    one, basis = _one_belt(spec, fix.section, page) if narrower else (1.0, "the same belt")
    of_set = one * fix.count / whole
    figures = [
        figure("share_of_set", "share of the full set", "s", "share", exact(of_set), [
            Line("n", "belts on", str(fix.count), str(fix.count), Origin.CHOSEN, Origin.CHOSEN),
            Line("N", "belts of the full set", str(whole), str(whole), Origin.CHOSEN, Origin.CHOSEN),
            Line("p", f"one {fix.section.name} against one {spec.section.name}: {basis}", f"{one:.0%}", f"{one:.0%}", Origin.STANDARD, Origin.STANDARD),
        ], "s = p n / N", ip20.SOURCE if basis.startswith("rated") else "estimate", decimals=(0, 0)),
    ]  # fmt: skip
    share = None
    ratio = short_set.share_of_load(page, one * fix.count * (1 if narrower else spec.ribs))
    if ratio is not None:
        figures.append(
            figure(
                "share_of_load",
                "share of the design load",
                "S",
                "share",
                ratio,
                [figures[0].line(), *page.lines("power_per_belt", "design_power")],
                "S = P_b p n / P_d",
                ip20.SOURCE,
                decimals=(0, 0),
            )
        )
        share = ratio.n
    known = share if share is not None else of_set
    days = min(NARROW_DAYS if narrower else 99, short_set.days(known))
    what = (
        f"{fix.count} {fix.section.name} {'belt' if fix.count == 1 else 'belts'} in {spec.section.name} grooves"
        if narrower
        else f"{fix.count} of {whole} belts"
    )
    verdicts = _verdicts(spec, fix, narrower, share, of_set, page)
    return GetHome(
        what,
        share,
        f"{known:.0%} of the {'design load' if share is not None else 'full set'}",
        days,
        short_set.run(known, share is not None),
        tuple(figures),
        tuple(verdicts),
        (),
    )


def _one_belt(spec: DriveSpec, section: Section, page: Page) -> tuple[float, str]:
    """Power of one narrower belt against one right belt, and on what it rests."""
    assert spec.section
    by_area = _AREA_CREDIT * section.top_width_m * section.height_m / (spec.section.top_width_m * spec.section.height_m)
    if not page.has("ratio", "driver_outside", "driven_outside", "driver_speed"):
        return by_area, "by the belts' areas"
    try:
        d, big = (_line_diameter(section, spec.section, page.values[f"{r}_outside"].n) for r in ("driver", "driven"))
        ratio = max(d, big) / min(d, big)
        fast = page.values["driver_speed"].n * max(1.0, d / big)
        right = vee.rated_power(
            spec.section, min(page.values["driver_datum"].n, page.values["driven_datum"].n), fast, ratio, spec.own.of(spec.section.name)
        ).total_w
        narrow = vee.rated_power(section, min(d, big), fast, ratio, spec.own.of(section.name)).total_w
    except (ip20.OutOfRangeError, BeltError, GeometryError):
        return by_area, "by the belts' areas"
    return (
        (_WRONG_GROOVE * narrow / right, "rated power where it rides, a fifth off for the strange groove")
        if right > 0
        else (by_area, "by the belts' areas")
    )


def _line_diameter(section: Section, made_for: Section, outside_m: float) -> float:
    """Diameter of the narrower belt's line in the wider groove: its back is lower by the ride."""
    groove = groove_at_outside(made_for, outside_m)
    ride = seat(
        Trapezoid(section.top_width_m, section.height_m, section.angle_deg * pi / 180),
        Trapezoid(groove.top_width_m, groove.depth_min_m, groove.angle_deg * pi / 180),
    ).ride_m
    flush = outside_m + 2 * ride
    return datum_from_outside(section, flush)


def _verdicts(spec: DriveSpec, fix: Fix, narrower: bool, share: float | None, of_set: float, page: Page) -> list[Verdict]:
    assert spec.section
    found = []
    known = share if share is not None else of_set
    tone = Tone.WATCH if known >= short_set.ENOUGH else Tone.STOP
    found.append(
        Verdict(
            "get home",
            tone,
            f"Carries about {known:.0%} of the {'design load' if share is not None else 'full set'}",
            "Temporary: order the right set today.",
        )
    )
    if narrower:
        found.append(
            Verdict(
                "get home",
                Tone.WATCH,
                f"{fix.section.name} sits deep in {a(spec.section.name)} groove",
                _speed(spec, fix.section, page) + " Look at it after the first hour: it must not touch the bottom.",
            )
        )
    if share is None:
        found.append(
            Verdict(
                "get home",
                Tone.OPEN,
                "Share of the load not known",
                "Give power, speed and kind of machine at Survey: then it says what the fix carries.",
            )
        )
    return found


def _speed(spec: DriveSpec, section: Section, page: Page) -> str:
    if not page.has("driver_outside", "driven_outside", "ratio"):
        return ""
    assert spec.section
    d, big = (_line_diameter(section, spec.section, page.values[f"{r}_outside"].n) for r in ("driver", "driven"))
    change = (d / big) * page.values["ratio"].n - 1
    return f"The driven speed changes by {change:+.1%}." if abs(change) >= 0.005 else "The driven speed hardly changes."
