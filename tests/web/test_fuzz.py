"""What generated requests from the document do not reach.

Pictures bent byte by byte, bodies of any kind, and three people at once against a model.
"""

import io
import uuid
from random import Random
from typing import Any

import pytest
from flask import Flask
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from hypothesis.stateful import RuleBasedStateMachine, initialize, invariant, precondition, rule, run_state_machine_as_test
from PIL import Image

from tests.conftest import LONG, SECRET, Caller, database
from tests.web.test_said_done_due import entered, new_drive
from tests.web.test_writes import reading
from tuyere.store import clock
from tuyere.upkeep.prepare import prepare
from tuyere.web.app import create_app
from tuyere.web.settings import Settings


@pytest.fixture(scope="module")
def app() -> Flask:
    return create_app(Settings(prepare(database("tuyere_test_fuzz", "demo"), SECRET, demo=True), SECRET, demo=True, plant="test"))


def pictures() -> list[bytes]:
    """Small ones of each kind, with a position in them where the kind has room for one."""
    made = []
    for kind, mode, how in (
        ("JPEG", "RGB", {}),
        ("JPEG", "L", {"progressive": True}),
        ("PNG", "RGBA", {}),
        ("PNG", "P", {}),
        ("WEBP", "RGB", {}),
    ):
        out, exif = io.BytesIO(), Image.Exif()
        exif[0x0112], exif[0x010F] = 6, "Camera of somebody"
        grain = Image.frombytes("L", (60, 40), Random(1).randbytes(2400))
        grain.convert(mode).save(out, kind, exif=exif, **how)
        made.append(out.getvalue())
    return made


PICTURES = pictures()


@st.composite
def bent(draw: st.DrawFn) -> bytes:
    """A picture with bytes changed, put in, taken out, cut off; and now and then none at all."""
    content = bytearray(draw(st.sampled_from(PICTURES)))
    for _ in range(draw(st.integers(0, 6))):
        at = draw(st.integers(0, max(0, len(content) - 1)))
        what = draw(st.sampled_from(("set", "insert", "cut", "drop", "head")))
        if what == "set":
            content[at : at + 1] = bytes([draw(st.integers(0, 255))])
        elif what == "insert":
            content[at:at] = draw(st.binary(max_size=40))
        elif what == "cut":
            del content[at:]
        elif what == "drop":
            del content[at : at + draw(st.integers(1, 60))]
        else:
            content[min(at, 64) : min(at, 64) + 4] = draw(st.binary(min_size=4, max_size=4))
    return bytes(content)


KINDS = st.sampled_from(["image/jpeg", "image/png", "image/x-nothing", "IMAGE/WEBP; q=1", "application/octet-stream", "text/plain"])


def test_a_bent_picture_is_kept_clean_or_refused_in_words(app: Flask) -> None:
    caller = entered(app, "Tobias")
    drive_id = new_drive(caller, f"Bent {uuid.uuid4().hex[:6]}")
    kept = refused = 0

    @settings(max_examples=2000 if LONG else 120, deadline=None, suppress_health_check=list(HealthCheck))
    @given(bent(), KINDS)
    def send(content: bytes, kind: str) -> None:
        nonlocal kept, refused
        headers = {"X-CSRFToken": caller.token, "Idempotency-Key": str(uuid.uuid4())}
        photo = str(uuid.uuid4())
        told = caller.client.post(f"/api/drives/{drive_id}/photos?id={photo}", data=content, content_type=kind, headers=headers)
        assert told.status_code in (201, 400, 415, 422), (told.status_code, told.data[:200])
        if told.status_code == 201:
            kept += 1
            whole = caller.get(f"/api/photos/{photo}/picture").data
            with Image.open(io.BytesIO(whole)) as shown:
                shown.load()
                assert shown.format == "JPEG" and max(shown.size) <= 1600 and not dict(shown.getexif())
            assert b"Camera" not in whole
        else:
            refused += 1
            assert told.content_type == "application/problem+json" and len(told.json["detail"]) > 10

    send()
    assert kept > 10 and refused > 10


BODIES = st.one_of(
    st.binary(max_size=300),
    st.text(max_size=100).map(str.encode),
    st.sampled_from(
        [
            b'--x\r\nContent-Disposition: form-data; name="photo"; filename="../../a.jpg"\r\n\r\nabc\r\n--x--\r\n',
            b"--x--",
            b"a=1&b=2",
            b"{",
            b"[]",
            b"null",
            b"\x1f\x8b\x08\x00",
            b"%PDF-1.7",
            b"<svg xmlns='http://www.w3.org/2000/svg'/>",
        ]
    ),
)
TYPES = st.sampled_from(
    [
        "multipart/form-data; boundary=x",
        "multipart/form-data",
        "multipart/mixed; boundary=" + "y" * 200,
        "application/x-www-form-urlencoded",
        "application/json",
        "application/json; charset=utf-16",
        "image/jpeg",
        "text/csv",
        "application/zip",
        "",
        "x",
        "/",
        "image/\u00e9",
    ]
)


def test_a_body_of_any_kind_at_any_door_is_no_fault_of_ours(app: Flask) -> None:
    """Every route that takes a body, with multipart, forms, files and nonsense: refused in words, and nothing is kept of it."""
    caller = entered(app, "Marta")
    doors = [(r.rule, m) for r in app.url_map.iter_rules() for m in (r.methods or set()) & {"POST", "PUT"} if r.rule.startswith("/api/")]
    own = {r for r, _ in doors} - {"/api/session/demo"}

    @settings(max_examples=4000 if LONG else 400, deadline=None, suppress_health_check=list(HealthCheck))
    @given(st.sampled_from(sorted(d for d in doors if d[0] in own)), BODIES, TYPES)
    def send(door: tuple[str, str], body: bytes, kind: str) -> None:
        rule_, method = door
        path = rule_.replace("<uuid:site_id>", caller.site_id)
        for part in (
            "drive",
            "reading",
            "finding",
            "photo",
            "round",
            "job",
            "due",
            "happened",
            "machine",
            "slip",
            "fix",
            "list",
            "what_if",
            "person",
            "sign_in",
        ):
            path = path.replace(f"<uuid:{part}_id>", str(uuid.uuid4()))
        path = path.replace("<device_id>", "0" * 32).replace("<name>", "x").replace("<form>", "svg")
        headers = {"X-CSRFToken": caller.token, "Idempotency-Key": str(uuid.uuid4())}
        told = caller.client.open(path, method=method, data=body, content_type=kind, headers=headers)
        assert told.status_code < 500, (path, kind, body, told.data[:300])
        assert told.status_code < 400 or told.content_type == "application/problem+json", (path, kind)

    send()


class ThreePeople(RuleBasedStateMachine):
    """Three people at one drive, each by what they saw last.

    What is taken is in the model, what is stale is refused, and all see the same.
    """

    app: Flask
    who = st.sampled_from(["Tobias", "Ines", "Marta"])

    @initialize()
    def begin(self) -> None:
        self.callers = {name: entered(self.app, name) for name in ("Tobias", "Ines", "Marta")}
        self.drive = new_drive(self.callers["Marta"], f"Walk {uuid.uuid4().hex[:8]}")
        self.findings: dict[str, tuple[str, int]] = {}
        self.dues: dict[str, tuple[str, int]] = {}
        self.readings: dict[str, tuple[bool, int]] = {}
        self.job, self.steps, self.order = "", {}, []
        self.ended = False

    def post(self, who: str, path: str, body: dict[str, Any]) -> Any:
        told = self.callers[who].post(path, body)
        assert told.status_code in (200, 201, 409, 422), (path, told.status_code, told.json)
        return told

    def over(self, held: int, stale: bool) -> int:
        return held + 1 if stale else held

    @rule(who=who, sign=st.sampled_from(["squeals at start", "rust", "cracked"]))
    def says(self, who: str, sign: str) -> None:
        key = str(uuid.uuid4())
        if self.post(who, f"/api/drives/{self.drive}/findings", {"id": key, "sign": sign}).status_code == 201:
            self.findings[key] = ("open", 1)

    @precondition(lambda self: self.findings)
    @rule(who=who, data=st.data(), state=st.sampled_from(["being done", "closed", "open"]), stale=st.booleans())
    def answers(self, who: str, data: Any, state: str, stale: bool) -> None:
        key = data.draw(st.sampled_from(sorted(self.findings)))
        _, version = self.findings[key]
        told = self.post(who, f"/api/findings/{key}", {"row_version": self.over(version, stale), "state": state, "why": "looked at it"})
        assert (told.status_code == 409) == stale, told.json
        if told.status_code == 200:
            self.findings[key] = (state, told.json["row_version"])

    @rule(who=who, days=st.integers(0, 40))
    def reminds(self, who: str, days: int) -> None:
        key = str(uuid.uuid4())
        on = (clock.now().date()).toordinal() + days
        body = {"id": key, "what": f"Look {key[:6]}", "due_on": type(clock.now().date()).fromordinal(on).isoformat()}
        assert self.post(who, f"/api/drives/{self.drive}/dues", body).status_code == 201
        self.dues[key] = ("open", 1)

    @precondition(lambda self: self.dues)
    @rule(who=who, data=st.data(), answer=st.sampled_from(["done", "not needed", "taken back"]), stale=st.booleans())
    def does_due(self, who: str, data: Any, answer: str, stale: bool) -> None:
        key = data.draw(st.sampled_from(sorted(self.dues)))
        _, version = self.dues[key]
        told = self.post(who, f"/api/dues/{key}", {"row_version": self.over(version, stale), "answer": answer, "why": "as agreed"})
        assert (told.status_code == 409) == stale, told.json
        if told.status_code == 200:
            self.dues[key] = ("open" if answer == "taken back" else answer, told.json["row_version"])

    @precondition(lambda self: not self.job)
    @rule(who=who)
    def begins(self, who: str) -> None:
        self.job = str(uuid.uuid4())
        assert self.post(who, f"/api/drives/{self.drive}/jobs", {"id": self.job, "kind": "own", "asked": {}}).status_code == 201
        self.order = [s["key"] for s in self.callers[who].get(f"/api/jobs/{self.job}").json["steps"]]

    @precondition(lambda self: self.job)
    @rule(
        who=who,
        place=st.integers(0, 30),
        standing=st.sampled_from(["done", "passed", "", "done", "done"]),
        stale=st.booleans(),
        later=st.booleans(),
    )
    def steps_on(self, who: str, place: int, standing: str, stale: bool, later: bool) -> None:
        said = [k for k in self.order if self.steps.get(k, ("", 0))[0]]
        key = self.order[min(place, len(said)) % len(self.order)]
        held, version = self.steps.get(key, ("", 0))
        body = {"step": key, "standing": standing, "words": "cannot" if standing == "passed" else "", "later": later}
        told = self.post(who, f"/api/jobs/{self.job}/steps", {**body, "row_version": self.over(version, stale)})
        if self.ended:
            assert told.status_code == 422
            return
        if stale and version and standing != held:
            assert told.status_code in (409, 422), "over a version that nobody saw"
        if told.status_code == 200 and standing != held:
            now = {s["key"]: s for s in self.callers[who].get(f"/api/jobs/{self.job}").json["steps"]}
            behind = self.order[self.order.index(key) + 1 :]
            for other, s in now.items():
                was = self.steps.get(other, ("", 0))
                if other == key:
                    assert s["standing"] == standing and s["row_version"] == told.json["row_version"] > was[1]
                elif not standing and later and other in behind:
                    assert s["standing"] in ("", was[0])
                else:
                    assert (s["standing"], s["row_version"]) == was, "no other step was touched"
                if s["row_version"]:
                    self.steps[other] = (s["standing"], s["row_version"])

    @precondition(lambda self: self.job and not self.ended and len([s for s, _ in self.steps.values() if s]) > 2)
    @rule(who=who, stale=st.booleans())
    def drops(self, who: str, stale: bool) -> None:
        version = self.callers[who].get(f"/api/jobs/{self.job}").json["row_version"]
        told = self.post(who, f"/api/jobs/{self.job}/drop", {"row_version": self.over(version, stale), "why": "not today"})
        assert (told.status_code == 409) == stale
        self.ended = not stale

    @precondition(lambda self: len(self.readings) < 3)
    @rule(who=who)
    def reads(self, who: str) -> None:
        body = reading()
        if self.post(who, f"/api/drives/{self.drive}/readings", body).status_code == 201:
            self.readings[body["id"]] = (False, 1)

    @precondition(lambda self: self.readings)
    @rule(who=who, data=st.data(), struck=st.booleans(), stale=st.booleans())
    def strikes(self, who: str, data: Any, struck: bool, stale: bool) -> None:
        key = data.draw(st.sampled_from(sorted(self.readings)))
        _, version = self.readings[key]
        told = self.post(who, f"/api/readings/{key}/strike", {"row_version": self.over(version, stale), "struck": struck})
        assert (told.status_code == 409) == stale
        if told.status_code == 200:
            self.readings[key] = (struck, told.json["row_version"])

    @invariant()
    def the_next_sees_it(self) -> None:
        if hasattr(self, "callers"):
            self.turn = getattr(self, "turn", 0) + 1
            self.sees(list(self.callers.values())[self.turn % 3])

    def sees(self, caller: Caller) -> None:
        if self.drive:
            seen = caller.get(f"/api/drives/{self.drive}").json
            open_now = {f["id"]: f for f in seen["findings"] if f["id"] in self.findings}
            assert open_now.keys() == {k for k, (state, _) in self.findings.items() if state != "closed"}
            assert {k: f["row_version"] for k, f in open_now.items()} == {k: self.findings[k][1] for k in open_now}
            assert {d["what"] for d in seen["dues"] if d["what"].startswith("Look ")} == {
                f"Look {k[:6]}" for k, (state, _) in self.dues.items() if state == "open"
            }
            kept = {e["id"]: e for e in caller.get(f"/api/drives/{self.drive}/log").json["entries"]}
            assert {k: bool(kept[k]["struck"]) for k in self.readings} == {k: struck for k, (struck, _) in self.readings.items()}
            if self.job:
                told = caller.get(f"/api/jobs/{self.job}").json
                assert {s["key"]: s["standing"] for s in told["steps"] if s["standing"]} == {k: s for k, (s, _) in self.steps.items() if s}
                assert (told["standing"] == "dropped") == self.ended


def test_three_people_at_once_against_a_model(app: Flask) -> None:
    ThreePeople.app = app
    many = settings(
        max_examples=60 if LONG else 8, stateful_step_count=30 if LONG else 14, deadline=None, suppress_health_check=list(HealthCheck)
    )
    run_state_machine_as_test(ThreePeople, settings=many)
