/** How long the browser may take until it has begun to save a file. */
const KEPT_MS = 60_000;

/** Has the browser save bytes as a file of a name. */
export function saveFile(bytes: Blob, name: string): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(bytes);
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), KEPT_MS);
}
