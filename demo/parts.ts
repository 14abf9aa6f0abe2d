/** One named part of a model: vertices and polygons of its own. */
export interface Part {
  readonly name: string;
  readonly group: string;
  readonly material: string;
  readonly vertices: [number, number, number][];
  readonly faces: number[][];
}

/** Quads between rings of vertices, seen from outside when the rings run up and anticlockwise from above is −. */
export function tubeFaces(rings: number, around: number): number[][] {
  const faces: number[][] = [];
  for (let i = 0; i + 1 < rings; i++) {
    for (let j = 0; j < around; j++) {
      const [a, b] = [i * around + j, i * around + ((j + 1) % around)];
      faces.push([a, a + around, b + around, b]);
    }
  }
  return faces;
}
