import { describe, expect, it } from 'vitest';
import { modelFromMesh } from '../mesh/model.ts';
import { findFault } from '../persistence/validateDocument.ts';
import { cube } from '../testing/shapes.ts';
import { applyDelta } from './delta.ts';
import { openDocument } from './document.ts';
import { upgradedDelta, upgradedDocument } from './upgrade.ts';

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
    const upgraded = (field: string) => upgradedDelta({ changes: [marks(field)], notes: [] } as never);
    expect(upgraded('hiddenParts').changes).toEqual([]);
    expect(upgraded('seams').changes).toHaveLength(1);
  });

  it('has materials as objects, where they were names and a list of colours', () => {
    const { images: _, ...model } = now.model;
    const old = {
      materials: ['Moss', 'Bare'],
      materialColours: Float64Array.of(0.25, 0.5, 0.125, NaN, NaN, NaN),
    };
    const described = [{ name: 'Moss', colour: [0.25, 0.5, 0.125] }, { name: 'Bare' }];
    const kept = { ...now, model: { ...model, ...old } };
    const upgraded = upgradedDocument(kept as never);
    expect(upgraded.model.materials).toEqual(described);
    expect(upgraded.model.images).toEqual([]);
    expect(findFault(upgraded)).toBeUndefined();

    const change = {
      kind: 'model',
      before: old,
      after: { ...old, materials: ['Fern', 'Bare'] },
      perFace: {},
    };
    const delta = upgradedDelta({ changes: [change], notes: [] } as never);
    expect(applyDelta(upgraded, delta).model.materials[0]).toEqual({ ...described[0], name: 'Fern' });
    expect(applyDelta(upgraded, delta).model).not.toHaveProperty('materialColours');
  });
});
