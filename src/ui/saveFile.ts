/** Hands something that was made on the page to the browser as a download. */
export function saveFile(name: string, type: string, content: string | Blob): void {
  const url = URL.createObjectURL(new Blob([content], { type }));
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  URL.revokeObjectURL(url);
}
