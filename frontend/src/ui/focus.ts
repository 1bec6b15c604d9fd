const PATIENCE = 60; // frames

/** The focus put on something of the page, once it is there. */
export function focusOn(find: () => HTMLElement | null | undefined, frames = PATIENCE): void {
  window.requestAnimationFrame(() => {
    const found = find();
    if (!found && frames > 0) return focusOn(find, frames - 1);
    found?.scrollIntoView({ block: 'nearest' });
    found?.focus();
  });
}
