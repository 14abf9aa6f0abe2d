import {
  current,
  type HemDocument,
  openDocument,
  shellOf,
  shellsOf,
  shellUv,
  topologyOf,
} from '../document/document.ts';
import { MARK_FIELDS, VALUE_FIELDS } from '../document/fields.ts';
import { figuresOf } from '../document/figures.ts';
import { emptyHistory } from '../document/history.ts';
import { LIMIT_PRESETS } from '../document/limits.ts';
import { HemError } from '../errors.ts';
import type { Mesh } from '../mesh/mesh.ts';
import { modelFromMesh } from '../mesh/model.ts';
import type { OperationName } from '../operations/catalogue.ts';
import { BRUSHES } from '../relax/brush.ts';
import { edgeLoop } from '../select/edgeLoop.ts';
import { shortestPath } from '../select/shortestPath.ts';
import { memoryPersistence } from '../session/persistence.ts';
import { openSession } from '../session/session.ts';
import { METHODS } from '../unfold/unfold.ts';
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
  let [at, done, refused] = [0, 0, 0];
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
        done++;
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
  return { done, refused };
}

/** What parameters of an act are drawn from. */
interface Draw {
  readonly document: HemDocument;
  readonly random: () => number;
  /** A whole number below another. */
  readonly some: (count: number) => number;
  readonly edge: number;
  readonly face: number;
  /** The first vertex of that face. */
  readonly vertex: number;
  /** Where it lies; the middle of the tile where it does not. */
  readonly place: readonly [number, number];
  /** A loop of edges, and one of seams where there are any. */
  readonly loop: () => number[];
  readonly seams: () => number[];
  readonly patch: () => number;
  readonly set: () => number;
}

const either = ({ random }: Draw, part = 0.5): boolean => random() < part;

/** Parameters of every operation, as an artist might choose them. */
const DRAWS: Readonly<Record<OperationName, (draw: Draw) => object>> = {
  repair: ({ some }) => ({ kind: ['cracks', 'winding', 'loose-points', 'duplicates'][some(4)] }),
  'repair-safe': () => ({}),
  'delete-faces': ({ face }) => ({ faces: [face] }),
  hide: (draw) => (either(draw) ? { how: 'show' } : { how: 'hide', faces: [draw.face] }),
  'name-parts': ({ some }) => ({ by: 'object', parts: [0], name: `Part ${some(1e6)}` }),
  'stand-up': ({ some }) => ({ up: ['y', 'z'][some(2)], front: some(4) }),
  cut(draw) {
    if (either(draw)) return { edges: draw.loop() };
    const { mesh, connectivity } = topologyOf(draw.document.model);
    const [a, b] = [0, 1].map(() => draw.some(connectivity.vertexEdgeStart.length - 1));
    const edges = shortestPath(connectivity, a, b, () => 1).edgesTo(b);
    return {
      edges: edges.length > 0 ? edges : edgeLoop(mesh, connectivity, draw.edge),
      relax: either(draw, 0.2),
    };
  },
  sew({ seams, some }) {
    const all = seams();
    const first = some(all.length);
    return { edges: all.slice(first, first + 1 + some(12)) };
  },
  'open-pieces': () => ({ least: true }),
  'shift-seam'(draw) {
    const { mesh, connectivity } = topologyOf(draw.document.model);
    const all = draw.seams();
    const edges = edgeLoop(mesh, connectivity, all[draw.some(all.length)] ?? draw.edge, draw.document.seams);
    return { edges, rows: either(draw) ? 1 + draw.some(3) : -1 - draw.some(3) };
  },
  'straighten-seams'(draw) {
    const { mesh, connectivity } = topologyOf(draw.document.model);
    const all = draw.seams();
    return {
      edges: edgeLoop(mesh, connectivity, all[draw.some(all.length)] ?? draw.edge, draw.document.seams),
    };
  },
  'carry-to-copies': ({ face }) => ({ face }),
  'paint-patch': (draw) => ({ faces: [draw.face], patch: either(draw) ? 'new' : 'none' }),
  'patch-shells': ({ face }) => ({ shells: [face] }),
  'weigh-patch': ({ patch, some }) => ({ patch: patch(), times: 1 + some(4) }),
  'name-patch': ({ patch, some }) => ({ patch: patch(), name: `Patch ${some(1e6)}` }),
  'remove-patch': ({ patch }) => ({ patch: patch() }),
  unfold: (draw) =>
    either(draw, 0.3) ? { shells: [draw.face] } : { method: METHODS[draw.some(METHODS.length)] },
  relax: (draw) =>
    either(draw) ? { steps: 1 + draw.some(12) } : { shells: [draw.face], steps: 3, balance: draw.random() },
  'set-pins': (draw) => ({ places: [{ vertex: draw.vertex, face: draw.face }], pinned: either(draw, 0.7) }),
  'move-pin': ({ vertex, face, place, random }) => ({
    vertex,
    face,
    uv: place.map((x) => x + 0.1 * (random() - 0.5)),
  }),
  'set-stays': (draw) => ({ edges: draw.loop().slice(0, 1 + draw.some(8)), straight: either(draw, 0.7) }),
  'set-surface': (draw) => ({ faces: [draw.face], surface: either(draw) ? 'smoothed' : 'cage' }),
  'take-trial'({ document, face }) {
    const uv = shellUv(document, shellOf(document, shellsOf(document).faceShell[face])) ?? [];
    return {
      trial: 'As it was',
      shells: [{ face, uv: [...uv].map((x) => 1.5 * x), method: 'conformal', relaxed: false }],
    };
  },
  'straight-strip': () => ({}),
  project: ({ document, random }) => ({
    faces: [...document.stale.keys()].filter(() => random() < 0.9),
    // What the others see edge-on collapses, which is told before it is done.
    kind: 'box',
  }),
  brush: ({ face, place, random, some }) => ({
    face,
    brush: BRUSHES[some(BRUSHES.length)],
    dabs: Array.from({ length: 5 }, () => [
      ...place,
      random() - 0.5,
      random() - 0.5,
      0.3 * random(),
      random(),
    ]).flat(),
  }),
  'unfold-folds': () => ({ shells: 'all' }),
  'align-shells': (draw) => ({
    shells: [draw.face, 0],
    to: ['left', 'right', 'top', 'bottom', 'middle-u', 'middle-v'][draw.some(6)],
    within: either(draw, 0.3) ? 'tile' : 'selection',
  }),
  'spread-shells': (draw) => ({
    shells: [draw.face, 0],
    along: either(draw) ? 'u' : 'v',
    gap: 40 * draw.random(),
  }),
  'match-shells': ({ face, some }) => ({
    shells: [face],
    like: 0,
    what: ['scale', 'turn', 'place'][some(3)],
  }),
  'swap-shells': ({ face }) => ({ shells: [face, 0] }),
  'fit-shells': ({ face }) => ({ shells: [face] }),
  'gather-shells': ({ face }) => ({ shells: [face] }),
  'level-edges': (draw) => ({ edges: [draw.edge], to: either(draw) ? 'level' : 'upright' }),
  'move-points': ({ face, vertex, random }) => ({
    places: [{ vertex, face }],
    by: [random() / 9, random() / 9],
    inside: 'follows',
  }),
  'transform-points': ({ face, vertex, place: [u, v] }) => ({
    places: [{ vertex, face }],
    matrix: [1.1, 0.1, -0.1, 1.1, -0.1 * u + 0.1 * v, -0.1 * u - 0.1 * v],
    inside: 'follows',
  }),
  'align-points': ({ document, face, vertex, some }) => ({
    places: [
      { vertex, face },
      { vertex: document.model.mesh.cornerVertex[document.model.mesh.faceStart[face] + 1], face },
    ],
    to: ['least-u', 'greatest-v', 'mean-u', 'ends'][some(4)],
    inside: 'follows',
  }),
  'lay-border': (draw) => ({ shells: [draw.face], shape: either(draw) ? 'circle' : 'rectangle' }),
  'square-grid': ({ document, face }) => {
    const { faceShell } = shellsOf(document);
    return {
      faces: [...faceShell.keys()].filter((f) => faceShell[f] === faceShell[face]),
      inside: 'follows',
    };
  },
  'straighten-row': ({ edge }) => ({ edges: [edge], inside: 'follows' }),
  // Mirrored ones lie upside down on top of each other.
  'give-uvs': ({ face }) => ({ like: face, where: 'own' }),
  'set-apart': (draw) => ({ shells: 'all', where: either(draw) ? 'free' : 'tile' }),
  'join-halves': ({ face }) => ({ shells: [face] }),
  // What lies exactly together flips nothing.
  'weld-seams': () => ({ within: 0 }),
  'sew-over': ({ edge }) => ({ edges: [edge] }),
  'transform-shells'({ face, random }) {
    const [angle, size] = [6 * random(), 0.5 + random()];
    const [c, s] = [size * Math.cos(angle), size * Math.sin(angle)];
    return { shells: [face], matrix: [c, s, -s, c, random() - 0.5, random() - 0.5] };
  },
  pack: (draw) => ({
    turning: either(draw) ? 'quarter' : 'none',
    equalDensity: either(draw),
    start: either(draw, 0.3) ? 'here' : 'afresh',
    near: either(draw, 0.3) ? 'patch' : 'none',
  }),
  'keep-places': (draw) => ({ keep: either(draw) }),
  'move-clear': ({ face }) => ({ shells: [face] }),
  'split-off': ({ document, face, some }) => ({ faces: [face, some(document.stale.length)] }),
  'mirror-in-place': ({ face }) => ({ shells: [face] }),
  'even-density': ({ face }) => ({ shells: [face] }),
  'turn-upright': ({ face }) => ({ shells: [face] }),
  'set-grain': (draw) => ({ edges: [draw.edge], along: either(draw, 0.8) }),
  'grain-along-shells': ({ face }) => ({ shells: [face] }),
  // Locked shells refuse most of what comes after: they are let go more often than locked.
  'lock-shells': (draw) =>
    either(draw, 0.25) ? { shells: [draw.face], locked: true } : { shells: 'all', locked: false },
  'group-shells': (draw) => ({ shells: 'all', together: either(draw) }),
  'set-limits': (draw) => ({ limits: LIMIT_PRESETS[either(draw) ? 'rough' : 'usual'] }),
  'set-tiles': (draw) => ({
    tiles: [1001, 1002, 1012].slice(0, 1 + draw.some(3)).map((number) => ({
      number,
      width: 512,
      height: 512,
      padding: draw.some(4),
    })),
    keeping: either(draw) ? 'shapes' : 'places',
  }),
  'add-uv-set': (draw) => ({ name: `Set ${draw.some(1e6)}`, from: either(draw) ? 'copy' : 'nothing' }),
  'rename-uv-set': ({ set, some }) => ({ set: set(), name: `Set ${some(1e6)}` }),
  'remove-uv-set': ({ set }) => ({ set: set() }),
  'use-uv-set': ({ set }) => ({ set: set() }),
};
const NAMES = Object.keys(DRAWS) as OperationName[];
/** Acts that change the mesh itself are rare. */
const RARE = new Set<OperationName>(['repair', 'repair-safe', 'delete-faces']);

/** What an artist might do next: any operation of the catalogue. */
export function someAct(document: HemDocument, random: () => number): [name: OperationName, params: object] {
  const { mesh, connectivity } = topologyOf(document.model);
  const some = (count: number) => Math.floor(random() * count);
  const { uv } = current(document);
  const face = some(mesh.faceStart.length - 1);
  const corner = mesh.faceStart[face];
  const edge = some(connectivity.isInterior.length);
  let name = NAMES[some(NAMES.length)];
  while (RARE.has(name) && random() < 0.7) name = NAMES[some(NAMES.length)];
  const params = DRAWS[name]({
    document,
    random,
    some,
    edge,
    face,
    vertex: mesh.cornerVertex[corner],
    place: [uv[2 * corner] || 0.5, uv[2 * corner + 1] || 0.5],
    loop: () => edgeLoop(mesh, connectivity, edge),
    seams: () => [...document.seams.keys()].filter((e) => document.seams[e]),
    patch: () => 1 + some(Math.max(1, document.patchNames.length)),
    set: () => document.uvSets[some(document.uvSets.length)].id,
  });
  return [name, params];
}

/** A shell that was cut or sewn and could not be laid flat again keeps what it had, and says so. */
function faultOf(document: HemDocument): string | undefined {
  for (let s = 0; s < shellsOf(document).shellCount; s++) {
    const { stretch, stale, box, faces } = figuresOf(document, s);
    if (!stretch || stale) continue;
    if (!box?.every(Number.isFinite)) return 'a place that is no number';
    const { flipped, collapsed } = stretch;
    // One that was mirrored is upside down as a whole.
    if (collapsed > 0 || (flipped > 0 && flipped < faces))
      return `${flipped} flipped and ${collapsed} collapsed faces in shell ${s + 1}`;
  }
  return undefined;
}

/** All that a document keeps, to be compared: its mesh and names, and every field of the table, of all UV sets. */
function bytesOf({ model: { source: _, uvSets: fileSets, ...model }, ...document }: HemDocument): string {
  const { uvSets } = document;
  const fields = [...MARK_FIELDS, ...VALUE_FIELDS].map((field) => document[field]);
  // In which order a model has its fields says nothing.
  const parts = Object.entries(model).sort(([a], [b]) => (a < b ? -1 : 1));
  return JSON.stringify([parts, fileSets, fields, uvSets], (_, value) =>
    ArrayBuffer.isView(value) ? (value as unknown as number[]).join() : value,
  );
}
