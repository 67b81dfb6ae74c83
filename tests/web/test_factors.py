"""Second factors and devices.

A code by the time (checked against RFC 6238's own values), passkeys by a soft authenticator, what lasts how long.
"""

import subprocess
import sys
import uuid
from datetime import datetime, timedelta
from typing import Any

import pyotp
import pytest
from flask import Flask
from sqlalchemy import Engine, text

from tests.web.test_session import PHRASE, enter, member, post  # noqa: F401 (a fixture)
from tuyere.store import clock, factors


# RFC 6238, appendix B (SHA-1; the last six digits of its eight), from memory of the table.
@pytest.mark.parametrize(("second", "code"), [(59, "287082"), (1111111109, "081804"), (1234567890, "005924"), (2000000000, "279037")])
def test_codes_are_those_of_the_standard_and_work_once(second: int, code: str) -> None:
    secret = "GEZDGNBVGY3TQOJQGEZDGNBVGY3TQOJQ"  # "12345678901234567890"
    with clock.set_to(datetime.fromtimestamp(second, tz=clock.UTC)):
        step = factors.step_of(secret, f"{code[:3]} {code[3:]}", 0)
        assert step == second // 30
        assert factors.step_of(secret, code, step) is None, "used already"
        assert factors.step_of(secret, "000000", 0) is None
    with clock.set_to(datetime.fromtimestamp(second + 95, tz=clock.UTC)):
        assert factors.step_of(secret, code, 0) is None, "minutes old"


def add_code(client: Any) -> Any:
    new = post(client, "/api/session/code/new", {}).json
    assert new["uri"].startswith("otpauth://totp/") and new["qr"].startswith("data:image/svg+xml")
    otp = pyotp.TOTP(new["secret"])
    wrong = post(client, "/api/session/code/add", {"token": new["token"], "code": "000000"})
    assert wrong.status_code == 422 and wrong.json["errors"][0]["field"] == "code"
    added = post(client, "/api/session/code/add", {"token": new["token"], "code": code(otp)})
    assert added.status_code == 200, added.json
    return otp


def code(otp: Any, steps: int = 0) -> str:
    return str(otp.at(int(clock.now().timestamp()) + 30 * steps))


def test_who_has_a_code_shows_it_at_each_sign_in_and_once(app: Flask, member: Any, engine: Engine) -> None:  # noqa: F811
    name, person_id, lead = member
    client, _ = enter(app, name)
    otp = add_code(client)
    floor = f"/api/sites/{lead.site_id}/floor"
    assert client.get(floor).status_code == 200, "the one who added it has shown it"
    with engine.connect() as connection:
        kept = connection.execute(text("SELECT code_secret FROM person WHERE id = :p"), {"p": person_id}).scalar()
    assert kept and otp.secret not in kept, "the database alone gives nobody a code"

    other, entered = enter(app, name)
    assert entered.json["must"] == "show"
    refused = other.get(floor)
    assert refused.status_code == 403 and "second factor" in refused.json["detail"]
    assert post(other, "/api/session/code/new", {}).status_code == 403, "a passphrase alone adds no other factor"
    replay = post(other, "/api/session/code", {"code": code(otp)})
    assert replay.status_code == 422, "that code was used to add it"
    assert post(other, "/api/session/code", {"code": code(otp, 1)}).json["must"] == ""
    assert other.get(floor).status_code == 200
    tries = [post(enter(app, name)[0], "/api/session/code", {"code": "123456"}).status_code for _ in range(8)]
    assert 429 in tries, "guessing is braked"


def test_leads_are_asked_where_the_site_asks_them_and_nobody_locks_themselves_out(app: Flask, member: Any, engine: Engine) -> None:  # noqa: F811
    name, person_id, marta = member
    site = f"/api/sites/{marta.site_id}"
    assert marta.post(f"{site}/people/{person_id}/role", {"role": "lead"}).status_code == 200
    client, _ = enter(app, name)
    version = client.get(f"{site}/people").json["site_version"]
    ask = {"row_version": version, "leads_factor": True}

    def set_to(body: dict[str, Any]) -> Any:
        headers = {"X-CSRFToken": client.get("/api/session").json["csrf_token"], "Idempotency-Key": str(uuid.uuid4())}
        return client.post(f"{site}/leads-factor", json=body, headers=headers)

    alone = set_to(ask)
    assert alone.status_code == 422 and "lock yourself out" in alone.json["detail"]
    add_code(client)
    assert set_to(ask).status_code == 200
    try:
        second = f"Lead {uuid.uuid4().hex[:6]}"
        other_id = str(uuid.uuid4())
        marta.post(f"{site}/people", {"id": other_id, "name": second, "passphrase": "eleven brown kettles", "role": "lead"})
        theirs, entered = enter(app, second, "eleven brown kettles")
        assert entered.json["must"] == "choose"
        chosen = post(theirs, "/api/session/passphrase", {"present": "eleven brown kettles", "wanted": PHRASE})
        assert chosen.json["must"] == "add" and theirs.get(f"{site}/floor").status_code == 403
        add_code(theirs)
        assert theirs.get(f"{site}/floor").status_code == 200
        assert marta.get(f"{site}/floor").status_code == 200, "the one-click people of the demo plant are not asked"
    finally:
        with engine.begin() as connection:
            connection.execute(text("UPDATE site SET leads_factor = false"))


def test_a_lost_factor_is_reset_on_the_server(app: Flask, member: Any, demo_database_url: str, tmp_path: Any) -> None:  # noqa: F811
    name, _, lead = member
    client, _ = enter(app, name)
    add_code(client)
    import os

    environment = os.environ | {"DATABASE_URL": demo_database_url, "TUYERE_STATE": str(tmp_path)}
    for who, says, status in (("Nobody At All", "nobody signs in", 1), (name, "no second factor now", 0)):
        done = subprocess.run([sys.executable, "-m", "tuyere.upkeep.factor", who], env=environment, capture_output=True, text=True)
        assert done.returncode == status and says in done.stderr, done.stderr
    assert client.get(f"/api/sites/{lead.site_id}/floor").status_code == 401
    assert enter(app, name)[1].json["must"] == ""


def test_a_session_lasts_a_shift_and_days_on_a_device_that_a_lead_allowed(app: Flask, member: Any) -> None:  # noqa: F811
    name, person_id, lead = member
    site = f"/api/sites/{lead.site_id}"
    client, _ = enter(app, name)
    held = next(s for s in lead.get(f"{site}/people").json["sessions"] if s["person_id"] == person_id and not s["allowed"])
    ids = {s["device_id"] for s in lead.get(f"{site}/people").json["sessions"] if s["person_id"] == person_id}
    with clock.set_to(clock.now() + timedelta(hours=13)):
        assert client.get("/api/session").json["name"] is None, "a shift"
    for device in ids:
        assert lead.post(f"{site}/devices/{device}", {"allowed": True}).status_code == 200
    assert lead.post(f"{site}/devices/{uuid.uuid4().hex}", {"allowed": True}).status_code == 404
    with clock.set_to(clock.now() + timedelta(days=6)):
        assert client.get("/api/session").json["name"] == name
    with clock.set_to(clock.now() + timedelta(days=8)):
        assert client.get("/api/session").json["name"] == name, "seen on the sixth day"
    with clock.set_to(clock.now() + timedelta(days=31)):
        assert client.get("/api/session").json["name"] is None
    assert lead.post(f"{site}/devices/{held['device_id']}", {"allowed": False}).status_code == 200
