import { shellsOf } from '../document/document.ts';
import { isStacked } from '../document/stacks.ts';
import type { UvBox } from '../surface/uvBox.ts';
import { type Found, type Inspection, named } from './inspection.ts';
import { pairsOf } from './overlapWithin.ts';
import type { Subject } from './subject.ts';

const areStacked = ({ boxes }: Subject, a: number, b: number): boolean =>
  isStacked(boxes[a] as UvBox, boxes[b] as UvBox);

/** Faces that lie on each other, two a pair, but for those of shells that are stacked exactly. */
export function unmeant(subject: Subject): Uint32Array {
  const { faceShell } = shellsOf(subject.document);
  const pairs = pairsOf(subject, (a, b) => {
    const [s, t] = [faceShell[a], faceShell[b]];
    return s === t || !areStacked(subject, s, t);
  });
  return Uint32Array.from(pairs.flat());
}

/** Shells on one another: those that are stacked exactly, or the others. */
const between = (stacked: boolean) =>
  function find(subject: Subject): Found | undefined {
    const { document, boxes } = subject;
    const { faceShell } = shellsOf(document);
    const shellPairs = new Set<string>();
    const pairs = pairsOf(subject, (a, b) => {
      const [s, t] = [faceShell[a], faceShell[b]];
      if (s === t || areStacked(subject, s, t) !== stacked) return false;
      shellPairs.add(s < t ? `${s} ${t}` : `${t} ${s}`);
      return true;
    });
    if (pairs.length === 0) return undefined;
    const size = (s: number) => {
      const [minU, minV, maxU, maxV] = boxes[s] as UvBox;
      return (maxU - minU) * (maxV - minV);
    };
    const aside = new Set<number>();
    const all = new Set<number>();
    for (const each of shellPairs) {
      const [s, t] = each.split(' ').map(Number);
      all.add(s).add(t);
      if (!aside.has(s) && !aside.has(t)) aside.add(size(s) < size(t) ? s : t);
    }
    return {
      count: shellPairs.size,
      faces: new Set(pairs.flat()),
      shells: [...all],
      remedy: stacked
        ? {
            label: 'Set them apart',
            request: { operation: 'set-apart', params: { shells: named(document, all) } },
          }
        : {
            label: 'Move one aside',
            request: { operation: 'move-clear', params: { shells: named(document, aside) } },
          },
    };
  };

export const overlapBetween: Inspection = {
  kind: 'overlap-between',
  when: 'the same between shells',
  severity: 'spoils',
  thing: ['pair of shells on each other', 'pairs of shells on each other'],
  effect: 'What is painted on the one appears on the other.',
  find: between(false),
};

export const stackedShells: Inspection = {
  kind: 'stacked',
  when: 'overlapping shells whose boxes are one: copies may share paint on purpose',
  severity: 'hint',
  thing: ['pair of shells stacked exactly', 'pairs of shells stacked exactly'],
  effect: 'They share their paint, as copies may on purpose.',
  find: between(true),
};
