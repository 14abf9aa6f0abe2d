import Joi from 'joi';
import { type HemDocument, type Surface, shellOf, shellsOf, shellUv } from '../document/document.ts';
import { markChange, type Patch, uvChange } from '../document/patch.ts';
import { HemError } from '../errors.ts';
import { within } from '../progress.ts';
import { fixedBorder, fixedOutside } from '../relax/region.ts';
import type { RelaxOptions } from '../relax/relax.ts';
import type { Shell } from '../surface/shell.ts';
import { facesOfShell } from '../surface/shells.ts';
import { distance } from '../unfold/farthestPair.ts';
import { batches } from './batches.ts';
import { findInShells, heldSchema, type StayParam, staySchema, type VertexParam } from './handles.ts';
import { type Operation, plural } from './operation.ts';
import { surfaceSchema, type WhichShells, whichShells } from './schemas.ts';
import { chosenShells, shellsLabel } from './shellChoice.ts';

export interface RelaxParams {
  readonly shells: WhichShells;
  /** Stop after so long and keep the best so far. */
  readonly seconds?: number;
  readonly steps: number;
  /** From 0, angles alone, to 1, area above all. */
  readonly balance: number;
  /** Faces that may loosen, all else stays; all faces when absent. */
  readonly faces?: readonly number[];
  readonly keepBorder: boolean;
  /** Vertices that stay where they are. */
  readonly held: readonly VertexParam[];
  /** Chains that keep their shape and only move as a whole. */
  readonly stays: readonly StayParam[];
  readonly surface: Surface;
}

/** Evens out stretch inside shells; each stays where it is and as large as it is. */
export const relax: Operation<RelaxParams> = {
  name: 'relax',
  schema: Joi.object({
    shells: whichShells,
    seconds: Joi.number().positive(),
    steps: Joi.number().integer().min(1).max(10_000).default(100),
    balance: Joi.number().min(0).max(1).default(0.5),
    faces: Joi.array().items(Joi.number().integer().min(0)).min(1),
    keepBorder: Joi.boolean().default(false),
    held: heldSchema.default([]),
    stays: staySchema.default([]),
    surface: surfaceSchema,
  }),
  label: ({ shells, faces }) =>
    faces ? `Relax ${plural(faces.length, 'face')}` : `Relax ${shellsLabel(shells)}`,
  async run(document, params, context): Promise<Patch> {
    const end = params.seconds === undefined ? context.signal : within(context.signal, params.seconds);
    const work = workOf(document, params);
    if (work.length === 0) throw new HemError('nothing-unfolded', 'Nothing to relax: unfold a shell first.');
    const uvOf = new Map<number, Float64Array>();
    const notes: string[] = [];
    let done = 0;
    let stopped = 0;
    for (const batch of batches(work)) {
      if (end.aborted) {
        stopped += batch.length;
        continue;
      }
      const single = batch.length === 1;
      if (single) context.onShell?.(batch[0].s);
      const report = (p: { fraction?: number; figure?: number; uv?: Float64Array }) =>
        context.report(
          single
            ? { ...p, fraction: (done + (p.fraction ?? 0)) / work.length }
            : { fraction: done / work.length },
        );
      const results = await context.solvers.relax(batch, { signal: end, report });
      batch.forEach(({ s }, i) => {
        const result = results[i];
        if (result.energyAfter < result.energyBefore) uvOf.set(s, result.uv);
        if (!result.converged && end.aborted) stopped++;
      });
      done += batch.length;
    }
    if (stopped > 0) notes.push(`Stopped early on ${plural(stopped, 'shell')}; the best so far is kept.`);
    const faces = [...uvOf.keys()].flatMap((s) => [...facesOfShell(shellsOf(document), s)]);
    const changes =
      uvOf.size > 0 ? [uvChange(document, uvOf), markChange(document, 'relaxed', faces, 1)] : [];
    return { changes, notes };
  },
};

interface Work {
  readonly s: number;
  readonly shell: Shell;
  readonly start: Float64Array;
  readonly options: RelaxOptions;
}

/** The shells that have UVs and something that may loosen, each with what must stay. */
function workOf(document: HemDocument, params: RelaxParams): Work[] {
  const loose = params.faces && new Set(params.faces);
  const touched = params.faces && new Set(params.faces.map((f) => shellsOf(document).faceShell[f]));
  const found = chosenShells(document, params.shells).flatMap((s) => {
    if (touched && !touched.has(s)) return [];
    const shell = shellOf(document, s, params.surface);
    const start = shellUv(document, shell);
    return start ? [{ s, shell, start }] : [];
  });
  const shells = new Map(found.map(({ s, shell }) => [s, shell]));
  const held = params.held.map(({ vertex, face }) => findInShells(document, shells, [vertex], face));
  const stays = params.stays.map(({ vertices, face }) => findInShells(document, shells, vertices, face));
  return found.map(({ s, shell, start }) => {
    const fixed = loose
      ? fixedOutside(
          shell,
          Uint8Array.from(shell.triangleFace, (f) => (loose.has(f) ? 1 : 0)),
        )
      : new Uint8Array(start.length / 2);
    if (params.keepBorder)
      fixedBorder(shell).forEach((f, v) => {
        fixed[v] |= f;
      });
    for (const { shell: at, vertices } of held) if (at === s) for (const v of vertices) fixed[v] = 1;
    const rigid = stays.filter(({ shell: at }) => at === s).map(({ vertices }) => vertices);
    const options = {
      fixed,
      rigid,
      balance: params.balance,
      steps: params.steps,
      scale: rigid.length > 0 ? trueScale(shell, rigid[0], start) : undefined,
    };
    return { s, shell, start, options };
  });
}

/** Model units per UV unit along a stay, which is at true length. */
function trueScale({ positions }: Shell, stay: Uint32Array, uv: Float64Array): number | undefined {
  let [long, flat] = [0, 0];
  for (let i = 1; i < stay.length; i++) {
    const [a, b] = [stay[i - 1], stay[i]];
    long += distance(positions, a, b);
    flat += Math.hypot(uv[2 * a] - uv[2 * b], uv[2 * a + 1] - uv[2 * b + 1]);
  }
  return flat > 0 && long > 0 ? long / flat : undefined;
}
