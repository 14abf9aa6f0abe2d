import { UP_AXES } from '../../document/fields.ts';
import type { ValueChange } from '../../document/patch.ts';
import { choice, record } from '../../params.ts';
import { operation } from '../operation.ts';

/** Says which axis of the model points up. The model itself, and what is exported of it, stays as it is. */
export const standUp = operation({
  name: 'stand-up',
  stage: 'intake',
  params: record({ up: choice(...UP_AXES) }),
  label: ({ up }) => `Stand the model up along ${up}`,
  doing: 'Standing the model up',
  run: ({ upAxis }, { up }) => ({
    changes: [{ kind: 'value', field: 'upAxis', before: upAxis, after: UP_AXES.indexOf(up) } as ValueChange],
    notes: [],
  }),
});
