import { gourdLantern } from '../demo/gourdLantern.ts';
import { mudSnail } from '../demo/mudSnail.ts';
import { objOfParts } from '../demo/objText.ts';
import { toadFerryman } from '../demo/toadFerryman.ts';
import { applyDelta } from '../packages/core/src/document/delta.ts';
import { openDocument, shellOf, shellsOf, topologyOf } from '../packages/core/src/document/document.ts';
import { readModel } from '../packages/core/src/formats/readModel.ts';
import { localJobs } from '../packages/core/src/jobs/index.ts';
import { connectivityOf, findEdge } from '../packages/core/src/mesh/connectivity.ts';
import { type Model, modelFromMesh } from '../packages/core/src/mesh/model.ts';
import { vertexNormals } from '../packages/core/src/mesh/normals.ts';
import { frontOf } from '../packages/core/src/mesh/stance.ts';
import { carryOut } from '../packages/core/src/operations/catalogue.ts';
import { localContext } from '../packages/core/src/operations/localContext.ts';
import { unattended } from '../packages/core/src/progress.ts';
import { facesOfCluster, type Joins, normalClusters } from '../packages/core/src/propose/normalClusters.ts';
import { predict } from '../packages/core/src/propose/predict.ts';
import { answerQuestion } from '../packages/core/src/questions/index.ts';
import { router as routerOver } from '../packages/core/src/seams/route.ts';
import { type Course, courseOf } from '../packages/core/src/seams/straightenSeam.ts';
import { borderOfFaces } from '../packages/core/src/select/borderOfFaces.ts';
import { runsOfEdges } from '../packages/core/src/select/orderedRun.ts';
import { ringAround } from '../packages/core/src/select/ringAround.ts';
import { edgeLength, shortestPath } from '../packages/core/src/select/shortestPath.ts';
import { meshOfShell } from '../packages/core/src/surface/cutShell.ts';
import { distanceFrom } from '../packages/core/src/surface/distanceFrom.ts';
import { VIEWS } from '../packages/core/src/surface/visibility.ts';
import { glove, head, tentacle } from '../packages/core/src/testing/sculpts.ts';
import { seeded } from '../packages/core/src/testing/wander.ts';
import { count, seconds, type Table } from './table.ts';

const context = { ...unattended, jobs: localJobs };

interface Case {
  readonly name: string;
  readonly model: Model;
  /** Seams by hand, where there are any. */
  readonly hand?: readonly (readonly [number, number])[];
}

async function cases(large: boolean): Promise<Case[]> {
  const toad = toadFerryman();
  const lantern = new TextEncoder().encode(objOfParts(gourdLantern()));
  return [
    { name: 'toad ferryman', model: modelFromMesh('toad', toad.mesh), hand: toad.seams },
    { name: 'gourd lantern', model: await readModel(lantern, 'gourd-lantern.obj') },
    { name: 'sculpted head', model: modelFromMesh('head', meshOfShell(head(60))) },
    { name: 'glove', model: modelFromMesh('glove', meshOfShell(glove(110))) },
    { name: 'tentacle', model: modelFromMesh('tentacle', meshOfShell(tentacle(90))) },
    ...(large ? [{ name: 'mud snail', model: modelFromMesh('snail', mudSnail()) }] : []),
  ];
}

/** What comes of some seams: shells, mean L2 after relaxing, the worst, and length over the root of the surface. */
function outcome(model: Model, edges: Iterable<number>) {
  const bare = openDocument(model, { keepUvs: false });
  const { mesh, connectivity } = topologyOf(model);
  const seams = bare.seams.slice();
  let length = 0;
  for (const e of edges) {
    seams[e] = 1;
    length += edgeLength(mesh, connectivity, e);
  }
  const document = { ...bare, seams };
  const told = Array.from({ length: shellsOf(document).shellCount }, (_, s) =>
    predict(shellOf(document, s), unattended),
  );
  const area = told.reduce((sum, t) => sum + t.area, 0);
  return {
    shells: told.length,
    l2: Math.sqrt(told.reduce((sum, t) => sum + t.area * (t.l2 ?? 9) ** 2, 0) / area),
    worst: Math.max(...told.map((t) => t.l2 ?? Infinity)),
    length: length / Math.sqrt(area),
    onThemselves: told.filter((t) => t.liesOnItself).length,
  };
}

/** Borders of so many clusters by normals. */
function clusterBorders(model: Model, { faces, parts }: Joins, many: number): number[] {
  const { connectivity } = topologyOf(model);
  const isPart = new Uint8Array(faces + parts.length / 2);
  const kept = faces + Math.max(0, Math.min(parts.length / 2, faces - many));
  for (let c = faces; c < kept; c++) isPart[parts[2 * (c - faces)]] = isPart[parts[2 * (c - faces) + 1]] = 1;
  const edges = new Set<number>();
  for (let c = 0; c < kept; c++)
    if (!isPart[c])
      for (const e of borderOfFaces(connectivity, facesOfCluster({ faces, parts }, c))) edges.add(e);
  return [...edges];
}

/** Proposed seams: shells, stretch, length and where they lie; beside clusters by normals, and seams by hand, at no more stretch. */
export async function seams(large: boolean): Promise<Table> {
  const rows: string[][] = [];
  for (const { name, model, hand } of await cases(large)) {
    const { mesh, connectivity, triangulation } = topologyOf(model);
    const row = (what: string, got: ReturnType<typeof outcome>, more: readonly string[]) =>
      rows.push([
        `${name}, ${what}`,
        count(triangulation.triangleFace.length),
        String(got.shells),
        got.l2.toFixed(3),
        got.worst.toFixed(3),
        got.length.toFixed(2),
        String(got.onThemselves),
        ...more,
      ]);
    let clean: ReturnType<typeof outcome> | undefined;
    for (const preset of ['clean', 'rough'] as const) {
      const document = openDocument(model, { keepUvs: false });
      const start = performance.now();
      const told = await answerQuestion(document, 'proposal', { preset }, context);
      const took = (performance.now() - start) / 1000;
      const got = outcome(model, told.edges);
      clean ??= got;
      const symmetric = told.symmetric === undefined ? '–' : `${Math.round(100 * told.symmetric)} %`;
      row(preset, got, [`${Math.round(100 * told.hidden)} %`, symmetric, seconds(took)]);
    }
    if (triangulation.triangleFace.length < 40_000 && clean) {
      const joins = normalClusters(mesh, connectivity, (e) => connectivity.isInterior[e] === 1);
      let many = 8;
      let got = outcome(model, clusterBorders(model, joins, many));
      const best = clean;
      // At no more stretch, and lying as clear of themselves.
      const isWorse = () =>
        got.l2 > best.l2 || got.worst > 1 + 2 * (best.worst - 1) || got.onThemselves > best.onThemselves;
      while (isWorse() && many < 2000) {
        many = Math.ceil(1.3 * many);
        got = outcome(model, clusterBorders(model, joins, many));
      }
      row(`${many} clusters by normals`, got, ['', '', '']);
    }
    if (hand)
      row(
        'by hand',
        outcome(
          model,
          hand.map(([a, b]) => findEdge(connectivity, a, b)),
        ),
        ['', '', ''],
      );
  }
  return {
    title: 'Proposed seams',
    columns: [
      'model',
      'triangles',
      'shells',
      'L2',
      'worst L2',
      'length ∕ √area',
      'shells on themselves',
      'in the least seen third',
      'symmetric',
      's',
    ],
    rows,
  };
}

/** A seam lies on the front, or at the back, where its surface faces it within so many degrees. */
const FACING = Math.cos((66 * Math.PI) / 180);

/** Where proposed seams lie, by how a model is going to be looked at. */
export async function views(): Promise<Table> {
  const rows: string[][] = [];
  for (const { name, model } of (await cases(false)).filter((each) => each.name !== 'gourd lantern'))
    for (const view of VIEWS) {
      const document = openDocument(model, { keepUvs: false });
      const { mesh, connectivity } = topologyOf(model);
      const { edges } = await answerQuestion(document, 'proposal', { view }, context);
      const normals = vertexNormals(mesh);
      const front = frontOf(document);
      const along = (v: number) => front.reduce((sum, x, k) => sum + x * normals[3 * v + k], 0);
      let [ahead, behind, all] = [0, 0, 0];
      for (const e of edges) {
        const length = edgeLength(mesh, connectivity, e);
        const facing =
          (along(connectivity.edgeVertices[2 * e]) + along(connectivity.edgeVertices[2 * e + 1])) / 2;
        all += length;
        if (facing > FACING) ahead += length;
        if (facing < -FACING) behind += length;
      }
      const share = (part: number) => `${Math.round((100 * part) / all)} %`;
      rows.push([`${name}, ${view}`, outcome(model, edges).length.toFixed(2), share(ahead), share(behind)]);
    }
  return {
    title: 'Where proposed seams lie, by how a model is looked at',
    columns: ['model', 'length ∕ √area', 'on the front', 'at the back'],
    rows,
  };
}

/** How much ways and rings turn over triangles: the shortest, and as they are run straight. Geodesics turn only as the surface does. */
export async function turning(): Promise<Table> {
  const rows: string[][] = [];
  for (const [name, shell] of [
    ['sculpted head', head(60)],
    ['glove', glove(110)],
    ['tentacle', tentacle(90)],
  ] as const) {
    const mesh = meshOfShell(shell);
    const connectivity = connectivityOf(mesh);
    const lengths = Float64Array.from(connectivity.isInterior.keys(), (e) =>
      edgeLength(mesh, connectivity, e),
    );
    const router = routerOver(mesh, connectivity, lengths);
    const random = seeded(3);
    const vertices = mesh.positions.length / 3;
    const [shortest, straight] = [emptyCourse(), emptyCourse()];
    let geodesic = 0;
    for (let i = 0; i < 40; i++) {
      const [a, b] = [Math.floor(random() * vertices), Math.floor(random() * vertices)];
      const path = shortestPath(connectivity, a, b, (e) => lengths[e]);
      const edges = path.edgesTo(b);
      if (edges.length < 8) continue;
      add(shortest, courseOf(mesh, connectivity, runsOfEdges(connectivity, edges)[0]));
      add(straight, courseOf(mesh, connectivity, runsOfEdges(connectivity, router.leg(a, b) ?? [])[0]));
      geodesic += distanceFrom(mesh.positions, shell.triangles, [a])[b];
    }
    // Degrees a mean edge.
    const edge = lengths.reduce((sum, length) => sum + length, 0) / lengths.length;
    const each = ({ turning, length }: typeof shortest) =>
      (((turning / length) * edge * 180) / Math.PI).toFixed(1);
    rows.push([
      name,
      count(shell.triangles.length / 3),
      each(shortest),
      each(straight),
      (shortest.length / geodesic).toFixed(3),
      (straight.length / geodesic).toFixed(3),
    ]);
  }
  return {
    title:
      'How much ways turn, degrees a length of an edge, and how long they are against the way straight over the surface',
    columns: [
      'model',
      'triangles',
      'shortest turns',
      'run straight turns',
      'shortest, length',
      'run straight, length',
    ],
    rows,
  };
}

const emptyCourse = () => ({ length: 0, turning: 0 });

function add(sum: ReturnType<typeof emptyCourse>, { length, turning }: Course): void {
  sum.length += length;
  sum.turning += turning;
}

/** What the hand waits for while seams are chosen on a sculpt: once for all, then at every point. */
export async function ways(large: boolean): Promise<Table> {
  const rows: string[][] = [];
  for (const cells of large ? [32, 96, 210, 470] : [32, 96, 210]) {
    const document = openDocument(modelFromMesh('glove', meshOfShell(glove(cells))), { keepUvs: false });
    const { mesh, connectivity, triangulation } = topologyOf(document.model);
    const last = mesh.positions.length / 3 - 1;
    const timed = async (work: () => unknown): Promise<string> => {
      const start = performance.now();
      await work();
      return (performance.now() - start).toFixed(0);
    };
    const ray = { origin: [0, 0.3, 9] as const, direction: [0, 0, -1] as const };
    const pick = () => answerQuestion(document, 'pick-model', ray as never, context);
    // Within the shell, away from its border.
    const ends = [0.45, 0.5].map((part) => Math.floor(part * last));
    const way = shortestPath(connectivity, ends[0], ends[1], (e) =>
      connectivity.isInterior[e] ? edgeLength(mesh, connectivity, e) : Infinity,
    );
    const slit = way.edgesTo(ends[1]);
    let cut = document;
    const act = async (operation: string, params: object) => {
      cut = applyDelta(cut, (await carryOut(cut, { operation, params }, localContext)).delta);
    };
    const through = (...vertices: number[]) =>
      answerQuestion(document, 'route', { through: vertices }, context);
    rows.push([
      count(triangulation.triangleFace.length),
      await timed(() => answerQuestion(document, 'visibility', {}, context)),
      await timed(() => through(0, last)),
      await timed(() => through(0, Math.floor(last / 2))),
      await timed(() => through(0, Math.floor(last / 3))),
      await timed(() => ringAround(mesh, connectivity, Math.floor(last / 2))),
      await timed(() => answerQuestion(document, 'symmetry', { by: 'mirror' }, context)),
      await timed(pick),
      await timed(pick),
      await timed(() => act('cut', { edges: slit })),
      await timed(() => act('unfold', { shells: 'stale' })),
      await timed(() => answerQuestion(cut, 'shifted-seam', { edges: [...slit], rows: 3 }, context)),
    ]);
  }
  return {
    title: 'While seams are chosen, milliseconds',
    columns: [
      'triangles',
      'what is seen, once',
      'route right across, first',
      'next point',
      'the one after',
      'ring, one end',
      'symmetry',
      'pick, first',
      'pick, then',
      'cut',
      'flat again',
      'shift',
    ],
    rows,
  };
}
