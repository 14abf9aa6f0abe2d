import { type HemDocument, shellsOf, topologyOf } from '@blunt-hem/core/document/document';
import type { ShellFigures } from '@blunt-hem/core/document/figures';
import { cornerNormals } from '@blunt-hem/core/formats/cornerNormals';
import type { Connectivity } from '@blunt-hem/core/mesh/connectivity';
import { boundingBox } from '@blunt-hem/core/mesh/mesh';
import type { Model } from '@blunt-hem/core/mesh/model';
import { mainKind, PART_KINDS, partsBy } from '@blunt-hem/core/mesh/parts';
import { facesOfShell } from '@blunt-hem/core/surface/shells';
import { boardLines } from './boardLines.ts';
import { type FlatBuffers, type Histogram, type ModelBuffers, NO_UV, type PartList } from './protocol.ts';

export function modelBuffers(document: HemDocument): ModelBuffers {
  const { model } = document;
  const { mesh, triangulation, links } = topologyOf(model);
  const { triangleCorners, triangleFace } = triangulation;
  const corner = cornerNormals(model);
  const positions = new Float32Array(3 * triangleCorners.length);
  const normals = new Float32Array(3 * triangleCorners.length);
  for (let i = 0; i < triangleCorners.length; i++) {
    const c = triangleCorners[i];
    for (let k = 0; k < 3; k++) {
      positions[3 * i + k] = mesh.positions[3 * mesh.cornerVertex[c] + k];
      normals[3 * i + k] = corner[3 * c + k];
    }
  }
  const edgePositions = new Float32Array(3 * links.edgeVertices.length);
  for (let i = 0; i < links.edgeVertices.length; i++) {
    for (let k = 0; k < 3; k++) edgePositions[3 * i + k] = mesh.positions[3 * links.edgeVertices[i] + k];
  }
  return {
    name: model.name,
    repeats: model.source.format,
    positions,
    normals,
    triangleFace: triangleFace.slice(),
    parts: partLists(model, links),
    edgePositions,
    joined: links.joined.slice(),
    edgeFaces: edgeFaces(links),
    edgeVertices: links.edgeVertices.slice(),
    box: boundingBox(mesh.positions),
  };
}

function edgeFaces({ joined, edgeCornerStart, edgeCorners, cornerFace }: Connectivity): Uint32Array {
  return Uint32Array.from({ length: 2 * joined.length }, (_, i) => {
    const e = i >> 1;
    return cornerFace[edgeCorners[i & 1 ? edgeCornerStart[e + 1] - 1 : edgeCornerStart[e]]];
  });
}

/** The main kind first. */
function partLists(model: Model, links: Connectivity): PartList[] {
  const main = mainKind(model);
  const kinds = [main, ...PART_KINDS.filter((kind) => kind !== main)];
  return kinds.flatMap((kind) => {
    const { facePart, names } = partsBy(kind, model, links);
    if (names.length < 2 && kind !== main) return [];
    const faces = new Array<number>(names.length).fill(0);
    for (const part of facePart) faces[part]++;
    return [{ kind, facePart: facePart.slice(), names, faces }];
  });
}

export function flatBuffers(document: HemDocument, figures: readonly ShellFigures[]): FlatBuffers {
  const { triangulation, triangleStart, links } = topologyOf(document.model);
  const { triangleCorners } = triangulation;
  const { uv: cornerUv } = document.uvSets[document.currentUv];
  const value = (i: number) => (Number.isNaN(cornerUv[i]) ? NO_UV : cornerUv[i]);
  const uv = new Float32Array(2 * triangleCorners.length);
  for (let i = 0; i < triangleCorners.length; i++) {
    uv[2 * i] = value(2 * triangleCorners[i]);
    uv[2 * i + 1] = value(2 * triangleCorners[i] + 1);
  }
  const shells = shellsOf(document);
  const stretch = new Float32Array(2 * triangleCorners.length);
  for (const { shell, stretch: measured } of figures) {
    if (!measured) continue;
    let at = 0;
    for (const f of facesOfShell(shells, shell)) {
      for (let t = triangleStart[f]; t < triangleStart[f + 1]; t++, at++) {
        for (let i = 6 * t; i < 6 * t + 6; i += 2) {
          stretch[i] = measured.logArea[at];
          stretch[i + 1] = measured.angle[at];
        }
      }
    }
  }
  const edgeUv = new Float32Array(8 * links.joined.length).fill(NO_UV);
  for (let e = 0; e < links.joined.length; e++) {
    const first = links.edgeCornerStart[e];
    for (let side = 0; side < Math.min(2, links.edgeCornerStart[e + 1] - first); side++) {
      const c = links.edgeCorners[first + side];
      const next = links.nextCorner[c];
      const at = 8 * e + 4 * side;
      edgeUv[at] = value(2 * c);
      edgeUv[at + 1] = value(2 * c + 1);
      edgeUv[at + 2] = value(2 * next);
      edgeUv[at + 3] = value(2 * next + 1);
    }
  }
  const { seams, hidden } = document;
  const { joined, cornerFace, edgeCorners, edgeCornerStart } = links;
  const shown = (e: number) =>
    edgeCorners.subarray(edgeCornerStart[e], edgeCornerStart[e + 1]).some((c) => !hidden[cornerFace[c]]);
  const all = Array.from(joined.keys());
  const visible = hidden.includes(1) ? all.filter(shown) : all;
  return {
    uv,
    stretch,
    edgeUv,
    seamLines: modelLines(
      document,
      visible.filter((e) => seams[e] && joined[e]),
    ),
    borderLines: boardLines(
      edgeUv,
      visible.filter((e) => seams[e] || !joined[e]),
    ),
    innerLines: boardLines(
      edgeUv,
      visible.filter((e) => !seams[e] && joined[e]),
    ),
    faceShell: shells.faceShell.slice(),
  };
}

function modelLines(document: HemDocument, edges: readonly number[]): Float32Array {
  const { mesh, links } = topologyOf(document.model);
  const lines = new Float32Array(6 * edges.length);
  edges.forEach((e, i) => {
    for (let k = 0; k < 6; k++) {
      const v = links.edgeVertices[2 * e + Math.floor(k / 3)];
      lines[6 * i + k] = mesh.positions[3 * v + (k % 3)];
    }
  });
  return lines;
}

/** Surface by how it is stretched, each bin a share of the whole. */
export function histogram(
  figures: readonly ShellFigures[],
  field: 'logArea' | 'angle',
  from: number,
  to: number,
  bins = 24,
): Histogram {
  const counts = new Array<number>(bins).fill(0);
  let total = 0;
  for (const { stretch } of figures) {
    if (!stretch) continue;
    for (const value of stretch[field]) {
      counts[Math.max(0, Math.min(bins - 1, Math.floor((bins * (value - from)) / (to - from))))]++;
      total++;
    }
  }
  return { from, to, counts: counts.map((count) => count / (total || 1)) };
}
