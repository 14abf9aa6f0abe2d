import { describe, expect, it } from 'vitest';
import type { HemDocument } from '../document/document.ts';
import { answerCache } from './answerCache.ts';

const [one, other] = [{}, {}] as HemDocument[];

describe('what questions keep', () => {
  it('is of one document, and is let go of when another takes its place, or the session ends', () => {
    const held = answerCache();
    const released: string[] = [];
    const put = (name: string, document: HemDocument, value: object, told: string) =>
      held.put(name, { document, value, release: () => released.push(told) });
    const pin = {};
    put('pin', one, pin, 'pin');
    put('brush', one, {}, 'brush');
    expect(held.get('pin', one)).toBe(pin);
    expect(held.get('pin', other)).toBeUndefined();
    // The same again is not let go of.
    put('pin', one, pin, 'pin');
    expect(released).toEqual([]);
    put('pin', one, {}, 'another pin');
    expect(released).toEqual(['pin']);
    held.keepOnly(one);
    expect(released).toEqual(['pin']);
    held.keepOnly(other);
    expect(released.sort()).toEqual(['another pin', 'brush', 'pin']);
    expect(held.get('brush', one)).toBeUndefined();
    put('pin', other, {}, 'last');
    held.keepOnly();
    expect(released.at(-1)).toBe('last');
  });
});
