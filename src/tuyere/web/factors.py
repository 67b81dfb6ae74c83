"""Second factors of the person signed in: a time-based code, passkeys; and showing one to be in."""

import json
import uuid
from datetime import datetime
from typing import Any

import segno
from flask import Response, current_app, request
from flask_login import current_user
from itsdangerous import BadData, URLSafeTimedSerializer
from pydantic import BaseModel, Field

from tuyere.record.entry import Strict
from tuyere.store import factors
from tuyere.store.factor_tables import Passkey
from tuyere.store.people_tables import Person
from tuyere.web.answers import answer
from tuyere.web.errors import Refusal
from tuyere.web.routes import routes
from tuyere.web.rules import signed_in
from tuyere.web.session import SessionOut, braked, refuse, session_out
from tuyere.web.state import reading

blueprint = routes("factors", "/api/session", "session")
HOLDS_S = 600  # from the question to its answer
NO_PASSKEY = "Passkeys need https and a name in the address, not a number: docs/running.md tells how. Use a time-based code here."


class PasskeyOut(BaseModel):
    """One of the person's passkeys."""

    id: uuid.UUID
    name: str
    added_at: datetime
    used_at: datetime | None


class FactorsOut(BaseModel):
    """What the person has. `lacks`: why no passkey can be added or shown at this address, if so."""

    code: bool
    passkeys: list[PasskeyOut]
    lacks: str


class NewCodeOut(BaseModel):
    """A secret for an authenticator: as text, as address, as a QR code (an SVG's address); `token` goes back with the first code."""

    secret: str
    uri: str
    qr: str
    token: str


class ChallengeOut(BaseModel):
    """What the browser is asked (WebAuthn's options, as JSON); `token` goes back with its answer."""

    options: dict[str, Any]
    token: str


class Code(Strict):
    """The six digits that the authenticator shows now."""

    code: str = Field(min_length=1, max_length=12)


class FirstCode(Code):
    """With the token of the secret that it is made by."""

    token: str = Field(max_length=2000)


class Credential(Strict):
    """What the browser answered, and the token of what it was asked; `name`: of a new passkey."""

    token: str = Field(max_length=2000)
    credential: dict[str, Any]
    name: str = Field("", max_length=60)


class PasskeyForm(Strict):
    """Which passkey."""

    id: uuid.UUID


def _signer() -> URLSafeTimedSerializer:
    return URLSafeTimedSerializer(str(current_app.secret_key), salt="second factor")


def _ask(**what: str) -> str:
    return str(_signer().dumps({**what, "session": str(current_user.sign_in_id)}))


def _asked(token: str, what: str) -> str:
    """What was asked in this session a moment ago. Raises Refusal."""
    try:
        found = _signer().loads(token, max_age=HOLDS_S)
        if found["session"] == str(current_user.sign_in_id):
            return str(found[what])
    except (BadData, KeyError):
        pass
    raise refuse("token", "This took too long: begin again.")


def _key() -> str:
    return str(current_app.secret_key)


def _place() -> tuple[str, str]:
    """The name and the origin of this address, as passkeys know it."""
    return request.host.rpartition(":")[0] or request.host, request.host_url.rstrip("/")


def _lacks() -> str:
    name, origin = _place()
    named = name == "localhost" or (origin.startswith("https:") and not name.replace(".", "").isdigit() and ":" not in name)
    return "" if named else NO_PASSKEY


@blueprint.get("/factors", summary="The second factors of the person signed in", responses={"200": FactorsOut})
@signed_in(half_in=True)
def get_factors() -> Response:
    with reading() as session:
        has = factors.of(session, current_user.id)
        listed = [PasskeyOut(id=p.id, name=p.name, added_at=p.added_at, used_at=p.used_at) for p in has.passkeys]
        return answer(FactorsOut(code=has.code, passkeys=listed, lacks=_lacks()))


def _may_change() -> None:
    """Who has a factor shows it before another one is added: a passphrase alone adds none beside it."""
    if current_user.must == "show":
        raise Refusal(403, "Show your second factor first.")


@blueprint.post("/code/new", summary="A secret for a time-based code", responses={"200": NewCodeOut})
@signed_in(half_in=True)
def post_new_code() -> Response:
    import pyotp

    _may_change()
    secret = pyotp.random_base32()
    uri = pyotp.TOTP(secret).provisioning_uri(name=current_user.name, issuer_name="Tuyere")
    drawn = segno.make(uri, error="m", micro=False).svg_data_uri(scale=4, border=2)
    return answer(NewCodeOut(secret=secret, uri=uri, qr=drawn, token=_ask(secret=secret)))


@blueprint.post("/code/add", summary="Keep a time-based code, by its first code", responses={"200": SessionOut})
@signed_in(half_in=True)
def post_add_code(body: FirstCode) -> Response:
    _may_change()
    secret = _asked(body.token, "secret")
    step = factors.step_of(secret, body.code, 0)
    if step is None:
        raise refuse("code", "That is not the code now: check the clock of the device that shows it, and type the next one.")
    with reading() as session:
        factors.keep_code(session, current_user.id, secret, step, _key())
    return _in_by("code")


@blueprint.post("/code/remove", summary="Remove the time-based code, by a code of it", responses={"200": FactorsOut})
@signed_in()
def post_remove_code(body: Code) -> Response:
    _shows(body.code)
    with reading() as session:
        factors.forget_code(session, current_user.id)
    return get_factors()  # type: ignore[no-any-return]


@blueprint.post("/code", summary="Show the time-based code", responses={"200": SessionOut})
@signed_in(half_in=True)
def post_code(body: Code) -> Response:
    _shows(body.code)
    return _in_by("code")


def _shows(code: str) -> None:
    with reading() as session, braked():
        if not factors.shows_code(session, current_user.id, code, request.remote_addr or "", _key()):
            raise refuse("code", "That is not the code now, or it was used already: type the next one.")


@blueprint.post("/passkey/new", summary="What a browser is asked for a new passkey", responses={"200": ChallengeOut})
@signed_in(half_in=True)
def post_new_passkey() -> Response:
    import webauthn
    from webauthn.helpers import bytes_to_base64url
    from webauthn.helpers.structs import PublicKeyCredentialDescriptor

    _may_change()
    _refuse_where_none()
    with reading() as session:
        has = factors.of(session, current_user.id)
    name, _ = _place()
    options = webauthn.generate_registration_options(
        rp_id=name,
        rp_name="Tuyere",
        user_id=current_user.id.bytes,
        user_name=current_user.name,
        exclude_credentials=[PublicKeyCredentialDescriptor(id=_raw(p.credential_id)) for p in has.passkeys],
    )
    return answer(
        ChallengeOut(options=json.loads(webauthn.options_to_json(options)), token=_ask(challenge=bytes_to_base64url(options.challenge)))
    )


@blueprint.post("/passkey/add", summary="Keep a passkey", responses={"200": SessionOut})
@signed_in(half_in=True)
def post_add_passkey(body: Credential) -> Response:
    import webauthn
    from webauthn.helpers import bytes_to_base64url

    _may_change()
    challenge = _asked(body.token, "challenge")
    name, origin = _place()
    try:
        made = webauthn.verify_registration_response(
            credential=body.credential, expected_challenge=_raw(challenge), expected_rp_id=name, expected_origin=origin
        )
    except Exception as problem:  # the library's own, and what a bent answer breaks in it
        current_app.logger.warning("passkey not added: %s", problem)
        raise refuse("credential", "That passkey could not be read: begin again.") from None
    passkey = Passkey(
        id=uuid.uuid4(),
        person_id=current_user.id,
        credential_id=bytes_to_base64url(made.credential_id),
        public_key=made.credential_public_key,
        sign_count=made.sign_count,
        name=" ".join(body.name.split()) or "Passkey",
    )
    with reading() as session:
        factors.add_passkey(session, passkey)
    return _in_by("passkey")


@blueprint.post("/passkey/remove", summary="Remove a passkey", responses={"200": FactorsOut})
@signed_in()
def post_remove_passkey(body: PasskeyForm) -> Response:
    with reading() as session:
        if not factors.remove_passkey(session, current_user.id, body.id):
            raise Refusal(404)
    return get_factors()  # type: ignore[no-any-return]


@blueprint.post("/passkey/ask", summary="What a browser is asked to show a passkey", responses={"200": ChallengeOut})
@signed_in(half_in=True)
def post_ask_passkey() -> Response:
    import webauthn
    from webauthn.helpers import bytes_to_base64url
    from webauthn.helpers.structs import PublicKeyCredentialDescriptor

    _refuse_where_none()
    with reading() as session:
        has = factors.of(session, current_user.id)
    allowed = [PublicKeyCredentialDescriptor(id=_raw(p.credential_id)) for p in has.passkeys]
    options = webauthn.generate_authentication_options(rp_id=_place()[0], allow_credentials=allowed)
    return answer(
        ChallengeOut(options=json.loads(webauthn.options_to_json(options)), token=_ask(challenge=bytes_to_base64url(options.challenge)))
    )


@blueprint.post("/passkey", summary="Show a passkey", responses={"200": SessionOut})
@signed_in(half_in=True)
def post_passkey(body: Credential) -> Response:
    import webauthn

    challenge = _asked(body.token, "challenge")
    name, origin = _place()
    with reading() as session:
        has = factors.of(session, current_user.id)
        passkey = next((p for p in has.passkeys if p.credential_id == str(body.credential.get("id", ""))), None)
        try:
            if passkey is None:
                raise ValueError("no passkey of this person")
            told = webauthn.verify_authentication_response(
                credential=body.credential,
                expected_challenge=_raw(challenge),
                expected_rp_id=name,
                expected_origin=origin,
                credential_public_key=passkey.public_key,
                credential_current_sign_count=passkey.sign_count,
            )
        except Exception as problem:
            current_app.logger.warning("passkey not shown: %s", problem)
            raise refuse("credential", "That passkey is not one of yours, or it was not read: try again.") from None
        factors.used_passkey(session, passkey, told.new_sign_count)
    return _in_by("passkey")


def _raw(text: str) -> bytes:
    from webauthn.helpers import base64url_to_bytes

    return base64url_to_bytes(text)


def _refuse_where_none() -> None:
    if sentence := _lacks():
        raise refuse("passkey", sentence)


def _in_by(factor: str) -> Response:
    with reading() as session:
        factors.shown(session, current_user.sign_in_id, current_user.id, factor)
        current_user.must = "choose" if session.get_one(Person, current_user.id).handed_over else ""
    return answer(session_out())
