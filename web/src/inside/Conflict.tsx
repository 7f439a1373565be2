import { SAID_FIELDS, canonical, fieldWord, type Entry } from '@zonal/core/entries';
import { fieldText } from '@zonal/core/forms';
import styled from 'styled-components';
import type { EntryInput } from '@zonal/core/api';
import { Button } from '../ui/Button';
import { Row } from '../ui/layout';
import { Notice } from '../ui/Notice';

const Table = styled.table`
  width: 100%;
  margin: 0.5rem 0;
  border-collapse: collapse;
  font-size: 0.88rem;
  th,
  td {
    text-align: left;
    vertical-align: top;
    padding: 0.2rem 0.6rem 0.2rem 0;
    border-bottom: 1px solid var(--hair);
    overflow-wrap: anywhere;
  }
`;

interface ConflictProps {
  mine: EntryInput;
  theirs: Entry;
  onMine: () => void;
  onTheirs: () => void;
}

/** Both versions of an entry, field by field where they differ. */
export function Conflict({ mine, theirs, onMine, onTheirs }: ConflictProps) {
  const rows = differences(mine, theirs);
  return (
    <Notice>
      <p>
        Somebody else changed this entry while you had it open. Nothing of yours is lost; choose what stays.
      </p>
      <Table>
        <thead>
          <tr>
            <th scope="col">Field</th>
            <th scope="col">Yours</th>
            <th scope="col">Theirs, saved now</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(([field, yours, other]) => (
            <tr key={field}>
              <th scope="row">{field}</th>
              <td>{yours || '–'}</td>
              <td>{other || '–'}</td>
            </tr>
          ))}
        </tbody>
      </Table>
      <Row>
        <Button onPress={onMine}>Save mine over theirs</Button>
        <Button onPress={onTheirs}>Take theirs into the form</Button>
      </Row>
    </Notice>
  );
}

/** Returns the fields in which two versions differ, in words, with both as text. */
export function differences(mine: EntryInput, theirs: Entry): [string, string, string][] {
  return SAID_FIELDS.filter((f) => canonical(mine[f]) !== canonical(theirs[f])).map((f) => [
    fieldWord(f),
    fieldText(f, mine[f]),
    fieldText(f, theirs[f]),
  ]);
}
