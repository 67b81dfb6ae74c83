"""bin/start's own part, run as it runs: a second one, kills, what is half made, wrong settings; backup and restore."""

import json
import os
import pwd
import shutil
import signal
import socket
import subprocess
import sys
import urllib.request
import uuid
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import psycopg
import pytest

from tests.running import PATIENCE_S, ended, started, until
from tuyere.upkeep.cluster import Cluster, data_folder
from tuyere.upkeep.port import Found, look_at
from tuyere.upkeep.said import GivingUp


def free_port() -> int:
    with socket.socket() as free:
        free.bind(("127.0.0.1", 0))
        return int(free.getsockname()[1])


STARTED: list["Keeper"] = []


@pytest.fixture(autouse=True)
def none_left() -> Iterator[None]:
    """What a test started and did not stop, as where it failed, is stopped; the module's own plant is its fixture's to stop."""
    before = len(STARTED)
    yield
    for keeper in STARTED[before:]:
        if not keeper.lasting:
            keeper.stop()


class Keeper:
    """`python -m tuyere.upkeep.keep` on a state folder, and what it said."""

    def __init__(self, state: Path, port: int, *words: str, **environment: str) -> None:
        self.said_in = state / f"said-{uuid.uuid4().hex[:6]}.log"
        clean = {k: v for k, v in os.environ.items() if k != "DATABASE_URL" and not k.startswith("TUYERE")}
        given = clean | {"TUYERE_STATE": str(state), "PORT": str(port), **environment}
        with self.said_in.open("w") as said:
            command = [sys.executable, "-m", "tuyere.upkeep.keep", *words]
            self.process = started(command, given, stderr=said, stdout=said)
        self.lasting = False
        STARTED.append(self)

    @property
    def said(self) -> str:
        return self.said_in.read_text()

    def until(self, words: str) -> None:
        def said() -> bool:
            assert self.process.poll() is None or words in self.said, self.said
            return words in self.said

        until(said, lambda: self.said)

    def ended(self) -> tuple[int, str]:
        return self.process.wait(PATIENCE_S), self.said

    def stop(self) -> None:
        ended(self.process, signal.SIGINT)


@pytest.fixture(scope="module")
def state(tmp_path_factory: pytest.TempPathFactory) -> Path:
    folder = tmp_path_factory.mktemp("state")
    open_to_the_package(folder)
    return folder


@pytest.fixture(scope="module")
def plant(state: Path) -> Iterator[Any]:
    """An own plant that is up, its port and its cluster."""
    port = free_port()
    keeper = Keeper(state, port, "--own-plant")
    keeper.lasting = True
    keeper.until("Tuyere is at")
    yield keeper, port, Cluster(data_folder(state), state)
    keeper.stop()


def first(pid_file: Path) -> int:
    return int(pid_file.read_text().split()[0])


def until_up(port: int) -> None:
    until(lambda: look_at(port, "tuyere_plant") is Found.PLANT)


def test_another_start_leaves_and_leaves_the_database_up(plant: Any, state: Path) -> None:
    keeper, port, cluster = plant
    assert "One-time code to make the first lead:" in keeper.said
    code, said = Keeper(state, port, "--own-plant").ended()
    assert code == 0 and f"already running: http://127.0.0.1:{port}" in said
    other = Keeper(state, free_port())  # the demo plant, on the same data folder
    other.until("Tuyere is at")
    other.stop()
    assert cluster.runs() and look_at(port, "tuyere_plant") is Found.PLANT


def test_a_killed_database_comes_back_on_its_port_and_is_said(plant: Any) -> None:
    keeper, port, cluster = plant
    before = cluster.url("postgres")
    os.kill(first(cluster.data / "postmaster.pid"), signal.SIGKILL)
    keeper.until("The database had stopped: it was started again.")
    until_up(port)
    assert cluster.url("postgres") == before


def test_a_killed_server_comes_back(plant: Any, state: Path) -> None:
    keeper, port, _ = plant
    os.kill(first(state / f"tuyere_plant-{port}.pid"), signal.SIGKILL)
    keeper.until("The server had stopped (killed by signal 9): it was started again.")
    until_up(port)


def test_a_start_takes_over_from_one_that_was_killed(plant: Any, state: Path) -> None:
    keeper, port, cluster = plant
    keeper.process.kill()
    keeper.process.wait()
    assert look_at(port, "tuyere_plant") is Found.PLANT, "the server itself goes on"
    os.kill(first(cluster.data / "postmaster.pid"), signal.SIGKILL)
    pid_file = state / f"tuyere_plant-{port}.pid"
    left_over = first(pid_file)
    new = Keeper(state, port, "--own-plant")
    new.until("A server was left over")
    until(lambda: first(pid_file) != left_over)
    os.kill(first(cluster.data / "postmaster.pid"), signal.SIGKILL)  # the new server has begun and does not answer yet
    new.until("Tuyere is at")
    new.stop()
    assert look_at(port, "tuyere_plant") is Found.NOTHING and not cluster.runs(), "the last one out stops the database"


def test_a_plant_of_its_own_is_backed_up_and_comes_back_under_its_own_owner(state: Path, tmp_path: Path) -> None:
    """By the usual commands on the usual cluster, where there was nothing; then a start goes on with it."""
    open_to_the_package(tmp_path)
    there, file = free_port(), tmp_path / "plant.backup"
    demo = Keeper(state, there, "--demo")
    demo.until("Tuyere is at")
    tool = [sys.executable, "-m", "tuyere.upkeep.backup"]
    clean = {k: v for k, v in os.environ.items() if k != "DATABASE_URL"}
    saved = subprocess.run([*tool, "save", "--demo", str(file)], env=clean | {"TUYERE_STATE": str(state)}, capture_output=True, text=True)
    assert saved.returncode == 0 and file.stat().st_mode & 0o077 == 0, saved.stderr
    demo.stop()
    elsewhere = tmp_path / "elsewhere"
    elsewhere.mkdir(mode=0o711)
    back = subprocess.run(
        [*tool, "restore", "--demo", str(file)], env=clean | {"TUYERE_STATE": str(elsewhere)}, capture_output=True, text=True
    )
    assert back.returncode == 0 and "is now" not in back.stderr, back.stderr
    port = free_port()
    again = Keeper(elsewhere, port, "--demo")
    again.until("Tuyere is at")
    people = json.load(urllib.request.urlopen(f"http://127.0.0.1:{port}/api/session"))["demo_people"]
    with psycopg.connect(Cluster(data_folder(elsewhere), elsewhere).url("tuyere_demo")) as inside:
        owners = inside.execute("SELECT DISTINCT tableowner FROM pg_tables WHERE schemaname = 'public'").fetchall()
        powers = inside.execute("SELECT rolsuper, rolcreaterole, rolcreatedb FROM pg_roles WHERE rolname = 'tuyere_owner'").fetchall()
    again.stop()
    assert people and owners == [("tuyere_owner",)] and powers == [(False, False, False)] and "Loading the demo" not in again.said


def open_to_the_package(folder: Path) -> None:
    """PostgreSQL's own user may pass through to its data."""
    for parent in (folder, *folder.parents[:3]):
        parent.chmod(0o711)


def test_two_starts_at_once_on_an_empty_folder_are_one_application(tmp_path: Path) -> None:
    """Of one plant on one port; a third, of the other plant, makes no second database beside them."""
    open_to_the_package(tmp_path)
    port = free_port()
    twins = [Keeper(tmp_path, port, "--own-plant") for _ in range(2)]
    other = Keeper(tmp_path, free_port(), "--own-plant")
    for one in (*twins, other):
        one.until("Tuyere is ")
    (left,) = [t for t in twins if "waiting for it" in t.said or "already running" in t.said]
    assert left.ended()[0] == 0 and len(list(tmp_path.glob("postgres*"))) <= 1 and "half made" not in "".join(t.said for t in twins)
    for one in (*twins, other):
        if one is not left:
            one.stop()


def test_a_waiting_start_takes_over_from_one_that_is_killed_meanwhile(tmp_path: Path) -> None:
    open_to_the_package(tmp_path)
    port = free_port()
    first_one = Keeper(tmp_path, port, "--own-plant")
    first_one.until("Making a database")
    second = Keeper(tmp_path, port, "--own-plant")
    second.until("waiting for it")
    first_one.process.kill()
    first_one.process.wait()
    second.until("Tuyere is at")
    second.stop()


def made_data(folder: Path, version: str, uid: int) -> Path:
    """What makes a folder look like a database's."""
    (folder / "global").mkdir(parents=True)
    (folder / "global" / "pg_control").write_bytes(b"")
    (folder / "PG_VERSION").write_text(f"{version}\n")
    if os.getuid() == 0:
        for path in (folder, *folder.rglob("*")):
            os.chown(path, uid, -1)
    return folder


def test_a_strange_data_folder_is_a_sentence_at_once(tmp_path: Path) -> None:
    """Of an older PostgreSQL, of another user, and one whose process file was copied with it from a plant that runs."""
    ours = pwd.getpwnam("postgres").pw_uid if os.getuid() == 0 else os.getuid()
    old = made_data(tmp_path / "postgres", "9.6", ours)
    with pytest.raises(GivingUp, match=r"made by PostgreSQL 9\.6, and this machine has"):
        Cluster(old, tmp_path).start()
    if os.getuid() == 0:
        theirs = made_data(tmp_path / "theirs", "15", 65534)
        with pytest.raises(GivingUp, match="belongs to"):
            Cluster(theirs, tmp_path).start()
    copied = made_data(tmp_path / "copied", "15", ours)
    with Cluster(tmp_path / "real", tmp_path).lease():
        open_to_the_package(tmp_path)
        shutil.rmtree(old)
        real = Cluster(tmp_path / "real", tmp_path)
        real.start()
        (copied / "postmaster.pid").write_text((tmp_path / "real" / "postmaster.pid").read_text())
        assert real.runs() and not Cluster(copied, tmp_path).runs(), "a copied process file is not its own"
        real.stop()


def test_a_copied_checkout_ends_no_server_of_the_one_it_was_copied_from(plant: Any, tmp_path: Path) -> None:
    keeper, port, _ = plant
    if keeper.process.poll() is not None:
        keeper = Keeper(keeper.said_in.parent, port, "--own-plant")
        keeper.until("Tuyere is at")
    open_to_the_package(tmp_path)
    code, said = Keeper(tmp_path, port, "--own-plant").ended()
    assert code == 1 and "stop it where it was started" in said and "left over" not in said
    assert look_at(port, "tuyere_plant") is Found.PLANT
    keeper.stop()


def test_a_half_made_data_folder_is_moved_aside(tmp_path: Path) -> None:
    open_to_the_package(tmp_path)
    data = tmp_path / "postgres"
    data.mkdir()
    (data / "PG_VERSION").write_text("15\n")
    cluster = Cluster(data, tmp_path)
    with cluster.lease():
        cluster.start()
        psycopg.connect(cluster.url("postgres")).close()
    assert [p.read_text() for p in tmp_path.glob("postgres.half-made-*/PG_VERSION")] == ["15\n"]


@pytest.mark.parametrize(
    ("environment", "says"),
    [
        ({"PORT": "99999"}, "from 1 to 65535"),
        ({"PORT": "0"}, "from 1 to 65535"),
        ({"PORT": "eight"}, "from 1 to 65535"),
        ({"TUYERE_SECRET_KEY": "short"}, "has 5 characters and needs 32"),
        ({"DATABASE_URL": "mysql://x/y"}, "must read postgresql://"),
        ({"DATABASE_URL": "postgres://nobody:x@127.0.0.1:1/none"}, "the database cannot be used"),
    ],
)
def test_a_wrong_setting_is_a_sentence(state: Path, environment: dict[str, str], says: str) -> None:
    code, said = Keeper(state, free_port(), **environment).ended() if "PORT" not in environment else _with_port(state, environment["PORT"])
    assert code == 1 and says in said and "Traceback" not in said, said


def _with_port(state: Path, port: str) -> tuple[int, str]:
    return Keeper(state, port).ended()  # type: ignore[arg-type]


def test_a_taken_port_is_a_sentence(state: Path) -> None:
    with socket.socket() as taken:
        taken.bind(("127.0.0.1", 0))
        taken.listen()
        code, said = Keeper(state, taken.getsockname()[1]).ended()
    assert code == 1 and "is taken by another program" in said


def test_somebodys_database_gets_no_demo_unless_asked(empty_database_url: str, state: Path) -> None:
    url = empty_database_url.rpartition("/")[0] + f"/own_{uuid.uuid4().hex[:8]}"
    port = free_port()
    keeper = Keeper(state, port, DATABASE_URL=url.replace("postgresql://", "postgres://"))
    keeper.until("Tuyere is at")
    session = json.load(urllib.request.urlopen(f"http://127.0.0.1:{port}/api/session"))
    keeper.stop()
    assert session["needs_first_lead"] and not session["demo_people"] and "Loading the demo" not in keeper.said
    with psycopg.connect(url) as connection:
        assert connection.execute("SELECT count(*) FROM machine").fetchone() == (0,)
