"""A candidate as a drive on the sheet: the same figures, workings, verdicts and drawing as one that stands."""

from dataclasses import replace

from tuyere.core.drives import v_belt
from tuyere.core.drives.fitted import LineDrive, LineWheel
from tuyere.core.entry.typed import Given
from tuyere.core.origin import Origin
from tuyere.core.selection.candidate import Candidate
from tuyere.core.selection.flat_kind import FlatKind
from tuyere.core.selection.judge import Judged
from tuyere.core.selection.problem import Problem
from tuyere.core.selection.toothed_kind import ChainKind, ToothedKind
from tuyere.core.selection.v_kind import VKind
from tuyere.core.sheet.line_drive import chain_line, flat_line, toothed_line
from tuyere.core.sheet.spec import DriveSpec


def _chosen(value: float, name: str) -> Given:
    return Given(value, 0.0, Origin.CHOSEN, name)


def spec_of(problem: Problem, candidate: Candidate, judged: Judged, base: DriveSpec) -> DriveSpec:
    """The candidate as the sheet takes it; how the drive lies and turns is the base's. It must have measures."""
    assert judged.measures
    shared = replace(
        DriveSpec(rotation=base.rotation, centre_line_deg=base.centre_line_deg, own=base.own, idler=problem.idler, surroundings=problem.surroundings, starts=problem.starts),
        driver_power=_chosen(problem.power_w, "driver power"), driver_speed=_chosen(problem.driver_speed, "driver speed"), driver_class=problem.driver_class,
        driven_class=problem.driven_class, hours_per_day=_chosen(problem.hours_per_day * 3600, "hours a day"),
        design_speed=_chosen(problem.driven_speed, "driven speed it should have"),
        travel_in=_chosen(max(0.0, judged.measures.centre_m - problem.centre_low_m), "motor can move closer by"),
        travel_out=_chosen(max(0.0, problem.centre_high_m - judged.measures.centre_m), "motor can move away by"),
    )  # fmt: skip
    kind, centre = candidate.kind, judged.measures.centre_m
    if isinstance(kind, VKind):
        assert candidate.length
        many, belt = kind.belts(candidate.length.name, candidate.count)
        driven = candidate.driven.outside_m if kind.flat else candidate.driven.line_m
        return replace(
            shared, section=kind.of, driver_diameter=_chosen(candidate.driver.line_m, "driver sheave diameter"), driver_basis="datum",
            driven_diameter=_chosen(driven, "driven wheel diameter"), driven_basis="flat" if kind.flat else "datum", centre_distance=_chosen(centre, "centre distance"),
            belt=v_belt.parse_designation(belt, kind.of), belt_origin=Origin.CHOSEN, belt_count=int(many),
        )  # fmt: skip
    return replace(shared, line=_line(candidate, centre))


def _line(candidate: Candidate, centre: float) -> LineDrive:
    kind = candidate.kind
    driver, driven = (LineWheel(w.line_m, w.outside_m, 0.0, Origin.CHOSEN, w.teeth) for w in (candidate.driver, candidate.driven))
    if isinstance(kind, ToothedKind):
        return toothed_line(kind.of, driver, driven, centre, candidate.count)
    if isinstance(kind, ChainKind):
        pitches = round(candidate.length.line_m / kind.of.pitch_m) if candidate.length else None
        return chain_line(kind.of, driver, driven, centre, candidate.count, pitches)
    assert isinstance(kind, FlatKind)
    return flat_line(kind.of, driver, driven, centre, candidate.count)
