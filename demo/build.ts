import { mkdirSync, writeFileSync } from 'node:fs';
import { faceCount, type Mesh } from '@blunt-hem/core/mesh/mesh';
import { gourdLantern, type Part } from './gourdLantern.ts';
import { puntThwart, reedPunt } from './reedPunt.ts';
import { toadFerryman } from './toadFerryman.ts';

/** Writes the demo models, and the seams they open with, where the app serves them from. */
const folder = new URL('../packages/app/public/demo/', import.meta.url);
mkdirSync(folder, { recursive: true });

const toad = toadFerryman();
writeFileSync(new URL('toad-ferryman.obj', folder), objOfMesh('Toad ferryman', 'Skin', toad.mesh));
writeFileSync(new URL('toad-ferryman.seams.json', folder), JSON.stringify({ edges: toad.seams }));
writeFileSync(new URL('gourd-lantern.obj', folder), objOfParts(gourdLantern()));
writeFileSync(new URL('gourd-lantern.seams.json', folder), JSON.stringify({ edges: [] }));
writeFileSync(new URL('reed-punt.glb', folder), await reedPunt());
writeFileSync(new URL('punt-thwart.obj', folder), puntThwart());

function vertexLine(...point: [number, number, number]): string {
  return `v ${point.map((value) => value.toFixed(6)).join(' ')}\n`;
}

function objOfMesh(name: string, material: string, mesh: Mesh): string {
  let text = `# Made by demo/build.ts\no ${name}\nusemtl ${material}\ns 1\n`;
  const { positions: p } = mesh;
  for (let i = 0; i < p.length; i += 3) text += vertexLine(p[i], p[i + 1], p[i + 2]);
  for (let f = 0; f < faceCount(mesh); f++) {
    const corners = mesh.cornerVertex.subarray(mesh.faceStart[f], mesh.faceStart[f + 1]);
    text += `f ${[...corners].map((v) => v + 1).join(' ')}\n`;
  }
  return text;
}

function objOfParts(parts: readonly Part[]): string {
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
