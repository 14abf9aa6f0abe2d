/** Bytes of a file as what a browser saves and shows. */
export const blobOf = (bytes: Uint8Array, type?: string): Blob =>
  new Blob([bytes as Uint8Array<ArrayBuffer>], { type });
