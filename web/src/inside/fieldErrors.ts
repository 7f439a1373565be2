import type { ApiProblem } from '@zonal/core/api';
import type { ProblemCode } from '@zonal/core/problems';
import type { EntryForm } from './entryForm';

/** What is wrong with fields of an entry's form, as sentences. */
export type FieldErrors = { readonly [F in keyof EntryForm]?: string };

/** The field that a problem with an entry is about. */
const FIELD_OF: { readonly [C in ProblemCode]?: keyof EntryForm } = {
  'date-invalid': 'startDate',
  'time-invalid': 'startTime',
  'year-out-of-reach': 'startDate',
  'start-end-differ': 'endDate',
  'span-too-long': 'endDate',
  'rule-invalid': 'interval',
  'image-text-missing': 'image',
  'image-unknown': 'image',
};

/** Returns the fields of a form that a refusal is about; none if it is about the entry itself. */
export function fieldErrors(problem: ApiProblem | null, form: EntryForm): FieldErrors {
  if (!problem) return {};
  const { code, message, details } = problem;
  if (code === 'end-before-start') {
    const isOneDay = form.clock !== 'date' && form.startDate === form.endDate;
    return { [isOneDay ? 'endTime' : 'endDate']: message };
  }
  const field = FIELD_OF[code];
  if (field) return { [field]: message };
  if (code !== 'input-invalid') return {};
  const errors = (details['errors'] ?? []) as readonly { readonly field: string; readonly say: string }[];
  // The server names them by their place in the request, such as `changes.0.entry.publicLink`.
  return Object.fromEntries(
    errors.flatMap(({ field: path, say }) => {
      const name = path.split('.').find((part) => part in form);
      return name ? [[name, say]] : [];
    }),
  );
}
