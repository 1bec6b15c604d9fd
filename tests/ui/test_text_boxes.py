"""Every text of every view at every size people have: none lies over another, none is under 12 px, nothing is pushed sideways."""

import unittest

from playwright.sync_api import expect

from tests.ui.case import PATIENCE, UiCase

SIZES = ((1366, 640), (1280, 640), (1280, 680), (1024, 768), (820, 1180), (683, 320), (1920, 1080), (360, 640))
VIEWS = ("measure", "size", "match", "fit", "build", "bleed", "bed", "prove", "questions", "files")
LEAST = 11.9  # CSS px
# Every line of text by its box, as much of it as the boxes around it let be seen; a pair that lies over each other by its words.
TEXTS = """least => {
  const shown = e => { const s = getComputedStyle(e); return s.visibility !== 'hidden' && s.display !== 'none' && +s.opacity > 0.05; };
  const unseen = e => { for (let p = e; p && p !== document.body; p = p.parentElement) { const s = getComputedStyle(p), r = p.getBoundingClientRect();
    if (s.clipPath.includes('50%') || (s.overflow !== 'visible' && (r.width <= 2 || r.height <= 2))) return true; } return false; };
  const seenOf = (e, r) => { const box = {l: Math.max(0, r.left), t: Math.max(0, r.top), r: Math.min(innerWidth, r.right), b: Math.min(innerHeight, r.bottom)};
    for (let p = e.parentElement; p; p = p.parentElement) if (/(auto|scroll|hidden|clip)/.test(getComputedStyle(p).overflow)) {
      const q = p.getBoundingClientRect();
      Object.assign(box, {l: Math.max(box.l, q.left), t: Math.max(box.t, q.top), r: Math.min(box.r, q.right), b: Math.min(box.b, q.bottom)}); }
    return box; };
  const found = [], seen = [], walk = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
  for (let n; (n = walk.nextNode()); ) {
    const e = n.parentElement, text = n.textContent.trim();
    if (!text || !e || !shown(e) || e.closest('script,style,title,desc,option') || unseen(e)) continue;
    const range = document.createRange();
    range.selectNodeContents(n);
    for (const r of range.getClientRects()) {
      const box = seenOf(e, r);
      if (r.width < 2 || r.height < 4 || box.r - box.l < 4 || box.b - box.t < 6) continue;
      const svg = e.closest('svg'), size = parseFloat(getComputedStyle(e).fontSize) * (svg ? Math.abs(svg.getScreenCTM().a) : 1);
      if (size < least) found.push(`${size.toFixed(1)} px: ${text.slice(0, 40)}`);
      seen.push({e, text, l: r.left + 1, r: r.right - 1, t: r.top + r.height * 0.22, b: r.bottom - r.height * 0.22});
    }
  }
  seen.forEach((a, i) => seen.slice(i + 1).forEach(b => {
    if (a.e === b.e || a.e.contains(b.e) || b.e.contains(a.e)) return;
    if (Math.min(a.r, b.r) - Math.max(a.l, b.l) > 2 && Math.min(a.b, b.b) - Math.max(a.t, b.t) > 2)
      found.push(`over each other: ${a.text.slice(0, 30)} | ${b.text.slice(0, 30)}`);
  }));
  const wide = document.documentElement.scrollWidth - document.documentElement.clientWidth;
  return wide > 0 ? [...found, `pushed sideways by ${wide} px`] : found;
}"""


class Looked(UiCase):
    sizes: tuple[tuple[int, int], ...] = SIZES

    def looked_at(self, path: str) -> None:
        """A view at its sizes; it has come to rest where two looks agree and nothing is found, else what was found last is told."""
        page = self.page
        page.goto(f"{self.url}{path}")
        expect(page.locator("main, [role=main]").first).to_be_attached()
        self.idle()
        for width, height in self.sizes:
            page.set_viewport_size({"width": width, "height": height})
            with self.subTest(path=path, size=f"{width}x{height}"):
                found = ["not looked at"]
                for _ in range(PATIENCE // 200):
                    found = page.evaluate(TEXTS, LEAST)
                    if not found:
                        break
                    page.wait_for_timeout(200)
                self.assertEqual(found, [])


class Texts(Looked):
    def test_the_demo(self) -> None:
        self.looked_at("/jobs")
        for view in VIEWS:
            self.looked_at(f"/jobs/1/{view}")
        self.no_errors()

    def test_vehicles_with_several_controls_and_an_empty_job(self) -> None:
        page = self.page
        for name in ("light-aircraft", "trials-car", "hill-climb"):
            self.assertEqual(page.request.post(f"{self.url}/api/jobs/examples/{name}").status, 201)
        made = page.request.post(
            f"{self.url}/api/jobs/new",
            data={"name": "with a name that is longer than any sheet has room for in one line", "layout": "motorcycle"},
        )
        self.assertEqual(made.status, 201)
        for job in (2, 3, 4, 5):
            for view in ("measure", "size", "fit", "prove"):
                self.looked_at(f"/jobs/{job}/{view}")
        self.no_errors()


class NarrowPhone(Looked):
    """The narrowest there are, where all that is pressed is as large as a thumb wants it."""

    touch = True
    sizes = ((320, 640),)

    def test_the_demo_a_motorcycle_and_an_empty_job(self) -> None:
        page = self.page
        self.assertEqual(page.request.post(f"{self.url}/api/jobs/examples/motorcycle").status, 201)
        self.assertEqual(
            page.request.post(f"{self.url}/api/jobs/new", data={"name": "van", "layout": "car_front_rear"}).status, 201
        )
        for job in (1, 2, 3):
            for view in VIEWS:
                self.looked_at(f"/jobs/{job}/{view}")
        self.no_errors()


if __name__ == "__main__":
    unittest.main()
