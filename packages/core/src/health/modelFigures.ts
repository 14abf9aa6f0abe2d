import { loosePieces } from '../mesh/model.ts';
import { borders } from '../surface/borders.ts';
import { edgeLength } from './borderEdges.ts';
import type { Patient } from './check.ts';

export interface PieceFigures {
  readonly faces: number;
  readonly vertices: number;
  /** Vertices − edges + faces. */
  readonly euler: number;
  /** Border loops. */
  readonly borders: number;
  /** Handles; undefined where the piece is not a surface everywhere. */
  readonly genus: number | undefined;
}

/** What a model is made of. */
export interface ModelFigures {
  readonly vertices: number;
  readonly edges: number;
  readonly faces: number;
  /** Faces with three, with four, and with more corners. */
  readonly triangles: number;
  readonly quads: number;
  readonly polygons: number;
  readonly leastEdge: number;
  readonly meanEdge: number;
  readonly greatestEdge: number;
  /** Pieces that share no edge, in the order of their first face. */
  readonly pieces: readonly PieceFigures[];
}

/** Counts, lengths, and the topology of every piece (Euler and Poincaré: χ = 2 − 2 genus − borders). */
export function modelFigures(patient: Patient): ModelFigures {
  const { mesh, connectivity, triangulation } = patient;
  const faces = mesh.faceStart.length - 1;
  const edges = connectivity.isInterior.length;
  let [triangles, quads, least, sum, greatest] = [0, 0, Infinity, 0, 0];
  for (let f = 0; f < faces; f++) {
    const size = mesh.faceStart[f + 1] - mesh.faceStart[f];
    if (size === 3) triangles++;
    else if (size === 4) quads++;
  }
  for (let e = 0; e < edges; e++) {
    const length = edgeLength(mesh.positions, connectivity.edgeVertices, e);
    least = Math.min(least, length);
    greatest = Math.max(greatest, length);
    sum += length;
  }
  const { label, count } = loosePieces(mesh, connectivity);
  const own: number[][] = Array.from({ length: count }, () => []);
  triangulation.triangleFace.forEach((f, t) => {
    own[label[f]].push(t);
  });
  return {
    vertices: mesh.positions.length / 3,
    edges,
    faces,
    triangles,
    quads,
    polygons: faces - triangles - quads,
    leastEdge: edges > 0 ? least : 0,
    meanEdge: edges > 0 ? sum / edges : 0,
    greatestEdge: greatest,
    pieces: own.map((list) => pieceFigures(patient, list)),
  };
}

/** Of the piece made of some triangles: splitting polygons changes neither χ nor borders. */
function pieceFigures({ mesh, triangulation }: Patient, triangles: readonly number[]): PieceFigures {
  const numbers = new Map<number, number>();
  const corners = Uint32Array.from({ length: 3 * triangles.length }, (_, i) => {
    const v = mesh.cornerVertex[triangulation.triangleCorners[3 * triangles[Math.floor(i / 3)] + (i % 3)]];
    let number = numbers.get(v);
    if (number === undefined) {
      number = numbers.size;
      numbers.set(v, number);
    }
    return number;
  });
  const { loops, edgeCount, nonManifold } = borders(corners, numbers.size);
  const euler = numbers.size - edgeCount + triangles.length;
  const genus = (2 - euler - loops.length) / 2;
  return {
    faces: new Set(triangles.map((t) => triangulation.triangleFace[t])).size,
    vertices: numbers.size,
    euler,
    borders: loops.length,
    genus: nonManifold || !Number.isInteger(genus) || genus < 0 ? undefined : genus,
  };
}
