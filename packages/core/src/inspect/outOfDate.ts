import { shellsOf } from '../document/document.ts';
import { facesOfShell } from '../surface/shells.ts';
import { type Inspection, ofShells, unfoldThem } from './inspection.ts';

export const outOfDate: Inspection = {
  kind: 'out-of-date',
  when: 'they lie as they were cut before',
  severity: 'hint',
  thing: ['shell cut or sewn since it was unfolded', 'shells cut or sewn since they were unfolded'],
  effect: 'They lie as they were cut before, not as they are now.',
  find(subject) {
    const { document, boxes } = subject;
    const stale = [...boxes.keys()].filter(
      (s) => boxes[s] && facesOfShell(shellsOf(document), s).some((f) => document.stale[f] === 1),
    );
    const found = ofShells(subject, stale);
    return found && { ...found, remedy: unfoldThem(document, stale, 'Unfold them anew') };
  },
};
