import { Problem } from '../problems';
import { dayFromText } from '../zones';
import { isContradictory, readFilter } from './filter';
import type { WindowRules } from './rules';
import { readPattern } from './titlePattern';

const LONGEST_DAYS = 3660;
/** A window takes so many calendars and no more. */
const MOST_SOURCES = 100;

/**
 * Throws what keeps rules from being shown: `filter-invalid`, `filter-contradictory`, `pattern-invalid`,
 * `horizon-invalid`, `source-missing`, `too-many-sources`, `cut-empty`.
 */
export function checkRules(
  rules: Pick<WindowRules, 'sources' | 'filter' | 'titlePattern' | 'horizon'>,
): void {
  const count = rules.sources.length;
  if (!count) throw new Problem('source-missing');
  if (count > MOST_SOURCES) throw new Problem('too-many-sources', { count, most: MOST_SOURCES });
  if (rules.sources.some((s) => s.glass === 'cut' && !s.fields.length)) throw new Problem('cut-empty');
  readFilter(rules.filter);
  if (isContradictory(rules.filter)) throw new Problem('filter-contradictory');
  readPattern(rules.titlePattern);
  const { horizon } = rules;
  if (horizon.kind !== 'fixed') return;
  const [first, last] = [dayFromText(horizon.from), dayFromText(horizon.to)];
  if (last < first) throw new Problem('horizon-invalid', { from: horizon.from, to: horizon.to });
  if (last - first > LONGEST_DAYS) throw new Problem('range-too-long', { limit: 'ten years' });
}
