import styled from 'styled-components';
import { Faded, PlainTable, Stack } from '../ui/layout';
import { Sheet } from '../ui/Sheet';
import { t } from '../texts/shell';

/** The keys of the application: what each does, and where. */
const KEYS: readonly { readonly keys: string; readonly does: string; readonly where: string }[] = [
  { keys: '?', does: t('keyShowList'), where: t('keyEverywhere') },
  { keys: 'Alt+W', does: t('keyWrite'), where: 'everywhere' },
  { keys: 'Ctrl+Z', does: t('keyUndo'), where: t('calendars') },
  { keys: t('keyRedoKeys'), does: t('keyRedo'), where: t('calendars') },
  {
    keys: t('keyArrows'),
    does: t('keyNext'),
    where: t('keyInView'),
  },
  { keys: t('keyEnter'), does: t('keyOpen'), where: t('keyInView') },
  { keys: 'Alt+Arrows', does: t('keyMove'), where: t('keyOnEntry') },
  { keys: 'Alt+Shift+Arrows', does: t('keyLength'), where: t('keyOnEntry') },
  { keys: t('keyCopyKeys'), does: t('keyCopy'), where: t('keyOnEntryOrDay') },
  { keys: t('keyDeleteKey'), does: t('keyDelete'), where: t('keyOnEntry') },
  { keys: t('keyEscape'), does: t('keyClose'), where: t('keyInForm') },
];

const Table = styled(PlainTable)`
  kbd {
    font: inherit;
    font-weight: 700;
    white-space: nowrap;
  }
`;

/** Lists the keys that do something. */
export function KeysSheet({ onClose }: { onClose: () => void }) {
  return (
    <Sheet title={t('keys')} onClose={onClose} wide>
      <Stack>
        <Faded>{t('keysOnMac')}</Faded>
        <Table>
          <thead>
            <tr>
              <th scope="col">{t('keyHead')}</th>
              <th scope="col">{t('keyActionHead')}</th>
              <th scope="col">{t('keyWhereHead')}</th>
            </tr>
          </thead>
          <tbody>
            {KEYS.map(({ keys, does, where }) => (
              <tr key={keys}>
                <td>
                  <kbd>{keys}</kbd>
                </td>
                <td>{does}</td>
                <td>{where}</td>
              </tr>
            ))}
          </tbody>
        </Table>
      </Stack>
    </Sheet>
  );
}
