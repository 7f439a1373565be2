import { EMPTY_CONTENT, type KeptProperty } from '../entries';
import { READERS, contentLines } from './insideFields';
import { partsOfLine } from './read/contentLine';
import { FileNotes } from './read/fileNotes';

/** Marks a property that was kept because a field holds one value only: it stands beside it. */
export const FURTHER = 'x-zonal-further';

/** Returns whether a kept property is a further one of its name. */
export function isFurther([, parameters]: KeptProperty): boolean {
  return FURTHER in parameters;
}

/** Returns whether a property is one that a field is read from. */
export function isField([name]: KeptProperty): boolean {
  return Object.hasOwn(READERS, name);
}

/** Returns the line that the fields alone would give for a property, or null when they say nothing of it. */
export function plainLineOf([name, parameters, type, ...values]: KeptProperty, task: boolean): string | null {
  const text = values.map(String).join(',');
  const property = { name, parameters: parameters as Record<string, string>, type, values, text, line: 0 };
  const content = { ...EMPTY_CONTENT, ...READERS[name]?.([property], new FileNotes('en')) };
  const plain = contentLines(content, task).filter((l) => partsOfLine(l).name === name);
  return plain[0] ?? null;
}
