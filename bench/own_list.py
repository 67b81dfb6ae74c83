"""How long Size takes on a shop's own list of 200 wheels and 200 belts of each sort, against the built-in stock.

    python -m bench.own_list

Prints seconds and the ratio to the built-in stock's search in the same run, and the most memory it took.
"""

import resource
import time

from tuyere.core.basis.typed import Typed
from tuyere.core.drive.sheet.solve import solve_page
from tuyere.core.kinds.rating.own_table import NONE
from tuyere.core.kinds.spec import DriveSpec
from tuyere.core.kinds.v_belt.kind import V_BELT
from tuyere.core.stations.size.form import read_size
from tuyere.core.stations.size.parts_list import PartsList, read_parts
from tuyere.core.stations.size.rank import Wishes, rank
from tuyere.core.stations.size.search import search
from tuyere.core.stations.size.shelf import stock


def lists() -> dict[str, str]:
    """Lists as files: 200 wheels and 200 belts each."""
    head = "part,for,size,grooves,width,on_hand,price\n"
    toothed = [f"wheel,H8M,{22 + n % 100},,{20 + n // 100 * 10} mm,1,{9 + n}" for n in range(200)]
    lengths = [f"belt,H8M,8M-{480 + 8 * n},,{10 + n * 0.5:g} mm,1,{9 + n}" for n in range(200)]
    vee = [f"wheel,B,{3 + n * 0.12:.2f} in,{1 + n % 6},,1,{10 + n}" for n in range(200)]
    belts = [f"belt,B,B{30 + n},,,9,{9 + n}" for n in range(200)]
    return {"toothed": head + "\n".join(toothed + lengths), "V": head + "\n".join(vee + belts)}


def main() -> None:
    """Run it."""
    asked = {"power": "10 hp", "driver_speed": "1750", "driven_speed": "600", "centre_low": "10 in", "centre_high": "60 in"}
    empty = DriveSpec(V_BELT)
    reading = read_size(
        {k: Typed(v) for k, v in asked.items()}, {"driven_class": "moderate", "tolerance": "20"}, (), (), empty, solve_page(empty)
    )
    assert reading.problem, reading

    def once(parts: PartsList, which: str) -> tuple[float, float, int]:
        began = time.perf_counter()
        have = stock(NONE, parts, which)  # type: ignore[arg-type]
        listed = time.perf_counter()
        found = search(reading.problem, have)  # type: ignore[arg-type]
        rank(reading.problem, found, Wishes())  # type: ignore[arg-type]
        return listed - began, time.perf_counter() - listed, found.looked_at

    once(PartsList(), "common")
    _, usual, _ = once(PartsList(), "common")
    print(f"built-in stock: {usual:.2f} s")
    for name, text in lists().items():
        report = read_parts(text)
        for which in ("common", "list", "shelf"):
            making, searching, looked_at = once(report.parts, which)
            taken = sum(r.taken for r in report.rows)
            print(
                f"{name}, {which}: {taken} rows, {looked_at} combinations, list {making:.2f} s, search {searching:.2f} s,"
                f" {(making + searching) / usual:.1f} times the built-in"
            )
    print(f"{resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024:.0f} MB at most")


if __name__ == "__main__":
    main()
