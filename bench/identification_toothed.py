"""How often toothed belts and chains are named right: the frozen cases of tests/identification_cases_toothed.csv.

python -m bench.identification_toothed [-v] [--drawn N]

--drawn N: as well, N cases of each family drawn from the tables by chance (by how common a kind is), measured with everyday scatter and
wear.
"""

import csv
import random
import sys
from pathlib import Path
from typing import Any

from tuyere.core.basis.typed import Typed
from tuyere.core.kinds import roller_chain, synchronous
from tuyere.core.kinds.registry import meshing
from tuyere.core.kinds.toothed import read_toothed

CASES = Path(__file__).parent.parent / "tests" / "identification_cases_toothed.csv"
FAMILY = {"chain": meshing("roller chain"), "synchronous": meshing("synchronous")}


def cases() -> list[dict[str, str]]:
    """The cases as written."""
    return list(csv.DictReader(line for line in CASES.read_text().splitlines() if not line.startswith("#")))


def judge(case: dict[str, str]) -> dict[str, Any]:
    """Place of a right answer (0 first), how sure the first is, and the top of the list."""
    pairs = dict(item.split("=", 1) for item in f"{case['readings']};{case['words']}".split(";") if "=" in item)
    words = {k: pairs.pop(k) for k in ("pitch_count", "wheel_teeth", "shape", "material", "body", "plates", "label") if k in pairs}
    callipers = {k: "caliper" for k in pairs if k not in ("pitch_span", "belt_width")}
    reading = read_toothed(FAMILY[case["family"]], {k: Typed(v, "mm", tool=callipers.get(k, "rule")) for k, v in pairs.items()}, words)
    assert not reading.problems, (case["id"], reading.problems)
    names = [m.kind.name for m in reading.matches.found]
    accepted = case["is"].split("|")
    if accepted == ["none"]:
        place = 0 if reading.matches.none_of_them > 0.5 else 99
    else:
        place = next((i for i, n in enumerate(names) if n in accepted), 99) if reading.matches.none_of_them < 0.5 else 99
    together = (
        sum(m.probability for m in reading.matches.found if m.kind.name in accepted)
        if accepted != ["none"]
        else reading.matches.none_of_them
    )
    return {
        "place": place,
        "sure": reading.matches.found[0].probability,
        "together": together,
        "top": [(m.kind.name, round(m.probability, 3)) for m in reading.matches.found[:4]],
        "none": round(reading.matches.none_of_them, 3),
        "ask": reading.ask.key if reading.ask else "",
    }


def drawn(family: str, count: int, seed: int = 7) -> list[dict[str, str]]:
    """Cases drawn by chance: the span by rule to 0.5 mm, sizes by callipers to 0.1 mm and the scatter of making, chains up to 3 % longer."""
    by = random.Random(seed)
    pool = list((roller_chain.chains() if family == "chain" else synchronous.profiles()).values())
    found = []
    for i, of in enumerate(by.choices(pool, [k.common for k in pool], k=count)):
        steps = max(5, min(30, round(0.3 / of.pitch_m)))
        span = of.pitch_m * steps * (1 + (by.uniform(0, 0.03) if family == "chain" else 0)) + by.gauss(0, 0.00025)
        sizes, words = _sizes(of, by)
        alike = [k.name for k in pool if _alike(of, k)]
        readings = ";".join(f"{k}={v * 1000:.2f} mm" for k, v in {"pitch_span": span, **sizes}.items())
        found.append(
            {"id": f"d{i}", "family": family, "is": "|".join(alike), "readings": f"{readings};pitch_count={steps}", "words": words}
        )
    return found


def _sizes(of: roller_chain.Chain | synchronous.Profile, by: random.Random) -> tuple[dict[str, float], str]:
    if isinstance(of, synchronous.Profile):
        return {"belt_thickness": of.belt_height_m * by.gauss(1, 0.02) + by.gauss(0, 0.0001)}, f"shape={of.form}"
    sizes = {
        "roller_diameter": of.roller_m and of.roller_m * by.uniform(0.995, 1.0),
        "inner_width": of.inner_width_m and of.inner_width_m * by.gauss(1, 0.008),
    }
    return {k: v + by.gauss(0, 0.00006) for k, v in sizes.items() if v}, ""


def _alike(one: Any, other: Any) -> bool:
    """Nothing measured tells them apart: by what is common to both."""
    keys = ("pitch_m", "roller_m", "inner_width_m") if isinstance(one, roller_chain.Chain) else ("pitch_m", "belt_height_m")
    if isinstance(one, synchronous.Profile) and one.form != other.form:
        return False
    pairs = [(getattr(one, k), getattr(other, k)) for k in keys]
    return all(
        a is None or b is None or abs(a / b - 1) < (0.005 if k == "pitch_m" else 0.03) for k, (a, b) in zip(keys, pairs, strict=True)
    )


def main() -> None:
    results = [(case, judge(case)) for case in cases()]
    if "--drawn" in sys.argv:
        count = int(sys.argv[sys.argv.index("--drawn") + 1])
        results = [(case, judge(case)) for family in FAMILY for case in drawn(family, count)]
    for family in FAMILY:
        own = [(c, r) for c, r in results if c["family"] == family]
        claimed = [(c, r) for c, r in own if r["sure"] > 0.95]
        print(
            f"{family}: cases {len(own)}, right first {sum(r['place'] == 0 for _, r in own) / len(own):.0%}, in the top two "
            f"{sum(r['place'] < 2 for _, r in own) / len(own):.0%}"
        )
        print(f"  of those called sure ({len(claimed)}), right {sum(r['place'] == 0 for _, r in claimed) / max(1, len(claimed)):.0%}")
    for case, r in results:
        if "-v" in sys.argv or r["place"]:
            print(case["id"], case["is"], r)


if __name__ == "__main__":
    main()
