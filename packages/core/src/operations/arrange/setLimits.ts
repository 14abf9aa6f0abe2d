import type { ValueChange } from '../../document/delta.ts';
import { type Limits, limitsShape } from '../../document/limits.ts';
import { about, type Param, record } from '../../params.ts';
import { operation } from '../operation.ts';

/** Says how much is put up with in the flat: what is judged, found and kept apart from then on goes by it. */
export const setLimits = operation({
  name: 'set-limits',
  stage: 'inspect',
  params: record({ limits: about('how much stretch is put up with', limitsShape as Param<Limits>) }),
  label: () => 'Set the limits',
  doing: 'Setting limits',
  onLocked: true,
  run: ({ limits: before }, { limits }) => ({
    changes: [{ kind: 'value', field: 'limits', before, after: limits } as ValueChange],
    notes: [],
  }),
});
