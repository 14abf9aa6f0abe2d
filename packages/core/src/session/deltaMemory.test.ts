import { describe, expect, it } from 'vitest';
import { byteSize } from '../document/delta.ts';
import { deltaMemory } from './deltaMemory.ts';
import { memoryPersistence, type Persistence } from './persistence.ts';

describe('the memory of patches', () => {
  it('holds no more than it may, what is near, and reads the rest back', async () => {
    const patch = (i: number) => ({
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
    const one = byteSize(patch(0).changes);
    const read: number[] = [];
    const persistence: Persistence = {
      ...memoryPersistence(),
      memory: 3 * one,
      patch: async (at) => {
        read.push(at);
        return patch(at);
      },
    };
    const memory = deltaMemory(persistence);
    for (let i = 0; i < 10; i++) memory.put(i, patch(i), i + 1);
    expect(memory.bytes).toBeLessThanOrEqual(3 * one);
    for (let i = 10; i-- > 0; ) expect(await memory.get(i)).toEqual(patch(i));
    expect(read).toEqual([6, 5, 4, 3, 2, 1, 0]);
    expect(memory.bytes).toBeLessThanOrEqual(3 * one);
    // What could be redone is gone once something else is done.
    memory.put(2, patch(77), 3);
    expect(await memory.get(2)).toEqual(patch(77));
    expect(await memory.get(5)).toEqual(patch(5));
    expect(read.at(-1)).toBe(5);
  });
});
