import { shellsOf } from '@blunt-hem/core/document/document';
import { figuresOf, totalsOf } from '@blunt-hem/core/document/figures';
import type { Session } from '@blunt-hem/core/session/session';

/** The figures of a session's UVs. */
export async function measured(session: Session): Promise<object> {
  const { document } = session;
  const figures = Array.from({ length: shellsOf(document).shellCount }, (_, s) => figuresOf(document, s));
  const overlaps = await session.ask('overlaps', {});
  const totals = totalsOf(figures);
  return {
    shellCount: figures.length,
    tileUse: totals.tileUse,
    overlaps: (overlaps?.faces.length ?? 0) / 2,
    ...(overlaps?.atLeast ? { overlapsAtLeast: true } : {}),
    shells: figures.map(({ faces, stretch, verdict }) => ({
      faces,
      verdict: verdict.kind,
      l2: stretch?.l2 ?? null,
      linf: stretch?.linf ?? null,
      angleMean: stretch?.angleMean ?? null,
      areaMean: stretch?.areaMean ?? null,
      flipped: stretch?.flipped ?? null,
    })),
  };
}
