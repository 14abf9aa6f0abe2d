import { lookedAt, visibilityOf } from '../derived/visibility.ts';
import { type HemDocument, topologyOf } from '../document/document.ts';
import { HemError } from '../errors.ts';
import { faceNormals } from '../mesh/normals.ts';
import { about, flag, list, number, otherwise, record, type Taken, whole } from '../params.ts';
import { breath, heedStop } from '../progress.ts';
import { edgeCosts } from '../seams/edgeCosts.ts';
import { type Router, router } from '../seams/route.ts';
import { nearestBetween } from '../surface/nearestBetween.ts';
import { type QuestionContext, question } from './question.ts';

/** Vertices that are searched at a stretch: some 20 ms. */
const STRETCH = 15_000;

const params = record({
  through: about('vertices in order, by number', list(whole(), { min: 1 })),
  close: about('whether it comes back to the first', otherwise(flag(), false)),
  hidden: about('from 0, the shortest way, to 1, the most hidden', otherwise(number(0, 1), 0.5)),
  view: lookedAt,
  follow: about(
    'whether it runs along seams and borders that are there, which cost nothing, where it can',
    otherwise(flag(), false),
  ),
});

/** A way along edges through some points. */
export interface Route {
  /** In order; as far as it goes. */
  readonly edges: readonly number[];
  /** Edges of each of its legs. */
  readonly legs: readonly number[];
  /** Two vertices that lie near each other, where a leg leads from one piece to another: there is no way along edges. */
  readonly gap?: readonly [from: number, to: number];
}

/** A hidden route: through some points the way along edges that is short, straight, in folds and little seen, as much as is asked for. */
export const route = question({
  name: 'route',
  params,
  several: true,
  async answer(document, query, context): Promise<Route> {
    const { mesh } = topologyOf(document.model);
    const count = mesh.positions.length / 3;
    const { through, close } = query;
    for (const v of through)
      if (v >= count)
        throw new HemError('no-such-point', `There is no point ${v}: the model has ${count}.`, [v]);
    const ways = await routerOf(document, query, context);
    const ends = close && through.length > 2 ? [...through, through[0]] : through;
    const edges: number[] = [];
    const legs: number[] = [];
    for (let i = 0; i + 1 < ends.length; i++) {
      // In stretches, so that a newer question is heard.
      while (!ways.from(ends[i]).grow(ends[i + 1], STRETCH)) {
        await breath();
        heedStop(context.signal);
      }
      const leg = ways.leg(ends[i], ends[i + 1]);
      if (!leg) {
        const here = ways.from(ends[i]).cost;
        const there = ways.from(ends[i + 1]);
        there.grow();
        const gap = nearestBetween(
          mesh.positions,
          (v) => here[v] < Infinity,
          (v) => there.cost[v] < Infinity,
          ends[i],
        );
        return { edges, legs, gap };
      }
      edges.push(...leg);
      legs.push(leg.length);
    }
    return { edges, legs };
  },
});

const routers = new WeakMap<Uint8Array, Map<string, Router>>();

/** Ways are kept while the seams stay as they are. */
async function routerOf(
  document: HemDocument,
  { hidden, view, follow }: Taken<typeof params>,
  context: QuestionContext,
): Promise<Router> {
  let byLook = routers.get(document.seams);
  if (!byLook) {
    byLook = new Map();
    routers.set(document.seams, byLook);
  }
  const key = `${follow} ${hidden > 0 ? `${hidden} ${view} ${document.upAxis} ${document.front}` : 'shortest'}`;
  const known = byLook.get(key);
  if (known) return known;
  const { mesh, connectivity } = topologyOf(document.model);
  const visibility =
    hidden > 0
      ? (await visibilityOf(document, view, context)).edges
      : new Float32Array(connectivity.isInterior.length);
  const costs = edgeCosts(mesh, connectivity, faceNormals(mesh), {
    hidden,
    visibility,
    seams: document.seams,
    isFollowed: follow,
  });
  byLook.clear();
  const made = router(mesh, connectivity, costs);
  byLook.set(key, made);
  return made;
}
