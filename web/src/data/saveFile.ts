/** Hands a file to the browser to be saved. @param name in words; signs that file systems dislike become dashes */
export function saveFile(blob: Blob, name: string, ending: string): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(blob);
  link.download = `${name.replace(/[^\p{L}\p{N}]+/gu, '-').slice(0, 60)}.${ending}`;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
}
