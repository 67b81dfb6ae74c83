"""How often the true hour lies in a forecast's band (0.9 stated), on simulated histories.

Straight and bending, few and many readings, rounded, with blunders.

python -m bench.wear
"""

import math
import random

from tuyere.core.stations.inspect.wear.forecast import Bend, forecast

DRAWS = 200


def history(shape: str, n: int, chance: random.Random) -> tuple[list[float], list[float], float]:
    """Hours, values (percent of elongation, limit 3) and the true hour of the limit."""
    life = math.exp(chance.gauss(math.log(12000), 0.6))
    bend = {
        "straight": 1.0,
        "bending up": chance.uniform(1.1, 1.5),
        "bending down": chance.uniform(0.65, 0.9),
        "late": 1.0,
        "bedding": 1.0,
    }[shape]
    bed = chance.uniform(0.03, 0.12) if shape == "bedding" else 0.0

    def wear(h: float) -> float:
        x = h / life
        if shape == "late":  # straight to seven tenths of the limit, then faster and faster
            straight = min(x, 0.78) / 0.78 * 0.7
            return straight + (max(0.0, x - 0.78) / 0.22) ** 1.6 * 0.3 if x > 0.78 else straight
        soon = bed * (1 - math.exp(-x / 0.02))
        return soon + (1 - bed) * x**bend

    to = chance.uniform(0.25, 0.9) * life
    hours = sorted(chance.uniform(0.05, 1) * to for _ in range(n))
    values = []
    for h in hours:
        value = 3 * (wear(h) + chance.gauss(0, 0.015))
        if chance.random() < 0.04:
            value += chance.choice((-1, 1)) * chance.uniform(0.3, 0.8)
        values.append(max(0.0, round(value, 1)))
    return hours, values, life


def main() -> None:
    """Run it."""
    all_in = all_n = 0
    for shape in ("straight", "bending up", "bending down", "late", "bedding"):
        for n in (2, 4, 8, 20):
            chance = random.Random(f"{shape} {n}")
            inside = given = refused = 0
            wide = []
            for _ in range(DRAWS):
                hours, values, life = history(shape, n, chance)
                found = forecast(hours, values, 3.0, KIND)
                if found.refused or found.low is None or found.middle is None:
                    refused += 1
                    continue
                given += 1
                inside += found.low <= life and (found.high is None or life <= found.high)
                if found.high is not None:
                    wide.append((found.high - found.low) / life)
            all_in, all_n = all_in + inside, all_n + given
            print(
                f"{shape:13} {n:3} readings: {inside / max(1, given):.3f} inside, band {sorted(wide)[len(wide) // 2]:.2f} lives wide, "
                f"{refused} refused of {DRAWS}"
            )
    print(f"all: {all_in / all_n:.3f}")


KIND: Bend = "chain"

if __name__ == "__main__":
    main()
