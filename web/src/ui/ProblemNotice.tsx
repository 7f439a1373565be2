import type { ApiProblem } from '@zonal/core/api';
import { Link } from 'react-router';
import { Notice } from './Notice';
import { t } from '../texts/base';

/** Says why a call was refused and what to do; where somebody else could do it, it offers to ask. */
export function ProblemNotice({ problem }: { problem: ApiProblem | null }) {
  if (!problem) return null;
  return (
    <Notice>
      {problem.message}{' '}
      {problem.code === 'not-allowed' && <Link to="/calendars/directory">{t('askInDirectory')}</Link>}
    </Notice>
  );
}
