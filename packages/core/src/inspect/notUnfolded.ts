import { hasUv, shellsOf } from '../document/document.ts';
import { type Inspection, ofShells, unfoldThem } from './inspection.ts';

export const notUnfolded: Inspection = {
  kind: 'not-unfolded',
  when: 'a place of theirs has no UV',
  severity: 'spoils',
  thing: ['shell without UVs', 'shells without UVs'],
  effect: 'They get no texture at all.',
  find(subject) {
    const { document, boxes } = subject;
    const missing = Array.from({ length: shellsOf(document).shellCount }, (_, s) => s).filter(
      (s) => !boxes[s] && !hasUv(document, s),
    );
    const found = ofShells(subject, missing);
    // On a model where nothing lies flat it goes without saying how.
    if (!found || missing.length === boxes.length) return found;
    return { ...found, remedy: unfoldThem(document, missing, 'Unfold them') };
  },
};
