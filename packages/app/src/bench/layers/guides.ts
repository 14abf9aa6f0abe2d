import { Group } from 'three';
import { PALETTE } from '../../theme/palette.ts';
import { fatLines } from '../panes/fatLines.ts';
import { pointMarks } from '../panes/pointMarks.ts';
import type { Layer } from './layer.ts';

/** Above the shells and their borders. */
const HEIGHT = 0.2;

/** Lines and places on which what is moved by hand has taken hold. */
export const guides: Layer = {
  name: 'guides',
  pane: 'board',
  passing: true,
  make() {
    const lines = fatLines({ colour: PALETTE.pine, width: 1.5, order: 7 });
    const ends = pointMarks({ colour: PALETTE.pine, size: 13, shape: 'ring', order: 8 });
    const object = new Group();
    object.add(lines.object, ends.object);
    return {
      object,
      needs: (s) => [s.guides],
      update({ guides: held }) {
        lines.set(Float32Array.from(held.flatMap(([u0, v0, u1, v1]) => [u0, v0, HEIGHT, u1, v1, HEIGHT])));
        // A place has no length to be seen by.
        const places = held.filter(([u0, v0, u1, v1]) => u0 === u1 && v0 === v1);
        ends.set(Float32Array.from(places.flatMap(([u, v]) => [u, v, HEIGHT])));
      },
      dispose() {
        lines.dispose();
        ends.dispose();
      },
    };
  },
};
