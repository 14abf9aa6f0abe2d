import { current, type HemDocument, openDocument, shellsOf, topologyOf } from '../document/document.ts';
import { figuresOf } from '../document/figures.ts';
import { emptyHistory } from '../document/history.ts';
import { HemError } from '../errors.ts';
import type { Mesh } from '../mesh/mesh.ts';
import { modelFromMesh } from '../mesh/model.ts';
import { edgeLoop } from '../select/edgeLoop.ts';
import { shortestPath } from '../select/shortestPath.ts';
import { memoryPersistence } from '../session/persistence.ts';
import { openSession } from '../session/session.ts';
import { handedOver } from './handedOver.ts';

/** What went wrong on a walk, with the acts that led there. */
class WanderError extends Error {}

/** Numbers from 0 to 1 that a seed alone decides (a linear congruential generator, Knuth 1997). */
export function seeded(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 2 ** 32;
  };
}

/**
 * Does random acts as an artist would, and looks after each: nothing but a sentence may be thrown, no face of a shell may be flipped or collapsed, no
 * number may be missing; undo and redo come back to the same documents bit by bit, and the acts done once more lead to the same end.
 *
 * @returns how many acts changed something, and how many were refused with a sentence
 * @throws WanderError
 */
export async function wander(
  mesh: Mesh,
  acts: number,
  random: () => number,
): Promise<{ done: number; refused: number }> {
  const start = openDocument(modelFromMesh('walk', mesh));
  const open = () =>
    openSession({
      document: start,
      history: emptyHistory,
      persistence: memoryPersistence(),
      jobs: handedOver,
    });
  const session = open();
  const story: string[] = [];
  const steps: [name: string, params: object][] = [];
  const states = [bytesOf(start)];
  let [at, refused] = [0, 0];
  const fail = (what: string): never => {
    throw new WanderError(`${what} after ${story.join('; ')}`);
  };
  for (let i = 0; i < acts; i++) {
    const way = random();
    if (way < 0.12 && at > 0) {
      story.push('undo');
      await session.undo();
      at--;
    } else if (way < 0.2 && at + 1 < states.length) {
      story.push('redo');
      await session.redo();
      at++;
    } else {
      const [name, params] = someAct(session.document, random);
      story.push(`${name} ${JSON.stringify(params).slice(0, 120)}`);
      const before = session.document;
      try {
        await (session.perform as (n: string, p: object) => Promise<unknown>)(name, params);
      } catch (error) {
        if (!(error instanceof HemError) || !/\.$/.test(error.message)) fail(`${name} threw ${error}`);
        refused++;
      }
      if (session.document !== before) {
        steps.length = at;
        states.length = at + 1;
        steps.push([name, params]);
        at++;
        states.push(bytesOf(session.document));
        const fault = faultOf(session.document);
        if (fault) fail(fault);
      }
    }
    if (bytesOf(session.document) !== states[at]) fail('another document than before');
  }
  const again = open();
  for (const [name, params] of steps.slice(0, at))
    await (again.perform as (n: string, p: object) => Promise<unknown>)(name, params);
  if (bytesOf(again.document) !== states[at]) fail('done once more, another document');
  return { done: at, refused };
}

/** What an artist might do next. */
export function someAct(document: HemDocument, random: () => number): [name: string, params: object] {
  const { mesh, links } = topologyOf(document.model);
  const shells = shellsOf(document);
  const some = (count: number) => Math.floor(random() * count);
  const edge = some(links.joined.length);
  const face = some(mesh.faceStart.length - 1);
  const vertex = mesh.cornerVertex[mesh.faceStart[face]];
  const { uv } = current(document);
  const acts: (() => [string, object])[] = [
    () => ['cut', { edges: edgeLoop(mesh, links, edge) }],
    () => {
      const [a, b] = [some(links.vertexEdgeStart.length - 1), some(links.vertexEdgeStart.length - 1)];
      return ['cut', { edges: shortestPath(links, a, b, () => 1).edgesTo(b) }];
    },
    () => {
      const seams = [...document.seams.keys()].filter((e) => document.seams[e]);
      const first = some(seams.length);
      return ['sew', { edges: seams.slice(first, first + 1 + some(12)) }];
    },
    () => {
      const seams = [...document.seams.keys()].filter((e) => document.seams[e]);
      const run = edgeLoop(mesh, links, seams[some(seams.length)] ?? edge, document.seams);
      return ['shift-seam', { edges: run, rows: random() < 0.5 ? 1 + some(3) : -1 - some(3) }];
    },
    () => ['paint-patch', { faces: [face], patch: random() < 0.5 ? 'new' : 'none' }],
    () => ['set-pins', { places: [{ vertex, face }], pinned: random() < 0.7 }],
    () => {
      const [u, v] = [0, 1].map((k) => uv[2 * mesh.faceStart[face] + k] || 0.5);
      const uvThere = [u + 0.1 * (random() - 0.5), v + 0.1 * (random() - 0.5)];
      return ['move-pin', { vertex, face, uv: uvThere }];
    },
    () => {
      const edges = edgeLoop(mesh, links, edge).slice(0, 1 + some(8));
      return ['set-stays', { edges, straight: random() < 0.7 }];
    },
    () => ['set-surface', { faces: [face], surface: random() < 0.5 ? 'smoothed' : 'cage' }],
    () => {
      const c = 2 * mesh.faceStart[face];
      const [u, v] = [uv[c] || 0.5, uv[c + 1] || 0.5];
      const brush = ['push', 'relax', 'gather', 'spread'][some(4)];
      const dabs = Array.from({ length: 5 }, () => [
        u,
        v,
        random() - 0.5,
        random() - 0.5,
        0.3 * random(),
        random(),
      ]);
      return ['brush', { face, brush, dabs: dabs.flat() }];
    },
    () => ['open-pieces', { least: true }],
    () => ['add-uv-set', { name: `Set ${some(1e6)}`, from: random() < 0.5 ? 'copy' : 'nothing' }],
    () => ['use-uv-set', { set: document.uvSets[some(document.uvSets.length)].id }],
    () => ['rename-uv-set', { set: document.currentUv, name: `Set ${some(1e6)}` }],
    () => ['remove-uv-set', { set: document.uvSets[some(document.uvSets.length)].id }],
    () => ['straight-strip', {}],
    () => ['project', { faces: [...document.stale.keys()].filter(() => random() < 0.9), kind: 'box' }],
    () => ['unfold', { method: 'conformal' }],
    () => ['unfold', { method: 'angle-based' }],
    () => ['unfold', { shells: [some(shells.shellCount)] }],
    () => ['relax', { steps: 1 + some(12) }],
    () => ['relax', { shells: [some(shells.shellCount)], steps: 3, balance: random() }],
    () => ['pack', {}],
    () => [
      'set-tiles',
      {
        tiles: [1001, 1002, 1012]
          .slice(0, 1 + some(3))
          .map((number) => ({ number, width: 512, height: 256 << some(2), padding: some(4) })),
        keeping: random() < 0.5 ? 'shapes' : 'places',
      },
    ],
    () => {
      const [angle, size] = [6 * random(), 0.5 + random()];
      const [c, s] = [size * Math.cos(angle), size * Math.sin(angle)];
      return ['transform-shells', { shells: [face], matrix: [c, s, -s, c, random() - 0.5, random() - 0.5] }];
    },
    () => ['split-off', { faces: [face, some(mesh.faceStart.length - 1)] }],
    () => ['move-clear', { shells: [face] }],
    () => ['set-grain', { edges: [edge], along: random() < 0.8 }],
    () => ['even-density', { shells: [face] }],
    () => ['turn-upright', { shells: [face] }],
    () => ['repair-safe', {}],
    () => ['delete-faces', { faces: [face] }],
  ];
  // Deleting and repairing are rare.
  return acts[some(acts.length - (random() < 0.7 ? 2 : 0))]();
}

/** A shell that was cut or sewn and could not be laid flat again keeps what it had, and says so. */
function faultOf(document: HemDocument): string | undefined {
  for (let s = 0; s < shellsOf(document).shellCount; s++) {
    const { stretch, stale, box } = figuresOf(document, s);
    if (!stretch || stale) continue;
    if (!box?.every(Number.isFinite)) return 'a place that is no number';
    const { flipped, collapsed } = stretch;
    if (flipped + collapsed > 0)
      return `${flipped} flipped and ${collapsed} collapsed faces in shell ${s + 1}`;
  }
  return undefined;
}

/** All that an artist can see of a document, to be compared; no number stands for itself. */
const bytesOf = ({
  model: { mesh },
  seams,
  patches,
  pins,
  stays,
  grain,
  smoothed,
  uvSets,
}: HemDocument): string =>
  [
    mesh.positions,
    mesh.cornerVertex,
    seams,
    patches,
    pins,
    stays,
    grain,
    smoothed,
    ...uvSets.map(({ uv }) => uv),
  ]
    .map((list) => list.join(','))
    .join(';');
