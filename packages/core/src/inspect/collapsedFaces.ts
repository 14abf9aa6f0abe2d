import { type Inspection, ofSpoiltFaces } from './inspection.ts';

export const collapsedFaces: Inspection = {
  kind: 'collapsed',
  when: 'less than 10⁻⁹ of their due',
  severity: 'spoils',
  thing: ['face without any area in the flat', 'faces without any area in the flat'],
  effect: 'They get no texture: what is beside them is smeared over them.',
  find: (subject) => ofSpoiltFaces(subject, subject.collapsed),
};
