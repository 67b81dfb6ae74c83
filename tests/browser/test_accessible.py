"""WCAG 2.2 AA as far as a machine can tell: axe-core on every main view, light and dark."""

import re
from pathlib import Path
from typing import Any

from playwright.sync_api import Page, expect

from tests.browser.conftest import open_drive

AXE = Path(__file__).parents[2] / "frontend" / "node_modules" / "axe-core" / "axe.min.js"
SAID = "then(r => r.violations.map(v => [v.id, v.nodes.map(n => n.target.join(' ') + ' ' + (n.any[0]?.message ?? ''))]))"
EVERY_RULE = f"axe.run(document, {{ runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'] }}).{SAID}"
WAITING = ".strip.stale, .slip.waiting, .dimmed"
CONTRAST = f"axe.run(document, {{ runOnly: {{ type: 'rule', values: ['color-contrast'] }} }}).{SAID}"


def violations(page: Page) -> Any:
    """What axe finds: every rule in the light, and what the dark changes, the contrast, in the dark.

    A field halfway under the bar that stays at the panel's foot is not too small: it scrolls clear.
    """
    page.emulate_media(color_scheme="light")
    expect(page.locator(WAITING)).to_have_count(0)  # numbers that wait for their answer are dimmed meanwhile
    page.wait_for_timeout(400)
    page.evaluate(AXE.read_text(encoding="utf-8"))
    found = page.evaluate(EVERY_RULE)
    page.emulate_media(color_scheme="dark")
    expect(page.locator(WAITING)).to_have_count(0)
    page.wait_for_timeout(400)  # colours change over a moment
    found += page.evaluate(CONTRAST)
    clear = [[rule, [n for n in nodes if rule != "target-size" or "partially obscured" not in n]] for rule, nodes in found]
    return [f for f in clear if f[1]]


def test_main_views(open_as: Any) -> None:
    page = open_as("Marta")
    assert violations(page) == []
    open_drive(page, "Kiln exhaust fan")
    assert violations(page) == []
    page.locator("#f-driver_diameter").fill("1/0")
    page.wait_for_timeout(300)
    assert violations(page) == []
    page.locator("#f-driver_diameter").fill("9.4")
    for ask in ("wheels", "belt", "length", "groove", "home", "link", "counter"):
        page.goto(re.sub(r"/survey.*", f"/survey/{ask}", page.url))
        page.wait_for_selector("[data-panel]")
        if ask == "belt":
            page.locator("#f-top_width").fill("7/8")
        assert violations(page) == [], ask
        if ask == "wheels":
            page.get_by_role("button", name="Add the driver").click()
            page.get_by_role("button", name="Add an idler").click()
            assert violations(page) == [], ask
    for bench in (
        "/bench/tables/v_grooves",
        "/bench/belt",
        "/bench/toothed",
        "/bench/chain",
        "/bench/speeds",
        "/bench/size",
        "/bench/lists",
        "/bench/lists/ratings",
    ):
        drive = page.url
        page.goto(bench)
        page.wait_for_selector("main h1")
        assert violations(page) == [], bench
        page.goto(re.sub(r"/survey.*", "/survey", drive))
        page.wait_for_selector("[data-panel]")
    for station in ("speed", "size", "tension", "log"):
        page.goto(page.url.rsplit("/", 1)[0] + f"/{station}")
        page.wait_for_selector("[data-panel]")
        if station == "tension":
            page.locator("#f-force_1").fill("6")
        assert violations(page) == [], station
        if station == "speed":
            base = page.url
            for ask in ("means", "target", "turns", "cones", "feels", "make", "trial"):
                page.goto(f"{base}/{ask}")
                page.wait_for_selector("[data-panel]")
                if ask == "target":
                    page.locator("#f-target").fill("600")
                    page.wait_for_selector(".pairs li")
                    page.locator(".pairs button").first.click()
                assert violations(page) == [], ask
            page.goto(base)
        if station == "size":
            base = page.url
            for ask in ("choose", "compare", "why", "shafts"):
                page.goto(f"{base}/{ask}")
                page.wait_for_selector("[data-panel]")
                if ask == "choose":
                    page.locator("[data-drive] .pick").first.click()
                    page.locator("[data-drive] .beside").first.click()
                    page.wait_for_selector(".slip")
                    for fold in page.locator("details.fold summary").all():
                        fold.click()
                assert violations(page) == [], ask
            page.goto(base)


def test_sign_in(address: str, page: Page) -> None:
    page.goto(address)
    page.wait_for_selector(".person")
    assert violations(page) == []
