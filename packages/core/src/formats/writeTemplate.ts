import { current, type HemDocument, shellOf, shellsOf, shellUv, topologyOf } from '../document/document.ts';
import { borders } from '../surface/borders.ts';
import { facesOfShell } from '../surface/shells.ts';
import { frameOf } from '../surface/tiles.ts';

export interface TemplateOptions {
  /** Which tile: its number. */
  readonly tile: number;
  /** Pixels of its height. */
  readonly size: number;
  readonly fills: boolean;
  readonly edges: boolean;
  readonly numbers: boolean;
}

/** Layout picture of a tile for a paint program, as SVG; drawn as it is it makes a PNG. */
export function writeTemplate(
  document: HemDocument,
  { tile, size, fills, edges, numbers }: TemplateOptions,
): string {
  const { mesh, connectivity } = topologyOf(document.model);
  const { uv: cornerUv } = current(document);
  const shells = shellsOf(document);
  const [left, , right, top] = frameOf(
    document.tiles.find(({ number }) => number === tile) ?? document.tiles[0],
  );
  const width = Math.round((right - left) * size);
  const at = (u: number, v: number) => `${((u - left) * size).toFixed(2)} ${((top - v) * size).toFixed(2)}`;
  const line = Math.max(1, size / 1024);
  const parts: string[] = [];
  for (let s = 0; s < shells.shellCount; s++) {
    const shell = shellOf(document, s);
    const uv = shellUv(document, shell);
    if (!uv) continue;
    const outline = borders(shell.triangles, shell.vertexCorner.length)
      .loops.map((loop) => `M${[...loop].map((v) => at(uv[2 * v], uv[2 * v + 1])).join('L')}Z`)
      .join('');
    const inside: string[] = [];
    if (edges) {
      for (const f of facesOfShell(shells, s)) {
        for (let c = mesh.faceStart[f]; c < mesh.faceStart[f + 1]; c++) {
          const e = connectivity.cornerEdge[c];
          // Edges inside the shell, each from the first of its sides.
          if (
            !connectivity.isInterior[e] ||
            document.seams[e] ||
            connectivity.edgeCorners[connectivity.edgeCornerStart[e]] !== c
          )
            continue;
          const d = connectivity.nextCorner[c];
          inside.push(
            `M${at(cornerUv[2 * c], cornerUv[2 * c + 1])}L${at(cornerUv[2 * d], cornerUv[2 * d + 1])}`,
          );
        }
      }
    }
    const hue = (s * 137.508) % 360;
    parts.push(
      `<g id="shell-${s + 1}">`,
      fills ? `<path d="${outline}" fill="hsl(${hue.toFixed(0)} 35% 82%)"/>` : '',
      ...runs(inside).map(
        (run) =>
          `<path d="${run.join('')}" fill="none" stroke="#22302E" stroke-opacity="0.35" stroke-width="${line / 2}"/>`,
      ),
      `<path d="${outline}" fill="none" stroke="#22302E" stroke-width="${line * 1.5}" stroke-linejoin="round"/>`,
      numbers ? label(at, uv, s + 1, size) : '',
      '</g>\n',
    );
  }
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${size}" viewBox="0 0 ${width} ${size}">\n${parts.join('')}</svg>\n`;
}

/** Lines of one path: what draws them takes far longer for one path of a hundred thousand than for hundreds of short ones. */
const RUN = 256;

function runs<T>(list: readonly T[]): T[][] {
  return Array.from({ length: Math.ceil(list.length / RUN) }, (_, i) => list.slice(RUN * i, RUN * (i + 1)));
}

/** The shell's number at the mean of its points. */
function label(at: (u: number, v: number) => string, uv: Float64Array, number: number, size: number): string {
  let [u, v] = [0, 0];
  for (let i = 0; i < uv.length; i += 2) {
    u += uv[i] / (uv.length / 2);
    v += uv[i + 1] / (uv.length / 2);
  }
  const [x, y] = at(u, v).split(' ');
  return `<text x="${x}" y="${y}" font-size="${size / 64}" font-family="sans-serif" text-anchor="middle" fill="#22302E">${number}</text>`;
}
