/** Files that were opened together, by their names. */
export type Companions = ReadonlyMap<string, Uint8Array>;

/** A file's own name, whatever path or address leads to it. */
export function baseName(uri: string): string {
  const path = uri.split(/[?#]/)[0].replaceAll('\\', '/');
  const last = path.slice(path.lastIndexOf('/') + 1);
  try {
    return decodeURIComponent(last);
  } catch {
    return last;
  }
}
