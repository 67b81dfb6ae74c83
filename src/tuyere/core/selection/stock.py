"""The stock that is searched: the common sizes of the tables, marked as assumed."""

from functools import lru_cache

from tuyere.core.families import roller_chain, synchronous, v_belt
from tuyere.core.families.flat import flat_belts
from tuyere.core.quantity import to_si
from tuyere.core.rating import chain as chain_rating
from tuyere.core.rating import vee
from tuyere.core.rating.ip20 import OutOfRangeError
from tuyere.core.rating.own import NONE, OwnRatings
from tuyere.core.selection.flat_kind import FlatKind
from tuyere.core.selection.kind import Kind, StockWheel
from tuyere.core.selection.problem import Family
from tuyere.core.selection.toothed_kind import ChainKind, ToothedKind
from tuyere.core.selection.v_kind import VKind, sheave
from tuyere.core.table import rows

_PITCHES = tuple(range(24, 241, 2))
_STRANDS = (1, 2, 3, 4)
_LINK_MOST = 4
_GROOVES_LIGHT, _GROOVES_METRIC = (1,), tuple(range(1, 9))  # where the table does not say: common practice, no source


@lru_cache(maxsize=16)
def kinds(own: OwnRatings = NONE) -> tuple[Kind, ...]:
    """Every kind that has both a rating, a standard's or the shop's own, and wheels, in the tables' order."""
    return (*_v_kinds(own), *_toothed_kinds(own), *_chain_kinds(own), *_flat_kinds(own))


def _v_family(of: v_belt.Section) -> Family:
    if of.construction == "hexagonal":
        return "double-V"
    return "link belt" if of.construction == "link" else "v-belt"


def _v_kinds(own: OwnRatings) -> list[Kind]:
    found: list[Kind] = []
    for of in v_belt.sections().values():
        belts = v_belt.standard_belts(of.name)
        wheels = _sheaves(of)
        # A name that only says another section again would list everything twice.
        if belts and wheels and (vee.rated(of) or own.of(of.name)) and not of.series.startswith("effective"):
            found.append(VKind(of, _v_family(of), wheels, belts, int(max(w.most for w in wheels)), own.of(of.name)))
    return found


def _sheaves(of: v_belt.Section) -> tuple[StockWheel, ...]:
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


def _toothed_kinds(own: OwnRatings) -> list[Kind]:
    return [
        ToothedKind(of, teeth, belts, own.of(of.name))
        for of in synchronous.profiles().values()
        if (teeth := synchronous.pulley_teeth(of)) and (belts := synchronous.standard_teeth(of)) and of.tooth_height_m
    ]


def _chain_kinds(own: OwnRatings) -> list[Kind]:
    teeth = {r["series"]: _counts(r["teeth"]) for r in rows("sprockets_stock")}
    found: list[Kind] = []
    for of in roller_chain.chains().values():
        if of.body not in ("roller", "bushing") or of.series not in ("ANSI", "ISO B", "ANSI heavy"):
            continue
        if not (own.of(of.name) or _rated(of)):
            continue
        strands = _STRANDS if of.transverse_pitch_m else (1,)
        found.append(ChainKind(of, teeth["metric" if of.series == "ISO B" else "inch"], _PITCHES, strands, own.of(of.name)))
    return found


def _rated(of: roller_chain.Chain) -> bool:
    try:
        chain_rating.constants(of)
    except OutOfRangeError:
        return False
    return True


def _counts(text: str) -> tuple[int, ...]:
    found: list[int] = []
    for part in text.split():
        start, _, end = part.partition("-")
        found += range(int(start), int(end or start) + 1)
    return tuple(found)


def _flat_kinds(own: OwnRatings) -> list[Kind]:
    pulleys = tuple(float(r["diameter"]) / 1000 for r in rows("flat_crowns"))
    widths = tuple(float(r["belt_width"]) / 1000 for r in rows("flat_faces"))
    rated = {r["belt"] for r in rows("flat_pull")}
    return [FlatKind(of, pulleys, widths, own.of(of.name)) for of in flat_belts().values() if of.name in rated or own.of(of.name)]
