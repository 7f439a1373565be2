import { Link } from 'react-router';
import { useWindowsQuery } from '../api/zonalApi';
import { Faded } from '../ui/layout';
import { Notice } from '../ui/Notice';
import { troubleWords } from '../rehearsal/troubleWords';
import { t } from '../texts/house';

/** Windows that cannot be worked out just now, with what readers get meanwhile; nothing where all is well. */
export function TroublesPanel() {
  const { data: windows } = useWindowsQuery();
  const troubled = windows?.filter((w) => w.trouble && !w.closedAt) ?? [];
  if (!troubled.length) return null;
  return (
    <section aria-label={t('windowsInTrouble')}>
      <h2>{t('windowsInTrouble')}</h2>
      <Faded>{t('troublesHint')}</Faded>
      {troubled.map((w) => (
        <Notice key={w.id}>
          <Link to={`/windows/${w.id}`}>{w.wording.name}</Link>: {troubleWords(w.trouble!)}
        </Notice>
      ))}
    </section>
  );
}
