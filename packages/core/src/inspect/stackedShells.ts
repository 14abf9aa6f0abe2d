import { shellsOf } from '../document/document.ts';
import { facesOfShell } from '../surface/shells.ts';
import { type Inspection, named } from './inspection.ts';

export const stackedShells: Inspection = {
  kind: 'stacked',
  when: 'overlapping shells whose boxes are one: copies may share paint on purpose',
  severity: 'hint',
  thing: ['pair of shells stacked exactly', 'pairs of shells stacked exactly'],
  effect: 'They share their paint, as copies may on purpose.',
  find({ document, stacks }) {
    if (stacks.length === 0) return undefined;
    const stacked = stacks.flat();
    const shells = shellsOf(document);
    return {
      count: stacks.reduce((sum, { length }) => sum + (length * (length - 1)) / 2, 0),
      faces: new Set(stacked.flatMap((s) => [...facesOfShell(shells, s)])),
      shells: stacked,
      remedy: {
        label: 'Set them apart',
        request: { operation: 'set-apart', params: { shells: named(document, new Set(stacked)) } },
      },
    };
  },
};
