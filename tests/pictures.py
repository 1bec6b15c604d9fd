"""Pictures of the main views from the demo job, for the README: `./run pictures` writes docs/screenshots."""

from dataclasses import dataclass

from tests.browser import ROOT, chromium, server

FOLDER = ROOT / "docs" / "screenshots"


@dataclass(frozen=True)
class Shot:
    """One picture: its file `name`, the `path` of the page, `width` and `height`, and the `theme`."""

    name: str
    path: str
    width: int = 1280
    height: int = 800
    theme: str = "light"


SHOTS = (
    Shot("size", "/jobs/1/size"),
    Shot("size-dark", "/jobs/1/size", theme="dark"),
    Shot("size-danger", "/jobs/1/size?plan=plan+B"),
    Shot("size-phone", "/jobs/1/size", 390, 844),
    Shot("size-phone-danger", "/jobs/1/size?plan=plan+B", 390, 844),
    Shot("jobs", "/jobs"),
)


def main() -> None:
    """Take every picture."""
    FOLDER.mkdir(parents=True, exist_ok=True)
    with server() as url, chromium() as browser:
        for shot in SHOTS:
            context = browser.new_context(
                viewport={"width": shot.width, "height": shot.height},
                color_scheme="dark" if shot.theme == "dark" else "light",
                has_touch=shot.width < 600,
                reduced_motion="reduce",
            )
            page = context.new_page()
            page.goto(url + shot.path)
            page.wait_for_load_state("networkidle")
            page.evaluate("document.fonts.ready")
            page.screenshot(path=FOLDER / f"{shot.name}.png")
            context.close()
            print(f"docs/screenshots/{shot.name}.png")


if __name__ == "__main__":
    main()
