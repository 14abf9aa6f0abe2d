import { Group } from 'three';
import type { Pane } from '../../store/selection.ts';
import { PALETTE } from '../../theme/palette.ts';
import type { ModelBuffers } from '../../worker/protocol.ts';
import { linesOnBoard, linesOnModel } from '../panes/edgeLines.ts';
import { fatLines } from '../panes/fatLines.ts';
import { pointMarks } from '../panes/pointMarks.ts';
import { grainHeads } from './grainHeads.ts';
import type { Layer } from './layer.ts';

/** Above the shells and their borders. */
const HEIGHT = 0.15;

/** Of grain lines, in the units of the scene: solid where they are close together. */
const GRAIN_DASH = [0.02, 0.008] as const;

/** Length of the head of a grain line, heights of a tile; as a part of its size on the model. */
const TIP = 0.035;

/** What holds while the rest gives way: pins as round heads, stays as lines with a bar at either end; and where a click would pin. */
const holdsIn = (pane: Pane): Layer => ({
  name: 'pins and stays',
  pane,
  make({ drawn }) {
    const lines = fatLines({ colour: PALETTE.pine, width: 3.5, order: 3 });
    const bars = pointMarks({ colour: PALETTE.pine, size: 9, order: 3 });
    const heads = pointMarks({ colour: PALETTE.pine, size: 14, shape: 'head', order: 7 });
    const object = new Group();
    const aimed = pointMarks({ colour: PALETTE.fuchsia, size: 12, shape: 'head', order: 8 });
    const grain = fatLines({ colour: PALETTE.ochre, width: 3, dash: GRAIN_DASH, order: 3 });
    const grainTips = fatLines({ colour: PALETTE.ochre, width: 3, order: 4 });
    object.add(lines.object, bars.object, heads.object, aimed.object, grain.object, grainTips.object);
    return {
      object,
      needs: (s) => [s.model, s.flat, s.dark, s.aim, s.upAxis, ...(pane === 'board' ? [drawn.version] : [])],
      update({ model, flat, dark, aim, upAxis }) {
        if (!model || !flat) return;
        lines.material.color.set(dark ? PALETTE.moon : PALETTE.pine);
        const place = (at: number): number[] =>
          pane === 'board'
            ? [drawn.uv[2 * at], drawn.uv[2 * at + 1], HEIGHT]
            : [...model.positions.subarray(3 * at, 3 * at + 3)];
        const stays = flat.stays;
        lines.set(pane === 'model' ? linesOnModel(model, stays) : linesOnBoard(model, drawn.uv, stays));
        bars.set(Float32Array.from(endsOf(model, stays).flatMap(place)));
        grain.set(
          pane === 'model' ? linesOnModel(model, flat.grain) : linesOnBoard(model, drawn.uv, flat.grain),
        );
        const { box } = model;
        grainTips.set(
          pane === 'model'
            ? grainHeads(
                model,
                flat,
                upAxis,
                TIP * Math.hypot(box[3] - box[0], box[4] - box[1], box[5] - box[2]),
              )
            : grainHeads(model, flat, upAxis, TIP, { uv: drawn.uv, height: HEIGHT }),
        );
        heads.set(Float32Array.from([...flat.pins].flatMap(place)));
        aimed.set(Float32Array.from(aim === undefined ? [] : place(aim)));
      },
      dispose() {
        lines.dispose();
        grain.dispose();
        grainTips.dispose();
        bars.dispose();
        heads.dispose();
        aimed.dispose();
      },
    };
  },
});

/** Drawn vertices where chains of edges end. */
function endsOf({ edgeEnds, cornerVertex }: ModelBuffers, edges: Uint32Array): number[] {
  const at = new Map<number, number[]>();
  for (const e of edges)
    for (let k = 0; k < 2; k++) {
      const drawn = edgeEnds[4 * e + k];
      const v = cornerVertex[drawn];
      at.set(v, [...(at.get(v) ?? []), drawn]);
    }
  return [...at.values()].flatMap((drawn) => (drawn.length === 1 ? drawn : []));
}

export const modelHolds = holdsIn('model');
export const boardHolds = holdsIn('board');
