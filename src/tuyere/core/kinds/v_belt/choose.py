"""V-belts of every section for the search: the rating's formulas on arrays, its own code for one."""

from __future__ import annotations

from typing import TYPE_CHECKING

from tuyere.core.basis.quantity import System, show, to_si
from tuyere.core.basis.table import rows
from tuyere.core.kinds import v_belt
from tuyere.core.kinds.choose import ChoiceWheel, Choosable
from tuyere.core.kinds.rating.own_table import OwnRatings
from tuyere.core.kinds.v_belt import rating as vee
from tuyere.core.kinds.v_belt.choosable import MOST_JOINED, VKind, flat_wheel, sheave

if TYPE_CHECKING:
    pass


_LINK_LENGTHS = range(400, 5001, 50)  # mm: cut to any length, looked at in steps
_GROOVES_LIGHT, _GROOVES_METRIC = (1,), tuple(range(1, 9))  # where the table does not say: common practice, no source


def _v_family(of: v_belt.Section) -> str:
    if of.construction == "hexagonal":
        return "double-V"
    return "link belt" if of.construction == "link" else "v-belt"


def kinds(own: OwnRatings) -> list[Choosable]:
    """What of it can be chosen: by the tables’ common sizes, rated by a standard or by the shop’s own table."""
    found: list[Choosable] = []
    for of in v_belt.sections().values():
        belts = v_belt.standard_belts(of.name)
        if of.construction == "link":
            belts = tuple(v_belt.belt_of(of, float(n)) for n in _LINK_LENGTHS)
        wheels = _sheaves(of)
        # A name that only says another section again would list everything twice.
        if (
            belts
            and wheels
            and (vee.rated(of) or own.of(of.name))
            and not of.series.startswith("effective")
            and of.construction != "ribbed"
        ):
            found.append(VKind(of, _v_family(of), wheels, belts, int(max(w.most for w in wheels)), own.of(of.name)))
    singles = [k for k in found if isinstance(k, VKind)]
    return [*found, *_ribbed(own), *_joined(singles), *_on_flat(singles)]


def _ribbed(own: OwnRatings) -> list[Choosable]:
    found: list[Choosable] = []
    for r in rows("ribbed_stock"):
        of, ribs = v_belt.section(r["section"]), tuple(int(n) for n in r["ribs"].split())
        wheels = tuple(
            sheave(of, v_belt.datum_from_outside(of, float(d) / 1000), float(d) / 1000, f"{d} mm outside", min(ribs), max(ribs))
            for d in r["wheels"].split()
        )
        belts = tuple(v_belt.belt_of(of, float(n)) for n in r["lengths"].split())
        found.append(VKind(of, "ribbed", wheels, belts, 0, own.of(of.name), ribs))
    return found


def _joined(singles: list[VKind]) -> list[Choosable]:
    """Rated as the same number of singles (IP-20, IP-22; from memory, high)."""
    can = {r["section"] for r in rows("v_joined")}
    cogged = {s.name for s in v_belt.sections().values() if s.cogged and s.groove in can}
    many = (*range(2, MOST_JOINED + 1), *range(2 * ((MOST_JOINED + 2) // 2), 2 * MOST_JOINED + 1, 2))
    return [VKind(k.of, "joined V-belt", k.driver, k.belts_had, 0, k.own, many) for k in singles if k.name in can | cogged]


def _on_flat(singles: list[VKind]) -> list[Choosable]:
    """Classical belts alone are broad enough at the base to run on a flat wheel: common practice, no source."""
    rims = tuple(float(r["diameter"]) / 1000 for r in rows("flat_crowns"))
    found: list[Choosable] = []
    for k in singles:
        if k.family == "v-belt" and "classical" in k.of.series:
            flat = tuple(flat_wheel(k.of, d, f"{show(d, 'length', System.SI)} flat") for d in rims)
            found.append(VKind(k.of, "V-flat", k.driver, k.belts_had, int(max(k.counts)), k.own, (), flat))
    return found


def _sheaves(of: v_belt.Section) -> tuple[ChoiceWheel, ...]:
    found = []
    for r in rows("v_sheaves"):
        if r["groove"] != of.groove:
            continue
        grooves = [int(n) for n in r["grooves"].split()] or (_GROOVES_LIGHT if r["kind"] == "light-duty" else _GROOVES_METRIC)
        line = to_si(float(r["diameter"]), "length", r["unit"])
        outside = to_si(float(r["outside_diameter"]), "length", r["unit"]) if r["outside_diameter"] else v_belt.outside_from_datum(of, line)
        word = "datum" if r["kind"] == "stock" and "narrow" not in of.series else "pitch"
        found.append(sheave(of, line, outside, f"{float(r['diameter']):g} {r['unit']} {word}", min(grooves), max(grooves)))
    return tuple(found)
