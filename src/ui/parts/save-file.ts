/** Hands a text to the person as a file; the name is made safe for every system. */
export function saveFile(name: string, text: string, type: string): void {
  const url = URL.createObjectURL(new Blob([text], { type }));
  const link = document.createElement('a');
  link.href = url;
  const dot = name.indexOf('.') < 0 ? name.length : name.indexOf('.');
  link.download = `${
    name
      .slice(0, dot)
      .replace(/[^A-Za-z0-9]+/g, '-')
      .toLowerCase() || 'layout'
  }${name.slice(dot)}`;
  link.click();
  URL.revokeObjectURL(url);
}
