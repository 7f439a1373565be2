const TYPES: Record<string, string> = {
  ics: 'text/calendar',
  json: 'application/calendar+json',
  csv: 'text/csv',
  svg: 'image/svg+xml',
};

/** Hands a text over as a file. */
export function saveFile(text: string, name: string): void {
  const type = TYPES[name.split('.').at(-1)!] ?? 'text/plain';
  saveBlob(new Blob([text], { type: `${type};charset=utf-8` }), name);
}

export function saveBlob(blob: Blob, name: string): void {
  const address = URL.createObjectURL(blob);
  const link = document.createElement('a');
  link.href = address;
  link.download = name;
  link.click();
  URL.revokeObjectURL(address);
}
