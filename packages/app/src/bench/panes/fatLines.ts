import { InstancedInterleavedBuffer, InterleavedBufferAttribute } from 'three';
import { LineMaterial } from 'three/addons/lines/LineMaterial.js';
import { LineSegments2 } from 'three/addons/lines/LineSegments2.js';
import { LineSegmentsGeometry } from 'three/addons/lines/LineSegmentsGeometry.js';

export interface LineLook {
  readonly colour: string;
  /** Pixels. */
  readonly width: number;
  readonly opacity?: number;
  /** Length of a dash and of a gap, world units at scale 1. */
  readonly dash?: readonly [number, number];
  readonly order: number;
  /** Drawn through whatever lies before it. */
  readonly through?: boolean;
}

/** Writes places of lines, and tells the first that was written and how many from there on. */
export type WriteLines = (positions: Float32Array) => readonly [first: number, count: number];

export interface FatLines {
  readonly object: LineSegments2;
  readonly material: LineMaterial;
  /**
   * @param positions  xyz of both ends of every line, `6 × count`
   * @param distances  how far along dashes are at both ends; each line for itself when absent
   */
  set(positions: Float32Array, distances?: Float32Array): void;
  /** Writes other places over those of the lines that there are: for what moves without changing. */
  move(write: WriteLines): void;
  dispose(): void;
}

/** Lines of a width in pixels, solid or dashed. */
export function fatLines({ colour, width, opacity = 1, dash, order, through = false }: LineLook): FatLines {
  const material = new LineMaterial({
    color: colour,
    linewidth: width,
    transparent: opacity < 1,
    opacity,
    depthTest: !through,
    dashed: dash !== undefined,
    dashSize: dash?.[0] ?? 1,
    gapSize: dash?.[1] ?? 0,
  });
  const object = new LineSegments2(new LineSegmentsGeometry(), material);
  object.frustumCulled = false;
  object.renderOrder = order;
  object.visible = false;
  return {
    object,
    material,
    set(positions, distances) {
      object.geometry.dispose();
      object.visible = positions.length > 0;
      if (positions.length === 0) return;
      object.geometry = new LineSegmentsGeometry();
      object.geometry.setPositions(positions);
      if (distances) {
        const along = new InstancedInterleavedBuffer(distances, 2, 1);
        object.geometry.setAttribute('instanceDistanceStart', new InterleavedBufferAttribute(along, 1, 0));
        object.geometry.setAttribute('instanceDistanceEnd', new InterleavedBufferAttribute(along, 1, 1));
      } else if (dash) object.computeLineDistances();
    },
    move(write) {
      if (!object.visible) return;
      const { data } = object.geometry.getAttribute('instanceStart') as InterleavedBufferAttribute;
      const [first, count] = write(data.array as Float32Array);
      if (count === 0) return;
      data.addUpdateRange(6 * first, 6 * count);
      data.needsUpdate = true;
    },
    dispose() {
      object.geometry.dispose();
      material.dispose();
    },
  };
}
