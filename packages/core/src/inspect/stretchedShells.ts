import { shellOf, shellUv } from '../document/document.ts';
import { isTooStretched } from '../document/judgement.ts';
import { measureStretch } from '../measure/stretch.ts';
import { type Found, type Inspection, named, relaxThem, unrelaxed } from './inspection.ts';
import type { Subject } from './subject.ts';

export const stretchedShells: Inspection = {
  kind: 'stretched',
  when: 'one of the limits is exceeded',
  severity: 'hint',
  thing: ['shell stretched more than is good to paint on', 'shells stretched more than is good to paint on'],
  effect: 'What is painted there comes out larger in one place than in another, or askew.',
  find(subject): Found | undefined {
    const { document } = subject;
    const stretched = stretchesOf(subject).filter(({ stretch }) =>
      isTooStretched(stretch, subject.document.limits),
    );
    if (stretched.length === 0) return undefined;
    const shells = stretched.map(({ shell }) => shell);
    const loose = unrelaxed(document, shells);
    const [worst] = [...stretched].sort((a, b) => b.stretch.l2 - a.stretch.l2);
    return {
      count: shells.length,
      shells,
      remedy:
        loose.length > 0
          ? relaxThem(document, loose)
          : { label: 'Look for a cut', cutsOf: named(document, [worst.shell])[0] },
    };
  },
};

const stretchesOf = ({ document, boxes }: Subject) =>
  [...boxes.keys()].flatMap((shell) => {
    if (!boxes[shell]) return [];
    const piece = shellOf(document, shell);
    const uv = shellUv(document, piece);
    const stretch = uv && measureStretch(piece, uv);
    // What is flipped or collapsed is told by itself.
    return stretch && stretch.flipped + stretch.collapsed === 0 ? [{ shell, stretch }] : [];
  });
