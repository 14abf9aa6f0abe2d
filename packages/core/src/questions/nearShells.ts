import { type HemDocument, shellsOf, topologyOf } from '../document/document.ts';
import { positive, record } from '../params.ts';
import { question } from './question.ts';

/** Pairs of shells that lie nearer to one another than a gap, tile widths: two numbers a pair. */
export const nearShells = question({
  name: 'near-shells',
  params: record({ gap: positive() }),
  background: true,
  answer: (document, { gap }, context): Promise<Uint32Array> =>
    context.jobs.run('near-shells', { ...bordersOf(document), gap }, context),
});

/** Every side of a seam or a border of the file that has UVs. */
function bordersOf(document: HemDocument): { segments: Float64Array; shells: Uint32Array } {
  const { joined, cornerEdge, cornerFace, nextCorner } = topologyOf(document.model).links;
  const { uv } = document.uvSets[document.currentUv];
  const { faceShell } = shellsOf(document);
  const segments: number[] = [];
  const shells: number[] = [];
  for (let c = 0; c < cornerEdge.length; c++) {
    const e = cornerEdge[c];
    const d = nextCorner[c];
    if ((joined[e] && !document.seams[e]) || Number.isNaN(uv[2 * c] + uv[2 * d])) continue;
    segments.push(uv[2 * c], uv[2 * c + 1], uv[2 * d], uv[2 * d + 1]);
    shells.push(faceShell[cornerFace[c]]);
  }
  return { segments: Float64Array.from(segments), shells: Uint32Array.from(shells) };
}
