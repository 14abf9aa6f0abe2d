import { constrainedShells, isLocked, keepsPlaces } from '../document/constraints.ts';
import { current, type HemDocument, shellsOf, topologyOf } from '../document/document.ts';
import { facesOfShell } from '../surface/shells.ts';

/** Shells that an act was not on, by number, and that lie otherwise all the same; none where another UV set is current. */
export function disturbed(before: HemDocument, after: HemDocument, meant: ReadonlySet<number>): number[] {
  if (before.model.mesh !== after.model.mesh || before.currentUv !== after.currentUv) return [];
  const shells = shellsOf(before);
  const held = constrainedShells(before);
  const old = current(before).uv;
  const now = current(after).uv;
  const wrong: number[] = [];
  for (let s = 0; s < shells.shellCount; s++) {
    const locked = isLocked(before, s);
    if (meant.has(s) && !locked) continue;
    const corners = cornersOfShell(before, s);
    const mayMove = !keepsPlaces(before) || (before.placed === 0 && !held.has(s));
    const same = locked || !mayMove ? liesStill(corners, old, now) : isMoved(corners, old, now);
    if (!same) wrong.push(s);
  }
  return wrong;
}

const OF_ALL = new Set(['pack', 'repair-safe', 'delete-faces', 'keep-places']);

/** Shells that an act names: by faces or edges; all of them where it names none. */
export function shellsMeant(
  before: HemDocument,
  after: HemDocument,
  [name, params]: readonly [string, object],
): Set<number> {
  const { faceShell, shellCount } = shellsOf(before);
  const { edgeCornerStart, edgeCorners, cornerFace } = topologyOf(before.model).connectivity;
  const { faces, face, shells, edges, places } = params as {
    readonly faces?: readonly number[];
    readonly face?: number;
    readonly shells?: 'all' | readonly (number | { readonly face: number })[];
    readonly edges?: readonly number[];
    readonly places?: readonly { readonly face: number }[];
  };
  const named = [...(faces ?? []), ...(face === undefined ? [] : [face])];
  if (Array.isArray(shells))
    named.push(...shells.map((each) => (typeof each === 'number' ? each : each.face)));
  for (const { face } of places ?? []) named.push(face);
  // A seam that moves passes faces of the shells beside it alone.
  for (const e of edges ?? [])
    for (let k = edgeCornerStart[e]; k < edgeCornerStart[e + 1]; k++) named.push(cornerFace[edgeCorners[k]]);
  if (OF_ALL.has(name) || named.length === 0) return new Set(Array.from({ length: shellCount }, (_, s) => s));
  // Whatever was changed before and is laid flat only now was meant then.
  for (let f = 0; f < faceShell.length; f++) if (before.stale[f] && !after.stale[f]) named.push(f);
  return new Set(named.map((f) => faceShell[f]));
}

function cornersOfShell(document: HemDocument, shell: number): number[] {
  const { faceStart } = document.model.mesh;
  return [...facesOfShell(shellsOf(document), shell)].flatMap((f) =>
    Array.from({ length: faceStart[f + 1] - faceStart[f] }, (_, k) => faceStart[f] + k),
  );
}

const liesStill = (corners: readonly number[], old: Float64Array, now: Float64Array): boolean =>
  corners.every((c) => Object.is(old[2 * c], now[2 * c]) && Object.is(old[2 * c + 1], now[2 * c + 1]));

/** Whether a shell was only moved and scaled as a whole. */
function isMoved(corners: readonly number[], old: Float64Array, now: Float64Array): boolean {
  if (corners.some((c) => Number.isNaN(old[2 * c]))) return liesStill(corners, old, now);
  const far = corners.reduce(
    (best, c) => {
      const length = Math.hypot(old[2 * c] - old[2 * corners[0]], old[2 * c + 1] - old[2 * corners[0] + 1]);
      return length > best.length ? { c, length } : best;
    },
    { c: corners[0], length: 0 },
  );
  const [a, b] = [2 * corners[0], 2 * far.c];
  const k = Math.abs(old[b] - old[a]) > Math.abs(old[b + 1] - old[a + 1]) ? 0 : 1;
  const scale = far.length > 0 ? (now[b + k] - now[a + k]) / (old[b + k] - old[a + k]) : 1;
  return corners.every((c) =>
    [0, 1].every((i) => {
      const due = now[a + i] + scale * (old[2 * c + i] - old[a + i]);
      return Math.abs(now[2 * c + i] - due) < 1e-6 * Math.max(1, scale * far.length);
    }),
  );
}
