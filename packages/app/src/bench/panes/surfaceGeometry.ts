import type { BrushPicture } from '@blunt-hem/core/questions/brushed';
import { BufferAttribute, BufferGeometry } from 'three';
import { type BenchStore, useBench } from '../../store/bench.ts';
import { NO_UV } from '../../worker/protocol.ts';
import { overlayShown } from '../overlays/index.ts';
import { placeAt } from '../overlays/overlay.ts';
import { drawnUv } from './drawnUv.ts';

/** What a triangle is marked with: hidden, nothing, pointed at, selected. */
const [HIDDEN, HOVERED, SELECTED] = [-1, 1, 2];

/** Stretch of some triangles. */
type StretchPicture = Pick<BrushPicture, 'triangles' | 'logArea' | 'angle'>;

/** The buffers that both panes draw from, brought up to date with the store, each only when what it shows has changed. */
export function surfaceGeometry(onChange: () => void) {
  const geometry = new BufferGeometry();
  const drawn = drawnUv(geometry, onChange);
  let last: Partial<BenchStore> = {};
  /** What the overlay was drawn from, and what the marks. */
  let placed: readonly unknown[] = [];
  let marked: readonly unknown[] = [];

  const differs = (s: BenchStore, ...keys: (keyof BenchStore)[]) => keys.some((key) => s[key] !== last[key]);

  return {
    geometry,
    drawn,
    update(s: BenchStore): void {
      const { model, flat } = s;
      if (!model || !flat) return;
      const corners = model.positions.length / 3;
      if (differs(s, 'model')) {
        geometry.setAttribute('position', new BufferAttribute(model.positions, 3));
        geometry.setAttribute('normal', new BufferAttribute(model.normals, 3, true));
        geometry.setAttribute('place', new BufferAttribute(new Float32Array(corners), 1));
        geometry.setAttribute('mark', new BufferAttribute(new Int8Array(corners), 1));
        if (!differs(s, 'flat')) drawn.set(new Float32Array(2 * corners).fill(NO_UV));
      }
      if (differs(s, 'flat')) drawn.set(flat.uv);
      if (differs(s, 'flat', 'boardLayer')) setAside(s);
      const overlay = overlayShown(s);
      const needed = [model, overlay, s.mapReach, s.byFace, ...(overlay?.needs(s) ?? [])];
      if (needed.some((value, i) => value !== placed[i]) || needed.length !== placed.length) place(s);
      placed = needed;
      if (differs(s, 'model', 'occlusion')) shade(s);
      mark(s);
      last = s;
    },
    showStretch(picture: StretchPicture | undefined): void {
      const s = useBench.getState();
      const overlay = overlayShown(s);
      if (!picture || !overlay) {
        place(s);
        return;
      }
      const { triangles, logArea, angle } = picture;
      const figures = { logArea, angle, smoothLogArea: logArea, smoothAngle: angle };
      const values = overlay.ofStretch && overlay.values({ ...s, figures, triangles });
      if (!values) return;
      const attribute = geometry.getAttribute('place') as BufferAttribute;
      triangles.forEach((t, i) => {
        attribute.array.fill(placeAt(overlay, s.mapReach, values[i]), 3 * t, 3 * t + 3);
      });
      attribute.needsUpdate = true;
    },
    dispose: () => geometry.dispose(),
  };

  /** What the Board does not show lies nowhere there. */
  function setAside({ model, boardLayer }: BenchStore): void {
    if (!boardLayer || !model) {
      drawn.clear('aside');
      return;
    }
    const { triangleFace } = model;
    const triangles = Uint32Array.from(triangleFace.keys()).filter((t) => !boardLayer.faces[triangleFace[t]]);
    drawn.show('aside', { triangles, uv: new Float32Array(6 * triangles.length).fill(NO_UV) });
  }

  function place(s: BenchStore): void {
    const overlay = overlayShown(s);
    const attribute = geometry.getAttribute('place') as BufferAttribute;
    if (!overlay) return;
    const smooth = s.byFace ? undefined : overlay.smooth(s);
    const faceValues = smooth ? undefined : overlay.values(s);
    const byFace = faceValues !== undefined;
    const values = faceValues ?? smooth ?? overlay.smooth(s);
    if (!values) return;
    const { array } = attribute;
    if ((byFace ? 3 : 1) * values.length !== array.length) return; // figures of another mesh
    for (let i = 0; i < array.length; i++)
      array[i] = placeAt(overlay, s.mapReach, values[byFace ? Math.floor(i / 3) : i]);
    attribute.needsUpdate = true;
    onChange();
  }

  /** Open to the sky all over until it is known better. */
  function shade({ model, occlusion }: BenchStore): void {
    const corners = (model?.positions.length ?? 0) / 3;
    const known =
      occlusion?.corners.length === corners ? occlusion.corners : new Uint8Array(corners).fill(255);
    geometry.setAttribute('occlusion', new BufferAttribute(known, 1, true));
    onChange();
  }

  function mark({ model, flat, hidden, faces, chosen, hover, target }: BenchStore): void {
    if (!model || !flat) return;
    const hoverFace = hover && target === 'faces' ? hover.face : -1;
    const hoverShell = hover && target === 'shells' ? hover.shell : -1;
    // Pointing at edges leaves the faces as they are.
    const deciding = [model, flat.faceShell, hidden, faces, chosen, hoverFace, hoverShell];
    if (deciding.every((value, i) => value === marked[i])) return;
    marked = deciding;
    const attribute = geometry.getAttribute('mark') as BufferAttribute;
    const { array } = attribute;
    const { triangleFace } = model;
    let changed = false;
    for (let t = 0; t < triangleFace.length; t++) {
      const f = triangleFace[t];
      const shell = flat.faceShell[f];
      const value = hidden[f]
        ? HIDDEN
        : chosen.has(shell) || faces.has(f)
          ? SELECTED
          : shell === hoverShell || f === hoverFace
            ? HOVERED
            : 0;
      if (array[3 * t] === value) continue;
      changed = true;
      array.fill(value, 3 * t, 3 * t + 3);
    }
    if (!changed) return;
    attribute.needsUpdate = true;
    onChange();
  }
}

export type SurfaceGeometry = ReturnType<typeof surfaceGeometry>;
