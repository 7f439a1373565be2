import { Link } from 'react-router';
import { useWindowsQuery } from '../api/zonalApi';
import { Faded } from '../ui/layout';
import { Notice } from '../ui/Notice';
import { troubleWords } from '../rehearsal/troubleWords';

/** Windows that cannot be worked out just now, with what readers get meanwhile; nothing where all is well. */
export function TroublesPanel() {
  const { data: windows } = useWindowsQuery();
  const troubled = windows?.filter((w) => w.trouble && !w.closedAt) ?? [];
  if (!troubled.length) return null;
  return (
    <section aria-label="Windows in trouble">
      <h2>Windows in trouble</h2>
      <Faded>What readers are to see of them cannot be worked out until the cause is mended.</Faded>
      {troubled.map((w) => (
        <Notice key={w.id}>
          <Link to={`/windows/${w.id}`}>{w.wording.name}</Link>: {troubleWords(w.trouble!)}
        </Notice>
      ))}
    </section>
  );
}
