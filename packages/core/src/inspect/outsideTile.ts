import { isOutside } from '../surface/uvBox.ts';
import { type Inspection, ofShells } from './inspection.ts';

export const outsideTile: Inspection = {
  kind: 'outside',
  severity: 'spoils',
  thing: ['shell outside the tile', 'shells outside the tile'],
  effect: 'The texture ends at the tile; what lies beyond shows its other side again.',
  find: (subject) =>
    ofShells(
      subject,
      [...subject.boxes.keys()].filter((s) => {
        const box = subject.boxes[s];
        return box !== undefined && isOutside(box);
      }),
      (shells) => ({
        label: 'Move into the tile',
        request: { operation: 'move-clear', params: { shells } },
      }),
    ),
};
