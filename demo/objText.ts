import { faceCount, type Mesh } from '@blunt-hem/core/mesh/mesh';
import type { Part } from './parts.ts';

const vertexLine = (...point: [number, number, number]): string =>
  `v ${point.map((value) => value.toFixed(6)).join(' ')}\n`;

/** One mesh of one material as an OBJ file. */
export function objOfMesh(name: string, material: string, mesh: Mesh): string {
  let text = `# Made by demo/build.ts\no ${name}\nusemtl ${material}\ns 1\n`;
  const { positions: p } = mesh;
  for (let i = 0; i < p.length; i += 3) text += vertexLine(p[i], p[i + 1], p[i + 2]);
  for (let f = 0; f < faceCount(mesh); f++) {
    const corners = mesh.cornerVertex.subarray(mesh.faceStart[f], mesh.faceStart[f + 1]);
    text += `f ${[...corners].map((v) => v + 1).join(' ')}\n`;
  }
  return text;
}

/** Named parts, each an object with its group and material, as one OBJ file. */
export function objOfParts(parts: readonly Part[]): string {
  let text = '# Made by demo/build.ts\n';
  let first = 1;
  for (const { name, group, material, vertices, faces } of parts) {
    text += `o ${name}\ng ${group}\nusemtl ${material}\ns 1\n`;
    for (const [x, y, z] of vertices) text += vertexLine(x, y, z);
    for (const face of faces) text += `f ${face.map((v) => v + first).join(' ')}\n`;
    first += vertices.length;
  }
  return text;
}
