"""What is installed from the built wheel runs.

It starts, keeps a job, prints a label; and what it promises to run on is what it is tried on.
"""

import ast
import os
import re
import shutil
import subprocess
import sys
import tomllib
from importlib.metadata import packages_distributions, requires
from pathlib import Path

import tuyere
from tests.conftest import database

ROOT = Path(tuyere.__file__).parents[2]
WHOLE = tomllib.loads((ROOT / "pyproject.toml").read_text())
PROJECT, GROUPS = WHOLE["project"], WHOLE["dependency-groups"]
PINNED = re.compile(r"^([\w.-]+)(?:\[[\w,]+\])?==([^\s;\\]+)", re.M)
PROMISED = re.compile(r"^([\w.-]+)(?:\[[\w,]+\])?(>=|==)(.+)$")

# What a person does first on a database of its own: the sample plant, a sign-in, a job on a drive, the label for its guard.
TRIED = """
import os, sys, uuid
import tuyere
assert tuyere.__file__.startswith(sys.argv[1]), tuyere.__file__
from tuyere.demo.load import load_demo
from tuyere.store.database import engine_from, migrate
from tuyere.web.app import create_app
from tuyere.web.settings import Settings
url = os.environ["DATABASE_URL"]
engine = engine_from(url)
migrate(engine)
load_demo(engine)
client = create_app(Settings(url, "tests-only-tests-only-tests-only-1234", demo=True)).test_client()
session = client.get("/api/session").json
lead = next(p for p in session["demo_people"] if p["name"] == "Ines")
session = client.post("/api/session/demo", json={"person_id": lead["id"]}, headers={"X-CSRFToken": session["csrf_token"]}).json
floor = client.get(f"/api/sites/{session['sites'][0]['id']}/floor").json
drive = next(d for d in floor["drives"] if d["machine"] == "Dust-collector fan")["id"]
write = {"X-CSRFToken": session["csrf_token"], "Idempotency-Key": str(uuid.uuid4())}
job = {"id": str(uuid.uuid4()), "kind": "tension", "asked": {}}
begun = client.post(f"/api/drives/{drive}/jobs", json=job, headers=write)
assert begun.status_code == 201, begun.json
assert len(client.get(f"/api/jobs/{job['id']}").json["steps"]) > 5
label = client.get(f"/api/drives/{drive}/card.pdf?size=label")
assert label.status_code == 200 and label.data.startswith(b"%PDF")
assert client.get("/floor").status_code == 200
"""


def name_of(text: str) -> str:
    return text.lower().replace("_", "-")


def test_what_is_promised_at_least_is_what_is_tried() -> None:
    """The lowest version of each part is the one that is locked, and every package that is imported is one of them, or one that those ask
    for.
    """
    locked = {name_of(name): version for name, version in PINNED.findall((ROOT / "requirements.lock").read_text())}
    promised = {name_of(m[1]): m[3] for line in PROJECT["dependencies"] if (m := PROMISED.match(line))}
    assert len(promised) == len(PROJECT["dependencies"]) > 20
    assert promised == {name: locked[name] for name in promised}
    tools = {name_of(m[1]) for line in GROUPS["dev"] if (m := PROMISED.match(line))}
    asked = (name_of(re.split(r"[ \[;<>=!~(]", line)[0]) for part in promised.keys() | tools for line in requires(part) or ())
    allowed = promised.keys() | tools | set(asked)
    owners = packages_distributions()
    imported = set()
    for path in (ROOT / "src" / "tuyere").rglob("*.py"):
        for node in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
            names = (
                [a.name for a in node.names]
                if isinstance(node, ast.Import)
                else [node.module or ""]
                if isinstance(node, ast.ImportFrom)
                else []
            )
            imported |= {n.split(".")[0] for n in names} - set(sys.stdlib_module_names) - {"tuyere", ""}
    assert {n for n in imported if not {name_of(o) for o in owners.get(n, ())} & allowed} == set()


def test_the_wheel_runs_a_job_and_prints_a_label(tmp_path: Path) -> None:
    """Built, and unpacked where nothing of the checkout is seen: its own code, data, migrations and pages."""
    checkout = tmp_path / "checkout"
    shutil.copytree(ROOT / "src" / "tuyere", checkout / "src" / "tuyere", ignore=shutil.ignore_patterns("__pycache__"))
    for file in ("pyproject.toml", "README.md", "LICENSE"):
        shutil.copy(ROOT / file, checkout)
    built = [sys.executable, "-m", "pip", "wheel", "-q", "--disable-pip-version-check", "--no-deps", "-w", str(tmp_path), str(checkout)]
    made = subprocess.run(built, capture_output=True, text=True)
    assert made.returncode == 0, made.stderr[-2000:]
    (wheel,) = tmp_path.glob("*.whl")
    away = tmp_path / "installed"
    unpack = [sys.executable, "-m", "pip", "install", "-q", "--disable-pip-version-check", "--no-deps", "--target", str(away), str(wheel)]
    subprocess.run(unpack, check=True, capture_output=True)
    # Its parts as they are locked, without the checkout that stands beside them here.
    env = {**os.environ, "PYTHONPATH": str(away), "DATABASE_URL": database("tuyere_test_wheel")}
    tried = subprocess.run([sys.executable, "-c", TRIED, str(away)], capture_output=True, text=True, cwd=tmp_path, env=env)
    assert tried.returncode == 0, tried.stderr[-3000:]
