"""The sheet's form as it crosses the web: what people typed, field by field."""

from dataclasses import replace
from typing import Annotated

from pydantic import Field

from tuyere.core.drives import registry
from tuyere.core.drives.flat.survey import FlatReading, read_flat
from tuyere.core.drives.roller_chain.dogs import DogReading, read_dogs
from tuyere.core.drives.survey import Part, Surveyed
from tuyere.core.drives.synchronous.linear import LinearReading, read_linear
from tuyere.core.drives.v_belt.link import LinkReading, read_link
from tuyere.core.entry.typed import Typed
from tuyere.core.layout.typed import TypedBelt, TypedCarriage, TypedPath, TypedTape
from tuyere.core.sheet.solve import solve_page
from tuyere.core.sheet.typed import Reading, read_form
from tuyere.core.speeds.machine_form import MachineReading, read_machine
from tuyere.core.uncertainty import TOOLS
from tuyere.web.entry import USUAL_FAMILY, Entry, FamilyKey, Strict, none_typed, part_of
from tuyere.web.path_form import PathForm
from tuyere.web.shop import the_shop

FORCE_TOOLS = tuple(name for name, tool in TOOLS.items() if tool.kind == "force")


class Quantities(Strict):
    """Everything on the sheet that is a number with a unit."""

    driver_power: Entry = none_typed
    driver_speed: Entry = none_typed
    hours_per_day: Entry = none_typed
    driver_diameter: Entry = none_typed
    driven_diameter: Entry = none_typed
    centre_distance: Entry = none_typed
    travel_in: Entry = none_typed
    travel_out: Entry = none_typed
    open_turns: Entry = none_typed
    most_turns: Entry = none_typed
    turn_drop: Entry = none_typed


class DesignPoint(Strict):
    """What the drive is meant to have."""

    design_speed: Entry = none_typed
    design_airflow: Entry = none_typed
    design_pressure: Entry = none_typed
    design_amps: Entry = none_typed
    design_turns: Entry = none_typed


class Choices(Strict):
    """Everything on the sheet that is a word from a list, a belt name or a count."""

    section: str = Field("", max_length=200)
    belt: str = Field("", max_length=200)
    belt_count: str = Field("", max_length=200)
    ribs: str = Field("", max_length=40)
    driver_class: str = Field("normal", max_length=40)
    driven_class: str = Field("", max_length=40)
    driver_basis: str = Field("outside", max_length=40)
    driven_basis: str = Field("outside", max_length=40)
    driver_groove: str = Field("standard", max_length=40)
    driven_groove: str = Field("standard", max_length=40)
    rotation: str = Field("clockwise", max_length=40)
    centre_line_deg: str = Field("0", max_length=40)
    adjustable: str = Field("", max_length=40)
    idler: str = Field("none", max_length=40)
    surroundings: str = Field("clean", max_length=40)
    starts: str = Field("seldom", max_length=40)


class ToothedWords(Strict):
    """Of a toothed belt or a chain: counts and answers in words, and what is written on it."""

    pitch_count: str = Field("", max_length=20)
    wheel_teeth: str = Field("", max_length=20)
    shape: str = Field("", max_length=20)
    material: str = Field("", max_length=20)
    body: str = Field("", max_length=20)
    plates: str = Field("", max_length=20)
    label: str = Field("", max_length=60)
    tool: str = Field("caliper", max_length=20)


class ToothedDriveForm(Strict):
    """Two toothed wheels: the profile or chain, teeth, and the centres or the count on the belt or chain."""

    name: str = Field("", max_length=40)
    teeth_1: str = Field("", max_length=20)
    teeth_2: str = Field("", max_length=20)
    count: str = Field("", max_length=20)
    strands: str = Field("", max_length=20)
    centre_distance: Entry = none_typed


class DogsForm(Strict):
    """The drive unit of an overhead conveyor: spans over dogs and over conveyor pitches, and what was looked at."""

    fitted: bool = False
    dog_span: Entry = none_typed
    dog_count: str = Field("", max_length=20)
    conveyor_span: Entry = none_typed
    conveyor_count: str = Field("", max_length=20)
    pitches_per_dog: str = Field("", max_length=20)
    dogs_engaged: str = Field("", max_length=20)
    conveyor: str = Field("", max_length=40)
    bears_on: str = Field("", max_length=40)
    take_up_side: str = Field("", max_length=40)
    pressure_plate: str = Field("", max_length=40)
    wear_strips: str = Field("", max_length=40)

    def read(self) -> DogReading:
        """As the core reads it."""
        spans = ("dog_span", "conveyor_span")
        return read_dogs({k: getattr(self, k).typed() for k in spans}, self.model_dump(exclude={*spans, "fitted"}))


class LinearForm(Strict):
    """An open-ended belt clamped to a carriage: the free span, the manual's figures, and the pluck."""

    fitted: bool = False
    linear_span: Entry = none_typed
    linear_mass: Entry = none_typed
    linear_target: Entry = none_typed
    linear_within: str = Field("", max_length=20)
    linear_pluck: Entry = none_typed

    def read(self, belt_thickness: Entry) -> LinearReading:
        """As the core reads it."""
        spans = ("linear_span", "linear_mass", "linear_target", "linear_pluck")
        quantities = {k: getattr(self, k).typed() for k in spans} | {"belt_thickness": belt_thickness.typed()}
        return read_linear(quantities, {"linear_within": self.linear_within})


class LinkForm(Strict):
    """Link belting: the tape round the wheels, a link's pitch over several, and how it runs."""

    link_tape: Entry = none_typed
    link_span: Entry = none_typed
    link_count: str = Field("", max_length=20)
    tabs: str = Field("", max_length=20)
    pulled: str = Field("", max_length=20)
    take_up: str = Field("", max_length=20)
    use: str = Field("", max_length=40)

    def read(self) -> LinkReading:
        """As the core reads it."""
        spans = ("link_tape", "link_span")
        return read_link({k: getattr(self, k).typed() for k in spans}, self.model_dump(exclude=set(spans)))


class ToothedForm(Strict):
    """A toothed belt or chain as measured, and the drive it runs on."""

    quantities: dict[str, Entry] = Field(default_factory=dict, max_length=20)
    words: ToothedWords = Field(default_factory=ToothedWords)
    drive: ToothedDriveForm = Field(default_factory=ToothedDriveForm)
    dogs: DogsForm = Field(default_factory=DogsForm)
    linear: LinearForm = Field(default_factory=LinearForm)


class FlatForm(Strict):
    """A flat belt on two pulleys, as typed."""

    quantities: dict[str, Entry] = Field(default_factory=dict, max_length=20)
    belt: str = Field("", max_length=60)
    lay: str = Field("open", max_length=20)
    rotation: str = Field("clockwise", max_length=20)
    driver_surface: str = Field("", max_length=20)
    driven_surface: str = Field("", max_length=20)

    def read(self) -> FlatReading:
        """As the core reads it."""
        return read_flat({k: e.typed() for k, e in self.quantities.items()}, self.model_dump(exclude={"quantities"}))


class CurvePoint(Strict):
    """One point of a fan's curve."""

    flow: Entry = none_typed
    pressure: Entry = none_typed


class MachineForm(Strict):
    """The driven machine and its motor: what kind it is, what was read of it, its limits, and a fan's curve."""

    kind: str = Field("", max_length=40)
    quantities: dict[str, Entry] = Field(default_factory=dict, max_length=30)
    words: dict[str, Annotated[str, Field(max_length=60)]] = Field(default_factory=dict, max_length=20)
    curve: list[CurvePoint] = Field(default_factory=list, max_length=20)


class ConesForm(Strict):
    """A pair of step cones.

    Quantities centre_distance, cone_speed, cone_thickness, first_driving, driving_1...; words mode, lay, ratio_1...
    """

    quantities: dict[str, Entry] = Field(default_factory=dict, max_length=40)
    words: dict[str, Annotated[str, Field(max_length=60)]] = Field(default_factory=dict, max_length=40)
    steps: int = Field(3, ge=1, le=8)


class SurveyForm(Strict):
    """What is fitted, as typed."""

    quantities: Quantities = Field(default_factory=Quantities)
    choices: Choices = Field(default_factory=Choices)
    design: DesignPoint = Field(default_factory=DesignPoint)
    path: PathForm = Field(default_factory=PathForm)
    toothed: ToothedForm = Field(default_factory=ToothedForm)
    flat: FlatForm = Field(default_factory=FlatForm)
    link: LinkForm = Field(default_factory=LinkForm)
    machine: MachineForm = Field(default_factory=MachineForm)
    cones: ConesForm = Field(default_factory=ConesForm)


class GaugeForm(Strict):
    """Readings of a spring deflection gauge: one force a belt."""

    forces: list[Entry] = Field(default_factory=list, max_length=40)
    deflection: Entry = none_typed
    belt_state: str = Field("run in", max_length=20)
    tool: str = Field("spring gauge", max_length=40)


class TachometerForm(Strict):
    """Shaft speeds by tachometer."""

    tach_driver: Entry = none_typed
    tach_driven: Entry = none_typed


class SheetForm(Strict):
    """The whole sheet as typed; `family` says which part of the survey holds the wheels."""

    family: FamilyKey = USUAL_FAMILY
    survey: SurveyForm = Field(default_factory=SurveyForm)
    gauge: GaugeForm = Field(default_factory=GaugeForm)
    tachometer: TachometerForm = Field(default_factory=TachometerForm)


def read_sheet(form: SheetForm) -> Reading:
    """Read a sheet form with the core: spec, notes and problems per field; rated by the shop's own tables where it has any."""
    survey, gauge = form.survey, form.gauge
    quantities = _typed(survey.quantities) | _typed(survey.design) | _typed(form.tachometer)
    choices = survey.choices.model_dump() | {"belt_state": gauge.belt_state}
    forces = [replace(entry.typed(), tool=gauge.tool if gauge.tool in FORCE_TOOLS else None) for entry in gauge.forces]
    family = registry.family(form.family)
    return read_form(family, quantities, choices, forces, gauge.deflection.typed(), family_part(form.family, survey), the_shop().ratings)


def family_part(key: str, survey: SurveyForm) -> Part:
    """Where a survey keeps the wheels of a kind of drive."""
    family = registry.family(key)
    if family.part:
        return part_of(getattr(survey, family.part))
    return Part(_typed(survey.quantities), survey.choices.model_dump())


def fitted_of(key: str, survey: SurveyForm) -> Surveyed:
    """What the kind of drive called `key` makes of its part of a survey."""
    return registry.family(key).survey(family_part(key, survey))


def typed_path(form: SurveyForm) -> TypedPath:
    """The layout of a survey as the core reads it."""
    path, choices = form.path, form.choices
    lay = "crossed" if path.crossed else "quarter-turn" if path.quarter_turn else "open"
    return TypedPath(
        [w.typed() for w in path.wheels],
        [TypedTape(t.a, t.b, t.distance.typed(), t.held) for t in path.tapes],
        [
            TypedBelt(choices.section, choices.belt, choices.belt_count, lay, path.tension.typed()),
            *(TypedBelt(b.section, b.belt, b.count, b.lay, b.tension.typed()) for b in path.more_belts),
        ],
        path.placed_by,
        path.mirrored,
        choices.rotation,
        choices.centre_line_deg,
        form.quantities.driver_speed.typed(),
        [k.typed() for k in path.keepers],
        TypedCarriage(path.carriage.run, path.carriage.position.typed(), path.carriage.length.typed()),
    )


def read_machine_form(sheet: Reading, form: MachineForm, new_speed: float | None) -> MachineReading:
    """What the machine of a sheet feels of a new driven speed (rad/s), as the core reads it."""
    quantities = {k: e.typed() for k, e in form.quantities.items()}
    curve = [(p.flow.typed(), p.pressure.typed()) for p in form.curve]
    words = form.words | {"kind": form.kind}
    return read_machine(sheet.spec, solve_page(sheet.spec), sheet.design, quantities, words, curve, new_speed)


def _typed(model: Quantities | DesignPoint | TachometerForm) -> dict[str, Typed]:
    return {key: getattr(model, key).typed() for key in type(model).model_fields}
