"""Steps of a job said without signal, in the browser."""

from typing import Any

from playwright.sync_api import expect

from tests.browser.conftest import hop
from tests.browser.test_jobs import SESSION, all_sent, done_by, three_without_signal


def test_what_was_said_without_signal_outlives_its_session_and_is_never_anothers(open_as: Any) -> None:
    """A lead ends the session meanwhile; a mate signs in on that device, then the one who did the steps."""
    page, lead = open_as("Tobias", width=390, height=844, touch=True), open_as("Marta")
    said = three_without_signal(page)
    at = page.url
    lead.evaluate(SESSION, "Tobias")
    page.unroute("**/api/jobs/*/steps")
    page.evaluate("dispatchEvent(new Event('online'))")
    expect(page.get_by_role("heading", name="Demo plant: come in as")).to_be_visible()
    waiting = page.get_by_text("Tobias has 3 steps")
    expect(waiting).to_contain_text("sent when Tobias signs in here")
    page.get_by_role("button", name="Ines").click()
    expect(page.get_by_role("navigation", name="Places")).to_be_visible()
    expect(waiting).to_be_visible()
    page.goto(at)
    expect(page.locator(".count")).to_contain_text("Step 1 of")
    page.wait_for_timeout(6_000)  # longer than it waits before it tries again
    assert done_by(page) == []
    page.context.clear_cookies()
    page.goto("/floor")
    page.get_by_role("button", name="Tobias").click()
    expect(page.get_by_role("navigation", name="Places")).to_be_visible()
    expect(waiting).to_have_count(0)
    page.goto(at)
    expect(page.locator(".count")).to_contain_text("Step 4 of")
    all_sent(page)
    assert [who for _, who in done_by(page)] == ["Tobias"] * 3 and len(said) == 3


def test_a_refused_step_stops_those_behind_it_and_is_mended_or_withdrawn(open_as: Any) -> None:
    """A mate took the same job in hand: the first step stands otherwise on the record than this device thinks."""
    page, mate = open_as("Tobias", width=390, height=844, touch=True), open_as("Ines")
    three_without_signal(page)
    mate.goto(page.url)
    expect(mate.locator(".count")).to_contain_text("Step 1 of")
    mate.get_by_role("button", name="Can’t do it").click()
    mate.get_by_placeholder("Why can it not be done?").fill("nobody on shift to tell")
    mate.get_by_role("button", name="Skip").click()
    expect(mate.locator(".count")).to_contain_text("Step 2 of")
    page.unroute("**/api/jobs/*/steps")
    page.evaluate("dispatchEvent(new Event('online'))")
    stuck = page.locator("section.stuck")
    expect(stuck.get_by_role("listitem")).to_have_count(3)
    expect(stuck.get_by_role("alert")).to_contain_text("Ines")
    assert done_by(page)[0][1] == "Ines" and len(done_by(page)) == 1, "nothing behind it was sent"
    page.reload()
    expect(stuck.get_by_role("listitem")).to_have_count(3)
    hop(page, "/floor")
    expect(page.get_by_text("3 steps of")).to_contain_text("not on the record")
    page.get_by_role("link", name="See why").click()
    stuck.get_by_role("button", name="Send again").click()
    expect(stuck).to_have_count(0)
    expect(page.locator(".count")).to_contain_text("Step 4 of")
    all_sent(page)
    assert [who for _, who in done_by(page)] == ["Tobias"] * 3
