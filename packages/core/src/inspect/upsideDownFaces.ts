import { shellsOf } from '../document/document.ts';
import { facesOfShell } from '../surface/shells.ts';
import { type Inspection, named, ofShells, ofSpoiltFaces, type Remedy } from './inspection.ts';
import { perShell, type Subject } from './subject.ts';

/** Shells of which every face lies upside down. */
const mirrored = (subject: Subject): Set<number> => {
  const { faceShell, shellCount } = shellsOf(subject.document);
  const up = new Uint8Array(shellCount);
  subject.flatArea.forEach((flat, f) => {
    if (flat > 0) up[faceShell[f]] = 1;
  });
  const sums = perShell(subject, subject.flatArea);
  return new Set([...sums.keys()].filter((s) => !up[s] && sums[s] < 0));
};

export const mirroredShells: Inspection = {
  kind: 'mirrored',
  when: 'no face lies the right way up',
  severity: 'spoils',
  thing: ['mirrored shell', 'mirrored shells'],
  effect: 'Writing on them reads the wrong way round, and bumps become dents.',
  find: (subject) =>
    ofShells(subject, [...mirrored(subject)], (shells) => ({
      label: 'Mirror back',
      request: { operation: 'mirror-in-place', params: { shells } },
    })),
};

export const flippedFaces: Inspection = {
  kind: 'flipped',
  when: 'a triangle of theirs is upside down; shells that lie so as a whole are told by themselves',
  severity: 'spoils',
  thing: ['face upside down', 'faces upside down'],
  effect: 'They lie on their neighbours, and what is painted there shows twice and mirrored.',
  find(subject) {
    const { faceShell } = shellsOf(subject.document);
    const whole = mirrored(subject);
    const faces = subject.flipped.filter((f) => !whole.has(faceShell[f]));
    const found = ofSpoiltFaces(subject, faces);
    return found && areFew(subject, faces) ? { ...found, remedy: unfoldFolds(subject, faces) } : found;
  },
};

/** Where so small a part of a shell lies upside down, it can be mended where it is. */
const FEW = 0.1;

function areFew({ document }: Subject, faces: readonly number[]): boolean {
  const shells = shellsOf(document);
  const count = new Map<number, number>();
  for (const f of faces) count.set(shells.faceShell[f], (count.get(shells.faceShell[f]) ?? 0) + 1);
  return [...count].every(([s, few]) => few <= FEW * facesOfShell(shells, s).length);
}

const unfoldFolds = ({ document }: Subject, faces: readonly number[]): Remedy => ({
  label: 'Unfold the folds',
  request: {
    operation: 'unfold-folds',
    params: { shells: named(document, new Set(faces.map((f) => shellsOf(document).faceShell[f]))) },
  },
});
