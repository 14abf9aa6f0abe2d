/** Hands bytes to the browser as a download. */
export function saveFile(fileName: string, content: Uint8Array | Blob): void {
  const blob = content instanceof Blob ? content : new Blob([content as Uint8Array<ArrayBuffer>]);
  const link = document.createElement('a');
  link.href = URL.createObjectURL(blob);
  link.download = fileName;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
}
