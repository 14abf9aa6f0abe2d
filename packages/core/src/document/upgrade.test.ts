import { describe, expect, it } from 'vitest';
import { modelFromMesh } from '../mesh/model.ts';
import { cube } from '../testing/shapes.ts';
import { openDocument } from './document.ts';
import type { KeptAct } from './history.ts';
import { upgradedActs, upgradedDocument } from './upgrade.ts';

const now = openDocument(modelFromMesh('Cube', cube()));

describe('what an earlier version kept', () => {
  it('opens with everything shown, where parts were hidden', () => {
    const { hidden: _, ...rest } = now;
    const kept = { ...rest, hiddenParts: Uint8Array.of(1) };
    expect(upgradedDocument(kept as never)).toEqual(now);
    expect(upgradedDocument(now)).toBe(now);
  });

  it('loses only the acts on parts', () => {
    const marks = (field: string) => ({
      kind: 'marks',
      field,
      index: Uint32Array.of(0),
      before: Uint8Array.of(0),
      after: Uint8Array.of(1),
    });
    const act = (field: string): KeptAct =>
      ({
        operation: field,
        label: field,
        params: {},
        group: 0,
        patch: { changes: [marks(field)], notes: [] },
      }) as never;
    const [hidden, cut] = upgradedActs([act('hiddenParts'), act('seams')]);
    expect(hidden.patch.changes).toEqual([]);
    expect(cut.patch.changes).toHaveLength(1);
  });
});
