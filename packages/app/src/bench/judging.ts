import { type Judgement, judge } from '@blunt-hem/core/document/judgement';
import type { BenchStore } from '../store/bench.ts';

type Judged = Pick<BenchStore, 'shells' | 'flat' | 'layout'>;

let last: { readonly of: Judged; readonly judgements: readonly Judgement[] } | undefined;

/** What every shell is worth; worked out once for what is known. */
export function judgements({ shells, flat, layout }: Judged): readonly Judgement[] {
  if (last?.of.shells === shells && last.of.flat === flat && last.of.layout === layout)
    return last.judgements;
  const overlap = overlapsOf(layout?.overlaps, flat?.faceShell);
  const made = shells.map((row, shell) => judge({ ...row, overlap: overlap.get(shell) }));
  last = { of: { shells, flat, layout }, judgements: made };
  return made;
}

/** Which shells lie on themselves, and which on others. */
function overlapsOf(
  faces: Uint32Array | undefined,
  faceShell: Uint32Array | undefined,
): ReadonlyMap<number, 'itself' | 'another'> {
  const found = new Map<number, 'itself' | 'another'>();
  if (!faces || !faceShell) return found;
  for (let i = 0; i < faces.length; i += 2) {
    const [a, b] = [faceShell[faces[i]], faceShell[faces[i + 1]]];
    if (a === b) found.set(a, 'itself');
    else for (const s of [a, b]) if (!found.has(s)) found.set(s, 'another');
  }
  return found;
}
