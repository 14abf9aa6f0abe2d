import { knownTopology, openDocument, plainDocument, topologyOf } from '@blunt-hem/core/document/document';
import { modelFromMesh } from '@blunt-hem/core/mesh/model';
import { sheet } from '@blunt-hem/core/testing/shapes';
import { describe, expect, it } from 'vitest';
import { intoSharedMemory, type Parcel, receiver, sharing } from './sharedInput.ts';

/** A document of some thousand faces, so that its arrays are worth sharing. */
const opened = () => {
  const mesh = sheet(80, 80, (i, j) => [j, i, 0]);
  return openDocument(modelFromMesh('Sheet', mesh));
};

/** A parcel as it arrives in another thread: what is shared stays, all else is a copy. */
const posted = (parcel: Parcel): { readonly parcel: Parcel; readonly bytes: number } => {
  let bytes = 0;
  const post = (value: unknown): unknown => {
    if (ArrayBuffer.isView(value)) {
      const Kind = value.constructor as new (from: ArrayBufferLike | ArrayBufferView) => unknown;
      if (value.buffer instanceof SharedArrayBuffer) return new Kind(value.buffer);
      bytes += value.byteLength;
      return new Kind(value);
    }
    if (Array.isArray(value)) return value.map(post);
    if (typeof value !== 'object' || value === null) return value;
    return Object.fromEntries(Object.entries(value).map(([key, each]) => [key, post(each)]));
  };
  const copy = post(parcel) as Parcel;
  return { parcel: copy, bytes };
};

interface Input {
  readonly document: ReturnType<typeof opened>;
  readonly shells: readonly number[];
  readonly wanted: { readonly list: readonly object[]; readonly flat: Float64Array };
}
const inputOf = (document: ReturnType<typeof opened>): Input => ({
  document: plainDocument(document),
  shells: [1, 2, 3],
  wanted: { list: [{ small: Uint8Array.of(1) }], flat: new Float64Array(2000).fill(0.5) },
});

describe.each([
  ['in shared memory', true],
  ['as copies, where the page may share none', false],
])('the input of a job, %s', (_, isShared) => {
  it('arrives as it was sent, and what lasts is the same object every time', () => {
    const document = opened();
    const send = sharing(isShared).sender();
    const receive = receiver();
    const [first, second] = [0, 1].map(() => receive(posted(send(inputOf(document))).parcel) as Input);
    expect(first).toEqual(inputOf(document));
    expect(second).toEqual(inputOf(document));
    expect(second.document.model.mesh).toBe(first.document.model.mesh);
    expect(second.document.seams).toBe(first.document.seams);
    // What follows from the mesh came along.
    const topology = knownTopology(first.document.model.mesh);
    expect(topology?.connectivity).toEqual(topologyOf(document.model).connectivity);
    expect(topology?.mesh).toBe(first.document.model.mesh);
  });

  it('costs little when it was sent before, and only what differs afterwards', () => {
    const document = opened();
    const send = sharing(isShared).sender();
    const bytes = (input: unknown) => posted(send(input)).bytes;
    const own = 8 * 2000;
    const first = bytes(inputOf(document));
    if (isShared) expect(first).toBeLessThan(5000);
    else expect(first).toBeGreaterThan(500_000);
    expect(bytes(inputOf(document))).toBeLessThan(isShared ? 5000 : own + 5000);
    const cut = { ...document, seams: document.seams.map((x, e) => (e === 70 ? 1 : x)) };
    expect(bytes(inputOf(cut))).toBeLessThan(isShared ? 5000 : own + document.seams.length + 5000);
  });

  it('has the same document each time for a worker that keeps it, until there is another', () => {
    const document = opened();
    const send = sharing(isShared).sender(true);
    const receive = receiver();
    const plain = plainDocument(document);
    const sent = (input: object) => receive(posted(send(input)).parcel) as Pick<Input, 'document'>;
    const first = sent({ document: plain });
    expect(first.document).toEqual(plain);
    for (let i = 0; i < 12; i++) expect(sent({ document: plain }).document).toBe(first.document);
    const cut = { ...plain, seams: plain.seams.map((x, e) => (e === 70 ? 1 : x)) };
    const next = sent({ document: cut });
    expect(next.document).toEqual(cut);
    expect(next.document.model.mesh).toBe(first.document.model.mesh);
    // The one before has gone with the next job, and comes anew.
    sent({ document: cut });
    const again = sent({ document: plain });
    expect(again.document).toEqual(plain);
    expect(again.document).not.toBe(first.document);
  });

  it('is forgotten by a worker for which it was of no use for a while, and comes again when it is', () => {
    const document = opened();
    const send = sharing(isShared).sender();
    const receive = receiver();
    const first = receive(posted(send(inputOf(document))).parcel) as Input;
    let gone = 0;
    for (let i = 0; i < 10; i++) {
      const { parcel } = posted(send({ shells: [] }));
      gone += parcel.departures.length;
      receive(parcel);
    }
    expect(gone).toBeGreaterThan(3);
    const again = receive(posted(send(inputOf(document))).parcel) as Input;
    expect(again).toEqual(first);
    expect(again.document.model.mesh).not.toBe(first.document.model.mesh);
  });
});

describe('plain data in shared memory', () => {
  it('is the same to read, is moved once, and leaves what is small where it is', () => {
    const long = new Uint32Array(3000).fill(7);
    const small = Uint8Array.of(1);
    const [root] = intoSharedMemory([{ roots: [new Float32Array(2000).fill(3).buffer] }]);
    expect(root.roots[0]).toBeInstanceOf(SharedArrayBuffer);
    expect(new Float32Array(root.roots[0])[1999]).toBe(3);
    const moved = intoSharedMemory({ a: long, b: [{ c: long, small }], name: 'x', none: undefined });
    expect(moved).toEqual({ a: long, b: [{ c: long, small }], name: 'x', none: undefined });
    expect(moved.a.buffer).toBeInstanceOf(SharedArrayBuffer);
    expect(moved.b[0].c).toBe(moved.a);
    expect(moved.b[0].small).toBe(small);
    expect(intoSharedMemory(moved).a).toBe(moved.a);
  });
});
