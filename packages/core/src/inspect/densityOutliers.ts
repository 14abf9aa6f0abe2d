import { densitiesOf, usualDensity } from './densities.ts';
import { type Inspection, ofShells } from './inspection.ts';

/** Density that differs by more than this factor from that of most of the surface shows. A judgement of ours. */
const OFF = 1.25;

export const densityOutliers: Inspection = {
  kind: 'density',
  severity: 'hint',
  thing: ['shell at another texture scale than the rest', 'shells at another texture scale than the rest'],
  effect: 'A scratch is sharper there, or more blurred, than beside it.',
  find(subject) {
    const known = densitiesOf(subject);
    const usual = usualDensity(known);
    if (!usual) return undefined;
    const off = [...known.density.keys()].filter(
      (s) => Math.abs(Math.log(known.density[s] / usual)) > Math.log(OFF),
    );
    return ofShells(subject, off, (shells) => ({
      label: 'Scale to the density of the rest',
      request: { operation: 'even-density', params: { shells } },
    }));
  },
};
