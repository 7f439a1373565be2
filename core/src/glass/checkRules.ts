import { Problem } from '../problems';
import { dayFromText } from '../zones';
import { isContradictory, readFilter } from './filter';
import { WINDOW_LIMITS } from './limits';
import type { WindowRules } from './rules';
import { readPattern } from './titlePattern';

/**
 * Throws what keeps rules from being shown: `filter-invalid`, `filter-contradictory`, `pattern-invalid`,
 * `horizon-invalid`, `source-missing`, `too-many-sources`, `cut-empty`.
 */
export function checkRules(
  rules: Pick<WindowRules, 'sources' | 'filter' | 'titlePattern' | 'horizon'>,
): void {
  const count = rules.sources.length;
  if (!count) throw new Problem('source-missing');
  if (count > WINDOW_LIMITS.sources)
    throw new Problem('too-many-sources', { count, most: WINDOW_LIMITS.sources });
  if (rules.sources.some((s) => s.glass === 'cut' && !s.fields.length)) throw new Problem('cut-empty');
  readFilter(rules.filter);
  if (isContradictory(rules.filter)) throw new Problem('filter-contradictory');
  readPattern(rules.titlePattern);
  const { horizon } = rules;
  if (horizon.kind !== 'fixed') return;
  const [first, last] = [dayFromText(horizon.from), dayFromText(horizon.to)];
  if (last < first) throw new Problem('horizon-invalid', { from: horizon.from, to: horizon.to });
  if (last - first > WINDOW_LIMITS.fixedDays) throw new Problem('range-too-long', { limit: 'ten years' });
}
