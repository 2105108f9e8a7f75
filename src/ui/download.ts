/** Hands a file to the person under a name that every system takes. */
export const download = (bytes: Uint8Array | Blob, name: string, type: string): void =>
  downloadBlob(new Blob([bytes as BlobPart], { type }), name);

/** The same for what the browser already holds. */
export function downloadBlob(blob: Blob, name: string): void {
  const url = URL.createObjectURL(blob);
  const a = document.createElement('a');
  a.href = url;
  a.download = name;
  a.click();
  // The browser has taken its own hold of the blob by then.
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}
