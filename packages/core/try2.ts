import { topologyOf, openDocument, shellOf, shellsOf } from './src/document/document.ts';
import { findEdge } from './src/mesh/connectivity.ts';
import { modelFromMesh } from './src/mesh/model.ts';
import { edgeLength } from './src/select/shortestPath.ts';
import { toadFerryman } from '../../demo/toadFerryman.ts';
import { unfoldShell } from './src/unfold/unfold.ts';
import { relax } from './src/relax/relax.ts';
import { measureStretch } from './src/measure/stretch.ts';
import { unattended } from './src/progress.ts';
const toad = toadFerryman();
const doc0 = openDocument(modelFromMesh('t', toad.mesh));
const { mesh, links } = topologyOf(doc0.model);
const seams = new Uint8Array(links.joined.length);
let len = 0;
for (const [a, b] of toad.seams) { const e = findEdge(links, a, b); seams[e] = 1; len += edgeLength(mesh, links, e); }
const doc = { ...doc0, seams };
let A = 0, S = 0;
for (let s = 0; s < shellsOf(doc).shellCount; s++) {
  const sh = shellOf(doc, s);
  const u = unfoldShell(sh, 'conformal', unattended).uv;
  const r = relax(sh, u, { steps: 60 }, unattended);
  const m = measureStretch(sh, r.uv); A += m.area; S += m.area * m.l2 ** 2;
  console.log(s, sh.triangles.length / 3, m.area.toFixed(2), m.l2.toFixed(3), m.linf.toFixed(2), r.converged);
}
console.log('len/sqrtA', len / Math.sqrt(A), 'L2', Math.sqrt(S / A));
