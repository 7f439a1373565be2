const TYPES: Record<string, string> = {
  ics: 'text/calendar',
  json: 'application/calendar+json',
  csv: 'text/csv',
};

/** Hands a text over as a file. */
export function saveFile(text: string, name: string): void {
  const type = TYPES[name.split('.').at(-1)!] ?? 'text/plain';
  const address = URL.createObjectURL(new Blob([text], { type: `${type};charset=utf-8` }));
  const link = document.createElement('a');
  link.href = address;
  link.download = name;
  link.click();
  URL.revokeObjectURL(address);
}
