"""Drives for the tests: V-belts as typed, and what is asked of them."""

from dataclasses import replace
from typing import Any

from tuyere.core.drive.sheet.solve import solve_page
from tuyere.core.kinds.spec import DriveSpec
from tuyere.core.kinds.v_belt.drive import VDrive
from tuyere.core.kinds.v_belt.kind import V_BELT
from tuyere.core.stations.find import get_home as home
from tuyere.core.stations.find import window as lengths


def fit(spec: DriveSpec) -> VDrive:
    """The V-belts of a drive."""
    assert isinstance(spec.fitted, VDrive)
    return spec.fitted


def v_spec(known: dict[str, Any], **fitted: Any) -> DriveSpec:
    """A V-belt drive from values."""
    return DriveSpec(V_BELT, VDrive(**fitted), **known)


def wearing(spec: DriveSpec, **changes: Any) -> DriveSpec:
    """The same drive with other belts or sheaves."""
    return replace(spec, fitted=replace(fit(spec), **changes))


def get_home(spec: DriveSpec, fix: home.Fix) -> home.GetHome:
    return home.get_home(fit(spec), fix, solve_page(spec), spec.slide, spec.own)


def window(spec: DriveSpec, slack_clutch: bool = False) -> lengths.Window | None:
    return lengths.window(fit(spec), spec.slide, slack_clutch)
