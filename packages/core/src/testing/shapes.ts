import { type Mesh, meshFromPolygons } from '../mesh/mesh.ts';
import { type Shell, shellFromTriangles } from '../surface/shell.ts';

/** Shapes with known answers, for tests and benchmarks. */

/** The cube of side 2 about the origin: vertices 0–3 below (z = −1), 4–7 above, anticlockwise. */
export function cube(): Mesh {
  const corners = [-1, 1].flatMap((z) => [
    [-1, -1, z],
    [1, -1, z],
    [1, 1, z],
    [-1, 1, z],
  ]);
  return meshFromPolygons(corners, [
    [3, 2, 1, 0],
    [4, 5, 6, 7],
    [0, 1, 5, 4],
    [1, 2, 6, 5],
    [2, 3, 7, 6],
    [3, 0, 4, 7],
  ]);
}

/** Rows × columns quads; `at(i, j)` places vertex i of `rows + 1`, j of `columns + 1`. */
export function sheet(rows: number, columns: number, at: (i: number, j: number) => readonly number[]): Mesh {
  const vertices: (readonly number[])[] = [];
  for (let i = 0; i <= rows; i++) for (let j = 0; j <= columns; j++) vertices.push(at(i, j));
  const faces: number[][] = [];
  for (let i = 0; i < rows; i++) {
    for (let j = 0; j < columns; j++) {
      const a = i * (columns + 1) + j;
      faces.push([a, a + 1, a + columns + 2, a + columns + 1]);
    }
  }
  return meshFromPolygons(vertices, faces);
}

/** A torus of quads: `major` round the axis, `minor` round the tube. */
export function torus(major: number, minor: number, R = 2, r = 0.7): Mesh {
  const vertices: number[][] = [];
  const faces: number[][] = [];
  const id = (i: number, j: number) => (i % major) * minor + (j % minor);
  for (let i = 0; i < major; i++) {
    for (let j = 0; j < minor; j++) {
      const [a, b] = [(2 * Math.PI * i) / major, (2 * Math.PI * j) / minor];
      const d = R + r * Math.cos(b);
      vertices.push([d * Math.cos(a), d * Math.sin(a), r * Math.sin(b)]);
      faces.push([id(i, j), id(i + 1, j), id(i + 1, j + 1), id(i, j + 1)]);
    }
  }
  return meshFromPolygons(vertices, faces);
}

/** A cap of the unit sphere about +y, from the pole down to the polar angle `reach`: rings × sectors. */
export function sphericalCap(rings: number, sectors: number, reach: number): Shell {
  const positions = [0, 1, 0];
  const triangles: number[] = [];
  for (let i = 1; i <= rings; i++) {
    for (let j = 0; j < sectors; j++) {
      const [a, b] = [(reach * i) / rings, (2 * Math.PI * j) / sectors];
      positions.push(Math.sin(a) * Math.cos(b), Math.cos(a), Math.sin(a) * Math.sin(b));
    }
  }
  const id = (i: number, j: number) => (i === 0 ? 0 : 1 + (i - 1) * sectors + (j % sectors));
  for (let j = 0; j < sectors; j++) triangles.push(0, id(1, j + 1), id(1, j));
  for (let i = 1; i < rings; i++) {
    for (let j = 0; j < sectors; j++) {
      triangles.push(id(i, j), id(i, j + 1), id(i + 1, j), id(i, j + 1), id(i + 1, j + 1), id(i + 1, j));
    }
  }
  return shellFromTriangles(positions, triangles);
}

/** A mesh of quads or triangles as one shell, uncut. */
export function wholeShell(mesh: Mesh): Shell {
  const triangles: number[] = [];
  for (let f = 0; f + 1 < mesh.faceStart.length; f++) {
    const first = mesh.faceStart[f];
    for (let k = 1; first + k + 1 < mesh.faceStart[f + 1]; k++) {
      triangles.push(
        mesh.cornerVertex[first],
        mesh.cornerVertex[first + k],
        mesh.cornerVertex[first + k + 1],
      );
    }
  }
  return shellFromTriangles(mesh.positions, triangles);
}

/** A tapered tube with a closed tip, open below: rings × sectors, from radius 1 at the bottom. */
export function horn(rings: number, sectors: number, length: number): Shell {
  const positions: number[] = [];
  const triangles: number[] = [];
  const tip = rings * sectors;
  const id = (i: number, j: number) => i * sectors + (j % sectors);
  for (let i = 0; i < rings; i++) {
    for (let j = 0; j < sectors; j++) {
      const [radius, angle] = [1 - (0.97 * i) / rings, (2 * Math.PI * j) / sectors];
      positions.push(radius * Math.cos(angle), (length * i) / rings, -radius * Math.sin(angle));
      if (i + 1 === rings) triangles.push(id(i, j), id(i, j + 1), tip);
      else triangles.push(id(i, j), id(i, j + 1), id(i + 1, j + 1), id(i, j), id(i + 1, j + 1), id(i + 1, j));
    }
  }
  positions.push(0, length, 0);
  return shellFromTriangles(positions, triangles);
}

/** A tube of radius 1, open at both ends: (rings + 1) × sectors vertices. */
export function tube(rings: number, sectors: number, length: number): Shell {
  const positions: number[] = [];
  const triangles: number[] = [];
  const id = (i: number, j: number) => i * sectors + (j % sectors);
  for (let i = 0; i <= rings; i++) {
    for (let j = 0; j < sectors; j++) {
      const angle = (2 * Math.PI * j) / sectors;
      positions.push(Math.cos(angle), (length * i) / rings, -Math.sin(angle));
      if (i === rings) continue;
      triangles.push(id(i, j), id(i, j + 1), id(i + 1, j + 1), id(i, j), id(i + 1, j + 1), id(i + 1, j));
    }
  }
  return shellFromTriangles(positions, triangles);
}
