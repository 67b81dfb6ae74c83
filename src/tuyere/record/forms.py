"""The sheet's form as it crosses the web: what people typed, field by field."""

from typing import Annotated

from pydantic import Field, model_validator

from tuyere.core.basis.uncertainty import TOOLS
from tuyere.core.drive.answer import Answer, answer
from tuyere.core.drive.layout.form import MOST_BELTS
from tuyere.core.drive.old_survey import by_stages, is_old
from tuyere.core.drive.survey import DrivenMachine, Driver, Stage, Survey, Tachometer
from tuyere.core.kinds import registry
from tuyere.core.kinds.held import HeldBy
from tuyere.core.kinds.rating.own_table import NONE, OwnRatings
from tuyere.core.kinds.survey import Part
from tuyere.core.stations.align.read import TypedAlign, TypedReading
from tuyere.core.stations.tension.typed import TypedTension
from tuyere.record.entry import USUAL_FAMILY, Entry, Strict, none_typed, part_of
from tuyere.record.fitted_forms import AnyFitted, SheavesForm
from tuyere.record.path_form import LayoutForm

FORCE_TOOLS = tuple(name for name, tool in TOOLS.items() if tool.kind == "force")


class DriverForm(Strict):
    """What drives: power and speed by its plate, its class, and which way it turns."""

    driver_power: Entry = none_typed
    driver_speed: Entry = none_typed
    driver_class: str = Field("normal", max_length=40)
    rotation: str = Field("clockwise", max_length=40)


class DesignPoint(Strict):
    """What the drive is meant to have."""

    design_speed: Entry = none_typed
    design_airflow: Entry = none_typed
    design_pressure: Entry = none_typed
    design_amps: Entry = none_typed
    design_turns: Entry = none_typed


class CurvePoint(Strict):
    """One point of a fan's curve."""

    flow: Entry = none_typed
    pressure: Entry = none_typed


class MachineForm(Strict):
    """The driven machine and its motor: its class and hours, what kind it is, what was read of it, its limits, and a fan's curve."""

    driven_class: str = Field("", max_length=40)
    hours_per_day: Entry = none_typed
    surroundings: str = Field("clean", max_length=40)
    starts: str = Field("seldom", max_length=40)
    kind: str = Field("", max_length=40)
    quantities: dict[str, Entry] = Field(default_factory=dict, max_length=30)
    words: dict[str, Annotated[str, Field(max_length=60)]] = Field(default_factory=dict, max_length=20)
    curve: list[CurvePoint] = Field(default_factory=list, max_length=20)

    def typed(self) -> DrivenMachine:
        """As the core reads it."""
        part = Part({k: e.typed() for k, e in self.quantities.items()}, self.words)
        curve = [(p.flow.typed(), p.pressure.typed()) for p in self.curve]
        return DrivenMachine(self.driven_class, self.hours_per_day.typed(), self.surroundings, self.starts, self.kind, part, curve)


class ConesForm(Strict):
    """A pair of step cones.

    Quantities centre_distance, cone_speed, cone_thickness, first_driving, driving_1...; words mode, lay, ratio_1...
    """

    quantities: dict[str, Entry] = Field(default_factory=dict, max_length=40)
    words: dict[str, Annotated[str, Field(max_length=60)]] = Field(default_factory=dict, max_length=40)
    steps: int = Field(3, ge=1, le=8)


class KeptForm(Strict):
    """What was said once of a stage, and stands with it: margins, the manual's figure, screws, each wheel's shaft and feet.

    Quantities and words by field; those of a wheel begin with its place in the stage, from 1: `wheel_1_overhang`, `align_1_base`.
    """

    quantities: dict[str, Entry] = Field(default_factory=dict, max_length=200)
    words: dict[str, Annotated[str, Field(max_length=200)]] = Field(default_factory=dict, max_length=100)


class StageForm(Strict):
    """One belt set, chain or flat belt: what is fitted, how it lies and is held, how far the base slides, its idler.

    `tension`: of each belt at rest, where stated.
    """

    fitted: AnyFitted = Field(default_factory=SheavesForm)
    lay: str = Field("open", max_length=20)
    held_by: HeldBy = Field("", description="what holds its tension; empty while nobody asked")
    tension: Entry = none_typed
    kept: KeptForm = Field(default_factory=KeptForm)
    travel_in: Entry = none_typed
    travel_out: Entry = none_typed
    centre_line_deg: str = Field("0", max_length=40)
    idler: str = Field("none", max_length=40)

    def typed(self) -> Stage:
        """As the core reads it."""
        kept = Part({k: e.typed() for k, e in self.kept.quantities.items()}, self.kept.words)
        return Stage(
            registry.family(self.fitted.family),
            part_of(self.fitted),
            self.lay,
            self.held_by,
            self.tension.typed(),
            kept,
            self.travel_in.typed(),
            self.travel_out.typed(),
            self.centre_line_deg,
            self.idler,
        )


class SurveyForm(Strict):
    """A drive as typed: what drives, what is driven, and the stages between them, the first from the driver.

    `layout`: wheels in the plane, where there are more than two.
    """

    driver: DriverForm = Field(default_factory=DriverForm)
    machine: MachineForm = Field(default_factory=MachineForm)
    stages: list[StageForm] = Field(default_factory=lambda: [StageForm()], min_length=1, max_length=MOST_BELTS)
    layout: LayoutForm = Field(default_factory=LayoutForm)
    design: DesignPoint = Field(default_factory=DesignPoint)
    cones: ConesForm = Field(default_factory=ConesForm)

    @model_validator(mode="before")
    @classmethod
    def _as_before(cls, told: object) -> object:
        """A survey typed the way it was kept before there were stages is read as one of today's; `family` says which part of it counts."""
        if isinstance(told, dict) and is_old(told):
            family = told.get("family")
            return by_stages(told, family if isinstance(family, str) else USUAL_FAMILY)
        return told

    def typed(self) -> Survey:
        """As the core reads it."""
        drives = self.driver
        driver = Driver(drives.driver_power.typed(), drives.driver_speed.typed(), drives.driver_class, drives.rotation)
        design = {key: getattr(self.design, key).typed() for key in DesignPoint.model_fields}
        return Survey([stage.typed() for stage in self.stages], driver, self.machine.typed(), self.layout.typed(), design)

    @property
    def first(self) -> StageForm:
        """The stage on the driver's shaft."""
        return self.stages[0]

    @property
    def family(self) -> str:
        """Which kind of drive that is."""
        return self.first.fitted.family


class WithSurvey(Strict):
    """A request about a survey. One of before says its kind of drive beside it."""

    survey: SurveyForm = Field(default_factory=SurveyForm)
    machine_is: list[Annotated[str, Field(max_length=40)]] = Field(
        default_factory=list,
        max_length=60,
        description="of its machine, as a drive's `machine_is`: what may stand in goes by that",
    )

    @model_validator(mode="before")
    @classmethod
    def _family_beside(cls, told: object) -> object:
        if not isinstance(told, dict) or "family" not in told or "family" in cls.model_fields:
            return told
        survey = told.get("survey", {})
        rest = {key: value for key, value in told.items() if key != "family"}
        if isinstance(survey, dict) and "stages" not in survey:
            rest["survey"] = by_stages(survey, str(told["family"]))
        return rest


class GaugeForm(Strict):
    """A reading of belt or chain tension: by which method, on which stage, and what the tool showed (`forces`, in the method's own unit).

    Beside it what the method asks more (`quantities`: `span_measured`, `clip_offset`, `handle`...), and the state in `words`: `span_of`,
    `engaged`, `turned`.
    """

    stage: int = Field(1, ge=1, le=MOST_BELTS)
    method: str = Field("", max_length=20, description="empty: what suits the stage best, a spring gauge on belts on fixed centres")
    quantities: dict[str, Entry] = Field(default_factory=dict, max_length=20)
    words: dict[str, Annotated[str, Field(max_length=60)]] = Field(default_factory=dict, max_length=20)
    forces: list[Entry] = Field(default_factory=list, max_length=40)
    deflection: Entry = none_typed
    belt_state: str = Field("run in", max_length=20)
    tool: str = Field("spring gauge", max_length=40)

    def typed(self) -> TypedTension:
        """As the core reads it."""
        quantities = {k: e.typed() for k, e in self.quantities.items()} | {"deflection": self.deflection.typed()}
        words = self.words | {"tool": self.tool if self.tool in FORCE_TOOLS else ""}
        return TypedTension(self.method, self.belt_state == "new", [e.typed() for e in self.forces], quantities, words)


class AlignReadingForm(Strict):
    """One reading of an alignment: by which method, and its points by key (`gap_1`, `top`, `at_movable`...); `track` in `words`."""

    method: str = Field("straightedge", max_length=20)
    quantities: dict[str, Entry] = Field(default_factory=dict, max_length=12)
    words: dict[str, Annotated[str, Field(max_length=60)]] = Field(default_factory=dict, max_length=4)

    def typed(self) -> TypedReading:
        """As the core reads it."""
        return TypedReading(self.method, {k: e.typed() for k, e in self.quantities.items()}, self.words)


class ChecksForm(Strict):
    """Checks before an alignment: what was measured (`soft_1`, `rim_moving`...); `ok`, `bad`, or `skip` with a reason (`mounts_why`)."""

    quantities: dict[str, Entry] = Field(default_factory=dict, max_length=20)
    words: dict[str, Annotated[str, Field(max_length=200)]] = Field(default_factory=dict, max_length=20)


class AlignForm(Strict):
    """An alignment: of which stage, which wheel on more than two (place from 1; 0: the first), readings used together, checks before."""

    stage: int = Field(1, ge=1, le=MOST_BELTS)
    wheel: int = Field(0, ge=0, le=40)
    readings: list[AlignReadingForm] = Field(default_factory=lambda: [AlignReadingForm()], max_length=8)
    checks: ChecksForm = Field(default_factory=ChecksForm)

    def typed(self) -> TypedAlign:
        """As the core reads it."""
        looked = {k: e.typed() for k, e in self.checks.quantities.items()}
        return TypedAlign(self.wheel, [r.typed() for r in self.readings], looked, self.checks.words)


class TachometerForm(Strict):
    """Shaft speeds by tachometer; along a train, which `shaft` was read (empty: the last)."""

    tach_driver: Entry = none_typed
    tach_driven: Entry = none_typed
    shaft: str = Field("", max_length=200)

    def typed(self) -> Tachometer:
        """As the core reads it."""
        return Tachometer(self.tach_driver.typed(), self.tach_driven.typed(), self.shaft)


class SheetForm(WithSurvey):
    """The whole sheet as typed."""

    gauge: GaugeForm = Field(default_factory=GaugeForm)
    tachometer: TachometerForm = Field(default_factory=TachometerForm)
    align: AlignForm = Field(default_factory=AlignForm)


def answer_of(survey: SurveyForm, seen: TachometerForm | None = None, own: OwnRatings = NONE) -> Answer:
    """What a survey says. `own`: the shop's own rating tables."""
    return answer(survey.typed(), seen.typed() if seen else Tachometer(), own)
