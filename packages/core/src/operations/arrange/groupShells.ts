import { markChange } from '../../document/delta.ts';
import { shellsOf } from '../../document/document.ts';
import { groupOf, nextGroup } from '../../document/groups.ts';
import { namedShells } from '../../document/shellChoice.ts';
import { HemError } from '../../errors.ts';
import { about, flag, record, whichShells } from '../../params.ts';
import { plural } from '../../plural.ts';
import { facesOfShell } from '../../surface/shells.ts';
import { operation } from '../operation.ts';

/** Shells are packed as one from now on, as they lie to one another: what is stacked stays stacked. Or each goes by itself again. */
export const groupShells = operation({
  name: 'group-shells',
  stage: 'arrange',
  params: record({
    shells: whichShells,
    together: about('whether they are kept together, or each goes by itself again', flag()),
  }),
  label: ({ shells, together }, document) => {
    const count = plural(namedShells(document, shells).length, 'shell');
    return together ? `Keep ${count} together` : `Let ${count} go apart`;
  },
  doing: 'Grouping',
  onLocked: true,
  run(document, { shells, together }) {
    const named = namedShells(document, shells);
    if (together && named.length < 2)
      throw new HemError('too-few', 'Nothing was changed: it takes two shells to keep them together.');
    const [first, ...others] = named.map((s) => groupOf(document, s));
    if (together && first > 0 && others.every((group) => group === first))
      return { changes: [], notes: ['Nothing was changed: they are kept together already.'] };
    const faces = named.flatMap((s) => [...facesOfShell(shellsOf(document), s)]);
    const mark = markChange(document, 'groups', faces, together ? nextGroup(document) : 0);
    if (mark.index.length > 0) return { changes: [mark], notes: [] };
    return { changes: [], notes: ['Nothing was changed: none of them was kept together.'] };
  },
});
