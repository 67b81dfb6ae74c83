"""Sign-in by passphrase, the brake on guessing, sessions that end, leavers, the first lead of an empty plant."""

import uuid
from datetime import UTC, datetime, timedelta
from typing import Any

import pytest
from alembic import command
from flask import Flask
from sqlalchemy import Engine, text
from sqlmodel import Session, select

from tests.conftest import REAL_HASHER, SECRET, database
from tuyere.store import brake, clock, people, sessions
from tuyere.store.database import alembic_config, engine_from
from tuyere.store.people_tables import Membership, Person, Role, Site
from tuyere.store.prune import prune
from tuyere.store.tables import AuditEntry
from tuyere.store.write import Writer
from tuyere.web.app import create_app
from tuyere.web.settings import Settings


def post(client: Any, path: str, body: dict[str, Any], **more: Any) -> Any:
    token = client.get("/api/session").json["csrf_token"]
    return client.post(path, json=body, headers={"X-CSRFToken": token}, **more)


def test_the_first_lead(empty_database_url: str) -> None:
    app = create_app(Settings(empty_database_url, SECRET, plant="empty"))
    with Session(app.extensions["engine"]) as session:
        code = people.issue_first_lead_code(session)
    assert code
    client = app.test_client()
    assert client.get("/api/session").json["needs_first_lead"]
    form = {"code": code, "name": "Ada", "passphrase": "short", "site_name": "Mill"}
    assert post(client, "/api/first-lead", form).json["errors"][0] == {
        "field": "passphrase",
        "detail": "This is too short: at least 10 characters.",
    }
    form["passphrase"] = "seven blue herons"
    assert post(client, "/api/first-lead", {**form, "code": "wrong"}).status_code == 422
    made = post(client, "/api/first-lead", form)
    assert made.json["sites"][0]["role"] == "lead"
    assert post(app.test_client(), "/api/first-lead", {**form, "name": "Eve"}).status_code == 422, "the code works once"
    with Session(app.extensions["engine"]) as session:
        assert people.issue_first_lead_code(session) is None
        assert session.exec(select(Person.passphrase_hash)).one().startswith("$argon2id$")
    cost = (REAL_HASHER.memory_cost, REAL_HASHER.time_cost)
    assert cost[0] >= 19 * 1024 and cost[1] >= 2, "OWASP: 19 MiB and two passes at the least (Password Storage Cheat Sheet)"

    assert post(app.test_client(), "/api/session", {"name": "Ada", "passphrase": "seven blue herons"}).json["name"] == "Ada"


def test_demo_people_only_in_demo_mode(app: Flask, demo_database_url: str) -> None:
    person = app.test_client().get("/api/session").json["demo_people"][0]
    real = create_app(Settings(demo_database_url, SECRET, demo=False))
    client = real.test_client()
    assert client.get("/api/session").json["demo_people"] == []
    assert post(client, "/api/session/demo", {"person_id": person["id"]}).status_code == 404


def test_signing_out(sign_in: Any) -> None:
    caller = sign_in("Ines")
    assert caller.client.delete("/api/session", headers={"X-CSRFToken": caller.token}).json["name"] is None
    assert caller.get(f"/api/sites/{caller.site_id}/floor").status_code == 401


PHRASE, HANDED = "seven blue herons", "twelve grey pebbles"


@pytest.fixture
def member(app: Flask, sign_in: Any) -> Any:
    """Somebody new at the demo site, who chose a passphrase of their own: name, id, and the lead who added them."""
    lead, name, person_id = sign_in("Marta"), f"Member {uuid.uuid4().hex[:8]}", str(uuid.uuid4())
    added = lead.post(f"/api/sites/{lead.site_id}/people", {"id": person_id, "name": name, "passphrase": HANDED, "role": "mechanic"})
    assert added.status_code == 201
    client, _ = enter(app, name, HANDED)
    assert post(client, "/api/session/passphrase", {"present": HANDED, "wanted": PHRASE}).status_code == 200
    return name, person_id, lead


def test_a_passphrase_that_was_handed_over_opens_nothing_but_the_choice_of_another(app: Flask, sign_in: Any) -> None:
    lead, name = sign_in("Marta"), f"Member {uuid.uuid4().hex[:8]}"
    new = {"id": str(uuid.uuid4()), "name": name, "passphrase": HANDED, "role": "lead"}
    assert lead.post(f"/api/sites/{lead.site_id}/people", new).status_code == 201
    client, entered = enter(app, name, HANDED)
    assert entered.json["must"] == "choose"
    for path in (f"/api/sites/{lead.site_id}/floor", f"/api/sites/{lead.site_id}/people"):
        refused = client.get(path)
        assert refused.status_code == 403 and "Choose your own first" in refused.json["detail"]
    same = post(client, "/api/session/passphrase", {"present": HANDED, "wanted": HANDED})
    assert same.status_code == 422 and same.json["errors"][0]["field"] == "wanted"
    chosen = post(client, "/api/session/passphrase", {"present": HANDED, "wanted": PHRASE})
    assert chosen.json["must"] == "" and client.get(f"/api/sites/{lead.site_id}/people").status_code == 200
    assert enter(app, name, HANDED)[1].status_code == 422


OLD_KEYS = {  # as plants were left: by name alone, in the alphabet's order, and by a key that told fewer names apart
    "MARTA": "marta",
    "Marta": "marta {id}",
    "marta": "marta {id}",
    "marta 2": "marta 2",
    "\u041e\u043b\u044f": "\u043e\u043b\u044f",
}


def test_of_names_alike_the_oldest_keeps_the_plain_one_and_nobody_opens_anothers_session() -> None:
    """Marta was there first, then MARTA, then marta; each signs in by a name of their own, all with the same passphrase."""
    url = database("tuyere_test_names")
    engine = engine_from(url)
    command.upgrade(alembic_config(engine), "0019")
    ids = {name: uuid.uuid4() for name in OLD_KEYS}
    hashed = people.hash_passphrase(PHRASE)
    with engine.begin() as connection:
        for days, name in enumerate(("Marta", "MARTA", "marta", "marta 2", "\u041e\u043b\u044f")):
            one = {"id": ids[name], "name": name, "key": OLD_KEYS[name].format(id=ids[name]), "hash": hashed, "days": days}
            connection.execute(
                text(
                    "INSERT INTO person (id, name, name_key, passphrase_hash, one_click, row_version) VALUES (:id, :name, :key, :hash, "
                    "false, 1)"
                ),
                one,
            )
            connection.execute(
                text("""INSERT INTO audit_entry (at, action, subject_table, subject_id, changes)
                     VALUES (now() - interval '9 days' + make_interval(days => :days), 'added mechanic', 'person', :id, '{}')"""),
                one,
            )
    command.upgrade(alembic_config(engine), "head")
    with Session(engine) as session:
        told = dict(people.renamed(session))
        for name, person_id in ids.items():
            by = told.get(name, name)
            found = people.sign_in(session, by, PHRASE, "127.0.0.1")
            assert found and found.id == person_id, (name, by)
        assert told.keys() == {"MARTA", "marta"} and len({people.name_key(n) for n in (*told.values(), "Marta", "marta 2")}) == 4
        anybody = people.sign_in(session, "mArTa", PHRASE, "127.0.0.1")
        assert anybody and anybody.id == ids["Marta"]
        with clock.set_to(datetime.now(UTC)):  # the names were changed by the database's own clock, and tests set ours back before midnight
            sessions.begin_session(session, session.get_one(Person, ids["MARTA"]), "", "")
        assert list(dict(people.renamed(session))) == ["marta"], "who has signed in by the new name knows it"
    engine.dispose()


def enter(app: Flask, name: str, passphrase: str = PHRASE, client: Any = None, **more: Any) -> Any:
    client = client or app.test_client()
    return client, post(client, "/api/session", {"name": name, "passphrase": passphrase}, **more)


def test_guessing_waits_longer_each_time_and_keeps_nobody_else_out(app: Flask, member: Any, monkeypatch: pytest.MonkeyPatch) -> None:
    name, _, _ = member
    known, _ = enter(app, name)
    guesser = {"environ_overrides": {"REMOTE_ADDR": "192.0.2.7"}}
    moment = brake.now()
    monkeypatch.setattr(brake, "now", lambda: moment)
    waits: list[int] = []
    for _ in range(14):
        answer = enter(app, name, "a guess of mine", **guesser)[1]
        if answer.status_code == 429:
            waits.append(int(answer.headers["Retry-After"]))
            assert f"wait {waits[-1]} s" in answer.json["detail"]
            moment += timedelta(seconds=waits[-1])
    assert waits[:3] == [1, 2, 4], "each failure doubles the wait"
    assert enter(app, name, PHRASE, **guesser)[1].status_code in (200, 429)
    assert enter(app, name, client=known, **guesser)[1].status_code == 200, "a device where this person signed in before is not braked"
    assert enter(app, name, environ_overrides={"REMOTE_ADDR": "192.0.2.8"})[1].status_code == 200, "nor is another address"
    for _ in range(200):
        answer = enter(app, name, "a guess of mine", **guesser)[1]
        if answer.status_code == 429 and (wait := int(answer.headers["Retry-After"])) >= brake.LONGEST:
            break
        moment += timedelta(seconds=int(answer.headers.get("Retry-After", 0)))
    assert wait == brake.LONGEST, "growing, never closing"
    moment += timedelta(seconds=wait)
    assert enter(app, name, PHRASE, **guesser)[1].status_code == 200


def test_the_present_passphrase_and_the_codes_are_braked_too(app: Flask, member: Any) -> None:
    name, _, _ = member
    client, _ = enter(app, name)
    change = {"present": "not this one", "wanted": "nine red lanterns"}
    assert [post(client, "/api/session/passphrase", change).status_code for _ in range(brake.FREE + 1)] == [422] * brake.FREE + [429]
    reset = {"name": name, "code": "abcdef", "wanted": "nine red lanterns"}
    other = {"environ_overrides": {"REMOTE_ADDR": "192.0.2.9"}}
    codes = [post(app.test_client(), "/api/session/reset", reset, **other).status_code for _ in range(brake.FREE + 1)]
    assert codes == [422] * brake.FREE + [429]
    first = {"code": "abcdef", "name": "Ada", "passphrase": "nine red lanterns", "site_name": "Mill"}
    codes = [post(app.test_client(), "/api/first-lead", first, **other).status_code for _ in range(brake.FREE + 1)]
    assert codes == [422] * brake.FREE + [429]


def test_signing_out_ends_every_copy_of_the_cookie(app: Flask, member: Any) -> None:
    name, _, _ = member
    client, _ = enter(app, name)
    copy = app.test_client()
    copy.set_cookie("tuyere_test", client.get_cookie("tuyere_test").value)
    assert copy.get("/api/session").json["name"] == name
    client.delete("/api/session", headers={"X-CSRFToken": client.get("/api/session").json["csrf_token"]})
    assert copy.get("/api/session").json["name"] is None


def test_a_new_passphrase_ends_the_sessions_elsewhere(app: Flask, member: Any) -> None:
    name, _, _ = member
    (here, _), (elsewhere, _) = enter(app, name), enter(app, name)
    changed = post(here, "/api/session/passphrase", {"present": PHRASE, "wanted": "nine red lanterns"})
    assert changed.json["name"] == name and here.get("/api/session").json["name"] == name
    assert elsewhere.get("/api/session").json["name"] is None
    assert enter(app, name)[1].status_code == 422 and enter(app, name, "nine red lanterns")[1].status_code == 200


def test_a_lead_changes_a_role_ends_a_session_hands_over_a_code_and_takes_a_leaver_off(app: Flask, member: Any, engine: Engine) -> None:
    name, person_id, lead = member
    site = f"/api/sites/{lead.site_id}"
    client, _ = enter(app, name)
    at_floor = lambda: client.get(f"{site}/floor").status_code  # noqa: E731
    assert at_floor() == 200

    held = [s for s in lead.get(f"{site}/people").json["sessions"] if s["person_id"] == person_id]
    assert {(s["address"], s["mine"]) for s in held} == {("127.0.0.1", False)} and len(held) == 2
    for one in held:
        assert lead.post(f"{site}/sign-ins/{one['id']}/end", {}).status_code == 200
    assert at_floor() == 401

    enter(app, name, client=client)
    assert lead.post(f"{site}/people/{person_id}/role", {"role": "lead"}).status_code == 200
    assert client.get(f"{site}/people").status_code == 200
    assert lead.post(f"{site}/people/{person_id}/role", {"role": "viewer"}).status_code == 200
    assert client.get(f"{site}/people").status_code == 403

    code = lead.post(f"{site}/people/{person_id}/reset", {}).json["code"]
    chosen = {"name": name, "code": code, "wanted": "nine red lanterns"}
    assert post(app.test_client(), "/api/session/reset", chosen).json["name"] == name
    assert post(app.test_client(), "/api/session/reset", chosen).status_code == 422, "the code works once"
    assert at_floor() == 401

    enter(app, name, "nine red lanterns", client)
    assert lead.post(f"{site}/people/{person_id}/leave", {}).status_code == 200
    assert at_floor() == 401
    _, again = enter(app, name, "nine red lanterns", client)
    assert again.json["sites"] == [] and at_floor() == 404
    assert lead.post(f"{site}/people/{person_id}/leave", {}).status_code == 404

    with Session(engine) as session:
        told = session.exec(select(AuditEntry).where(AuditEntry.subject_id == uuid.UUID(person_id)).order_by(AuditEntry.id)).all()
    assert [e.action for e in told] == [
        "added mechanic",
        "signed in",
        "changed passphrase",
        "signed in",
        "signed in",
        "session ended",
        "session ended",
        "signed in",
        "made lead",
        "made viewer",
        "given a one-time code",
        "chose a new passphrase by a one-time code",
        "signed in",
        "signed in",
        "left",
        "signed in",
    ]
    assert not any(secret in str(e.changes) for e in told for secret in ("argon2", code, "lanterns"))


def test_the_last_lead_stays(empty_database_url: str) -> None:
    with Session(engine_from(empty_database_url)) as session:
        site, lead = Site(id=uuid.uuid4(), name=f"Alone {uuid.uuid4().hex[:8]}"), people.new_person(uuid.uuid4(), uuid.uuid4().hex, PHRASE)
        session.add_all([site, lead])
        session.flush()
        session.add(Membership(person_id=lead.id, site_id=site.id, role=Role.LEAD))
        session.flush()
        writer = Writer(lead.id, site.id, uuid.uuid4())
        for change in (lambda: people.leave(session, writer, lead.id), lambda: people.change_role(session, writer, lead.id, Role.VIEWER)):
            with pytest.raises(people.LastLeadError):
                change()
        people.add_person(session, writer, uuid.uuid4(), uuid.uuid4().hex, PHRASE, Role.LEAD)
        assert people.leave(session, writer, lead.id), "with another one there it is allowed"
        session.rollback()


@pytest.mark.parametrize("passphrase", ["password12", "1234567890", "qwertyuiop", "aaaaaaaaaaaa", "iloveyou2024", "Noor Haddad 1"])
def test_an_easy_passphrase_is_refused(sign_in: Any, passphrase: str) -> None:
    lead = sign_in("Marta")
    new = {"id": str(uuid.uuid4()), "name": "Noor Haddad", "passphrase": passphrase, "role": "viewer"}
    answer = lead.post(f"/api/sites/{lead.site_id}/people", new)
    assert answer.status_code == 422 and "easy to guess" in answer.json["errors"][0]["detail"]


@pytest.mark.parametrize("name", ["Mar\u200bta", "M\u0430rta", "\u041c\u0430rt\u0430", "marta", "\uff2darta", "Marta\u0085"])
def test_a_name_that_looks_like_anothers_is_refused(sign_in: Any, name: str) -> None:
    lead = sign_in("Marta")
    answer = lead.post(f"/api/sites/{lead.site_id}/people", {"id": str(uuid.uuid4()), "name": name, "passphrase": PHRASE, "role": "viewer"})
    assert answer.status_code == 422 and answer.json["errors"][0]["field"] == "name", name


def test_old_rows_are_thrown_away(demo_database_url: str, people: dict[str, uuid.UUID]) -> None:
    owner = engine_from(demo_database_url)
    with owner.begin() as connection:
        connection.execute(text("INSERT INTO sign_in_failure (name_key, source, at) VALUES ('x', 'y', now() - interval '2 days')"))
        key = {"key": uuid.uuid4(), "person": people["Marta"]}
        kept = (
            "INSERT INTO kept_answer (key, person_id, request_hash, status, at) VALUES (:key, :person, '', 200, now() - interval '31 days')"
        )
        connection.execute(text(kept), key)
    gone = prune(owner)
    assert gone["sign_in_failure"] == 1 and gone["kept_answer"] == 1 and sum(prune(owner).values()) == 0
