"""The stock that is searched: the common sizes of the tables, marked as assumed."""

from functools import lru_cache

from tuyere.core.drives import roller_chain, synchronous, v_belt
from tuyere.core.drives.flat import flat_belts
from tuyere.core.drives.roller_chain import rating as chain_rating
from tuyere.core.drives.v_belt import rating as vee
from tuyere.core.entry.quantity import System, show, to_si
from tuyere.core.rating.duties import OutOfRangeError
from tuyere.core.rating.own_table import NONE, OwnRatings
from tuyere.core.selection.flat_kind import FlatKind
from tuyere.core.selection.kind import Kind, StockWheel
from tuyere.core.selection.problem import Family
from tuyere.core.selection.toothed_kind import ChainKind, ToothedKind
from tuyere.core.selection.v_kind import MOST_JOINED, VKind, flat_wheel, sheave
from tuyere.core.table import rows

_PITCHES = tuple(range(24, 241, 2))
_STRANDS = (1, 2, 3, 4)
_LINK_LENGTHS = range(400, 5001, 50)  # mm: cut to any length, looked at in steps
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


def _ribbed(own: OwnRatings) -> list[Kind]:
    found: list[Kind] = []
    for r in rows("ribbed_stock"):
        of, ribs = v_belt.section(r["section"]), tuple(int(n) for n in r["ribs"].split())
        wheels = tuple(
            sheave(of, v_belt.datum_from_outside(of, float(d) / 1000), float(d) / 1000, f"{d} mm outside", min(ribs), max(ribs))
            for d in r["wheels"].split()
        )
        belts = tuple(v_belt.belt_of(of, float(n)) for n in r["lengths"].split())
        found.append(VKind(of, "ribbed", wheels, belts, 0, own.of(of.name), ribs))
    return found


def _joined(singles: list[VKind]) -> list[Kind]:
    """Rated as the same number of singles (IP-20, IP-22; from memory, high)."""
    can = {r["section"] for r in rows("v_joined")}
    cogged = {s.name for s in v_belt.sections().values() if s.cogged and s.groove in can}
    many = (*range(2, MOST_JOINED + 1), *range(2 * ((MOST_JOINED + 2) // 2), 2 * MOST_JOINED + 1, 2))
    return [VKind(k.of, "joined V-belt", k.driver, k.belts_had, 0, k.own, many) for k in singles if k.name in can | cogged]


def _on_flat(singles: list[VKind]) -> list[Kind]:
    """Classical belts alone are broad enough at the base to run on a flat wheel: common practice, no source."""
    rims = tuple(float(r["diameter"]) / 1000 for r in rows("flat_crowns"))
    found: list[Kind] = []
    for k in singles:
        if k.family == "v-belt" and "classical" in k.of.series:
            flat = tuple(flat_wheel(k.of, d, f"{show(d, 'length', System.SI)} flat") for d in rims)
            found.append(VKind(k.of, "V-flat", k.driver, k.belts_had, int(max(k.counts)), k.own, (), flat))
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
