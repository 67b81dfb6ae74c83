"""Jobs over the API.

Every kind to its sign-off on a demo drive, in order, with the stations' numbers, and what a sign-off leaves on the record.
"""

import re
import uuid
from concurrent.futures import ThreadPoolExecutor
from datetime import datetime, timedelta
from itertools import cycle
from typing import Any

import pytest
from flask import Flask

from tests.conftest import SECRET, Caller, database
from tests.core.test_jobs import broken
from tests.web.test_said_done_due import drive, of
from tuyere.core.stations.jobs.library import Step
from tuyere.core.stations.jobs.read import library
from tuyere.store import clock
from tuyere.upkeep.prepare import prepare
from tuyere.web.app import create_app
from tuyere.web.settings import Settings

# A demo drive for each kind, and what is asked before it.
AT: dict[str, tuple[str, dict[str, str]]] = {
    "adjustable": ("Germination rooftop air unit", {}),
    "align": ("Dust-collector fan", {}),
    "bearing": ("Dust-collector fan", {"outer": "90 mm", "wide": "23 mm"}),
    "belt_set": ("Steep-water pump", {}),
    "blower_belt": ("Laboratory air cooler", {}),
    "carriage": ("Bag palletiser", {}),
    "chain_join": ("Drag-chain conveyor", {"link": "spring clip link", "offset": "no: even"}),
    "chain_oil": ("Drag-chain conveyor", {}),
    "convert": ("Roller mill", {}),
    "dogs": ("Overhead sack conveyor", {}),
    "flat_join": ("Workshop lathe", {"joint": "metal hooks", "place": "joined in place", "stretched": "no: cut short by the table"}),
    "link_belt": ("Sack roller conveyor", {}),
    "motor_new": ("Barley screener", {}),
    "motor_oil": ("Laboratory air cooler", {}),
    "mower_belt": ("Verge mower", {"which": "traction belt of a walk-behind", "fuel": "run the tank dry"}),
    "own": ("Apprentice stand", {}),
    "run_in": ("Roller mill", {}),
    "sheave": ("Refrigeration compressor 1", {"hub": "split bushing with flange", "bushing": "SK"}),
    "tension": ("Bucket elevator 2", {}),
    "triage": ("Intake bucket elevator", {}),
}


@pytest.fixture(scope="module")
def serving_url() -> str:
    """A plant of its own: a job that is signed off leaves its mark on a drive."""
    return prepare(database("tuyere_test_jobs", "demo"), SECRET, demo=True)


@pytest.fixture(scope="module")
def app(serving_url: str) -> Flask:
    return create_app(Settings(serving_url, SECRET, demo=True, plant="test"))


def begin(caller: Caller, at: str, kind: str, asked: dict[str, str] | None = None, **more: Any) -> Any:
    drive_id, job_id = of(caller, at)["id"], str(uuid.uuid4())
    told = caller.post(f"/api/drives/{drive_id}/jobs", {"id": job_id, "kind": kind, "asked": asked or {}, **more})
    assert told.status_code == 201, told.json
    return caller.get(f"/api/jobs/{job_id}").json


def say(caller: Caller, job: Any, step: str, standing: str = "done", status: int = 200, **more: Any) -> Any:
    told = caller.post(f"/api/jobs/{job['id']}/steps", {"step": step, "standing": standing, **more})
    assert told.status_code == status, told.json
    return told.json


def test_every_kind_of_job_has_a_drive_here() -> None:
    assert set(AT) == set(library().kinds)


@pytest.mark.parametrize("kind", sorted(AT))
def test_a_kind_runs_to_its_sign_off(sign_in: Any, kind: str) -> None:
    caller = sign_in("Tobias")
    machine, asked = AT[kind]
    job = begin(caller, machine, kind, asked)
    assert job["standing"] == "waiting" and len(job["steps"]) >= 5 and all(s["why"] and s["source"] for s in job["steps"])
    safety = [s for s in job["steps"] if s["safety"]]
    assert {s["safety"] for s in safety} == {"lock", "guard"} and all(s["cautions"] for s in safety)
    assert not broken(library().kinds[kind], [plain(s) for s in job["steps"]]), "as the API tells it, without reading words"
    keys = [s["key"] for s in job["steps"]]
    assert job["next"] == keys[0]
    for key in keys:  # the order it is read in is one in which it can be done
        say(caller, job, key)
    now = caller.get(f"/api/jobs/{job['id']}").json
    assert now["next"] == ""
    before = {f["id"] for f in drive(caller, now["drive_id"])["findings"]}
    closes = [{"id": f["id"], "row_version": f["row_version"]} for f in now["findings"] if f["id"] in now["answers"]]
    done = caller.post(f"/api/jobs/{job['id']}/finish", {"row_version": now["row_version"], "closes": closes})
    assert done.status_code == 200, done.json
    assert done.json["said"].startswith(f"{len(keys)} of {len(keys)} steps done")
    unread = {s["read"].partition("?")[0] for s in job["steps"] if s["read"] and (s["number"] or not s["read"].startswith("inspect"))}
    assert ("not measured" in done.json["said"]) == bool(unread), "nothing was read: it says so"
    after = caller.get(f"/api/jobs/{job['id']}").json
    assert after["standing"] == "signed off" and after["ended_by"] == "Tobias" and not after["lacking"]
    assert {u["page"].partition("?")[0] for u in after["unread"]} == unread
    assert done.json["unread"] == after["unread"] and done.json["raised"] == after["raised"]
    event_of = library().kinds[kind].event
    nobody = [d for d in after["raised"] if d["key"] == str(uuid.uuid5(uuid.UUID(job["id"]), "unread"))]
    assert bool(nobody) == (event_of in ("new set", "new wheel", "re-tension")), "a new set whose tension nobody read is a due"
    for due in after["raised"]:
        assert due["what"] in {d["what"] for d in drive(caller, now["drive_id"])["dues"]}
    numbers = {s["key"]: s["number"] for s in now["steps"]}
    assert {s["key"]: s["number"] for s in after["steps"]} == numbers, "the numbers stay as they stood at the sign-off"
    assert {f["id"] for f in drive(caller, now["drive_id"])["findings"]} == before - {c["id"] for c in closes}
    log = caller.get(f"/api/drives/{now['drive_id']}/log").json["entries"]
    assert any(e["kind"] == "job" and e["id"] == job["id"] for e in log)
    again = [d for d in drive(caller, now["drive_id"])["dues"] if d["page"] == f"jobs?kind={kind}"]
    assert bool(again) == bool(library().kinds[kind].again_days or kind == "chain_oil"), "what is done by the calendar is promised again"
    if again:
        assert begin(caller, machine, "", {}, due=again[0]["key"])["kind"] == kind
    event = library().kinds[kind].event
    assert any("not measured" in e["detail"] for e in log if e["id"] == job["id"]) == bool(unread)
    assert (not event) or any(e["kind"] == "done" and e["at"] >= after["finished_at"] for e in log)


def plain(told: Any) -> Step:
    """A step as the API tells it, its waits by key."""
    same = ("key", "do", "why", "source", "state", "safety", "sort", "leaves", "lasting", "turns")
    return Step(**{k: told[k] for k in same}, after=tuple(told["waits_for"]), undoes=tuple(told["undoes"]))


def figure(caller: Caller, drive_id: str, key: str, **gauge: Any) -> Any:
    survey = drive(caller, drive_id)["survey"]
    return caller.post("/api/calc/sheet", {"survey": survey, "gauge": gauge} if gauge else {"survey": survey}).json["tight"]["figures"][key]


def test_numbers_are_the_stations_own(sign_in: Any) -> None:
    caller = sign_in("Tobias")
    job = begin(caller, "Kiln exhaust fan", "belt_set")
    at = {s["key"]: s["number"] for s in job["steps"]}
    low, high = (figure(caller, job["drive_id"], k, belt_state="new") for k in ("aim_low", "aim_high"))
    assert at["gauge_new"]["us"] == f"{low['us'].removesuffix(' lbf')} to {high['us']}" and at["gauge_new"]["page"] == "tension"
    assert at["on_set"]["us"] == "5 × C144" and at["read_locked"]["us"] == at["gauge_new"]["us"]
    sheet = caller.post("/api/calc/sheet", {"survey": drive(caller, job["drive_id"])["survey"]}).json["figures"]
    assert at["slack_base"]["si"] == sheet["installation"]["si"]
    links = caller.post(
        "/api/calc/link", {"link": drive(caller, of(caller, "Sack roller conveyor")["id"])["survey"]["stages"][0]["fitted"]["link"]}
    )
    fitted = {s["key"]: s["number"] for s in begin(caller, "Sack roller conveyor", "link_belt")["steps"]}
    assert fitted["wrap_links"]["us"] == str(links.json["links"] + links.json["take_out"])
    torque = {s["key"]: s["number"] for s in begin(caller, *(AT["sheave"][0], "sheave", AT["sheave"][1]))["steps"]}["flange_on"]
    assert torque["us"] == "15.0 lbf ft", "MPTA: SK, three 5/16-18 screws at 15 lbf ft (from memory)"


def test_order_undo_and_what_two_devices_say(sign_in: Any) -> None:
    caller, mate = sign_in("Tobias"), sign_in("Ines")
    job = begin(caller, "Roller mill", "tension")
    early = say(caller, job, "locks_off", status=422)
    assert early["detail"].startswith("First: ") and early["errors"][0]["field"] == "step"
    keys = [s["key"] for s in job["steps"]]
    for key in keys[: keys.index("try_start")]:
        say(caller, job, key)
    told = say(mate, job, "try_start", at=(clock.now() - timedelta(minutes=1)).isoformat())
    assert say(caller, job, "try_start")["row_version"] == told["row_version"], "the same said by two devices is said once"
    assert "go back with it" in say(caller, job, "lock", "", 422, row_version=1)["detail"]
    say(caller, job, "try_start", "passed", 422, row_version=1)
    say(caller, job, "try_start", "", 409, row_version=7)
    say(caller, job, "try_start", "", row_version=1)
    say(caller, job, "try_start", "passed", words="no control on the machine", row_version=2)
    say(caller, job, "lock", "", row_version=1, later=True)
    now = caller.get(f"/api/jobs/{job['id']}").json
    standing = {s["key"]: s["standing"] for s in now["steps"]}
    assert {k for k in keys if standing[k]} == set(keys[: keys.index("lock")]), "an early step takes the later ones back with it"
    assert now["standing"] == "under way" and now["began_at"] and now["next"] == "lock"
    short = caller.post(f"/api/jobs/{job['id']}/finish", {"row_version": now["row_version"]})
    assert short.status_code == 422 and short.json["errors"][0]["field"] == "safety_note"
    note = {"row_version": now["row_version"], "safety_note": "machine scrapped today"}
    still = caller.post(f"/api/jobs/{job['id']}/finish", note)
    assert still.status_code == 422 and still.json["errors"][0]["field"] == "note"
    assert caller.post(f"/api/jobs/{job['id']}/finish", {**note, "note": "not needed any more"}).status_code == 200
    assert "ended" in say(caller, job, "stored", status=422)["detail"]


def test_what_the_machine_is_is_asked_kept_and_shown_before_it_is_begun(sign_in: Any) -> None:
    caller, viewer = sign_in("Tobias"), sign_in("Rowan")
    drive_id = of(caller, "Grain auger")["id"]
    asks = {a["key"]: a for a in caller.get(f"/api/drives/{drive_id}/jobs").json["machine"]}
    assert asks["pto"]["guess"] and "tractor" in asks["pto"]["because"] and asks["pto"]["kept"] is None and not asks["engine"]["guess"]
    shown = viewer.post(f"/api/drives/{drive_id}/jobs/preview", {"kind": "belt_set"}).json
    keys = {s["key"] for s in shown["steps"]}
    assert (
        {"machine_told", "pto_uncouple", "tractor_chocked", "dust_permit"} <= keys
        and "lock" not in keys
        and "pto_uncouple" in shown["text"]
    )
    electric = {"pto": False, "hydraulics": False, "dust": False}
    shown = viewer.post(f"/api/drives/{drive_id}/jobs/preview", {"kind": "belt_set", "machine": electric}).json
    keys = {s["key"] for s in shown["steps"]}
    assert "lock" in keys and not {"pto_uncouple", "dust_permit", "machine_told"} & keys
    job = begin(caller, "Grain auger", "belt_set", machine=electric)
    assert [s["key"] for s in job["steps"]] == [s["key"] for s in shown["steps"]], "what was shown is what is begun"
    kept = {a["key"]: a["kept"] for a in caller.get(f"/api/drives/{drive_id}/jobs").json["machine"]}
    assert kept["pto"] is False and kept["roof"] is None
    assert "lock" in {s["key"] for s in begin(caller, "Grain auger", "tension")["steps"]}, "and asked no more"
    wrong = caller.post(f"/api/drives/{drive_id}/jobs/preview", {"kind": "belt_set", "machine": {"wings": True}})
    assert wrong.status_code == 422 and wrong.json["errors"][0]["field"] == "machine.wings"
    half = viewer.post(
        f"/api/drives/{of(caller, 'Workshop lathe')['id']}/jobs/preview", {"kind": "flat_join", "asked": {"joint": "rawhide"}}
    ).json
    assert half["lacking"] == ["place", "stretched"] and "lace" in {s["key"] for s in half["steps"]}


def test_a_reading_counts_for_the_step_it_was_taken_at(sign_in: Any) -> None:
    caller = sign_in("Tobias")
    job = begin(caller, "Steep-water pump", "belt_set")
    keys = [s["key"] for s in job["steps"]]

    def unread() -> set[str]:
        return {u["key"] for u in caller.get(f"/api/jobs/{job['id']}").json["unread"]}

    for key in keys[: keys.index("read_as_found")]:
        say(caller, job, key)
    tension = {
        "id": str(uuid.uuid4()),
        "kind": "belt tension",
        "machine_state": "isolated",
        "gauge": {"forces": [{"text": "5", "unit": "lbf"}]},
    }
    kept = caller.post(f"/api/drives/{job['drive_id']}/readings", tension)
    assert kept.status_code == 201, kept.json
    for key in keys[keys.index("read_as_found") :]:
        say(caller, job, key)
    assert "read_as_found" not in unread() and {"gauge_new", "read_locked"} <= unread(), (
        "read before the new belts went on, it says nothing of them"
    )
    note = "belts from the new box"
    at = next(s for s in caller.get(f"/api/jobs/{job['id']}").json["steps"] if s["key"] == "wheels_look")
    say(caller, job, "wheels_look", words=note, row_version=at["row_version"])
    now = caller.get(f"/api/jobs/{job['id']}").json
    assert caller.post(f"/api/jobs/{job['id']}/finish", {"row_version": now["row_version"]}).status_code == 200
    floor = {d["id"]: d for d in caller.get(f"/api/sites/{caller.site_id}/floor").json["drives"]}[job["drive_id"]]
    after = caller.get(f"/api/jobs/{job['id']}").json
    assert note in {n["words"] for n in after["notes"]}, "notes are readable after the sign-off"
    entry = next(e for e in caller.get(f"/api/drives/{job['drive_id']}/log").json["entries"] if e["id"] == job["id"])
    assert note in entry["note"] and "not measured" in entry["detail"] and set(entry["unread"]) == {u["key"] for u in after["unread"]}
    assert floor["level"] != "quiet"
    again = begin(caller, "Steep-water pump", "belt_set")
    assert note in {n["words"] for n in again["earlier"]}, "and at the next job of that kind on that machine"


def test_a_second_new_set_within_the_hour_signs_off(sign_in: Any) -> None:
    caller = sign_in("Tobias")
    for _ in range(2):
        job = begin(caller, "Sack roller conveyor", "link_belt")
        end = {"row_version": job["row_version"], "note": "done by the fitter", "safety_note": "the fitter's own lock"}
        told = caller.post(f"/api/jobs/{job['id']}/finish", end)
        assert told.status_code == 200, told.json


def test_a_due_makes_its_job_and_is_done_with_it(sign_in: Any) -> None:
    caller = sign_in("Tobias")
    drive_id = of(caller, "Roller mill")["id"]
    due = next(d for d in drive(caller, drive_id)["dues"] if d["what"].startswith("Read tension and alignment"))
    job = begin(caller, "Roller mill", "", due=due["key"])
    assert job["kind"] == "run_in" and job["due_what"] == due["what"]
    site = caller.get(f"/api/sites/{caller.site_id}/jobs").json["jobs"]
    assert [j["standing"] for j in site if j["id"] == job["id"]] == ["waiting"]
    assert caller.get(f"/api/drives/{drive_id}/jobs").json["open"][0]["id"] == job["id"]
    end = {"row_version": job["row_version"], "note": "done by the fitter", "safety_note": "the fitter's own lock"}
    assert caller.post(f"/api/jobs/{job['id']}/finish", end).status_code == 200
    left = drive(caller, drive_id)["dues"]
    assert due["key"] not in {d["key"] for d in left} or next(d for d in left if d["key"] == due["key"])["because"] != due["because"]


def test_a_step_of_ones_own_stands_in_every_later_job_of_the_machine(sign_in: Any) -> None:
    caller, viewer = sign_in("Tobias"), sign_in("Rowan")
    job = begin(caller, "Dust-collector fan", "tension")
    added = {"after": "tell", "do": "Tell the control room on channel 4", "why": "They start it by remote.", "state": "any"}
    assert viewer.post(f"/api/jobs/{job['id']}/own-steps", added).status_code == 403
    assert caller.post(f"/api/jobs/{job['id']}/own-steps", added).status_code == 201
    for told in (caller.get(f"/api/jobs/{job['id']}").json, begin(caller, "Dust-collector fan", "tension")):
        keys = [s["key"] for s in told["steps"]]
        own = next(s for s in told["steps"] if s["own"])
        assert own["do"] == added["do"] and keys.index(own["key"]) == keys.index("tell") + 1 and told["own_version"] == 1
    assert not [s for s in begin(caller, "Kiln exhaust fan", "tension")["steps"] if s["own"]]
    hands = caller.post(f"/api/jobs/{job['id']}/own-steps", {"after": "tell", "do": "Feel the belt's back", "own_version": 1})
    assert hands.status_code == 201
    told = caller.get(f"/api/jobs/{job['id']}").json["steps"]
    felt = next(s for s in told if s["do"] == "Feel the belt's back")
    assert {"lock", "dead_stop_coasts", "try_start"} <= set(felt["waits_for"]) and felt["state"] == "isolated" and felt["sort"] == "hands"
    stale = caller.post(f"/api/jobs/{job['id']}/own-steps", {"take_out": felt["key"], "own_version": 1})
    assert (stale.status_code, stale.json["current_version"]) == (409, 2) and "Tobias" in stale.json["detail"]
    assert caller.post(f"/api/jobs/{job['id']}/own-steps", {"take_out": felt["key"], "own_version": 2}).status_code == 201
    assert caller.post(f"/api/jobs/{job['id']}/own-steps", {"do": " ", "own_version": 3}).status_code == 422
    assert caller.post(f"/api/jobs/{job['id']}/own-steps", {"take_out": own["key"], "own_version": 3}).status_code == 201
    assert not [s for s in caller.get(f"/api/jobs/{job['id']}").json["steps"] if s["own"]]
    assert begin(caller, "Dust-collector fan", "tension")["own_version"] == 4


def test_races_over_a_job_end_in_a_sentence(app: Flask, sign_in: Any) -> None:
    """Ten at once over one version, from two jobs of one machine; over one step; over its end."""
    callers = [sign_in("Tobias") for _ in range(10)]
    jobs = [begin(callers[0], "Barley screener", "tension") for _ in range(2)]

    def at_once(path: str, *bodies: dict[str, Any]) -> list[Any]:
        with ThreadPoolExecutor(10) as many:
            asked = enumerate(zip(callers, cycle(bodies), strict=False))
            return list(many.map(lambda n: n[1][0].post(path.format(jobs[n[0] % 2]["id"]), n[1][1]), asked))

    added = at_once("/api/jobs/{}/own-steps", {"after": "tell", "do": "Tell the loader driver", "state": "any"})
    assert sorted(a.status_code for a in added) == [201] + [409] * 9
    assert callers[0].get(f"/api/jobs/{jobs[0]['id']}").json["own_version"] == 1
    first = {"step": jobs[0]["next"], "standing": "done"}
    steps = at_once(f"/api/jobs/{jobs[0]['id']}/steps", first, {**first, "standing": "passed", "words": "no radio"})
    assert {s.status_code for s in steps} <= {200, 409} and sum(s.status_code == 200 for s in steps) >= 5
    end = {"row_version": callers[0].get(f"/api/jobs/{jobs[0]['id']}").json["row_version"], "why": "not today"}
    ends = at_once(f"/api/jobs/{jobs[0]['id']}/drop", end)
    assert sorted(e.status_code for e in ends) == [200] + [422] * 9
    assert all(len(a.json["detail"]) > 20 for a in (*added, *steps, *ends) if a.status_code >= 400)


def test_a_step_keeps_the_time_that_the_device_says_or_waits_with_a_sentence(sign_in: Any) -> None:
    caller = sign_in("Tobias")
    job = begin(caller, "Barley screener", "run_in")
    planned = datetime.fromisoformat(job["planned_at"])

    def say(at: datetime) -> Any:
        return caller.post(f"/api/jobs/{job['id']}/steps", {"step": job["next"], "standing": "done", "at": at.isoformat()})

    for at in (planned - timedelta(minutes=10), planned - timedelta(days=40), planned + timedelta(hours=1)):
        told = say(at)
        assert (told.status_code, told.json["errors"][0]["field"]) == (422, "at")
    slow = planned - timedelta(seconds=40)  # a device's clock is never quite the server's
    assert say(slow).status_code == 200
    step = next(s for s in caller.get(f"/api/jobs/{job['id']}").json["steps"] if s["key"] == job["next"])
    assert datetime.fromisoformat(step["at"]) == slow


def test_what_one_person_did_is_not_taken_as_anothers(sign_in: Any) -> None:
    caller = sign_in("Ines")
    people = {p["name"]: p["id"] for p in caller.get("/api/session").json["demo_people"]}
    job = begin(caller, "Barley screener", "tension")
    said = {"step": job["next"], "standing": "done"}
    headers = {"X-CSRFToken": caller.token, "Idempotency-Key": str(uuid.uuid4())}
    for name, status in (("Tobias", 401), ("Ines", 200)):
        told = caller.client.post(f"/api/jobs/{job['id']}/steps", json=said, headers=headers | {"Tuyere-Person": people[name]})
        assert told.status_code == status


@pytest.mark.parametrize(
    ("machine", "kind", "asked", "field"),
    [
        ("Workshop lathe", "flat_join", {"joint": "glue"}, "asked.joint"),
        ("Workshop lathe", "flat_join", {}, "asked.joint"),
        ("Kiln exhaust fan", "chain_oil", {}, "kind"),
        ("Kiln exhaust fan", "nothing", {}, "kind"),
        ("Refrigeration compressor 1", "sheave", {"hub": "taper bushing"}, "asked.bushing"),
        ("Refrigeration compressor 1", "sheave", {"hub": "taper bushing", "bushing": "SK"}, "asked.bushing"),
        ("Dust-collector fan", "bearing", {"outer": "wide"}, "asked.outer"),
    ],
)
def test_what_cannot_be_begun_says_why(sign_in: Any, machine: str, kind: str, asked: dict[str, str], field: str) -> None:
    caller = sign_in("Tobias")
    told = caller.post(f"/api/drives/{of(caller, machine)['id']}/jobs", {"id": str(uuid.uuid4()), "kind": kind, "asked": asked})
    assert told.status_code == 422 and told.json["errors"][0]["field"] == field


def test_a_dropped_job_says_why_and_is_over(sign_in: Any) -> None:
    caller = sign_in("Tobias")
    job = begin(caller, "Hammer mill", "triage")
    assert caller.post(f"/api/jobs/{job['id']}/drop", {"row_version": 1, "why": "  "}).status_code == 422
    assert caller.post(f"/api/jobs/{job['id']}/drop", {"row_version": 1, "why": "runs again"}).status_code == 200
    assert say(caller, job, "ask_who", status=422) and caller.get(f"/api/jobs/{job['id']}").json["standing"] == "dropped"


def test_a_job_outlives_its_server(sign_in: Any, serving_url: str) -> None:
    """Half a job, then another server on the same database: every step is there, and it goes on."""
    caller = sign_in("Ines")
    job = begin(caller, "Yard sweeper", "tension")
    keys = [s["key"] for s in job["steps"]]
    for key in keys[:5]:
        say(caller, job, key)
    client = create_app(Settings(serving_url, SECRET, demo=True, plant="test")).test_client()
    session = client.get("/api/session").json
    person = next(p for p in session["demo_people"] if p["name"] == "Ines")
    entered = client.post("/api/session/demo", json={"person_id": person["id"]}, headers={"X-CSRFToken": session["csrf_token"]}).json
    other = Caller(client, entered["csrf_token"], entered["sites"][0]["id"])
    again = other.get(f"/api/jobs/{job['id']}").json
    assert [s["key"] for s in again["steps"] if s["standing"] == "done"] == keys[:5] and again["next"] == keys[5]
    say(other, job, keys[5])


NUMBER = re.compile(r'font-weight="bold">([^<]*)</text>')
