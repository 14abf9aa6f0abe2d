import { shellOf, shellsOf } from '../document/document.ts';
import { facesOfShell } from '../surface/shells.ts';
import { shellTopology } from '../surface/shellTopology.ts';
import { type Inspection, named, ofShells } from './inspection.ts';

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
    const willing = stale.filter((s) => shellTopology(shellOf(document, s)).canUnfold);
    const found = ofShells(subject, stale);
    if (!found || willing.length === 0) return found;
    const request = { operation: 'unfold', params: { shells: named(document, willing) } };
    return { ...found, remedy: { label: 'Unfold them anew', request } };
  },
};
