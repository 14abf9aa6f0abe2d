import { densitiesOf, isOffDensity } from './densities.ts';
import { type Inspection, ofShells } from './inspection.ts';

export const densityOutliers: Inspection = {
  kind: 'density',
  when: 'density farther off from that of most of the surface than the limit',
  severity: 'hint',
  thing: ['shell at another texture scale than the rest', 'shells at another texture scale than the rest'],
  effect: 'A scratch is sharper there, or more blurred, than beside it.',
  find(subject) {
    const known = densitiesOf(subject);
    const off = [...known.density.keys()].filter(isOffDensity(known, subject.document.limits));
    return ofShells(subject, off, (shells) => ({
      label: 'Scale to the density of the rest',
      request: { operation: 'even-density', params: { shells } },
    }));
  },
};
