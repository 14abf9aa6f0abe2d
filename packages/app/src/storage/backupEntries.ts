import { BlobReader, type FileEntry, Uint8ArrayWriter, ZipReader } from '@zip.js/zip.js';

/** One file in a backup. */
export interface BackupEntry {
  /** Bytes that it says it has. */
  readonly size: number;
  /** Its bytes, when their checksum is that of what was written. */
  verified(): Promise<Uint8Array | undefined>;
  /** Its bytes as they read, whatever their checksum, and as many of them as there are. */
  unverified(): Promise<Uint8Array | undefined>;
}

interface BackupEntries {
  readonly entries: Map<string, BackupEntry>;
  /** Adds the files that the directory does not name, and tells whether there are any. */
  addUnlisted(): Promise<boolean>;
  close(): Promise<void>;
}

/**
 * The files in the zip that a backup is, all of them stored as they are. Where the directory at its end is damaged or missing, they are
 * found by the headers that stand before each (PKWARE, .ZIP File Format Specification 6.3.10, section 4.3.7).
 */
export async function backupEntries(file: Blob): Promise<BackupEntries> {
  const zip = new ZipReader(new BlobReader(file), { useWebWorkers: false });
  const entries = new Map<string, BackupEntry>();
  const scan = once(() => scanned(file));
  try {
    // Of one that is cut short the directory of a project in it may be taken for its own.
    for (const entry of await zip.getEntries())
      if (!entry.directory && OURS.test(entry.filename))
        entries.set(entry.filename, listedEntry(entry as FileEntry, file.size, scan));
  } catch {
    entries.clear();
  }
  return {
    entries,
    async addUnlisted() {
      const before = entries.size;
      for (const [name, bytes] of await scan())
        if (!entries.has(name)) entries.set(name, scannedEntry(bytes));
      return entries.size > before;
    },
    close: () => zip.close(),
  };
}

const once = <T>(work: () => Promise<T>): (() => Promise<T>) => {
  let result: Promise<T> | undefined;
  return () => {
    result ??= work();
    return result;
  };
};

/** @param most  bytes of the backup: no file in it is compressed, so none is larger, whatever it says */
function listedEntry(
  entry: FileEntry,
  most: number,
  scan: () => Promise<ReadonlyMap<string, Blob>>,
): BackupEntry {
  const data = (checkSignature: boolean) =>
    entry.compressionMethod === 0 && entry.uncompressedSize <= most && entry.compressedSize <= most
      ? entry.getData(new Uint8ArrayWriter(), { checkSignature }).catch(() => undefined)
      : Promise.resolve(undefined);
  return {
    size: entry.uncompressedSize,
    verified: () => data(true),
    async unverified() {
      const bytes = await data(false);
      if (bytes) return bytes;
      const found = (await scan()).get(entry.filename);
      return found && bytesOf(found);
    },
  };
}

const scannedEntry = (found: Blob): BackupEntry => ({
  size: found.size,
  // Without the directory nothing is known of its checksum but what the reader of it knows.
  verified: () => bytesOf(found),
  unverified: () => bytesOf(found),
});

const bytesOf = async (blob: Blob): Promise<Uint8Array> => new Uint8Array(await blob.arrayBuffer());

const LOCAL_HEADER = 0x04034b50;
const DIRECTORY_HEADER = 0x02014b50;
const HEADER_BYTES = 30;
const LONGEST_NAME = 2 ** 10;
/** What a backup is made of; project files are zips themselves, and what is in those is left in them. */
const OURS = /^(rack\.json|(facts|projects|pictures)\/.+)$/;
/** Bytes that are looked through at a time. */
const STRETCH = 2 ** 24;

/** Files by the headers before them; each ends where the next begins, or its size says so. */
async function scanned(file: Blob): Promise<ReadonlyMap<string, Blob>> {
  const found: {
    readonly name: string;
    readonly at: number;
    readonly from: number;
    readonly size: number;
  }[] = [];
  let end = file.size;
  for (let start = 0; start < file.size; start += STRETCH) {
    const bytes = await bytesOf(file.slice(start, start + STRETCH + HEADER_BYTES + LONGEST_NAME));
    const view = new DataView(bytes.buffer);
    for (let i = 0; i < Math.min(STRETCH, bytes.length - HEADER_BYTES); i++) {
      // “P” first: little else begins so.
      if (bytes[i] !== 0x50) continue;
      const signature = view.getUint32(i, true);
      if (signature === DIRECTORY_HEADER && isOurs(bytes, i + 46, view.getUint16(i + 28, true)))
        end = Math.min(end, start + i);
      if (signature !== LOCAL_HEADER) continue;
      const length = view.getUint16(i + 26, true);
      const name = nameAt(bytes, i + HEADER_BYTES, length);
      if (!name || !OURS.test(name)) continue;
      const from = start + i + HEADER_BYTES + length + view.getUint16(i + 28, true);
      found.push({ name, at: start + i, from, size: view.getUint32(i + 22, true) });
    }
  }
  const files = new Map<string, Blob>();
  for (const [i, { name, from, size }] of found.entries()) {
    const next = Math.max(from, Math.min(found[i + 1]?.at ?? end, end));
    // Backups that were written with their sizes after the contents have none here.
    files.set(name, file.slice(from, size > 0 && from + size <= next ? from + size : next));
  }
  return files;
}

const isOurs = (bytes: Uint8Array, at: number, length: number): boolean =>
  OURS.test(nameAt(bytes, at, length) ?? '');

function nameAt(bytes: Uint8Array, at: number, length: number): string | undefined {
  if (length === 0 || length > LONGEST_NAME || at + length > bytes.length) return undefined;
  return new TextDecoder().decode(bytes.subarray(at, at + length));
}
