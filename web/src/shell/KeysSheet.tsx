import styled from 'styled-components';
import { Faded, PlainTable, Stack } from '../ui/layout';
import { Sheet } from '../ui/Sheet';

/** The keys of the application: what each does, and where. */
const KEYS: readonly { readonly keys: string; readonly does: string; readonly where: string }[] = [
  { keys: '?', does: 'Show this list', where: 'everywhere, unless you are typing' },
  { keys: 'Alt+W', does: 'Write an entry', where: 'everywhere' },
  { keys: 'Ctrl+Z', does: 'Undo', where: 'Calendars' },
  { keys: 'Ctrl+Shift+Z or Ctrl+Y', does: 'Redo', where: 'Calendars' },
  {
    keys: 'Arrows',
    does: 'Choose the next or previous entry, or an empty day',
    where: 'a view of the calendars',
  },
  { keys: 'Enter', does: 'Open the entry, or write on the chosen day', where: 'a view of the calendars' },
  { keys: 'Alt+Arrows', does: 'Move the entry', where: 'an entry' },
  { keys: 'Alt+Shift+Arrows', does: 'Change its length', where: 'an entry' },
  { keys: 'Ctrl+C, Ctrl+V', does: 'Copy, paste', where: 'an entry, a day' },
  { keys: 'Delete', does: 'Delete the entry', where: 'an entry' },
  { keys: 'Escape', does: 'Close a form; it asks if you have changed something', where: 'a form' },
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
    <Sheet title="Keys" onClose={onClose} wide>
      <Stack>
        <Faded>On a Mac, Option is Alt and Command is Ctrl.</Faded>
        <Table>
          <thead>
            <tr>
              <th scope="col">Key</th>
              <th scope="col">What it does</th>
              <th scope="col">Where</th>
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
