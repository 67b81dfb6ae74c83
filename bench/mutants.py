"""How many small faults in the handbook the tests let pass: python -m bench.mutants [how many] [seed].

Each mutant changes one operator, comparison or number of a function of `core/mechanics` in a copy of the source, and the tests that hold the
handbook are run on it until the first fails. Prints the survivors, each with its file, line and change, and their share (wanted: 15 % at most).
A mutant that changes nothing that anybody could see (a tolerance, a bound that is never met) survives rightly: it is read by a person.
"""

import ast
import os
import random
import shutil
import subprocess
import sys
import tempfile
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from queue import Queue

ROOT = Path(__file__).parents[1]
ROOM = "src/tuyere/core/mechanics"
TESTS = (
    "src/tuyere/core/mechanics",
    "tests/core/test_open_belt.py",
    "tests/core/test_belt_path.py",
    "tests/core/test_layout.py",
    "tests/core/test_loads.py",
    "tests/core/test_quarter_turn.py",
    "tests/core/test_tight.py",
    "tests/core/test_stages.py",
    "tests/reference",
)
SWAPS: dict[type, type] = {
    ast.Add: ast.Sub,
    ast.Sub: ast.Add,
    ast.Mult: ast.Div,
    ast.Div: ast.Mult,
    ast.Lt: ast.GtE,
    ast.Gt: ast.LtE,
    ast.LtE: ast.Gt,
    ast.GtE: ast.Lt,
}
WORST = 0.15


def places(tree: ast.Module) -> list[tuple[ast.AST, str]]:
    """Where a tree of a module can be changed: inside functions, what is computed or compared."""
    found: list[tuple[ast.AST, str]] = []
    for function in (n for n in ast.walk(tree) if isinstance(n, ast.FunctionDef)):
        for node in ast.walk(function):
            if isinstance(node, ast.BinOp) and type(node.op) in SWAPS and not isinstance(node.left, ast.Constant | ast.JoinedStr):
                found.append((node, "operator"))
            elif isinstance(node, ast.Compare) and type(node.ops[0]) in SWAPS:
                found.append((node, "comparison"))
            elif isinstance(node, ast.Constant) and type(node.value) in (int, float) and node.value not in (0, 1):
                found.append((node, "number"))
    return found


def mutant(path: Path, which: int) -> tuple[str, str]:
    """The text of a module with its `which`-th place changed, and the change in words."""
    tree = ast.parse(path.read_text(encoding="utf-8"))
    node, what = places(tree)[which]
    before = ast.unparse(node)
    if isinstance(node, ast.BinOp):
        node.op = SWAPS[type(node.op)]()
    elif isinstance(node, ast.Compare):
        node.ops[0] = SWAPS[type(node.ops[0])]()
    elif isinstance(node, ast.Constant):
        node.value = node.value * 1.07  # type: ignore[operator]
    return ast.unparse(ast.fix_missing_locations(tree)), f"line {node.lineno}, {what}: {before} -> {ast.unparse(node)}"  # type: ignore[attr-defined]


def main(count: int, seed: int) -> int:
    """Try them, two at a time."""
    every = [(p, n) for p in sorted((ROOT / ROOM).rglob("*.py")) for n in range(len(places(ast.parse(p.read_text(encoding="utf-8")))))]
    chosen = random.Random(seed).sample(every, min(count, len(every)))
    homes: Queue[Path] = Queue()
    with tempfile.TemporaryDirectory() as folder:
        for k in range(2):
            home = Path(folder) / str(k)
            for part in ("src", "tests", "bench"):
                shutil.copytree(ROOT / part, home / part, ignore=shutil.ignore_patterns("__pycache__", "built"))
            shutil.copy(ROOT / "pyproject.toml", home)
            homes.put(home)

        def survives(one: tuple[Path, int]) -> str:
            home = homes.get()
            try:
                text, change = mutant(*one)
                file = home / one[0].relative_to(ROOT)
                kept = file.read_text(encoding="utf-8")
                file.write_text(text, encoding="utf-8")
                try:
                    tried = [sys.executable, "-m", "pytest", "-x", "-q", "-p", "no:cacheprovider", "-p", "no:xdist", *TESTS]
                    env = {**os.environ, "PYTHONPATH": f"{home / 'src'}:{home}", "HYPOTHESIS_STORAGE_DIRECTORY": f"{home}/hypothesis"}
                    code = subprocess.run(tried, cwd=home, env=env, capture_output=True, timeout=600).returncode
                except subprocess.TimeoutExpired:
                    code = 1
                finally:
                    file.write_text(kept, encoding="utf-8")
                print("." if code else "S", end="", flush=True)
                return "" if code else f"{one[0].relative_to(ROOT / ROOM)} {change}"
            finally:
                homes.put(home)

        with ThreadPoolExecutor(2) as pool:
            left = sorted(filter(None, pool.map(survives, chosen)))
    print(f"\n{len(left)} of {len(chosen)} of {len(every)} survive: {len(left) / len(chosen):.0%}")
    print("\n".join(left))
    return 0 if len(left) <= WORST * len(chosen) else 1


if __name__ == "__main__":
    sys.exit(main(int(sys.argv[1]) if len(sys.argv) > 1 else 200, int(sys.argv[2]) if len(sys.argv) > 2 else 1))
