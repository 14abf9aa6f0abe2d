import { type HemDocument, shellsOf, topologyOf } from '../document/document.ts';
import { boundingBox, type Mesh } from '../mesh/mesh.ts';
import { faceNormals } from '../mesh/normals.ts';

/** How far the model is turned about its upright axis, radians. */
const TURN = -0.6;
/** A marked place is shown with at least this part of the model round it. */
const ROUND = 0.18;
const MARKED = [194, 24, 107];

/**
 * A small picture of a model, drawn without a graphics card: from the front, a little from the side and above, shells in
 * different tints.
 *
 * @param marked  1 for each face that is brought into view and shines through all others
 * @returns RGBA, `4 × width × height`
 */
export function drawPicture(
  document: HemDocument,
  width: number,
  height: number,
  marked?: Uint8Array,
): Uint8ClampedArray {
  const { mesh, triangulation } = topologyOf(document.model);
  const pixels = new Uint8ClampedArray(4 * width * height);
  for (let i = 0; i < pixels.length; i += 4) pixels.set([233, 227, 214, 255], i);
  const whole = ball(boundingBox(mesh.positions));
  const { middle, radius: own } = marked ? ball(boundingBox(pointsOf(mesh, marked))) : whole;
  const radius = Math.max(own, ROUND * whole.radius);
  const scale = (0.56 * Math.min(width, height)) / radius;
  const tilt = 0.3;
  const [ct, st, cp, sp] = [Math.cos(TURN), Math.sin(TURN), Math.cos(tilt), Math.sin(tilt)];
  const lies = document.upAxis === 1;
  const view = (x: number, ownY: number, ownZ: number) => {
    const [y, z] = lies ? [ownZ, -ownY] : [ownY, ownZ];
    const [rx, rz] = [ct * x + st * z, -st * x + ct * z];
    return [rx, cp * y - sp * rz, sp * y + cp * rz];
  };
  const normals = faceNormals(mesh);
  const depth = new Float64Array(width * height).fill(-Infinity);
  const { faceShell } = shellsOf(document);
  const triangle = (t: number) =>
    [0, 1, 2].map((k) => {
      const i = 3 * mesh.cornerVertex[triangulation.triangleCorners[3 * t + k]];
      const p = mesh.positions;
      const [x, y, z] = view(p[i] - middle[0], p[i + 1] - middle[1], p[i + 2] - middle[2]);
      return [width / 2 + scale * x, height / 2 - scale * y, z];
    });
  const light = (f: number, both: boolean) => {
    const [nx, ny, nz] = view(normals[3 * f], normals[3 * f + 1], normals[3 * f + 2]);
    const facing = both && nz < 0 ? -1 : 1;
    return 0.35 + 0.65 * Math.max(0, facing * (0.35 * nx + 0.6 * ny + 0.72 * nz));
  };
  for (let t = 0; t < triangulation.triangleFace.length; t++) {
    const f = triangulation.triangleFace[t];
    if (view(normals[3 * f], normals[3 * f + 1], normals[3 * f + 2])[2] <= 0) continue;
    const colour = tint(faceShell[f]).map((value) => value * light(f, false));
    fillTriangle(pixels, depth, width, height, triangle(t), colour);
  }
  if (!marked) return pixels;
  depth.fill(-Infinity);
  for (let t = 0; t < triangulation.triangleFace.length; t++) {
    const f = triangulation.triangleFace[t];
    if (!marked[f]) continue;
    const colour = MARKED.map((value) => value * light(f, true));
    fillTriangle(pixels, depth, width, height, triangle(t), colour);
  }
  return pixels;
}

/** The ball round a box. */
function ball(box: Float64Array): { middle: number[]; radius: number } {
  return {
    middle: [0, 1, 2].map((k) => (box[k] + box[k + 3]) / 2),
    radius: 0.5 * Math.hypot(box[3] - box[0], box[4] - box[1], box[5] - box[2]) || 1,
  };
}

/** Points of all corners of marked faces. */
function pointsOf({ positions, faceStart, cornerVertex }: Mesh, marked: Uint8Array): Float64Array {
  const points: number[] = [];
  marked.forEach((mark, f) => {
    if (!mark) return;
    for (let c = faceStart[f]; c < faceStart[f + 1]; c++)
      points.push(...positions.subarray(3 * cornerVertex[c], 3 * cornerVertex[c] + 3));
  });
  return Float64Array.from(points);
}

/** A warm grey, leaning a little another way for every shell. */
function tint(shell: number): [number, number, number] {
  const angle = shell * 2.39996;
  return [214 + 22 * Math.cos(angle), 205 + 22 * Math.cos(angle - 2.1), 190 + 22 * Math.cos(angle + 2.1)];
}

function fillTriangle(
  pixels: Uint8ClampedArray,
  depth: Float64Array,
  width: number,
  height: number,
  [a, b, c]: readonly (readonly number[])[],
  colour: readonly number[],
): void {
  const area = (b[0] - a[0]) * (c[1] - a[1]) - (c[0] - a[0]) * (b[1] - a[1]);
  if (area === 0) return;
  const [x0, x1] = [
    Math.max(0, Math.floor(Math.min(a[0], b[0], c[0]))),
    Math.min(width - 1, Math.ceil(Math.max(a[0], b[0], c[0]))),
  ];
  const [y0, y1] = [
    Math.max(0, Math.floor(Math.min(a[1], b[1], c[1]))),
    Math.min(height - 1, Math.ceil(Math.max(a[1], b[1], c[1]))),
  ];
  for (let y = y0; y <= y1; y++) {
    for (let x = x0; x <= x1; x++) {
      const [px, py] = [x + 0.5, y + 0.5];
      const wb = ((px - a[0]) * (c[1] - a[1]) - (c[0] - a[0]) * (py - a[1])) / area;
      const wc = ((b[0] - a[0]) * (py - a[1]) - (px - a[0]) * (b[1] - a[1])) / area;
      if (wb < 0 || wc < 0 || wb + wc > 1) continue;
      const z = a[2] + wb * (b[2] - a[2]) + wc * (c[2] - a[2]);
      if (z <= depth[y * width + x]) continue;
      depth[y * width + x] = z;
      pixels.set([colour[0], colour[1], colour[2], 255], 4 * (y * width + x));
    }
  }
}
