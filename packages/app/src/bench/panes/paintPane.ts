import type { WebGLRenderer } from 'three';

/**
 * Draws one of several panes that share a canvas.
 *
 * @param outer  where the canvas is on the page
 * @param ground  name of the custom property that holds the colour of its ground
 */
export function paintPane(
  renderer: WebGLRenderer,
  outer: DOMRect,
  pane: HTMLElement,
  ground: string,
  drawScene: (width: number, height: number) => void,
): void {
  const box = pane.getBoundingClientRect();
  if (box.width < 2 || box.height < 2) return;
  const [x, y] = [box.left - outer.left, outer.bottom - box.bottom];
  renderer.setViewport(x, y, box.width, box.height);
  renderer.setScissor(x, y, box.width, box.height);
  renderer.setClearColor(getComputedStyle(document.documentElement).getPropertyValue(ground).trim());
  renderer.clear();
  drawScene(box.width, box.height);
}
