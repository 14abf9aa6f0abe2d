import { readFileSync } from 'node:fs';
import { topologyOf } from './src/document/document.ts';
import { readModel } from './src/formats/readModel.ts';
import { counterparts } from './src/symmetry/counterparts.ts';
import { findMirror, findTurn, isometryOf } from './src/symmetry/findSymmetry.ts';

for (const f of [
  '../app/public/demo/toad-ferryman.obj',
  '../app/public/demo/gourd-lantern.obj',
  '/tmp/mud-snail.obj',
]) {
  const model = await readModel(readFileSync(f), f);
  const { mesh, links } = topologyOf(model);
  let t = performance.now();
  const m = findMirror(mesh, links);
  const tu = findTurn(mesh, links);
  console.log(f, m, tu, performance.now() - t);
  t = performance.now();
  for (const s of [m, tu])
    if (s) {
      const c = counterparts(mesh, links, isometryOf(s));
      console.log(
        [c.vertices, c.edges, c.faces].map((l) => [l.length, l.filter((x) => x < 0).length]),
        performance.now() - t,
      );
    }
}
