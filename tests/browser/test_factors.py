"""A passkey by the browser's own virtual authenticator, and a time-based code, from Settings to the next sign-in."""

import uuid
from typing import Any

import pyotp
from playwright.sync_api import Browser, Page, expect

from tests.browser.conftest import PATIENCE_MS
from tuyere.store import clock

FIRST, OWN = "twelve grey pebbles", "seven blue herons"
ADD = """async ([name, passphrase]) => {
    const session = await (await fetch('/api/session')).json()
    await fetch(`/api/sites/${session.sites[0].id}/people`, { method: 'POST',
      body: JSON.stringify({ id: crypto.randomUUID(), name, passphrase, role: 'mechanic' }),
      headers: { 'Content-Type': 'application/json', 'X-CSRFToken': session.csrf_token, 'Idempotency-Key': crypto.randomUUID() } })
    }"""


def sign_in(page: Page, name: str, passphrase: str) -> None:
    page.get_by_label("Name", exact=True).first.fill(name)
    page.get_by_label("Passphrase", exact=True).fill(passphrase)
    page.get_by_role("button", name="Sign in", exact=True).click()


def test_a_new_person_chooses_a_passphrase_adds_passkey_and_code_and_shows_them(open_as: Any, browser: Browser, address: str) -> None:
    lead, name = open_as("Marta"), f"Noor {uuid.uuid4().hex[:5]}"
    lead.evaluate(ADD, [name, FIRST])
    context = browser.new_context(
        base_url=address.replace("127.0.0.1", "localhost"), viewport={"width": 390, "height": 844}, reduced_motion="reduce"
    )
    context.set_default_timeout(PATIENCE_MS)
    page = context.new_page()
    authenticator = context.new_cdp_session(page)
    authenticator.send("WebAuthn.enable")
    kept = {"protocol": "ctap2", "transport": "internal", "hasResidentKey": True, "hasUserVerification": True, "isUserVerified": True}
    authenticator.send("WebAuthn.addVirtualAuthenticator", {"options": {**kept, "automaticPresenceSimulation": True}})
    page.goto("/")
    sign_in(page, name, FIRST)
    page.get_by_label("The one you were given").fill(FIRST)
    page.get_by_label("The one you want").fill(OWN)
    page.get_by_role("button", name="Save").click()
    expect(page.get_by_role("heading", name="Sallowfield Maltings")).to_be_visible()

    page.get_by_role("button", name="Settings").click()
    page.get_by_text("Second factor", exact=True).click()
    page.get_by_label("Name of this device").fill("Shop phone")
    page.get_by_role("button", name="Add a passkey").click()
    expect(page.get_by_text("Shop phone")).to_be_visible()
    page.get_by_role("button", name="Add a time-based code").click()
    secret = page.locator(".secret").inner_text()
    assert page.get_by_alt_text("The secret as a QR code").evaluate("async image => (await image.decode(), image.naturalWidth)") > 100
    page.get_by_label("The six digits it shows").fill(pyotp.TOTP(secret).at(int(clock.now().timestamp())))
    page.get_by_role("button", name="Save", exact=True).click()
    expect(page.get_by_text("A time-based code is set.")).to_be_visible()

    for shows in ("passkey", "code"):
        context.clear_cookies()
        page.goto("/sign-in")
        sign_in(page, name, OWN)
        expect(page.get_by_role("heading", name="Second factor")).to_be_visible()
        if shows == "passkey":
            page.get_by_role("button", name="Use a passkey").click()
        else:  # the code of the step before, or of now, was used to add it
            page.get_by_label("The six digits").fill("000000")
            page.get_by_role("button", name="Sign in", exact=True).click()
            expect(page.get_by_role("alert")).to_contain_text("not the code now")
            one = pyotp.TOTP(secret)
            page.get_by_label("The six digits").fill(one.at(int(clock.now().timestamp()) + 30))
            page.get_by_role("button", name="Sign in", exact=True).click()
        expect(page.get_by_role("heading", name="Sallowfield Maltings")).to_be_visible()
    context.close()
