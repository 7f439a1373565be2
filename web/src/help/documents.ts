/** The documents that organisers read, in the order in which they need them; the texts are those of the folder `docs`. */
export const DOCUMENTS = {
  'writing-entries': {
    title: 'Writing entries',
    load: () => import('../../../docs/writing-entries.md?raw'),
  },
  importing: { title: 'Files in and out', load: () => import('../../../docs/importing.md?raw') },
  time: { title: 'Time zones', load: () => import('../../../docs/time.md?raw') },
  disclosure: {
    title: 'What goes out, and what does not',
    load: () => import('../../../docs/disclosure.md?raw'),
  },
  'handing-out': { title: 'Handing out addresses', load: () => import('../../../docs/handing-out.md?raw') },
  sync: { title: 'Staying in sync', load: () => import('../../../docs/sync.md?raw') },
  people: { title: 'People and rights', load: () => import('../../../docs/people.md?raw') },
  security: { title: 'Security', load: () => import('../../../docs/security.md?raw') },
  running: { title: 'Running it', load: () => import('../../../docs/running.md?raw') },
} as const satisfies Readonly<
  Record<string, { readonly title: string; readonly load: () => Promise<{ readonly default: string }> }>
>;
export type DocumentName = keyof typeof DOCUMENTS;

export function isDocumentName(name: string): name is DocumentName {
  return Object.hasOwn(DOCUMENTS, name);
}
