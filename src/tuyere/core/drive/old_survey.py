"""A survey as typed before it was kept stage by stage, as it is kept now.

Old drafts on devices and old requests still come in the old way.
"""

from collections.abc import Mapping
from typing import Any

_OLD = frozenset(("quantities", "choices", "toothed", "flat", "link", "path"))
_DRIVER = ("driver_power", "driver_speed", "driver_class", "rotation")
_MACHINE = ("driven_class", "hours_per_day", "surroundings", "starts")
_STAGE = ("travel_in", "travel_out", "centre_line_deg", "idler")
_SHEAVES = ("driver_diameter", "driven_diameter", "centre_distance", "open_turns", "most_turns", "turn_drop")
_BELTS = ("section", "belt", "belt_count", "ribs", "driver_basis", "driven_basis", "driver_groove", "driven_groove", "adjustable")
_LAYOUT = ("wheels", "tapes", "placed_by", "mirrored", "keepers", "carriage")
_PART = {"synchronous": "toothed", "roller chain": "toothed", "flat belt": "flat"}
_USUAL = "v-belt"


def is_old(told: Mapping[str, Any]) -> bool:
    """Whether a survey was typed the old way."""
    return "stages" not in told and not _OLD.isdisjoint(told)


def by_stages(told: Mapping[str, Any], family: str = _USUAL) -> dict[str, Any]:
    """The same survey by driver, machine and stages; of the parts that other kinds of drive left in it, nothing."""
    flat = {**_of(told, "quantities"), **_of(told, "choices")}
    path, part = _of(told, "path"), _PART.get(family)
    if part:
        fitted = {"family": family, **_of(told, part)}
    else:
        fitted = {"family": family, "quantities": _taken(flat, _SHEAVES), "choices": _taken(flat, _BELTS)}
        if "link" in told:
            fitted["link"] = told["link"]
    lay = "crossed" if path.get("crossed") else "quarter-turn" if path.get("quarter_turn") else "open"
    first = {**_taken(flat, _STAGE), "fitted": fitted, "lay": lay, **_taken(path, ("tension",))}
    found = {
        "driver": _taken(flat, _DRIVER),
        "machine": {**_of(told, "machine"), **_taken(flat, _MACHINE)},
        "stages": [first, *(_stage(b) for b in _listed(path, "more_belts"))] if not part else [first],
        "layout": _taken(path, _LAYOUT) if not part else {},
    }
    return found | {k: told[k] for k in ("design", "cones") if k in told}


def _stage(belt: Mapping[str, Any]) -> dict[str, Any]:
    choices = {new: belt[old] for new, old in (("section", "section"), ("belt", "belt"), ("belt_count", "count")) if old in belt}
    return {"fitted": {"family": _USUAL, "choices": choices}, **_taken(belt, ("lay", "tension"))}


def _listed(told: Mapping[str, Any], key: str) -> list[Mapping[str, Any]]:
    found = told.get(key)
    return [item for item in found if isinstance(item, Mapping)] if isinstance(found, list) else []


def _of(told: Mapping[str, Any], key: str) -> dict[str, Any]:
    found = told.get(key)
    return dict(found) if isinstance(found, Mapping) else {}


def _taken(told: Mapping[str, Any], keys: tuple[str, ...]) -> dict[str, Any]:
    return {key: told[key] for key in keys if key in told}
