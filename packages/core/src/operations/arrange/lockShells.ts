import { markChange } from '../../document/delta.ts';
import { shellsOf } from '../../document/document.ts';
import { namedShells } from '../../document/shellChoice.ts';
import { about, flag, record, whichShells } from '../../params.ts';
import { plural } from '../../plural.ts';
import { facesOfShell } from '../../surface/shells.ts';
import { operation } from '../operation.ts';

/** Shells are finished from now on, and no act changes them, or they may be changed again. */
export const lockShells = operation({
  name: 'lock-shells',
  stage: 'arrange',
  params: record({ shells: whichShells, locked: about('whether they are locked, or free again', flag()) }),
  label: ({ shells, locked }, document) =>
    `${locked ? 'Lock' : 'Unlock'} ${plural(namedShells(document, shells).length, 'shell')}`,
  doing: 'Locking',
  onLocked: true,
  run(document, { shells, locked }) {
    const faces = namedShells(document, shells).flatMap((s) => [...facesOfShell(shellsOf(document), s)]);
    const mark = markChange(document, 'locked', faces, locked ? 1 : 0);
    if (mark.index.length > 0) return { changes: [mark], notes: [] };
    return { changes: [], notes: [`Nothing was changed: ${locked ? 'locked already' : 'none was locked'}.`] };
  },
});
