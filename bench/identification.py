"""How often the ranking names the right belt: the frozen cases of tests/identification_cases.csv.

    python -m bench.identification [-v]

Right: the first section is the true one or one that the measurements cannot tell from it, by the case's own list.
Named: the first name is within one step (1 % of length) of the true one. Ambiguous: the tool says that it cannot tell yet.
"""

import csv
import sys
from pathlib import Path

from tuyere.core.basis.typed import Typed
from tuyere.core.basis.uncertainty import Sureness, sureness
from tuyere.core.kinds import v_belt
from tuyere.core.stations.find.evidence import QUANTITIES, Evidence, read_evidence
from tuyere.core.stations.find.rank import rank

CASES = Path(__file__).parent.parent / "tests" / "identification_cases.csv"


def cases() -> list[dict[str, str]]:
    """The cases as written."""
    return list(csv.DictReader(line for line in CASES.read_text().splitlines() if not line.startswith("#")))


def evidence_of(case: dict[str, str]) -> Evidence:
    """One case as evidence."""
    columns = {key: "belt_angle" if key == "angle" else key for key in case}
    typed = {
        columns[key]: Typed(text, "in" if "angle" not in key else "°", tool=case.get(f"{key}_tool") or None)
        for key, text in case.items()
        if text and columns[key] in QUANTITIES
    }
    reading = read_evidence(typed, {key: case[key] for key in ("label", "construction", "ribs", "marks")})
    assert not reading.problems, (case["id"], reading.problems)
    return reading.evidence


def judge(case: dict[str, str]) -> dict[str, object]:
    """How the ranking does on a case: place of the right section (0 first), whether the name is right, how sure it says it is."""
    found = rank(evidence_of(case))
    accepted = {name.replace("_", " ") for name in case["accept"].split()}
    places = [i for i, c in enumerate(found.candidates) if c.section.name in accepted]
    truth = case["truth"].split("|")[1]
    named = None
    if truth:
        right = v_belt.parse_designation(truth)
        first = next((c for c in found.candidates if c.section.name in accepted and c.belts), None)
        near = first and abs(
            v_belt.lengths(first.section, first.belts[0].belt.number).outside_m / v_belt.lengths(right.section, right.number).outside_m - 1
        )
        named = near is not None and near <= 0.0101
    return {
        "place": places[0] if places else 99,
        "named": named,
        "very": found.candidates[0].section.name == case["truth"].split("|")[0],
        "sure": sureness(found.together()),
        "top": [(c.section.name, round(c.probability, 3), c.belts[0].belt.designation if c.belts else "") for c in found.candidates[:4]],
        "none": found.none_of_them,
    }


def main() -> None:
    results = [(case, judge(case)) for case in cases()]
    count = len(results)
    first = sum(r["place"] == 0 for _, r in results)
    two = sum(r["place"] in (0, 1) for _, r in results)
    named = [r["named"] for _, r in results if r["named"] is not None]
    honest = [r for _, r in results if r["sure"] is Sureness.OPEN]
    claimed = [r for _, r in results if r["sure"] is Sureness.SURE]
    print(f"cases {count}")
    print(f"right first {first / count:.0%}   right in the top two {two / count:.0%}")
    print(f"the very section first, though another name fits as well {sum(bool(r['very']) for _, r in results) / count:.0%}")
    print(f"honestly ambiguous (says it cannot tell yet) {len(honest) / count:.0%}")
    print(f"of those it calls sure ({len(claimed)}), right {sum(r['place'] == 0 for r in claimed) / max(1, len(claimed)):.0%}")
    print(f"length right within a step {sum(map(bool, named)) / len(named):.0%}")
    for case, r in results:
        if "-v" in sys.argv or r["place"] or r["named"] is False:
            print(case["id"], case["truth"], r["place"], r["named"], r["sure"].name, r["top"], f"none {r['none']:.3f}")


if __name__ == "__main__":
    main()
