"""POST /api/calc/toothed: which toothed belt or chain it is, its shape to scale, and its wheels and length."""

import math

from flask import Response
from pydantic import BaseModel, Field

from tuyere.core.basis.field import Note
from tuyere.core.basis.figure import fine
from tuyere.core.basis.verdict import Problem, Verdict
from tuyere.core.kinds import registry
from tuyere.core.kinds.by_size import Match, NextSize
from tuyere.core.kinds.roller_chain.dogs import DogReading
from tuyere.core.kinds.roller_chain.told import dogs_of
from tuyere.core.kinds.synchronous.linear import LinearReading
from tuyere.core.kinds.synchronous.told import linear_of
from tuyere.core.kinds.teeth import DriveReading, Fitting, ToothedWheel
from tuyere.core.kinds.template import Template
from tuyere.core.kinds.toothed import HOW, Recognised, ToothedReading
from tuyere.record.entry import MeshingKey, Strict, part_of
from tuyere.record.fitted_forms import ToothedForm
from tuyere.web.answers import BothOut, answer, both_out
from tuyere.web.routes import routes
from tuyere.web.rules import anyone, computes

blueprint = routes("toothed", "/api/calc", "toothed", "Toothed belts and roller chains")
_SHOWN = 6


class ToothedIn(Strict):
    """Measurements of a toothed belt or a chain, and the drive it runs on."""

    family: MeshingKey
    toothed: ToothedForm = Field(default_factory=ToothedForm)


class SizeOut(BaseModel):
    """One size of a candidate as new, and by how many standard deviations the reading is off, where it was taken."""

    key: str
    label: str
    expected: BothOut
    off: float | None


class ToothedMatch(BaseModel):
    """One candidate: its share, its sizes, and its shape."""

    name: str
    what: str
    share: float
    sizes: list[SizeOut]
    template: Template


class NextOut(BaseModel):
    """What to measure or look at next, and what each of the two likeliest would show."""

    field: str
    how: str
    says: list[str]


class NamedOut(BaseModel):
    """What a name on a belt means."""

    designation: str
    teeth: int
    length: BothOut
    width: BothOut | None
    listed: bool


class ToothedWheelOut(BaseModel):
    """One pulley or sprocket as shown, and as drawn (m)."""

    teeth: int
    pitch_diameter: BothOut
    outside_diameter: BothOut
    caliper: BothOut | None
    tooth_width: BothOut | None
    wrap: str
    in_mesh: float | None
    pitch_diameter_m: float
    outside_diameter_m: float


class FittingOut(BaseModel):
    """One length that fits: count, name, exact centres; plain for a listed belt or an even chain."""

    count: int
    name: str
    length: BothOut
    centre: BothOut
    centre_m: float
    plain: bool


class ToothedDriveOut(BaseModel):
    """Both wheels and the lengths that fit."""

    wheels: list[ToothedWheelOut]
    fittings: list[FittingOut]
    verdicts: list[Verdict]


class DogsOut(BaseModel):
    """Dogs and conveyor chain: their spacings, and where each stands along the track (m), once both are measured; what to say."""

    dog_pitch: BothOut | None
    roller_pitch: BothOut | None
    dogs_at_m: list[float]
    rollers_at_m: list[float]
    verdicts: list[Verdict]


class LinearOut(BaseModel):
    """A carriage's belt: the hum that the target tension gives here and its band, the tension plucked; what to say."""

    target: str | None
    band: str | None
    tension: BothOut | None
    verdicts: list[Verdict]


class ToothedOut(BaseModel):
    """Candidates, likeliest first; the share that is none of them; the next question; verdicts, notes and problems."""

    found: list[ToothedMatch]
    none_of_them: float
    anything: bool
    next: NextOut | None
    named: NamedOut | None
    strands: int | None
    verdicts: list[Verdict]
    drive: ToothedDriveOut | None
    dogs: DogsOut | None
    linear: LinearOut | None
    notes: dict[str, Note]
    problems: list[Problem]


@blueprint.post("/toothed", summary="Which toothed belt or chain is this, and its drive", responses={"200": ToothedOut})
@computes()
def calc_toothed(body: ToothedIn) -> Response:
    part = part_of(body.toothed)
    return answer(_out(*registry.meshing(body.family).read(part), dogs_of(part), linear_of(part)))


def _out(reading: ToothedReading, driven: DriveReading, dogs: DogReading | None, linear: LinearReading | None) -> ToothedOut:
    shown = [m for m in reading.matches.found if m.probability > 0.004][:_SHOWN]
    anything = bool(reading.seen.span or reading.seen.sizes or reading.seen.named or reading.seen.answers)
    named, drive = reading.named, driven.drive
    return ToothedOut(
        found=[_match(reading.family, m) for m in shown],
        none_of_them=reading.matches.none_of_them,
        anything=anything,
        next=_next(reading.ask) if reading.ask else None,
        named=NamedOut(
            designation=named.designation,
            teeth=named.teeth,
            length=both_out(named.length_m, "length", decimals=(2, 1)),
            width=both_out(named.width_m, "length", True) if named.width_m else None,
            listed=named.listed,
        )
        if named and named.teeth and named.length_m
        else None,
        strands=reading.strands,
        verdicts=list(reading.verdicts),
        drive=ToothedDriveOut(
            wheels=[_wheel(w) for w in drive.wheels],
            fittings=[_fitting(f) for f in drive.fittings],
            verdicts=list(drive.verdicts),
        )
        if drive
        else None,
        dogs=_dogs(dogs) if dogs else None,
        linear=_linear(linear) if linear else None,
        notes=reading.notes | driven.notes | (dogs.notes if dogs else {}) | (linear.notes if linear else {}),
        problems=[*reading.problems, *driven.problems, *(dogs.problems if dogs else ()), *(linear.problems if linear else ())],
    )


def _dogs(reading: DogReading) -> DogsOut:
    d = reading.dogs
    return DogsOut(
        dog_pitch=_fine(d.dog_pitch_m) if d else None,
        roller_pitch=_fine(d.roller_pitch_m) if d else None,
        dogs_at_m=list(d.dogs_at_m) if d else [],
        rollers_at_m=list(d.rollers_at_m) if d else [],
        verdicts=list(reading.verdicts),
    )


def _linear(reading: LinearReading) -> LinearOut:
    low, high = reading.low_hz, reading.high_hz
    return LinearOut(
        target=f"{reading.target_hz:.0f} Hz" if reading.target_hz else None,
        band=f"{low:.0f} to {high:.0f} Hz" if low and high else None,
        tension=both_out(reading.tension_n, "force") if reading.tension_n is not None else None,
        verdicts=list(reading.verdicts),
    )


_LABELS = {
    "tooth_height": "tooth height",
    "belt_thickness": "thickness over the tooth",
    "roller_diameter": "roller",
    "inner_width": "gap inside",
    "wheel_outside": "pulley over its teeth",
    "wheel_caliper": "sprocket, in its bottoms",
    "plate_height": "plate height",
    "plate_thickness": "plate thickness",
    "pin_diameter": "pin",
}


def _match(family: Recognised, found: Match) -> ToothedMatch:
    kind = found.kind
    sizes = [SizeOut(key="pitch_span", label="pitch, new", expected=_fine(kind.pitch_m), off=found.off.get("pitch_span"))]
    sizes += [SizeOut(key=k, label=_LABELS[k], expected=_fine(s.value), off=found.off.get(k)) for k, s in kind.sizes.items()]
    what, template = family.described(kind.name)
    return ToothedMatch(name=kind.name, what=what, share=found.probability, sizes=sizes, template=template)


def _fine(value_m: float) -> BothOut:
    return both_out(value_m, "length", decimals=(3, 2))


def _next(ask: NextSize) -> NextOut:
    says = [f"{fine(v) if isinstance(v, float) else v.capitalize()}: {name}." for name, v in ask.says]
    return NextOut(field=ask.key, how=HOW[ask.key], says=[s if s[0].isupper() else f"About {s}" for s in says])


def _wheel(w: ToothedWheel) -> ToothedWheelOut:
    return ToothedWheelOut(
        teeth=w.teeth,
        pitch_diameter=_fine(w.pitch_diameter_m),
        outside_diameter=_fine(w.outside_diameter_m),
        caliper=_fine(w.caliper_m) if w.caliper_m else None,
        tooth_width=_fine(w.tooth_width_m) if w.tooth_width_m else None,
        wrap=f"{math.degrees(w.wrap_rad):.0f}°" if w.wrap_rad else "",
        in_mesh=w.in_mesh,
        pitch_diameter_m=w.pitch_diameter_m,
        outside_diameter_m=w.outside_diameter_m,
    )


def _fitting(f: Fitting) -> FittingOut:
    return FittingOut(
        count=f.count,
        name=f.name,
        length=both_out(f.length_m, "length", decimals=(2, 1)),
        centre=both_out(f.centre_m, "length", decimals=(3, 2)),
        centre_m=f.centre_m,
        plain=f.plain,
    )


class ToothedListsOut(BaseModel):
    """Names to choose from and what may be answered, by family."""

    names: dict[str, list[str]]
    answers: dict[str, dict[str, tuple[str, ...]]]


@blueprint.get("/toothed-lists", summary="Profiles and chains by name", responses={"200": ToothedListsOut})
@anyone()
def toothed_lists() -> Response:
    names = {f.key: list(f.names()) for f in registry.MESHING}
    return answer(ToothedListsOut(names=names, answers={f.key: dict(f.answers) for f in registry.MESHING}))
