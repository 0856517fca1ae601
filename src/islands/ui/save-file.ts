/** Hands a text to the browser as a file to be saved. */
export function saveTextFile(name: string, text: string, mime: string): void {
  const address = URL.createObjectURL(new Blob([text], { type: mime }));
  const link = document.createElement('a');
  link.href = address;
  link.download = name;
  link.click();
  URL.revokeObjectURL(address);
}
