import { Group } from 'three';
import { PALETTE } from '../../theme/palette.ts';
import { distancesAlong, meanLength } from '../panes/dashes.ts';
import {
  concatenate,
  linesOnModel,
  moveOnBoard,
  shownChains,
  shownEdges,
  sideOnBoard,
} from '../panes/edgeLines.ts';
import { fatLines, type WriteLines } from '../panes/fatLines.ts';
import type { Layer } from './layer.ts';

/** Pixels of a dash and its gap together, close by. */
const STITCH = 12;
/** Mean edges shorter than this on screen, pixels, let a seam be thinner, and at last a hairline. */
const [FINE, HAIR] = [14, 4];

/** A running stitch: dashes of constant length on screen, on a casing; thinner as edges get small, at last a plain hairline. */
function stitch() {
  const casing = fatLines({ colour: PALETTE.paper, width: 5, order: 1 });
  const dashes = fatLines({ colour: PALETTE.ink, width: 3, dash: [1, 0.75], order: 2 });
  const object = new Group();
  object.add(casing.object, dashes.object);
  let edgeLength = 0;
  let weight = 1;
  return {
    object,
    /** @param distances  along the seam, of both ends of every line */
    set(positions: Float32Array, distances: Float32Array) {
      casing.set(positions);
      dashes.set(positions, distances);
      edgeLength = meanLength(positions);
    },
    move(write: WriteLines) {
      casing.move(write);
      dashes.move(write);
    },
    /** Never glaring: light on dark, dark on light. @param heavy  as a part of the usual */
    look(dark: boolean, heavy: number) {
      weight = heavy;
      casing.material.color.set(dark ? PALETTE.dusk : PALETTE.paper);
      dashes.material.color.set(dark ? PALETTE.moon : PALETTE.ink);
    },
    frame(perPixel: number) {
      const pixels = edgeLength / perPixel;
      const near = Math.max(0, Math.min(1, (pixels - HAIR) / (FINE - HAIR)));
      const { material } = dashes;
      material.linewidth = weight * (1.2 + 1.8 * near);
      const plain = near === 0;
      if (material.dashed === plain) {
        material.dashed = !plain;
        material.needsUpdate = true;
      }
      material.dashScale = 1.75 / (STITCH * perPixel * (0.6 + 0.4 * near));
      casing.object.visible = dashes.object.visible && !plain;
      casing.material.linewidth = material.linewidth + 2;
    },
    dispose() {
      casing.dispose();
      dashes.dispose();
    },
  };
}

/** A thin plain line: where the file ends, nobody cut it. */
function border() {
  const lines = fatLines({ colour: PALETTE.ink, width: 1.2, opacity: 0.8, order: 1 });
  return { ...lines, colour: (dark: boolean) => lines.material.color.set(dark ? PALETTE.moon : PALETTE.ink) };
}

/** Seams on the model, and where the file ends. */
export const modelSeams: Layer = {
  name: 'seams',
  pane: 'model',
  make() {
    const [seams, borders] = [stitch(), border()];
    const object = new Group();
    object.add(seams.object, borders.object);
    return {
      object,
      needs: (s) => [s.flat, s.hidden, s.dark, s.seamWeight],
      update({ model, flat, hidden, dark, seamWeight }) {
        seams.look(dark, seamWeight);
        borders.colour(dark);
        if (!model || !flat) return;
        const { edges, breaks } = shownChains(model, hidden, flat);
        const positions = linesOnModel(model, edges);
        seams.set(
          positions,
          distancesAlong(positions, (line) => breaks[line] === 1),
        );
        borders.set(linesOnModel(model, shownEdges(model, hidden, model.borders)));
      },
      frame: ({ perPixel }) => seams.frame(perPixel),
      dispose() {
        seams.dispose();
        borders.dispose();
      },
    };
  },
};

/** Where shells end in the flat: at seams, and where the file ends. */
export const boardBorders: Layer = {
  name: 'borders',
  pane: 'board',
  make({ drawn }) {
    const [seams, borders] = [stitch(), border()];
    const object = new Group();
    object.add(seams.object, borders.object);
    let made: readonly unknown[] = [];
    let seamEnds: Uint32Array = new Uint32Array(0);
    let borderEnds: Uint32Array = new Uint32Array(0);
    return {
      object,
      needs: (s) => [s.flat, s.hidden, s.dark, s.seamWeight, drawn.version],
      update({ model, flat, hidden, dark, seamWeight }) {
        seams.look(dark, seamWeight);
        borders.colour(dark);
        if (!model || !flat) return;
        const about = [model, flat, hidden, drawn.extent];
        if (about.every((value, i) => value === made[i])) {
          seams.move(moveOnBoard(drawn, seamEnds));
          borders.move(moveOnBoard(drawn, borderEnds));
          return;
        }
        made = about;
        const sidesOf = (edges: Uint32Array) =>
          ([0, 1] as const).map((side) => sideOnBoard(model, drawn.uv, edges, side));
        const { edges, breaks } = shownChains(model, hidden, flat);
        const [one, other] = sidesOf(edges);
        const distances = [one, other].map(({ lines, from, ends }) =>
          distancesAlong(
            lines,
            (line) => from[line] !== from[line - 1] + 1 || breaks[from[line]] === 1,
            ends,
          ),
        );
        seams.set(concatenate(one.lines, other.lines), concatenate(distances[0], distances[1]));
        seamEnds = concatenate(one.ends, other.ends);
        const [inside, outside] = sidesOf(shownEdges(model, hidden, model.borders));
        borders.set(concatenate(inside.lines, outside.lines));
        borderEnds = concatenate(inside.ends, outside.ends);
      },
      frame: ({ perPixel }) => seams.frame(perPixel),
      dispose() {
        seams.dispose();
        borders.dispose();
      },
    };
  },
};
