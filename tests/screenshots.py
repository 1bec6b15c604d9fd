"""Pictures of the main views from the demo job, for the README: `./run pictures` writes docs/screenshots."""

from dataclasses import dataclass
from urllib.request import Request, urlopen

from kobrix.demo import SETUPS

from tests.browser import ROOT, chromium, server

FOLDER = ROOT / "docs" / "screenshots"


@dataclass(frozen=True)
class Shot:
    """One picture: its file `name`, the `path` of the page, `width` and `height`, the `theme`, the buttons to `press`, the
    field to `focus` and the boxes to `tick` first."""

    name: str
    path: str
    width: int = 1280
    height: int = 800
    theme: str = "light"
    press: tuple[str, ...] = ()
    focus: str = ""
    tick: tuple[str, ...] = ()


MATCH = "/jobs/1/match?setup=plan+A"
SHOTS = (
    Shot("size", "/jobs/1/size"),
    Shot("size-dark", "/jobs/1/size", theme="dark"),
    Shot("size-danger", "/jobs/1/size?plan=plan+B"),
    Shot("size-low", "/jobs/1/size?plan=plan+B", 1366, 640),
    Shot("size-empty", "/jobs/3/size"),
    Shot("size-phone", "/jobs/1/size", 390, 844),
    Shot("size-working", "/jobs/1/size", press=("Cylinder: working",)),
    Shot("size-motorcycle", "/jobs/2/size"),
    Shot("measure", "/jobs/1/measure", focus="pivot_to_pad_mm"),
    Shot("measure-phone", "/jobs/1/measure", 390, 844, focus="pivot_to_pin_mm"),
    Shot("match", MATCH, tick=("Rear brakes may change", "Rear valve may change"), press=("Show setup 2 on the line",)),
    Shot("match-phone", MATCH, 390, 844),
    Shot("jobs", "/jobs"),
    Shot("fit", "/jobs/1/fit"),
    Shot("build", "/jobs/1/build"),
    Shot("build-phone", "/jobs/1/build", 390, 844),
    Shot("bleed", "/jobs/1/bleed"),
    Shot("bed", "/jobs/1/bed"),
    Shot("prove", "/jobs/1/prove"),
)


# The trials of the findings and a search have ended.
SETTLED = "() => !/being tried|plausible vehicles for the best|Beginning|\\d of [\\d ]+ tried/.test(document.body.innerText)"


def main() -> None:
    """Take every picture."""
    FOLDER.mkdir(parents=True, exist_ok=True)
    with server() as url, chromium() as browser:
        motorcycle = next(p for p in SETUPS if "motorcycle" in p.name).read_bytes()
        for where, body in (("jobs", motorcycle), ("jobs/new", b'{"name": "Small van, rear discs", "layout": "car_front_rear"}')):
            urlopen(Request(f"{url}/api/{where}", body, {"Content-Type": "application/json"})).close()
        for shot in SHOTS:
            context = browser.new_context(
                viewport={"width": shot.width, "height": shot.height},
                color_scheme="dark" if shot.theme == "dark" else "light",
                has_touch=shot.width < 600,
                is_mobile=shot.width < 600,
                reduced_motion="reduce",
            )
            page = context.new_page()
            page.goto(url + shot.path)
            page.get_by_role("main").wait_for()
            for name in shot.tick:
                page.get_by_role("checkbox", name=name).check(force=True)
                page.wait_for_timeout(1000)
            if "match" in shot.name:
                page.get_by_text("setups tried").wait_for(timeout=120_000)
            for name in shot.press:
                page.get_by_role("button", name=name).first.click()
            if shot.focus:
                page.locator(f"input[data-path$={shot.focus}]").first.focus()
            page.evaluate("document.fonts.ready")
            page.wait_for_function(SETTLED, timeout=120_000)
            page.wait_for_load_state("networkidle", timeout=120_000)  # the mends come last
            page.wait_for_timeout(900)
            page.screenshot(path=FOLDER / f"{shot.name}.png")
            context.close()
            print(f"docs/screenshots/{shot.name}.png")


if __name__ == "__main__":
    main()
