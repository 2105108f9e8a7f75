export { fileName } from '@/core/model/fileName';

/** Hands a file to the person under a name that every system takes. */
export function download(bytes: Uint8Array, name: string, type: string): void {
  const url = URL.createObjectURL(new Blob([bytes as BlobPart], { type }));
  const a = document.createElement('a');
  a.href = url;
  a.download = name;
  a.click();
  // The browser has taken its own hold of the blob by then.
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}
