import { Scene } from 'three';
import type { BenchStore } from '../../store/bench.ts';
import type { Pane } from '../../store/selection.ts';
import { LAYERS } from '../layers/index.ts';
import type { FrameView } from '../layers/layer.ts';
import type { SurfaceGeometry } from './surfaceGeometry.ts';

/** Everything that is drawn, each pane in a scene of its own, and each layer made anew only when what it needs is another. */
export function layerStack(surface: SurfaceGeometry) {
  const scenes: Record<Pane, Scene> = { model: new Scene(), board: new Scene() };
  const layers = LAYERS.map((layer) => {
    const drawn = layer.make(surface);
    scenes[layer.pane].add(drawn.object);
    return { pane: layer.pane, passing: layer.passing, drawn, needed: [] as readonly unknown[] };
  });

  return {
    scenes,
    /** Brings layers up to date; true when any of them was not. */
    update(state: BenchStore): boolean {
      let changed = false;
      for (const layer of layers) {
        const needed = layer.drawn.needs(state);
        if (needed.every((value, i) => value === layer.needed[i]) && needed.length === layer.needed.length)
          continue;
        layer.needed = needed;
        layer.drawn.update(state);
        changed = true;
      }
      return changed;
    },
    /** Told before a pane is drawn. */
    frame(pane: Pane, view: FrameView): void {
      for (const layer of layers) if (layer.pane === pane) layer.drawn.frame?.(view);
    },
    /** Does something while nothing is seen that passes: what is selected, pointed at, or on its way. */
    withoutPassing<T>(pane: Pane, work: () => T): T {
      const hidden = layers.filter(
        (layer) => layer.pane === pane && layer.passing && layer.drawn.object.visible,
      );
      for (const { drawn } of hidden) drawn.object.visible = false;
      try {
        return work();
      } finally {
        for (const { drawn } of hidden) drawn.object.visible = true;
      }
    },
    dispose(): void {
      for (const { drawn } of layers) drawn.dispose();
    },
  };
}
