import xxhash from 'xxhash-wasm';
import { once } from '../once.ts';

/** A checksum of bytes: 16 hexadecimal digits. */
export type Checksum = (bytes: Uint8Array) => string;

/** Bytes that are handed over at a time: the hash copies them into a memory of its own, which never shrinks. */
const STRETCH = 2 ** 20;

/**
 * Makes ready the checksum that kept data carries: XXH64, against damage and not against forgery (Collet, xxHash fast digest
 * algorithm, specification 0.1.1).
 */
export const checksums: () => Promise<Checksum> = once(() =>
  xxhash().then(({ create64 }) => (bytes) => {
    const hash = create64();
    for (let at = 0; at < bytes.length; at += STRETCH) hash.update(bytes.subarray(at, at + STRETCH));
    return hash.digest().toString(16).padStart(16, '0');
  }),
);

/** The bytes of an array, not copied. */
export const bytesOf = ({ buffer, byteOffset, byteLength }: ArrayBufferView): Uint8Array =>
  new Uint8Array(buffer, byteOffset, byteLength);
