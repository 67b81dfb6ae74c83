"""A candidate as a drive on the sheet: the same figures, workings, verdicts and drawing as one that stands."""

from dataclasses import replace

from tuyere.core.kinds.choose import chosen
from tuyere.core.kinds.fitted import Slide
from tuyere.core.kinds.problem import Demands
from tuyere.core.kinds.spec import DriveSpec
from tuyere.core.stations.size.candidate import Candidate
from tuyere.core.stations.size.judge import Judged


def spec_of(problem: Demands, candidate: Candidate, judged: Judged, base: DriveSpec) -> DriveSpec:
    """The candidate as the sheet takes it; how the drive lies and turns is the base's. It must have measures."""
    assert judged.measures
    shared = replace(
        DriveSpec(
            candidate.kind.drive,
            rotation=base.rotation,
            centre_line_deg=base.centre_line_deg,
            own=base.own,
            idler=problem.idler,
            surroundings=problem.surroundings,
            starts=problem.starts,
        ),
        driver_power=chosen(problem.power_w, "driver power"),
        driver_speed=chosen(problem.driver_speed, "driver speed"),
        driver_class=problem.driver_class,
        driven_class=problem.driven_class,
        hours_per_day=chosen(problem.hours_per_day * 3600, "hours a day"),
        design_speed=chosen(problem.driven_speed, "driven speed it should have"),
        slide=Slide(
            chosen(max(0.0, judged.measures.centre_m - problem.centre_low_m), "motor can move closer by"),
            chosen(max(0.0, problem.centre_high_m - judged.measures.centre_m), "motor can move away by"),
        ),
    )
    return candidate.kind.on_sheet(shared, candidate.driver, candidate.driven, candidate.length, candidate.count, judged.measures.centre_m)
