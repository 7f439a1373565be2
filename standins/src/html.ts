const ENTITIES: Record<string, string> = {
  '&': '&amp;',
  '<': '&lt;',
  '>': '&gt;',
  '"': '&quot;',
  "'": '&#39;',
};

/** Returns a text as it can stand in HTML, in an attribute too. */
export const escape = (text: string) => text.replace(/[&<>"']/g, (c) => ENTITIES[c]!);
