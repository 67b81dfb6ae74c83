"""POST /api/calc/<name> for finding the belt: identify, groove check, length window, get-home fix, grade, counter slip; and the tables."""

from dataclasses import replace

from flask import Response
from pydantic import BaseModel, Field

from tuyere.core.basis.field import Note
from tuyere.core.basis.quantity import QuantityError, whole_number
from tuyere.core.basis.typed import Given, given
from tuyere.core.basis.verdict import Problem, Verdict
from tuyere.core.drive.sheet.solve import solve_page
from tuyere.core.kinds import v_belt
from tuyere.core.kinds.counter import CounterSlip as Slip
from tuyere.core.kinds.spec import DriveSpec
from tuyere.core.kinds.v_belt.drive import VDrive
from tuyere.core.kinds.v_belt.kind import V_BELT
from tuyere.core.kinds.v_belt.told import link_of
from tuyere.core.stations.bench import table_book
from tuyere.core.stations.find.answer import Identified, Name, equivalents, identify
from tuyere.core.stations.find.counter_slip import counter_slip, link_length, link_slip
from tuyere.core.stations.find.evidence import read_evidence
from tuyere.core.stations.find.fit.check import Fitting, GrooveCheck, check
from tuyere.core.stations.find.fit.pairing import mixed_set
from tuyere.core.stations.find.get_home import Fix, GetHome, get_home
from tuyere.core.stations.find.grade import DUTIES, Grade, grade
from tuyere.core.stations.find.window import Window, window
from tuyere.record.entry import Strict
from tuyere.record.forms import SurveyForm, WithSurvey
from tuyere.web.answers import answer
from tuyere.web.errors import FieldError, Refusal
from tuyere.web.find_form import FindForm
from tuyere.web.routes import routes
from tuyere.web.rules import anyone, computes
from tuyere.web.surveyed import answer_of

blueprint = routes("find", "/api", "find", "Which belt is this, does it sit right, what to ask for; without a record")

FITTING_KEYS = ("wheel_diameter", "top_width", "thickness", "belt_angle", "groove_width", "groove_depth", "groove_angle", "ride")


class IdentifyOut(BaseModel):
    """The ranking in words, what each field understood, and the problems beside the fields."""

    answer: Identified
    notes: dict[str, Note]
    problems: list[Problem]


@blueprint.post("/calc/identify", summary="Which V-belt is this", responses={"200": IdentifyOut})
@computes()
def calc_identify(body: FindForm) -> Response:
    read = read_evidence(body.typed(), body.words.model_dump())
    return answer(IdentifyOut(answer=identify(read.evidence), notes=read.notes, problems=list(read.problems)))


class DesignationIn(Strict):
    """A belt's name in any system."""

    text: str = Field(max_length=60)


class DesignationOut(BaseModel):
    """The belt by every length convention (m), and by its names in other systems."""

    designation: str
    section: str
    number: float
    ribs: int | None
    listed: bool
    inside_length_m: float
    datum_length_m: float
    outside_length_m: float
    same_as: list[Name]


@blueprint.post("/calc/designation", summary="Read a belt's name and convert its length", responses={"200": DesignationOut})
@computes()
def calc_designation(body: DesignationIn) -> Response:
    belt = _belt(body.text, "text")
    by = v_belt.lengths(belt.section, belt.number)
    return answer(
        DesignationOut(
            designation=belt.designation,
            section=belt.section.name,
            number=belt.number,
            ribs=belt.ribs,
            listed=belt.listed,
            inside_length_m=by.inside_m,
            datum_length_m=by.datum_m,
            outside_length_m=by.outside_m,
            same_as=equivalents(belt),
        )
    )


def _belt(text: str, field: str) -> v_belt.Belt:
    try:
        return v_belt.parse_designation(text)
    except v_belt.BeltError as reason:
        raise Refusal(422, str(reason), [FieldError(field=field, detail=str(reason))]) from None


class CheckOut(BaseModel):
    """The groove check (null until the belt is named), verdicts on the set, what each field understood, and the problems."""

    check: GrooveCheck | None
    set_verdicts: list[Verdict]
    notes: dict[str, Note]
    problems: list[Problem]


@blueprint.post("/calc/groove-check", summary="Does the belt sit right in its groove", responses={"200": CheckOut})
@computes()
def calc_groove_check(body: FindForm) -> Response:
    problems: list[Problem] = []
    notes: dict[str, Note] = {}
    values = _givens(body, notes, problems)
    words = body.words
    belt, made_for = (_section(getattr(words, key), key, problems) for key in ("belt_section", "made_for"))
    ride = values.get("ride")
    if ride and words.ride_way == "sunk":
        values["ride"] = Given(-ride.value, ride.std, ride.origin, ride.name)
    found = None
    if belt:
        sizes = {k: values.get(k) for k in FITTING_KEYS}
        try:
            found = check(Fitting(belt, made_for or belt, words.groove_kind or "standard", **sizes))
        except v_belt.BeltError as reason:
            problems.append(Problem("groove_kind", str(reason)))
    return answer(CheckOut(check=found, set_verdicts=list(mixed_set(body.set_signs)), notes=notes, problems=problems))


def _givens(body: FindForm, notes: dict[str, Note], problems: list[Problem]) -> dict[str, Given]:
    values = {}
    for key, typed in body.typed().items():
        try:
            found, note = given(key, typed)
        except QuantityError as refusal:
            problems.append(Problem(key, str(refusal), getattr(refusal, "offer", None)))
            continue
        if found and note:
            values[key], notes[key] = found, note
    return values


def _section(name: str, field: str, problems: list[Problem]) -> v_belt.Section | None:
    if not name.strip():
        return None
    try:
        return v_belt.section(name)
    except v_belt.BeltError as reason:
        problems.append(Problem(field, str(reason)))
        return None


class WindowIn(WithSurvey):
    """A survey without a belt; whether the drive clutches by a slack belt."""

    slack_clutch: bool = False


class WindowOut(BaseModel):
    """The length window (null until section, wheels and centres are known) and what is still wanted."""

    window: Window | None
    wanted: list[str]


def v_drive(survey: SurveyForm) -> tuple[VDrive, DriveSpec]:
    """The V-belts of a survey form, and the drive they are on, as far as it can be read; problems stand beside the survey's own fields."""
    spec = answer_of(survey).spec
    return (spec.fitted if isinstance(spec.fitted, VDrive) else VDrive()), spec


@blueprint.post("/calc/length-window", summary="Which lengths the take-up can serve", responses={"200": WindowOut})
@computes()
def calc_length_window(body: WindowIn) -> Response:
    on, spec = v_drive(body.survey)
    known = {key: getattr(on, key) for key in ("section", "driver_diameter", "driven_diameter", "centre_distance")}
    known |= {"travel_in": spec.slide.closer, "travel_out": spec.slide.away}
    wanted = [key for key, value in known.items() if value is None]
    return answer(WindowOut(window=window(on, spec.slide, body.slack_clutch), wanted=wanted))


class GetHomeIn(WithSurvey):
    """A drive's own survey and what was put on it to get home."""

    fix_section: str = Field("", max_length=40, description="the section run; empty for the drive's own")
    fix_count: str = Field("", max_length=40)
    fix_belt: str = Field("", max_length=60, description="the belt from the shelf, by its name; empty where not known")
    fix_singles: bool = Field(False, description="single belts in the grooves of a joined one")


def judge_fix(body: GetHomeIn) -> tuple[GetHome | None, list[Problem]]:
    """The fix as typed, judged; or the problems with it."""
    on, spec = v_drive(body.survey)
    fix, problems = _read_fix(body, on)
    if fix is None:
        return None, problems
    judged = get_home(on, fix, solve_page(spec), spec.slide, spec.own, body.machine_is)
    return (None, list(judged.problems)) if judged.problems else (judged, [])


def _read_fix(body: GetHomeIn, on: VDrive) -> tuple[Fix | None, list[Problem]]:
    problems: list[Problem] = []
    section = _section(body.fix_section, "fix_section", problems) or on.section
    count = whole_number(body.fix_count, 1, 20)
    if count is None:
        problems.append(Problem("fix_count", "Write how many belts are on now: 1 to 20."))
        return None, problems
    if section is None:
        problems.append(Problem("section", "Survey the drive first: its own section and the number of belts it should have."))
        return None, problems
    belt = None
    if body.fix_belt.strip() not in ("", "-", "?"):
        try:
            belt = v_belt.of_section(v_belt.parse_designation(body.fix_belt), section)
        except v_belt.BeltError as reason:
            problems.append(Problem("fix_belt", str(reason)))
            return None, problems
        if belt.section.name != section.name:
            problems.append(Problem("fix_belt", f"{belt.designation} is a section {belt.section.name} belt: choose that section above."))
            return None, problems
    back = any(w.contact == "back" and w.role == "driven" for w in body.survey.layout.wheels)
    return Fix(section, count, belt, body.fix_singles, back), problems


class GetHomeOut(BaseModel):
    """The fix judged (null when it cannot be), and the problems beside its fields."""

    fix: GetHome | None
    problems: list[Problem]


@blueprint.post("/calc/get-home", summary="What a get-home fix carries", responses={"200": GetHomeOut})
@computes()
def calc_get_home(body: GetHomeIn) -> Response:
    fix, problems = judge_fix(body)
    return answer(GetHomeOut(fix=fix, problems=problems))


class GradeIn(WithSurvey):
    """What the drive does to its belts, and how long the last sets lasted (hours, oldest first)."""

    section: str = Field("", max_length=40)
    duties: list[str] = Field(default_factory=list, max_length=20)
    lives_h: list[float] = Field(default_factory=list, max_length=100)


def grade_of(body: GradeIn, section: v_belt.Section) -> Grade:
    """The grade for the duty; words that are not on the list are left out."""
    lives = tuple(h for h in body.lives_h if 0 < h < 1e6)
    return grade(section, tuple(d for d in body.duties if d in DUTIES), v_drive(body.survey)[0], lives)


class GradeOut(BaseModel):
    """The grade (null until the section is known)."""

    grade: Grade | None


@blueprint.post("/calc/grade", summary="Which grade the duty asks for", responses={"200": GradeOut})
@computes()
def calc_grade(body: GradeIn) -> Response:
    problems: list[Problem] = []
    section = _section(body.section, "section", problems) or v_drive(body.survey)[0].section
    return answer(GradeOut(grade=grade_of(body, section) if section else None))


class SlipIn(WithSurvey):
    """What the slip is made from: the family, the V-belt to ask for, the drive's survey, and what was found out."""

    belt: str = Field("", max_length=60)
    joined: bool = False
    slack_clutch: bool = False
    duties: list[str] = Field(default_factory=list, max_length=20)
    lives_h: list[float] = Field(default_factory=list, max_length=100)
    part_number: str = Field("", max_length=120)


class SlipOut(BaseModel):
    """The slip."""

    slip: Slip


def slip_of(body: SlipIn) -> tuple[str, Slip]:
    """What to ask for and the counter slip of a request. Raises Refusal for what cannot be read, or is not known yet."""
    first = body.survey.first.typed()
    if first.family is not V_BELT:
        found = first.family.counter_slip(first.part, body.part_number.strip())
        if found is None:
            raise Refusal(422, "Survey it first: what it is, its wheels and its length; then the slip writes itself.")
        return found.headline, found
    link = link_of(first.part).belt
    if link and not body.belt.strip():
        found = link_slip(link, first.part.words["section"], body.part_number.strip())
        return found.headline, found
    if not body.belt.strip():
        sentence = "Find the belt first, or write its name, such as B81."
        raise Refusal(422, sentence, [FieldError(field="belt", detail=sentence)])
    belt = _belt(body.belt, "belt")
    on, spec = v_drive(body.survey)
    if on.section:
        belt = v_belt.of_section(belt, on.section)
    graded = grade_of(GradeIn(survey=body.survey, duties=body.duties, lives_h=body.lives_h), belt.section)
    same_groove = on.section is not None and on.section.groove == belt.section.groove
    room = window(on, spec.slide, body.slack_clutch) if same_groove else None
    joined = body.joined or bool(belt.ribs)
    slip = counter_slip(belt, on.belt_count, joined, on, room, graded, body.part_number.strip())
    return belt.designation, replace(slip, length=(*slip.length, f"or link belting: {link_length(link)}")) if link else slip


@blueprint.post("/calc/counter-slip", summary="What to ask for at the counter", responses={"200": SlipOut})
@computes()
def calc_counter_slip(body: SlipIn) -> Response:
    return answer(SlipOut(slip=slip_of(body)[1]))


class TableName(BaseModel):
    """A table."""

    name: str = Field(max_length=60)


class TableEntry(BaseModel):
    """A table in the book."""

    name: str
    title: str
    group: str
    rows: int


class BookOut(BaseModel):
    """The tables there are."""

    tables: list[TableEntry]


@blueprint.get("/tables", summary="The tables of standards", responses={"200": BookOut})
@anyone()
def get_tables() -> Response:
    found = [table_book.table(name) for name in table_book.BOOK]
    return answer(BookOut(tables=[TableEntry(name=t.name, title=t.title, group=t.group, rows=len(t.rows)) for t in found]))


class TableOut(BaseModel):
    """One table."""

    table: table_book.Table


@blueprint.get("/tables/<name>", summary="One table, every figure in both systems", responses={"200": TableOut})
@anyone()
def get_table(path: TableName) -> Response:
    if path.name not in table_book.BOOK:
        raise Refusal(404)
    return answer(TableOut(table=table_book.table(path.name)))
