"""From pointer to paint on the ice map, as a share of the 50 ms wanted. Run: python -m benchmarks.painting"""

import statistics
import sys
from pathlib import Path

sys.path.insert(0, str(Path(__file__).parent.parent / "tools"))

from served import logged_in_page, open_call_on

WANTED_MS = 50
# A pointer event on a cell, then two frames: the second runs when the first has been painted.
STROKE = """
async (index) => {
  const cells = document.querySelectorAll(".ice-painter [data-row]");
  const box = cells[index].getBoundingClientRect();
  const at = { clientX: box.x + 5, clientY: box.y + 5, bubbles: true, pointerId: 1 };
  const svg = cells[index].closest("svg");
  svg.setPointerCapture = () => {};
  const start = performance.now();
  svg.dispatchEvent(new PointerEvent("pointerdown", at));
  await new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done)));
  const taken = performance.now() - start;
  svg.dispatchEvent(new PointerEvent("pointerup", at));
  return cells[index].dataset.letter === "i" ? taken : NaN;
}
"""


def main():
    """Print the median and the slowest stroke."""
    with logged_in_page() as (page, at):
        open_call_on(page, at, "Freezer 1", "parts/coil/")
        page.locator(".ice-painter svg[tabindex]").scroll_into_view_if_needed()
        taken = [page.evaluate(STROKE, index) for index in range(50)]
    median, slowest = statistics.median(taken), max(taken)
    print(f"pointer to paint: median {median:.0f} ms, {median / WANTED_MS:.2f} of the {WANTED_MS} ms wanted; slowest {slowest:.0f} ms")


if __name__ == "__main__":
    main()
