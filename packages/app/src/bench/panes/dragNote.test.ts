import { describe, expect, it, vi } from 'vitest';
import { describeDrag } from './DragNote.tsx';

vi.mock('../../store/worker.ts', () => ({ ask: vi.fn() }));

describe('what is describeDrag of shells under the hand', () => {
  it('is how far they are moved, by texels, turned or scaled', () => {
    expect(describeDrag([1, 0, 0, 1, 0.125, -0.25], 2048)).toBe('Moved 256, -512 px of 2048');
    const [c, s] = [Math.cos(Math.PI / 12), Math.sin(Math.PI / 12)];
    expect(describeDrag([c, s, -s, c, 0.3, 0.1], 2048)).toBe('Turned 15.0°');
    expect(describeDrag([1.2, 0, 0, 1.2, 0, 0], 2048)).toBe('Scaled × 1.20');
  });
});
