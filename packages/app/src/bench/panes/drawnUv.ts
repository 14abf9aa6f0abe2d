import { BufferAttribute, type BufferGeometry } from 'three';

/** Pictures of the flat as it is not, not yet, or not any more: of what runs, of what a hand drags, and of before. */
export type PictureSlot = 'running' | 'drag' | 'before';

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

  const compose = (): void => {
    version++;
    if (pictures.size === 0) {
      copy = undefined;
      geometry.setAttribute('flatUv', real);
    } else {
      copy ??= new BufferAttribute(new Float32Array(real.array.length), 2);
      copy.array.set(real.array);
      for (const { triangles, uv } of pictures.values()) {
        for (let i = 0; i < triangles.length; i++) {
          if (6 * triangles[i] < copy.array.length)
            copy.array.set(uv.subarray(6 * i, 6 * i + 6), 6 * triangles[i]);
        }
      }
      copy.needsUpdate = true;
      geometry.setAttribute('flatUv', copy);
    }
    onChange();
  };

  return {
    /** Changes with every picture. */
    get version(): number {
      return version;
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
      compose();
    },
    show(slot: PictureSlot, picture: Picture): void {
      pictures.set(slot, picture);
      compose();
    },
    clear(slot: PictureSlot): void {
      if (pictures.delete(slot)) compose();
    },
  };
}

export type DrawnUv = ReturnType<typeof drawnUv>;
