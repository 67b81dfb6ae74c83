"""Typing a diameter on a drive of 20 wheels: how long from the key to the redrawn layout, browser included.

Run against a server that is up with the demo plant, on loopback:
    .venv/bin/python -m bench.layout_redraw [http://127.0.0.1:8640]
The layout is a draft on the browser's own device; nothing is kept on the record. Prints percentiles in ms, and how many
times a plain fetch of the same answer fits into the median redraw.
"""

import math
import os
import shutil
import sys
from pathlib import Path
from statistics import median
from typing import Any

from bench.live_redraw import percentile
from playwright.sync_api import sync_playwright

from tuyere.record.forms import SurveyForm

WHEELS, KEYS = 20, 100
WATCH = """
() => {
  window.redraws = [];
  const belt = () => document.querySelector('.board svg[role=img] .belt')?.getAttribute('d');
  let before = belt(), typed = 0;
  document.querySelector('#f-wheel_8_diameter').addEventListener('input', () => { typed = performance.now(); before = belt(); }, true);
  const look = () => {
    const now = belt();
    if (typed && now !== before) { window.redraws.push(performance.now() - typed); typed = 0; }
    requestAnimationFrame(look);
  };
  requestAnimationFrame(look);
}
"""
FETCH = """
async (body) => {
  const { csrf_token: token } = await (await fetch('/api/session')).json();
  const times = [];
  for (let i = 0; i < 60; i++) {
    const t = performance.now();
    await (await fetch('/api/calc/path', { method: 'POST', headers: { 'Content-Type': 'application/json', 'X-CSRFToken': token }, body: JSON.stringify(body) })).json();
    times.push(performance.now() - t);
  }
  return times;
}
"""


def survey() -> dict[str, Any]:
    """Twenty inside wheels on a ring, under one belt: an invented layout."""
    wheels = []
    for k in range(WHEELS):
        angle = 2 * math.pi * k / WHEELS
        place = {axis: {"text": f"{at:.2f}", "unit": "in"} for axis, at in (("x", 60 * math.cos(angle) - 60), ("y", 60 * math.sin(angle)))}
        role = "driver" if k == 0 else "driven"
        wheels.append({"name": f"wheel {k + 1}", "role": role, "diameter": {"text": "6.00", "unit": "in"}, **place})
    told = {
        "driver": {"rotation": "counter-clockwise"},
        "stages": [{"fitted": {"family": "v-belt", "choices": {"section": "B"}}}],
        "layout": {"wheels": wheels, "placed_by": "coordinates"},
    }
    return SurveyForm.model_validate(told).model_dump(mode="json")


def stolen() -> tuple[int, int]:
    """Processor time that the host gave to others, and all of it, in ticks: a busy host stretches every figure here."""
    ticks = [int(n) for n in Path("/proc/stat").read_text().splitlines()[0].split()[1:9]]
    return ticks[7], sum(ticks)


def main(address: str) -> int:
    before = stolen()
    chromium = os.environ.get("TUYERE_CHROMIUM") or shutil.which("chromium")
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(
            executable_path=chromium, args=["--no-sandbox", "--disable-gpu", "--disable-background-networking"]
        )
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        page.goto(address)
        page.get_by_role("button", name="Tobias").click()
        page.locator("a.drive").filter(has_text="Yard sweeper").click()
        page.get_by_role("link", name="Many wheels").click()
        page.locator("#f-wheel_1_diameter").fill("5.01")  # a draft now exists, to be replaced
        page.wait_for_timeout(600)
        page.evaluate(
            """(survey) => {
                const key = Object.keys(localStorage).find((k) => k.startsWith('tuyere-draft-'));
                const draft = JSON.parse(localStorage.getItem(key));
                Object.assign(draft.form.survey, { stages: survey.stages, layout: survey.layout, driver: survey.driver });
                window.addEventListener('pagehide', () => localStorage.setItem(key, JSON.stringify(draft)));
            }""",
            survey(),
        )
        page.reload()
        page.wait_for_selector("#f-wheel_20_diameter")
        page.wait_for_timeout(600)
        page.evaluate(WATCH)
        field = page.locator("#f-wheel_8_diameter")
        for i in range(KEYS):
            field.fill(f"{6 + (i % 17) / 8:.3f}")
            page.wait_for_timeout(140)
        redraws = page.evaluate("window.redraws")
        fetches = page.evaluate(FETCH, {"survey": survey()})
        browser.close()
    print(f"{WHEELS} wheels, {len(redraws)} of {KEYS} keys redrawn")
    print(f"key to redrawn layout: median {median(redraws):.0f} ms, 95th percentile {percentile(redraws, 95):.0f} ms")
    lost, spent = (b - a for a, b in zip(before, stolen(), strict=True))
    print(f"taken by the host meanwhile: {lost / max(spent, 1):.0%} of processor time")
    print(f"median redraw / median fetch of the answer: {median(redraws) / median(fetches):.1f}")
    return 0 if percentile(redraws, 95) <= 100 else 1


if __name__ == "__main__":
    sys.exit(main(sys.argv[1] if len(sys.argv) > 1 else "http://127.0.0.1:8640"))
