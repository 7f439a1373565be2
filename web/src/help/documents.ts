import { t } from '../texts/help';
/** The documents that organisers read, in the order in which they need them; the texts are those of the folder `docs`. */
export const DOCUMENTS = {
  'writing-entries': {
    title: t('writingEntries'),
    load: () => import('../../../docs/writing-entries.md?raw'),
  },
  importing: { title: t('filesInOut'), load: () => import('../../../docs/importing.md?raw') },
  time: { title: t('timeZones'), load: () => import('../../../docs/time.md?raw') },
  disclosure: {
    title: t('disclosure'),
    load: () => import('../../../docs/disclosure.md?raw'),
  },
  'handing-out': { title: t('handingOut'), load: () => import('../../../docs/handing-out.md?raw') },
  sync: { title: t('inSync'), load: () => import('../../../docs/sync.md?raw') },
  people: { title: t('peopleAndRights'), load: () => import('../../../docs/people.md?raw') },
  security: { title: t('security'), load: () => import('../../../docs/security.md?raw') },
  running: { title: t('runningIt'), load: () => import('../../../docs/running.md?raw') },
} as const satisfies Readonly<
  Record<string, { readonly title: string; readonly load: () => Promise<{ readonly default: string }> }>
>;
export type DocumentName = keyof typeof DOCUMENTS;

export function isDocumentName(name: string): name is DocumentName {
  return Object.hasOwn(DOCUMENTS, name);
}
