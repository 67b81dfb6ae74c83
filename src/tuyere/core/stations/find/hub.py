"""What the hub says: which bushing it is, and whether bore and key belong together. Figures: tables/bushings.csv, keys.csv."""

from tuyere.core.basis.figure import shown
from tuyere.core.basis.quantity import from_si, parse, to_si
from tuyere.core.basis.table import rows
from tuyere.core.stations.find.evidence import Evidence

_NEAR = 0.0013  # a taper's large end by callipers, m
_KEY_NEAR = 0.0008


def statements(evidence: Evidence) -> tuple[str, ...]:
    """Sentences about bushing, bore and key; none for what is not measured."""
    found = []
    if evidence.hub_large_end:
        found.append(_bushing(evidence.hub_large_end.value, evidence.bore.value if evidence.bore else None))
    if evidence.bore:
        found.append(_key(evidence.bore.value, evidence.key_width.value if evidence.key_width else None))
    return tuple(found)


def _bushing(large_end_m: float, bore_m: float | None) -> str:
    names = []
    for r in rows("bushings"):
        if not r["large_end"] or abs(to_si(float(r["large_end"]), "length", r["unit"]) - large_end_m) > _NEAR:
            continue
        if bore_m and bore_m > to_si(float(r["max_bore"]), "length", r["unit"]) + 1e-6:
            continue
        names.append(f"{r['bushing']} ({r['kind']}, screws {r['screws']}, {r['torque']} {r['torque_unit'].replace(' ', '·')})")
    if not names:
        return "No bushing in the tables has that taper and bore: read the number on its face."
    return "The taper is that of bushing " + " or ".join(names) + ". Its own sheet goes before these torques."


def standard_key(bore_m: float) -> tuple[str, float, str] | None:
    """The key for a bore as (size, width in m, source): an inch bore takes the inch table, a whole-millimetre one the metric."""
    inches = from_si(bore_m, "length", "in")
    sixteenth = abs(inches * 16 - round(inches * 16)) < 0.03
    for r in rows("keys"):
        low, high = float(r["shaft_from"]), float(r["shaft_to"])
        if r["unit"] == "in" and sixteenth and low - 0.01 <= inches <= high + 0.01:
            width = parse(r["key_width"], "length", "in")
            assert width
            return f"{r['key_width']} in square", width.value_si, r["source"]
        if r["unit"] == "mm" and not sixteenth and low < bore_m * 1000 <= high:
            return f"{r['key_width']} × {r['key_height']} mm", float(r["key_width"]) / 1000, r["source"]
    return None


def _key(bore_m: float, key_m: float | None) -> str:
    us, si = shown(bore_m, "length", to_set=True)
    wanted = standard_key(bore_m)
    if not wanted:
        return f"No standard key is tabled for a {us} ({si}) bore."
    size, width, source = wanted
    if key_m is None:
        return f"A {us} ({si}) bore takes a key {size} ({source}, from memory)."
    if abs(key_m - width) <= _KEY_NEAR:
        return f"Bore {us} ({si}) and key belong together: {size} ({source}, from memory)."
    return f"A {us} ({si}) bore takes a key {size}; this one is not that. Measure both again: the hub may have been rebored."
