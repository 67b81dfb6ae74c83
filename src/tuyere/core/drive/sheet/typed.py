"""From what people typed to a DriveSpec: each field read on its own, its problem kept beside it, nothing lost."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import get_args

from tuyere.core.basis.field import Note
from tuyere.core.basis.quantity import whole_number
from tuyere.core.basis.reader import FieldReader
from tuyere.core.basis.typed import Typed
from tuyere.core.basis.verdict import Problem
from tuyere.core.kinds.family import Family
from tuyere.core.kinds.fitted import Slide
from tuyere.core.kinds.rating import duties
from tuyere.core.kinds.rating.own_table import NONE, OwnRatings
from tuyere.core.kinds.rating.service import IDLERS, STARTS, SURROUNDINGS
from tuyere.core.kinds.spec import DriverClass, DriveSpec, Rotation
from tuyere.core.kinds.starts import start_times, starts
from tuyere.core.kinds.survey import Part, Surveyed

# The rest of the design point is kept and shown; nothing is computed from it yet.
DESIGN = ("design_speed", "design_airflow", "design_pressure", "design_amps", "design_turns")


@dataclass(frozen=True)
class FormReading:
    """The outcome of reading a form: the spec, what the kind of drive made of its part, a note per field, and the problems."""

    spec: DriveSpec
    surveyed: Surveyed
    design: dict[str, float]
    notes: dict[str, Note]
    problems: list[Problem]


def read_form(
    family: Family,
    quantities: Mapping[str, Typed],
    words: Mapping[str, str],
    part: Part | None = None,
    own: OwnRatings = NONE,
) -> FormReading:
    """Read a whole sheet form. Quantities by field key; words are plain (classes, rotation...).

    part: what the drive's kind keeps of itself; the form's own fields where it is not given. own: the shop's rating tables.
    """
    surveyed = family.survey(part or Part(quantities, words))
    if surveyed.driver_speed and surveyed.driver_speed.text and not quantities.get("driver_speed", Typed()).text.strip():
        quantities = {**quantities, "driver_speed": surveyed.driver_speed}
    reader = FieldReader(quantities, words)
    design = {key: reader.given(key) for key in DESIGN if key in quantities}
    torque: DriverClass = reader.choice("driver_class", get_args(DriverClass)) or "normal"
    start = words.get("start_by", "") if words.get("start_by", "") in {c.key for c in starts()} else "direct"
    spec = DriveSpec(
        family,
        surveyed.fitted,
        driver_power=reader.given("driver_power"),
        driver_speed=reader.given("driver_speed"),
        driver_class=torque,
        driven_class=reader.choice("driven_class", tuple(c.name for c in duties.driven_classes())),
        hours_per_day=reader.given("hours_per_day"),
        slide=Slide(reader.given("travel_in"), reader.given("travel_out")),
        design_speed=design.get("design_speed"),
        rotation=reader.choice("rotation", get_args(Rotation)) or "clockwise",
        centre_line_deg=_angle(reader),
        tach_driver=reader.given("tach_driver"),
        tach_driven=reader.given("tach_driven"),
        own=own,
        idler=reader.choice("idler", tuple(IDLERS)) or "none",
        surroundings=reader.choice("surroundings", tuple(SURROUNDINGS)) or "clean",
        starts=reader.choice("starts", tuple(STARTS)) or "seldom",
        start_times=reader.number("start", 0.5, 5, "") or start_times(start, torque == "high"),
    )
    known = {key: found.value for key, found in design.items() if found}
    return FormReading(spec, surveyed, known, {**surveyed.notes, **reader.notes}, [*surveyed.problems, *reader.problems])


def _angle(reader: FieldReader) -> float:
    degrees = whole_number(reader.words.get("centre_line_deg", "").strip() or "0", 0, 359)
    if degrees is None:
        reader.problems.append(Problem("centre_line_deg", "Choose where the driven sheave lies, 0 to 359 degrees from the right."))
    return float(degrees or 0)
