/** Gives a file to the browser to be saved. */
export function saveAs(blob: Blob, name: string): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(blob);
  link.download = name;
  link.click();
  // The browser needs the address until it has begun to read.
  setTimeout(() => URL.revokeObjectURL(link.href), 10000);
}
