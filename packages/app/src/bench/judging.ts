import { type Judgement, judge } from '@blunt-hem/core/document/judgement';
import { isOutside } from '@blunt-hem/core/surface/tiles';
import type { BenchStore } from '../store/bench.ts';

type Judged = Pick<BenchStore, 'shells' | 'flat' | 'layout' | 'limits' | 'tiles'>;

let last: { readonly of: Judged; readonly judgements: readonly Judgement[] } | undefined;

/** What every shell is worth; worked out once for what is known. */
export function judgements({ shells, flat, layout, limits, tiles }: Judged): readonly Judgement[] {
  const of = { shells, flat, layout, limits, tiles };
  if (last && (Object.keys(of) as (keyof Judged)[]).every((key) => last?.of[key] === of[key]))
    return last.judgements;
  const overlap = overlapsOf(layout?.overlaps, flat?.faceShell);
  const made = shells.map(({ box, ...row }, shell) =>
    judge(
      { ...row, outside: box !== undefined && isOutside(tiles, box), overlap: overlap.get(shell) },
      limits,
    ),
  );
  last = { of, judgements: made };
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
