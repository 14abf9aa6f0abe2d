import { describe, expect, it } from 'vitest';
import { byteSize } from '../document/delta.ts';
import { deltaMemory } from './deltaMemory.ts';
import { memoryPersistence, type Persistence } from './persistence.ts';

describe('the memory of patches', () => {
  it('holds no more than it may, what is near, and reads the rest back', async () => {
    const delta = (i: number) => ({
      changes: [
        {
          kind: 'marks' as const,
          field: 'seams' as const,
          index: Uint32Array.of(i),
          before: Uint8Array.of(0),
          after: Uint8Array.of(1),
        },
      ],
      notes: [],
    });
    const one = byteSize(delta(0).changes);
    const read: number[] = [];
    const persistence: Persistence = {
      ...memoryPersistence(),
      memory: 3 * one,
      delta: async (at) => {
        read.push(at);
        return delta(at);
      },
    };
    const memory = deltaMemory(persistence);
    for (let i = 0; i < 10; i++) memory.put(i, delta(i), i + 1);
    expect(memory.bytes).toBeLessThanOrEqual(3 * one);
    for (let i = 10; i-- > 0; ) expect(await memory.get(i)).toEqual(delta(i));
    expect(read).toEqual([6, 5, 4, 3, 2, 1, 0]);
    expect(memory.bytes).toBeLessThanOrEqual(3 * one);
    // What could be redone is gone once something else is done.
    memory.put(2, delta(77), 3);
    expect(await memory.get(2)).toEqual(delta(77));
    expect(await memory.get(5)).toEqual(delta(5));
    expect(read.at(-1)).toBe(5);
  });
});
