"""How often the true cause is named, on cases in plain words, and how honest the probabilities are, on cases drawn from the model.

    python -m bench.diagnosis

Each case is asked as a person would: what was seen first, then the next check that is proposed, up to five. Prints shares (asked: first
in 95 %, in the top three in 98 %, healthy drives left alone in 9 of 10) and a reliability table.
"""

import csv
import random
from pathlib import Path

from tuyere.core.stations.inspect.diagnosis.diagnose import Diagnosis, diagnose
from tuyere.core.stations.inspect.diagnosis.knowledge import FAMILIES, NOTHING, knowledge
from tuyere.core.stations.inspect.diagnosis.model import net

CASES = Path(__file__).parents[1] / "tests"
FIRST, MORE, THIRD = "diagnosis_cases.csv", "diagnosis_more_cases.csv", "diagnosis_third_cases.csv"
MOST = 5


def cases(file: str = FIRST) -> list[dict[str, str]]:
    """Every case of a file as written."""
    lines = [line for line in (CASES / file).read_text(encoding="utf-8").splitlines() if not line.startswith("#")]
    return list(csv.DictReader(lines, delimiter=";"))


def asked(case: dict[str, str], most: int = MOST) -> tuple[Diagnosis, list[str]]:
    """What is said of a case after at most so many checks, and which were asked."""
    facts = dict(f.split("=") for f in case["facts"].split())
    told = {k: v == "yes" if v in ("yes", "no") else float(v) for k, v in facts.items()}
    checks: dict[str, bool] = {}
    found = diagnose(case["family"], case["seen"].split(), (), checks, told)
    while found.next_check and len(checks) < most:
        checks[found.next_check.check] = found.next_check.check in case["found"].split()
        found = diagnose(case["family"], case["seen"].split(), (), checks, told)
    return found, list(checks)


def reliability(draws: int, seed: int = 1) -> list[tuple[int, int, int]]:
    """Of each tenth of stated probability.

    How many causes were given it, and how many of them were at work, in drives drawn from the model.
    """
    chance = random.Random(seed)
    bins = [[0, 0] for _ in range(10)]
    for n in range(draws):
        family = FAMILIES[n % len(FAMILIES)]
        on = net(family)
        weights = [float(w) for w in on.states({}, {})]
        state = chance.choices(range(len(weights)), weights)[0]
        true = {on.causes[on.first[state]].key, on.causes[on.second[state]].key}
        looked = chance.sample(sorted(on.signs), min(25, len(on.signs)))
        seen = [s for s in looked if chance.random() < on.signs[s][state]]
        checked = {c: chance.random() < float(on.checks[c][state]) for c in chance.sample(sorted(on.checks), 3)}
        found = diagnose(family, seen, [s for s in looked if s not in seen], checked)
        for r in found.causes:
            at = min(9, int(r.probability * 10))
            bins[at][0] += 1
            bins[at][1] += r.cause.key in true
    return [(i, n, hit) for i, (n, hit) in enumerate(bins)]


def told(file: str) -> None:
    """Print how the cases of a file end, and each that ends wrong."""
    first = top3 = left = healthy = sick = 0
    for case in cases(file):
        found, checks = asked(case)
        names = [r.cause.key for r in found.causes]
        if case["cause"] == NOTHING:
            healthy += 1
            left += names[0] == NOTHING
        else:
            sick += 1
            first += names[0] == case["cause"]
            top3 += case["cause"] in names[:3]
        if names[0] != case["cause"]:
            print(
                f"{case['id']:>3} {case['cause']:16} {', '.join(f'{r.cause.key} {r.probability:.2f}' for r in found.causes[:3])}; asked "
                f"{' '.join(checks)}"
            )
    print(
        f"{file}: first {first / sick:.0%}, top three {top3 / sick:.0%} of {sick}; left alone {left} of {healthy}; "
        f"{len(knowledge().causes)} causes"
    )


def main() -> None:
    """Run it."""
    for file in (FIRST, MORE, THIRD):
        told(file)
    for at, n, hit in reliability(1500):
        print(f"stated {at / 10:.1f} to {at / 10 + 0.1:.1f}: {n:6} given, {hit / n if n else 0:.2f} true")


if __name__ == "__main__":
    main()
