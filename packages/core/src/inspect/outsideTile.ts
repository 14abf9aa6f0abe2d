import { isOutside } from '../surface/tiles.ts';
import { type Inspection, ofShells } from './inspection.ts';

export const outsideTile: Inspection = {
  kind: 'outside',
  when: 'not wholly in one, by more than 10⁻⁹',
  severity: 'spoils',
  thing: ['shell outside the tiles', 'shells outside the tiles'],
  effect: 'The texture ends at the tile; what lies beyond shows its other side again.',
  find: (subject) =>
    ofShells(
      subject,
      [...subject.boxes.keys()].filter((s) => {
        const box = subject.boxes[s];
        return box !== undefined && isOutside(subject.document.tiles, box);
      }),
      (shells) => ({
        label: 'Move into the tile',
        request: { operation: 'move-clear', params: { shells } },
      }),
    ),
};
