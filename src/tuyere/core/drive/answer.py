"""A survey, worked out: the one answer that every station, list, job and paper asks."""

from functools import cached_property

from tuyere.core.basis.figure import Figure
from tuyere.core.basis.page import Page
from tuyere.core.basis.verdict import Problem
from tuyere.core.drive.layout.duties import TrainDemands, TrainDuty
from tuyere.core.drive.layout.form import PathReading, read_path
from tuyere.core.drive.layout.pair import Pair, pair_of
from tuyere.core.drive.layout.stages import duties_of
from tuyere.core.drive.layout.tight import stage_of as on_many
from tuyere.core.drive.sheet.solve import Sheet, sheet_of, solve_page
from tuyere.core.drive.sheet.tight import stage_of as on_two
from tuyere.core.drive.sheet.typed import FormReading, read_form
from tuyere.core.drive.stage import TightStage
from tuyere.core.drive.survey import NOTHING_READ, Survey, Tachometer
from tuyere.core.kinds.loop import Loop
from tuyere.core.kinds.rating.own_table import NONE, OwnRatings
from tuyere.core.kinds.spec import DriveSpec


class Answer:
    """Everything a survey says. Each part is worked out once, when it is first asked for."""

    def __init__(self, survey: Survey, seen: Tachometer, own: OwnRatings) -> None:
        self.survey = survey
        self.seen = seen
        self.own = own

    @cached_property
    def reading(self) -> FormReading:
        """What was understood of each field, and what is wrong with it."""
        told, stage = self.survey, self.survey.first
        quantities = {
            "driver_power": told.driver.power,
            "driver_speed": told.driver.speed,
            "hours_per_day": told.machine.hours_per_day,
            "travel_in": stage.travel_in,
            "travel_out": stage.travel_out,
            "tach_driver": self.seen.driver,
            "tach_driven": self.seen.driven,
            **told.design,
        }
        words = {
            "driver_class": told.driver.torque,
            "rotation": told.driver.rotation,
            "driven_class": told.machine.driven_class,
            "surroundings": told.machine.surroundings,
            "starts": told.machine.starts,
            "centre_line_deg": stage.centre_line_deg,
            "idler": stage.idler_on,
            "start": stage.kept.words.get("start", ""),
            "start_by": stage.kept.words.get("start_by", ""),
        }
        return read_form(stage.family, quantities, words, stage.part, self.own)

    @property
    def spec(self) -> DriveSpec:
        """The drive in SI."""
        return self.reading.spec

    @cached_property
    def page(self) -> Page:
        """The figures of the first stage on its two wheels."""
        return solve_page(self.spec)

    @cached_property
    def sheet(self) -> Sheet:
        """That page as it is shown."""
        return sheet_of(self.spec, self.page)

    @cached_property
    def path(self) -> PathReading | None:
        """Its wheels in the plane; None where it has none."""
        return read_path(self.survey.path) if self.survey.layout.wheels else None

    @cached_property
    def train(self) -> TrainDuty | None:
        """Every stage and shaft of its layout; None where it has none, or where two wheels of its own say how it runs."""
        if self.path is None or self.page.has("ratio"):
            return None
        spec = self.spec
        hours = spec.hours_per_day.value / 3600 if spec.hours_per_day else None
        asked = TrainDemands(
            spec.driver_speed.value if spec.driver_speed else None,
            spec.driven_class,
            spec.driver_class,
            hours,
            spec.surroundings,
            spec.starts,
            spec.tach_driver,
            spec.tach_driven,
            self.seen.shaft,
        )
        return duties_of(self.path, asked, self.own)

    @cached_property
    def figures(self) -> dict[str, Figure]:
        """Every figure of the sheet, by key; of a train, its own where the first pair has none."""
        return {**self.sheet.figures, **(self.train.page.figures if self.train else {})}

    def belt_speed(self, number: int) -> float | None:
        """How fast the belt or chain of a stage runs, by its number from 1 (m/s); None while not known."""
        if number == 1 and "belt_speed" in self.figures:
            return self.figures["belt_speed"].value_si
        stage = self.train.stage(number) if self.train else None
        return stage.belt_speed if stage else None

    @property
    def problems(self) -> tuple[Problem, ...]:
        """Impossible input, each beside its field."""
        return (*self.reading.problems, *self.sheet.problems)

    def loop(self, number: int = 1) -> Loop | None:
        """What goes round the wheels of a stage, from 1; None while not known, or where its kind is surveyed on two only."""
        stage = self.survey.stages[number - 1]
        read = stage.family.loop(stage.part)
        return read.loop if read else None

    def pair(self, number: int = 1) -> Pair | None:
        """Two wheels of a stage, from 1, as a drive of their own; None for a stage of more wheels, or while it does not run."""
        if self.train:
            return pair_of(self.train, number, self.survey.stages[number - 1].family, self.spec)
        whole = self.path is None or self.page.has("ratio")
        return Pair(self.spec, self.page) if number == 1 and whole else None

    def stage(self, number: int) -> TightStage | None:
        """A stage by its number, from 1, with its wheels where they stand; None until that is known well enough."""
        if number > len(self.survey.stages):
            return None
        stage, spec = self.survey.stages[number - 1], self.spec
        if self.train:
            return on_many(self.train, number, stage.held_by, spec.driven_class, spec.driver_class)
        loop = self.loop() if number == 1 else None
        if loop is None or (spec.fitted and spec.fitted.pieces is None):
            return None
        return on_two(spec, self.sheet, loop, stage.held_by)

    @property
    def stage_titles(self) -> dict[int, str]:
        """What the stages of a train are called, by number; none where there is only one pair."""
        return {s.number: s.title for s in sorted(self.train.stages, key=lambda s: s.number)} if self.train else {}


def answer(survey: Survey, seen: Tachometer = NOTHING_READ, own: OwnRatings = NONE) -> Answer:
    """A survey, worked out. `seen`: shaft speeds as read at it. `own`: the shop's rating tables, which override the standards'."""
    return Answer(survey, seen, own)
