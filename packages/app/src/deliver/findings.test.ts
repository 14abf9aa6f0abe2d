import type { LayoutFinding } from '@blunt-hem/core/inspect/inspection';
import { describe, expect, it } from 'vitest';
import type { Layout } from '../worker/protocol.ts';
import { deliverFindings } from './findings.ts';

const finding = (kind: string): LayoutFinding => ({
  kind,
  severity: 'spoils',
  effect: 'It is so.',
  title: `1 ${kind}`,
  count: 1,
  faces: new Uint32Array(0),
  edges: new Uint32Array(0),
  shells: [0],
});
const layout = (...kinds: string[]): Layout => ({
  overlaps: new Uint32Array(0),
  findings: kinds.map(finding),
  atLeast: false,
  covered: [0.2],
  coveredBefore: undefined,
  near: new Uint32Array(0),
});

describe('before the model is handed over', () => {
  it('every finding is told, and seams that show where somebody looked', () => {
    const told = (seamsShown?: LayoutFinding) =>
      deliverFindings({ layout: layout('flipped', 'odd'), measured: true, seamsShown })?.map(
        ({ kind }) => kind,
      );
    expect(told()).toEqual(['flipped', 'odd']);
    expect(told(finding('shown'))).toEqual(['flipped', 'odd', 'shown']);
  });

  it('nothing is told before it was looked at', () => {
    expect(deliverFindings({ layout: layout(), measured: true, seamsShown: undefined })).toEqual([]);
    expect(deliverFindings({ layout: layout(), measured: false, seamsShown: undefined })).toBeUndefined();
    expect(deliverFindings({ layout: undefined, measured: true, seamsShown: undefined })).toBeUndefined();
  });
});
