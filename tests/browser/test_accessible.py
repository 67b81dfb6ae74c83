"""WCAG 2.2 AA as far as a machine can tell: axe-core on every main view, light and dark."""

import re
from pathlib import Path
from typing import Any

from playwright.sync_api import Page, expect

from tests.browser.conftest import hop, open_drive

AXE = Path(__file__).parents[2] / "frontend" / "node_modules" / "axe-core" / "axe.min.js"
SAID = "then(r => r.violations.map(v => [v.id, v.nodes.map(n => n.target.join(' ') + ' ' + (n.any[0]?.message ?? ''))]))"
EVERY_RULE = f"axe.run(document, {{ runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'] }}).{SAID}"
WAITING = ".strip.stale, .slip.waiting, .dimmed, .size.busy"
CONTRAST = f"axe.run(document, {{ runOnly: {{ type: 'rule', values: ['color-contrast'] }} }}).{SAID}"


def violations(page: Page) -> Any:
    """What axe finds: every rule in the light, and what the dark changes, the contrast, in the dark.

    A field halfway under the bar that stays at the panel's foot is not too small: it scrolls clear.
    """
    page.emulate_media(color_scheme="light", reduced_motion="reduce")
    page.wait_for_timeout(250)  # the first question goes out
    expect(page.locator(WAITING)).to_have_count(0)  # numbers that wait for their answer are dimmed meanwhile
    page.evaluate(AXE.read_text(encoding="utf-8"))
    found = page.evaluate(EVERY_RULE)
    page.emulate_media(color_scheme="dark", reduced_motion="reduce")
    expect(page.locator(WAITING)).to_have_count(0)
    found += page.evaluate(CONTRAST)
    clear = [[rule, [n for n in nodes if rule != "target-size" or "partially obscured" not in n]] for rule, nodes in found]
    return [f for f in clear if f[1]]


def at(page: Page, path: str) -> None:
    """To another address of the drive that is open."""
    hop(page, re.sub(r".*(/drives/[^/]+)/.*", rf"\1/{path}", page.url))
    expect(page).to_have_url(re.compile(f"{path}$"))
    page.wait_for_selector("[data-panel]")


def test_floor_and_survey(open_as: Any) -> None:
    page = open_as("Marta")
    assert violations(page) == []
    open_drive(page, "Kiln exhaust fan")
    assert violations(page) == []
    page.locator("#f-driver_diameter").fill("1/0")
    page.wait_for_timeout(300)
    assert violations(page) == []
    page.locator("#f-driver_diameter").fill("9.4")
    for ask in ("wheels", "belt", "length", "groove", "home", "link", "counter"):
        at(page, f"survey/{ask}")
        if ask == "belt":
            page.locator("#f-top_width").fill("7/8")
        assert violations(page) == [], ask
        if ask == "wheels":
            page.get_by_role("button", name="Add the driver").click()
            page.get_by_role("button", name="Add an idler").click()
            assert violations(page) == [], ask


def test_bench(open_as: Any) -> None:
    page = open_as("Marta")
    for bench in ("tables/v_grooves", "belt", "toothed", "chain", "speeds", "size", "lists", "lists/ratings"):
        hop(page, f"/bench/{bench}")
        expect(page).to_have_url(re.compile(f"/bench/{bench}$"))
        page.wait_for_selector("main h1")
        assert violations(page) == [], bench


def test_speed_tension_and_log(open_as: Any) -> None:
    page = open_as("Marta")
    open_drive(page, "Kiln exhaust fan", "Tension")
    page.locator("#f-force_1").fill("6")
    assert violations(page) == []
    for ask in ("log", "speed", "speed/means", "speed/target", "speed/turns", "speed/cones", "speed/feels", "speed/make", "speed/trial"):
        at(page, ask)
        if ask == "speed/target":
            page.locator("#f-target").fill("600")
            page.wait_for_selector(".pairs li")
            page.locator(".pairs button").first.click()
        assert violations(page) == [], ask


def test_align(open_as: Any) -> None:
    page = open_as("Marta")
    open_drive(page, "Dust-collector fan", "Align")
    page.get_by_text("Before you read").click()
    for i, said in enumerate(("0", "1/16", "3/32", "0"), 1):
        page.locator(f"#f-r1_gap_{i}").fill(said)
    page.get_by_role("button", name=re.compile("Read by")).click()
    for fold in page.locator("details.fold summary").all():
        fold.click()
    assert violations(page) == []
    at(page, "inspect")
    page.locator(".signs button").first.click()
    page.wait_for_selector(".causes li")
    assert violations(page) == []
    hop(page, "/bench/align")
    page.wait_for_selector(".rig")
    assert violations(page) == []


def test_size(open_as: Any) -> None:
    page = open_as("Marta")
    open_drive(page, "Kiln exhaust fan", "Size")
    assert violations(page) == []
    for ask in ("choose", "compare", "why", "shafts"):
        at(page, f"size/{ask}")
        if ask == "choose":
            page.locator("[data-drive] .pick").first.click()
            page.locator("[data-drive] .beside").first.click()
            page.wait_for_selector(".slip")
            for fold in page.locator("details.fold summary").all():
                fold.click()
        assert violations(page) == [], ask


def test_sign_in(address: str, page: Page) -> None:
    page.goto(address)
    page.wait_for_selector(".person")
    assert violations(page) == []


def test_jobs(open_as: Any) -> None:
    page = open_as("Marta")
    open_drive(page, "Kiln exhaust fan", "Survey")
    page.get_by_role("link", name="Jobs", exact=True).click()
    page.get_by_role("button", name=re.compile("^Change or re-pitch")).click()
    assert violations(page) == []
    page.get_by_role("link", name=re.compile("Change a belt or set")).click()
    page.wait_for_selector("main h1")
    assert violations(page) == []
    page.get_by_role("button", name="Can’t do it").click()
    assert violations(page) == []
