/** A file of an export. */
export interface OutFile {
  readonly name: string;
  readonly bytes: Uint8Array;
}
