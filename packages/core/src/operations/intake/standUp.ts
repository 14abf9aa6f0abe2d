import type { ValueChange } from '../../document/delta.ts';
import { UP_AXES } from '../../document/fields.ts';
import { about, choice, optional, record, whole } from '../../params.ts';
import { operation } from '../operation.ts';

/** Says which axis of the model points up, and which way it looks. The model itself, and what is exported of it, stays as it is. */
export const standUp = operation({
  name: 'stand-up',
  stage: 'intake',
  params: record({
    up: about('the axis of the model that points up', choice(...UP_AXES)),
    front: about(
      'which way it looks: quarter turns about what points up, from the front of its file; as it is when absent',
      optional(whole(0, 3)),
    ),
  }),
  label: ({ up, front }) =>
    `Stand the model up along ${up}${front === undefined ? '' : ', and turn it to the front'}`,
  doing: 'Standing the model up',
  onLocked: true,
  run: (document, { up, front = document.front }) => ({
    changes: [
      valueChange('upAxis', document.upAxis, UP_AXES.indexOf(up)),
      valueChange('front', document.front, front),
    ].filter(({ before, after }) => before !== after),
    notes: [],
  }),
});

const valueChange = (field: 'upAxis' | 'front', before: number, after: number): ValueChange => ({
  kind: 'value',
  field,
  before,
  after,
});
