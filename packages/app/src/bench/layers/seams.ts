import { Group } from 'three';
import { PALETTE } from '../../theme/palette.ts';
import { linesOnBoard, linesOnModel, shownEdges } from '../panes/edgeLines.ts';
import { fatLines } from '../panes/fatLines.ts';
import type { Layer } from './layer.ts';

/** A running stitch: ink dashes of constant length on screen, on a paper casing. */
function stitch() {
  const casing = fatLines({ colour: PALETTE.paper, width: 5, order: 1 });
  const dashes = fatLines({ colour: PALETTE.ink, width: 3, dash: [1, 0.75], order: 2 });
  const object = new Group();
  object.add(casing.object, dashes.object);
  return {
    object,
    set(positions: Float32Array) {
      casing.set(positions);
      dashes.set(positions);
    },
    scale(perPixel: number) {
      dashes.material.dashScale = 1 / (7 * perPixel);
    },
    dispose() {
      casing.dispose();
      dashes.dispose();
    },
  };
}

/** Seams on the model. */
export const modelSeams: Layer = {
  name: 'seams',
  pane: 'model',
  make() {
    const lines = stitch();
    return {
      object: lines.object,
      needs: (s) => [s.flat, s.hidden],
      update({ model, flat, hidden }) {
        if (model && flat) lines.set(linesOnModel(model, shownEdges(model, hidden, flat.seams)));
      },
      frame: ({ perPixel }) => lines.scale(perPixel),
      dispose: lines.dispose,
    };
  },
};

/** Where shells end in the flat: at seams, and where the mesh ends. */
export const boardBorders: Layer = {
  name: 'borders',
  pane: 'board',
  make({ drawn }) {
    const lines = stitch();
    return {
      object: lines.object,
      needs: (s) => [s.flat, s.hidden, drawn.version],
      update({ model, flat, hidden }) {
        if (!model || !flat) return;
        const edges = [...shownEdges(model, hidden, flat.seams), ...shownEdges(model, hidden, flat.borders)];
        lines.set(linesOnBoard(model, drawn.uv, edges));
      },
      frame: ({ perPixel }) => lines.scale(perPixel),
      dispose: lines.dispose,
    };
  },
};
