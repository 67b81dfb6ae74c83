"""A drive in small, to scale: what a list shows of it."""

import math
from dataclasses import asdict, replace
from typing import Any

from tuyere.core.mechanics.belt_path import Pulley, belt_path
from tuyere.core.mechanics.open_belt import GeometryError, RoundWheel, Span, open_path
from tuyere.store.drives import Standing


def sketch_of(item: Standing) -> dict[str, Any] | None:
    """Wheels and strands (m, y up, driver first), once both wheels and the centres are on the record and can be drawn."""
    if not item.stages:
        return None
    stage, wheels = item.stages[0]
    if wheels and all(w.x_m is not None for w in wheels):
        return _of_many(item)
    diameters = {w.role: w.diameter_m for w in wheels if w.diameter_m}
    centres = stage.centre_distance_m
    if not centres or set(diameters) != {"driver", "driven"}:
        return None
    try:
        path = open_path(diameters["driver"], diameters["driven"], centres, math.radians(stage.centre_line_deg))
    except GeometryError:
        return None
    return _drawn(list(path.wheels), [path.upper, path.lower])


def _drawn(wheels: list[RoundWheel], strands: list[Span]) -> dict[str, Any]:
    return {"wheels": [asdict(w) for w in wheels], "strands": [asdict(s) for s in strands]}


def _of_many(item: Standing) -> dict[str, Any]:
    """Many wheels in small, the belts drawn on their rims; one that cannot run so shows its wheels alone."""
    way = -1 if item.rotation == "clockwise" else 1
    drawn: list[RoundWheel] = []
    strands: list[Span] = []
    for stage, wheels in item.stages:
        pulleys = [
            Pulley(w.x_m or 0.0, w.y_m or 0.0, (w.diameter_m or 0.1) / 2, way if w.contact == "inside" else -way, w.name) for w in wheels
        ]
        first = sorted(zip(wheels, pulleys, strict=True), key=lambda pair: pair[0].role != "driver")
        drawn += [RoundWheel(p.x_m, p.y_m, p.radius_m) for _, p in first]
        if stage.lay == "crossed" and len(pulleys) == 2:
            pulleys[1] = replace(pulleys[1], turns=-pulleys[0].turns)
        try:
            runs = belt_path(pulleys, crossed=stage.lay == "crossed").runs
        except GeometryError:
            continue
        strands += [Span(r.x1_m, r.y1_m, r.x2_m, r.y2_m) for r in runs]
    return _drawn(drawn, strands)
