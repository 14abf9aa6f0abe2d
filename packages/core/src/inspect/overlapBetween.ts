import { shellsOf } from '../document/document.ts';
import type { UvBox } from '../surface/uvBox.ts';
import { type Inspection, named } from './inspection.ts';
import { pairsOf } from './overlapWithin.ts';

export const overlapBetween: Inspection = {
  kind: 'overlap-between',
  when: 'the same between shells',
  severity: 'spoils',
  thing: ['pair of shells on each other', 'pairs of shells on each other'],
  effect: 'What is painted on the one appears on the other.',
  find(subject) {
    const { document, boxes } = subject;
    const { faceShell } = shellsOf(document);
    const shellPairs = new Set<string>();
    const pairs = pairsOf(subject, (a, b) => {
      const [s, t] = [faceShell[a], faceShell[b]];
      if (s === t) return false;
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
      atLeast: subject.atLeast,
      faces: new Set(pairs.flat()),
      shells: [...all],
      remedy: {
        label: 'Move one aside',
        request: { operation: 'move-clear', params: { shells: named(document, aside) } },
      },
    };
  },
};
