import { type HemDocument, shellsOf, topologyOf } from '../document/document.ts';
import { HemError } from '../errors.ts';
import { PART_KINDS, partsBy } from '../mesh/parts.ts';
import { about, choice, record, words } from '../params.ts';
import { borderOfFaces } from '../select/borderOfFaces.ts';
import { facesOfShell } from '../surface/shells.ts';
import { selector } from './selector.ts';

/** What faces have a name by: parts of the file, and patches. */
const KINDS = [...PART_KINDS, 'patch'] as const;
type Kind = (typeof KINDS)[number];

const kind = about('what has the name', choice(...KINDS));
const named = about('its name', words(1000));

/** @throws HemError when nothing of the model has that name */
function facesNamed(document: HemDocument, kind: Kind, name: string): number[] {
  const { connectivity } = topologyOf(document.model);
  const { facePart, names } =
    kind === 'patch'
      ? { facePart: document.patches, names: ['', ...document.patchNames] }
      : partsBy(kind, document.model, connectivity);
  const meant = new Set([...names.keys()].filter((i) => names[i] === name && !(kind === 'patch' && i === 0)));
  if (meant.size === 0) throw new HemError('no-such-name', `The model has no ${kind} “${name}”.`);
  const found: number[] = [];
  for (let f = 0; f < facePart.length; f++) if (meant.has(facePart[f])) found.push(f);
  return found;
}

/** All faces of what has a name. */
export const facesOf = selector({
  of: 'faces',
  key: 'of',
  params: record({ of: kind, name: named }),
  words: ({ of, name }) => `${of} “${name}”`,
  resolve: (document, { of, name }) => facesNamed(document, of, name),
});

/** The edges round what has a name. */
export const edgesRound = selector({
  of: 'edges',
  key: 'round',
  params: record({ round: kind, name: named }),
  words: ({ round, name }) => `edges round ${round} “${name}”`,
  resolve(document, { round, name }) {
    const { connectivity } = topologyOf(document.model);
    return borderOfFaces(connectivity, facesNamed(document, round, name)).filter(
      (e) => connectivity.isInterior[e] === 1,
    );
  },
});

/** Shells of which most faces have a name. */
export const shellsOfNamed = selector({
  of: 'shells',
  key: 'of',
  params: record({ of: kind, name: named }),
  words: ({ of, name }) => `shells of ${of} “${name}”`,
  resolve(document, { of, name }) {
    const shells = shellsOf(document);
    const own = new Uint32Array(shells.shellCount);
    for (const f of facesNamed(document, of, name)) own[shells.faceShell[f]]++;
    return [...own.keys()].flatMap((s) => {
      const faces = facesOfShell(shells, s);
      return 2 * own[s] > faces.length ? [faces[0]] : [];
    });
  },
});
