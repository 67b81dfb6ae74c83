"""The sheet's form as it crosses the web: what people typed, field by field."""

from dataclasses import replace

from pydantic import BaseModel, ConfigDict, Field, field_validator

from tuyere.core.origin import Origin
from tuyere.core.path_form import TypedPath, TypedTape, TypedWheel
from tuyere.core.sheet.typed import Reading, Typed, read_form
from tuyere.core.uncertainty import TOOLS

FORCE_TOOLS = tuple(name for name, tool in TOOLS.items() if tool.kind == "force")


class Strict(BaseModel):
    """A request model: unknown fields are refused."""

    model_config = ConfigDict(extra="forbid")

    @field_validator("*", mode="before")
    @classmethod
    def no_invisible_characters(cls, value: object) -> object:
        """A NUL cannot be stored."""
        if isinstance(value, str) and "\x00" in value:
            raise ValueError("There is an invisible character in this text: type it again by hand.")
        return value


class Entry(Strict):
    """One quantity as typed: text, the unit shown in the field (for bare numbers), origin and tool when stated."""

    text: str = Field("", max_length=200)
    unit: str = Field("", max_length=12)
    origin: Origin | None = None

    def typed(self) -> Typed:
        return Typed(self.text, self.unit, self.origin)


none_typed = Field(default_factory=Entry)


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
    driver_class: str = Field("normal", max_length=40)
    driven_class: str = Field("", max_length=40)
    driver_basis: str = Field("outside", max_length=40)
    driven_basis: str = Field("outside", max_length=40)
    rotation: str = Field("clockwise", max_length=40)
    centre_line_deg: str = Field("0", max_length=40)


class WheelEntry(Strict):
    """One wheel of a drive on many: diameter over the rim; place from the first wheel's centre (unused when placed by tape)."""

    name: str = Field("", max_length=60)
    role: str = Field("driven", max_length=20)
    contact: str = Field("inside", max_length=20)
    face: str = Field("grooved", max_length=20)
    diameter: Entry = none_typed
    x: Entry = none_typed
    y: Entry = none_typed
    power: Entry = none_typed
    takes_up: bool = False


class TapeEntry(Strict):
    """One tape measurement between two wheels, counted from 1."""

    a: int = Field(ge=1, le=99)
    b: int = Field(ge=1, le=99)
    distance: Entry = none_typed


class PathForm(Strict):
    """The wheels in the order in which the belt meets them; empty for an ordinary drive on two."""

    wheels: list[WheelEntry] = Field(default_factory=list, max_length=40)
    tapes: list[TapeEntry] = Field(default_factory=list, max_length=300)
    placed_by: str = Field("tape", max_length=20)
    mirrored: bool = False
    crossed: bool = False


class SurveyForm(Strict):
    """What is fitted, as typed."""

    quantities: Quantities = Field(default_factory=Quantities)
    choices: Choices = Field(default_factory=Choices)
    design: DesignPoint = Field(default_factory=DesignPoint)
    path: PathForm = Field(default_factory=PathForm)


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
    """The whole sheet as typed."""

    survey: SurveyForm = Field(default_factory=SurveyForm)
    gauge: GaugeForm = Field(default_factory=GaugeForm)
    tachometer: TachometerForm = Field(default_factory=TachometerForm)


def read_sheet(form: SheetForm) -> Reading:
    """Read a sheet form with the core: spec, notes and problems per field."""
    survey, gauge = form.survey, form.gauge
    quantities = _typed(survey.quantities) | _typed(survey.design) | _typed(form.tachometer)
    choices = survey.choices.model_dump() | {"belt_state": gauge.belt_state}
    forces = [replace(entry.typed(), tool=gauge.tool if gauge.tool in FORCE_TOOLS else None) for entry in gauge.forces]
    return read_form(quantities, choices, forces, gauge.deflection.typed())


def typed_path(form: SurveyForm) -> TypedPath:
    """The layout of a survey as the core reads it."""
    path, choices = form.path, form.choices
    wheels = [
        TypedWheel(w.name, w.role, w.contact, w.face, w.diameter.typed(), w.x.typed(), w.y.typed(), w.power.typed(), w.takes_up)
        for w in path.wheels
    ]
    tapes = [TypedTape(t.a, t.b, t.distance.typed()) for t in path.tapes]
    return TypedPath(wheels, tapes, path.placed_by, path.mirrored, choices.rotation, path.crossed, choices.section)


def _typed(model: Quantities | DesignPoint | TachometerForm) -> dict[str, Typed]:
    return {key: getattr(model, key).typed() for key in type(model).model_fields}
