import { shellsOf } from '@blunt-hem/core/document/document';
import { figuresOf, type Totals, totalsOf } from '@blunt-hem/core/document/figures';
import type { Session } from '@blunt-hem/core/session/session';

/** The figures of a session's UVs. */
export async function measured(session: Session): Promise<object> {
  const { document } = session;
  const figures = Array.from({ length: shellsOf(document).shellCount }, (_, s) => figuresOf(document, s));
  const layout = await session.ask('inspection', {});
  const covered = await session.ask('coverage', {});
  return {
    shellCount: figures.length,
    /** Of all shells together, each weighing as much as its surface. */
    model: wholeModel(totalsOf(figures)),
    /** Part of all tiles together that is covered, 0 to 1. */
    covered: covered ? covered.reduce((sum, part) => sum + part, 0) / covered.length : 0,
    /** Of each tile its texture, and the part that is covered, 0 to 1. */
    tiles: document.tiles.map((tile, i) => ({ ...tile, covered: covered?.[i] ?? 0 })),
    outside: layout?.findings.find(({ kind }) => kind === 'outside')?.count ?? 0,
    overlaps: (layout?.overlaps.length ?? 0) / 2,
    ...(layout?.atLeast ? { overlapsAtLeast: true } : {}),
    findings: layout?.findings.map(({ kind, severity, title, count, faces, shells }) => ({
      kind,
      severity,
      title,
      count,
      faces: [...faces],
      shells,
    })),
    shells: figures.map(({ faces, stretch, topology, folded, concave }) => ({
      faces,
      topology: topology.kind,
      l2: told(stretch?.l2),
      linf: told(stretch?.linf),
      angleMean: told(stretch?.angleMean),
      areaMean: told(stretch?.areaMean),
      flipped: told(stretch?.flipped),
      collapsed: told(stretch?.collapsed),
      folded: stretch ? folded : null,
      concave: stretch ? concave : null,
    })),
  };
}

const wholeModel = ({ unfolded, shells: _, ...totals }: Totals): object | null =>
  unfolded === 0
    ? null
    : {
        unfolded,
        ...Object.fromEntries(Object.entries(totals).map(([name, figure]) => [name, told(figure)])),
      };

/** A figure as JSON has it: null when there is none, and a word when it is without bound, for which JSON has no number. */
const told = (figure: number | undefined): number | string | null =>
  figure === undefined ? null : Number.isFinite(figure) ? figure : 'infinite';
