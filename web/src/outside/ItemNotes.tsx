import { leadsOn, type LinkNote } from '@zonal/core/glass';
import { Check, Info, TriangleAlert } from 'lucide-react';
import styled from 'styled-components';
import { t } from '../texts/outside';
import { LINK_NOTE_WORDS } from '../texts/glassWords';

const Look = styled.small`
  display: block;
  svg {
    width: 0.85rem;
    height: 0.85rem;
    vertical-align: -0.12em;
  }
  &[data-dead] {
    color: var(--warn);
  }
`;

/** What is to be known of an address before it is handed out. */
export function ItemNotes({ notes }: { notes: readonly LinkNote[] }) {
  const words = notes.map((note) => LINK_NOTE_WORDS[note]).join('; ');
  if (!leadsOn(notes))
    return (
      <Look data-dead="">
        <TriangleAlert aria-hidden="true" /> {t('leftOut', { reasons: words })}
      </Look>
    );
  return (
    <Look>
      {words ? <Info aria-hidden="true" /> : <Check aria-hidden="true" />} {words || t('worksForReaders')}
    </Look>
  );
}
