"""Two hundred two-wheel V-belt sheets as they were answered before the inside was rebuilt: every figure to the digit, every word.

    python -m tests.frozen_sheets

writes them anew: only for a rule that was put right, with the reason in docs/provenance.md.
"""

import json
import random
from pathlib import Path
from typing import Any

from tuyere.core.basis.typed import Typed
from tuyere.core.drive.sheet.solve import solve
from tuyere.core.drive.sheet.typed import read_form
from tuyere.core.kinds import v_belt
from tuyere.core.kinds.v_belt.kind import V_BELT

KEPT = Path(__file__).with_suffix(".jsonl")
SECTIONS = (
    "A",
    "B",
    "C",
    "D",
    "AX",
    "BX",
    "CX",
    "3V",
    "3VX",
    "5V",
    "5VX",
    "8V",
    "SPZ",
    "SPA",
    "SPB",
    "SPC",
    "XPZ",
    "XPA",
    "4L",
    "5L",
    "HA",
    "HB",
)
COUNT = 200


def forms() -> list[dict[str, Any]]:
    """What is typed, the same each time: every section, basis and reading, gaps, and things that do not go together."""
    dice = random.Random(20261126)
    made = []
    for number in range(COUNT):
        section = SECTIONS[number % len(SECTIONS)]
        small = v_belt.min_datum_diameter(v_belt.section(section)) / 0.0254 * dice.uniform(0.8, 2.2)
        big = small * dice.choice([1, dice.uniform(0.5, 1), dice.uniform(1, 4)])
        centre = (small + big) / 2 * dice.uniform(0.9, 4)
        speed = dice.choice([870, 1160, 1450, 1755, 3450, dice.uniform(100, 4000)])
        quantities = {
            "driver_power": f"{dice.choice([0.5, 2, 5, 7.5, 15, 30, 60]):g} hp",
            "driver_speed": f"{speed:.0f} rpm",
            "driver_diameter": f"{small:.2f} in",
            "driven_diameter": f"{big:.2f} in",
            "centre_distance": f"{centre:.1f} in",
            "hours_per_day": dice.choice(["8", "16", "24"]),
            "travel_in": "1 in",
            "travel_out": f"{centre / 20:.1f} in",
            "design_speed": f"{speed * small / big:.0f} rpm",
            "tach_driver": f"{speed * 1.003:.0f} rpm",
            "tach_driven": f"{speed * small / big * dice.uniform(0.9, 1.02):.0f} rpm",
            "open_turns": "2.5",
        }
        for gone in dice.sample(sorted(quantities), dice.choice([0, 0, 0, 1, 1, 2, 4])):
            del quantities[gone]
        choices = {
            "section": section,
            "belt_count": str(dice.randint(1, 6)),
            "driver_class": dice.choice(["normal", "high"]),
            "driven_class": dice.choice(["light", "moderate", "heavy", "extra_heavy", "chokable"]),
            "driver_basis": dice.choice(["outside", "datum"]),
            "driven_basis": dice.choice(["outside", "datum", "outside", "flat"]),
            "adjustable": dice.choice(["", "", "", "driver"]),
            "idler": dice.choice(["none", "none", "slack side, inside", "tight side, outside"]),
            "starts": dice.choice(["seldom", "frequent or reversing"]),
            "belt_state": dice.choice(["new", "run in"]),
            "surroundings": dice.choice(["clean", "dusty or wet"]),
            "centre_line_deg": dice.choice(["0", "90", "215"]),
            "ribs": dice.choice(["", "", "", "3"]),
        }
        if dice.random() < 0.5:
            length = 2 * centre + 1.57 * (small + big)
            choices["belt"] = f"{section}{length * (10 if section[0] in '3458' else 25.4 if section[:2] in ('SP', 'XP') else 1):.0f}"
        forces = [f"{dice.uniform(2, 12):.1f} lbf" for _ in range(dice.choice([0, 0, 2, 3]))]
        made.append({"quantities": quantities, "choices": choices, "forces": forces})
    return made


def answer(form: dict[str, Any]) -> dict[str, Any]:
    """Every figure with its doubt, and every sentence, of one sheet."""
    read = read_form(V_BELT, {k: Typed(t, "") for k, t in form["quantities"].items()}, form["choices"])
    sheet = solve(read.spec)
    return {
        "figures": {key: [f.value_si, f.std_si, f.us, f.si] for key, f in sheet.figures.items()},
        "verdicts": [[v.topic, v.tone, v.headline, v.detail] for v in sheet.verdicts],
        "flags": [f.sentence for f in sheet.flags],
        "problems": [[p.field, p.sentence] for p in (*read.problems, *sheet.problems)],
        "wanted": list(sheet.wanted),
    }


if __name__ == "__main__":
    KEPT.write_text("".join(json.dumps(answer(form), sort_keys=True) + "\n" for form in forms()))
