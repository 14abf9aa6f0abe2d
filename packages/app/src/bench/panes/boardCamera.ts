import { frameOfAll } from '@blunt-hem/core/surface/tiles';
import { OrthographicCamera } from 'three';
import { useBench } from '../../store/bench.ts';
import { type BoardView, boardEdges, viewOf, zoomView } from './boardView.ts';

/**
 * How the Board is looked at.
 *
 * @param onChange  called when it is looked at otherwise
 */
export function boardCamera(pane: HTMLElement, onChange: () => void) {
  const camera = new OrthographicCamera(-1, 1, 1, -1, -10, 10);
  const view: BoardView = { u: 0.5, v: 0.5, scale: 400 };
  return {
    camera,
    view,
    /** Makes the camera see what the view says, in a pane of this size. */
    aim(width: number, height: number): void {
      Object.assign(camera, boardEdges(view, width, height));
      camera.updateProjectionMatrix();
    },
    /** By pixels. */
    pan(dx: number, dy: number): void {
      view.u -= dx / view.scale;
      view.v += dy / view.scale;
      onChange();
    },
    /** About a place of it. */
    zoom(u: number, v: number, factor: number): void {
      zoomView(view, u, v, factor);
      onChange();
    },
    /** Brings a box into view, or all tiles. */
    frame(box: readonly number[] = frameOfAll(useBench.getState().tiles)): void {
      Object.assign(view, viewOf(box, pane.getBoundingClientRect()));
      onChange();
    },
  };
}
