/* The run scrolls so that its last line stays in sight, where it was. */

const scroller = document.getElementById("scroll");
let wasAtFoot = true;

export const toFoot = () => { scroller.scrollTop = scroller.scrollHeight; };
export const isAtFoot = () => scroller.scrollHeight - scroller.scrollTop - scroller.clientHeight < 60;

/** What makes lines higher leaves the last one in sight. */
export function stayAtFoot(act) {
  const stays = isAtFoot();
  act();
  if (stays) toFoot();
}

/** How far an element is out of sight. */
export function far(node) {
  const sight = scroller.getBoundingClientRect();
  const box = node.getBoundingClientRect();
  return Math.max(0, sight.top - box.bottom, box.top - sight.bottom);
}

toFoot();
document.fonts?.ready.then(toFoot);
// the entry below grows and shrinks with what is typed
scroller.addEventListener("scroll", () => { wasAtFoot = isAtFoot(); });
new ResizeObserver(() => { if (wasAtFoot) toFoot(); }).observe(scroller);
// earlier lines come in above without moving what is being read
let height = 0;
scroller.addEventListener("htmx:beforeSwap", () => { height = scroller.scrollHeight - scroller.scrollTop; });
scroller.addEventListener("htmx:afterSettle", () => { scroller.scrollTop = scroller.scrollHeight - height; });
