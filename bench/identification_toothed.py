"""How often toothed belts and chains are named right: the frozen cases of tests/identification_cases_toothed.csv.

python -m bench.identification_toothed [-v]
"""

import csv
import sys
from pathlib import Path
from typing import Any

from tuyere.core.identify.toothed import Family, read_toothed
from tuyere.core.sheet.typed import Typed

CASES = Path(__file__).parent.parent / "tests" / "identification_cases_toothed.csv"
FAMILY: dict[str, Family] = {"chain": "roller chain", "synchronous": "synchronous"}


def cases() -> list[dict[str, str]]:
    """The cases as written."""
    return list(csv.DictReader(line for line in CASES.read_text().splitlines() if not line.startswith("#")))


def judge(case: dict[str, str]) -> dict[str, Any]:
    """Place of a right answer (0 first), how sure the first is, and the top of the list."""
    pairs = dict(item.split("=", 1) for item in f"{case['readings']};{case['words']}".split(";") if "=" in item)
    words = {k: pairs.pop(k) for k in ("pitch_count", "shape", "material", "body", "plates", "label") if k in pairs}
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


def main() -> None:
    results = [(case, judge(case)) for case in cases()]
    for family in FAMILY:
        own = [(c, r) for c, r in results if c["family"] == family]
        claimed = [(c, r) for c, r in own if r["sure"] > 0.95]
        print(
            f"{family}: cases {len(own)}, right first {sum(r['place'] == 0 for _, r in own) / len(own):.0%}, in the top two {sum(r['place'] < 2 for _, r in own) / len(own):.0%}"
        )
        print(f"  of those called sure ({len(claimed)}), right {sum(r['place'] == 0 for _, r in claimed) / max(1, len(claimed)):.0%}")
    for case, r in results:
        if "-v" in sys.argv or r["place"]:
            print(case["id"], case["is"], r)


if __name__ == "__main__":
    main()
