/** The kinds of a property of entries, as they are read. */
export const KIND_WORDS = { text: 'Text', number: 'Number', choice: 'Choice', date: 'Date' } as const;
