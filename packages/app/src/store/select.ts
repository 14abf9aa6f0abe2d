import type { FoundSymmetry } from '@blunt-hem/core/jobs/symmetry';
import type { TargetId } from '@blunt-hem/core/select/targets/index';
import type { Chosen, SelectorsOf } from '@blunt-hem/core/selectors/index';
import type { ChosenKind } from '@blunt-hem/core/selectors/selector';
import type { UvBox } from '@blunt-hem/core/surface/uvBox';
import { type BenchStore, useBench } from './bench.ts';
import { type How, NOTHING_SELECTED, SELECTED } from './selection.ts';

/**
 * What a click adds to, takes from or puts in place of a selection.
 *
 * @param by  what just these are told by; an act on them keeps it, so that it can be done again elsewhere
 */
export function select<T extends TargetId>(
  target: T,
  items: Iterable<number>,
  how: How,
  by?: T extends ChosenKind ? SelectorsOf[T] : undefined,
): void {
  const field = SELECTED[target].kept;
  useBench.setState((s) => {
    const notice = s.notice?.tone === 'hint' ? undefined : s.notice;
    const next = new Set(how === 'only' ? [] : s[field]);
    for (const item of withImages(s, target, items)) {
      if (how === 'remove') next.delete(item);
      else next.add(item);
    }
    if (by && next.size === new Set(items).size) toldBy.set(next, by);
    const imaging = s.symmetry?.byPlace && hasImages(target) ? { target, items: [...items], how } : undefined;
    return {
      [field]: next,
      notice,
      imaging,
      pointedOut: new Set(),
    };
  });
}

/** Selects these shells and nothing else. */
export function selectShells(shells: Iterable<number>): void {
  selectNothing();
  useBench.setState({ target: 'shells' });
  select('shells', shells, 'only');
}

/** What selections are told by, each for as long as it is just this: whatever is picked beside makes another set. */
const toldBy = new WeakMap<ReadonlySet<number>, object>();

/** Numbers of what is selected for a request, with what they are told by where they were selected by it. */
export function asRequested<K extends ChosenKind>(
  kind: K,
  indices: readonly number[],
): readonly number[] | Chosen<SelectorsOf[K]> {
  const by = toldBy.get(useBench.getState()[SELECTED[kind].kept]) as SelectorsOf[K] | undefined;
  return by ? { by, indices } : indices;
}

/** Adds the images of what was picked to it, or takes them from it: none of them has images of its own. */
export function selectImages(target: 'edges' | 'faces', items: readonly number[], how: How): void {
  useBench.setState((s) => {
    const next = new Set(s[target]);
    for (const item of items) {
      if (how === 'remove') next.delete(item);
      else next.add(item);
    }
    return { [target]: next, imaging: undefined };
  });
}

/** Whether what is picked takes its counterparts along: shells and points are moved one by one, never two at once unasked. */
const hasImages = (target: TargetId): target is 'edges' | 'faces' => target === 'edges' || target === 'faces';

/** Edges and faces with their counterparts, while symmetry is on. */
function withImages({ symmetry }: BenchStore, target: TargetId, items: Iterable<number>): Iterable<number> {
  if (!symmetry || !hasImages(target)) return items;
  return imagesOf(symmetry, target, items);
}

/** Elements and what they become under a symmetry, again and again until it comes round. */
export function imagesOf(
  { symmetry, edges, faces, byPlace }: FoundSymmetry,
  target: 'edges' | 'faces',
  items: Iterable<number>,
): number[] {
  // Those are looked for by place, in their turn.
  if (byPlace) return [...items];
  const image = target === 'edges' ? edges : faces;
  const all = new Set<number>();
  for (const item of items) {
    let at = item;
    for (let k = 0; k < symmetry.fold && at >= 0; k++) {
      all.add(at);
      at = image[at] ?? -1;
    }
  }
  return [...all];
}

export const selectNothing = (): void => useBench.setState({ ...NOTHING_SELECTED, pointedOut: new Set() });

/** What is selected, as faces: selected faces, and all of selected shells. */
export function selectedFaces(): number[] {
  const { faces, chosen, flat } = useBench.getState();
  const all = new Set(faces);
  if (chosen.size > 0)
    flat?.faceShell.forEach((shell, f) => {
      if (chosen.has(shell)) all.add(f);
    });
  return [...all];
}

/** The same for requests. */
export const facesRequested = (): readonly number[] | Chosen<SelectorsOf['faces']> =>
  useBench.getState().chosen.size > 0 ? selectedFaces() : asRequested('faces', selectedFaces());

/** The selected shells by their names, for requests. */
export function namesOfChosen(): number[] {
  const { chosen, shells } = useBench.getState();
  return [...chosen].flatMap((s) => (shells[s] ? [shells[s].name] : []));
}

/** The selected shells, or all when none is, for requests. */
export function chosenOrAll(): 'all' | readonly number[] | Chosen<SelectorsOf['shells']> {
  const names = namesOfChosen();
  return names.length > 0 ? asRequested('shells', names) : 'all';
}

/** The box of the selected shells on the Board; undefined when none of them has UVs. */
export function boxOfChosen({
  chosen,
  shells,
}: Pick<BenchStore, 'shells'> & { readonly chosen: Iterable<number> }): UvBox | undefined {
  const boxes = [...chosen].flatMap((s) => shells[s]?.box ?? []);
  if (boxes.length === 0) return undefined;
  const at = (k: number) => boxes.filter((_, i) => i % 4 === k);
  return [Math.min(...at(0)), Math.min(...at(1)), Math.max(...at(2)), Math.max(...at(3))];
}
