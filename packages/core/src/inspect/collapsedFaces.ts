import { shellsOf } from '../document/document.ts';
import { type Inspection, named } from './inspection.ts';

export const collapsedFaces: Inspection = {
  kind: 'collapsed',
  severity: 'spoils',
  thing: ['face without any area in the flat', 'faces without any area in the flat'],
  effect: 'They get no texture: what is beside them is smeared over them.',
  find(subject) {
    const { document, collapsed: faces } = subject;
    const { faceShell } = shellsOf(document);
    if (faces.length === 0) return undefined;
    const shells = [...new Set(faces.map((f) => faceShell[f]))];
    return {
      count: faces.length,
      faces,
      shells,
      remedy: {
        label: 'Unfold them anew',
        request: { operation: 'unfold', params: { shells: named(document, shells) } },
      },
    };
  },
};
