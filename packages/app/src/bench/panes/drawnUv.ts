import { BufferAttribute, type BufferGeometry } from 'three';
import { NO_UV } from '../../worker/protocol.ts';

/** Pictures of the flat as it is not, not yet, or not any more: without what is aside, of what runs, of what a hand drags, and of before. */
export type PictureSlot = 'aside' | 'running' | 'drag' | 'before';

/** Triangles from one on, and before another. */
export interface TriangleRange {
  readonly from: number;
  readonly to: number;
}
const ALL: TriangleRange = { from: 0, to: Infinity };

export interface Picture {
  readonly triangles: Uint32Array;
  /** UV of the corners of those triangles: `6 × triangles.length`. */
  readonly uv: Float32Array;
}

/**
 * The UVs that are drawn. The true ones are never written over: pictures go into a copy, which is let go of when the last of them
 * is cleared.
 */
export function drawnUv(geometry: BufferGeometry, onChange: () => void) {
  let real = new BufferAttribute(new Float32Array(0), 2);
  let copy: BufferAttribute | undefined;
  const pictures = new Map<PictureSlot, Picture>();
  let version = 0;
  let changed: TriangleRange = ALL;
  let extent = {};

  const compose = (): void => {
    version++;
    changed = ALL;
    if (pictures.size === 0) {
      copy = undefined;
      geometry.setAttribute('flatUv', real);
    } else {
      copy ??= new BufferAttribute(new Float32Array(real.array.length), 2);
      copy.array.set(real.array);
      for (const picture of pictures.values()) put(copy, picture);
      // Ranges add up until they are uploaded: all of it, whatever was to be uploaded besides.
      copy.addUpdateRange(0, copy.array.length);
      copy.needsUpdate = true;
      geometry.setAttribute('flatUv', copy);
    }
    onChange();
  };

  /** Puts the only picture in the place of the last one of its slot, and has only what differs uploaded. */
  const move = (into: BufferAttribute, last: Picture, next: Picture): void => {
    version++;
    if (last.triangles !== next.triangles)
      for (const t of last.triangles)
        if (6 * t < into.array.length) into.array.set(real.array.subarray(6 * t, 6 * t + 6), 6 * t);
    put(into, next);
    let [from, to] = [into.array.length, 0];
    for (const { triangles } of [last, next])
      for (const t of triangles) {
        from = Math.min(from, 6 * t);
        to = Math.max(to, 6 * t + 6);
      }
    to = Math.min(to, into.array.length);
    changed = { from: from / 6, to: to / 6 };
    if (to > from) into.addUpdateRange(from, to - from);
    into.needsUpdate = true;
    onChange();
  };

  /** Whether it draws what lies nowhere, or leaves out what lies somewhere. */
  const showsOthers = ({ triangles, uv }: Picture): boolean =>
    triangles.some((t, i) => (real.array[6 * t] === NO_UV) !== (uv[6 * i] === NO_UV));

  return {
    /** Changes with every picture. */
    get version(): number {
      return version;
    },
    /** Triangles that may be drawn elsewhere since the last change. */
    get changed(): TriangleRange {
      return changed;
    },
    /** Changes when other triangles are drawn than were: those that lie nowhere and are shown all the same. */
    get extent(): object {
      return extent;
    },
    /** As drawn, `6 × triangleCount`. */
    get uv(): Float32Array {
      return (copy ?? real).array as Float32Array;
    },
    /** As they are. */
    get real(): Float32Array {
      return real.array as Float32Array;
    },
    /** Takes in the true UVs; every picture was of what was before, and goes. */
    set(uv: Float32Array): void {
      real = new BufferAttribute(uv, 2);
      copy = undefined;
      pictures.clear();
      extent = {};
      compose();
    },
    show(slot: PictureSlot, picture: Picture): void {
      const last = pictures.get(slot);
      pictures.set(slot, picture);
      if (showsOthers(picture)) extent = {};
      if (copy && last && pictures.size === 1) move(copy, last, picture);
      else compose();
    },
    clear(slot: PictureSlot): void {
      const gone = pictures.get(slot);
      if (!gone) return;
      pictures.delete(slot);
      if (showsOthers(gone)) extent = {};
      compose();
    },
  };
}

/** Writes a picture over places that are drawn; triangles of another mesh are passed over. */
function put({ array }: BufferAttribute, { triangles, uv }: Picture): void {
  for (let i = 0; i < triangles.length; i++) {
    const at = 6 * triangles[i];
    if (at >= array.length) continue;
    for (let k = 0; k < 6; k++) array[at + k] = uv[6 * i + k];
  }
}

export type DrawnUv = ReturnType<typeof drawnUv>;
