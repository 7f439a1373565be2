import type { Sheet } from '@zonal/core/api';
import { leadsOn } from '@zonal/core/glass';
import { ListChecks, Undo2, X } from 'lucide-react';
import { Link, useNavigate } from 'react-router';
import styled from 'styled-components';
import { problemOf, useSheetsQuery, useWithdrawSheetMutation } from '../api/zonalApi';
import { Waiting } from '../api/Waiting';
import { Button, MainButton, QuietButton } from '../ui/Button';
import { CopyButton } from '../ui/CopyButton';
import { dayOf } from '../ui/dayOf';
import { Faded, FramedList, Row, Stack } from '../ui/layout';
import { Named } from '../ui/Named';
import { Empty } from '../ui/Notice';
import { ProblemNotice } from '../ui/ProblemNotice';

const Line = styled.li`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 0.3rem 1rem;
  align-items: center;
  small {
    display: block;
    color: var(--faded);
  }
  > span > a {
    font-weight: 700;
  }
  @media (max-width: 44rem) {
    grid-template-columns: minmax(0, 1fr);
  }
`;

/** All link sheets: what each is for, how it stands, and its address. */
export function SheetsPage() {
  const { data: sheets, error } = useSheetsQuery();
  const [withdraw, withdrawing] = useWithdrawSheetMutation();
  const navigate = useNavigate();
  const problem = problemOf(withdrawing.error);
  if (!sheets) return <Waiting what="Fetching link sheets" error={error} />;
  const openNew = (
    <MainButton onPress={() => void navigate('/sheets/new')}>
      <ListChecks aria-hidden="true" /> Write a link sheet
    </MainButton>
  );
  return (
    <Stack>
      <Row style={{ justifyContent: 'space-between' }}>
        <h1>Link sheets</h1>
        {openNew}
      </Row>
      <p>
        A link sheet hands several addresses on together: to a new colleague, an agent, a partner. It has an
        address of its own, and whoever has that finds what is on the sheet now.{' '}
        <Link to="/windows">Back to Windows</Link>
      </p>
      {problem && <ProblemNotice problem={problem} />}
      {!sheets.length ? (
        <Empty>
          <p>There is no link sheet yet.</p>
          {openNew}
        </Empty>
      ) : (
        <FramedList>
          {sheets.map((sheet) => (
            <Line key={sheet.id}>
              <span>
                <Link to={`/sheets/${sheet.id}`}>{sheet.name}</Link>
                <small>{standing(sheet)}</small>
              </span>
              <Row>
                {sheet.withdrawnAt ? (
                  <Button
                    isDisabled={withdrawing.isLoading}
                    onPress={() => void withdraw({ id: sheet.id, back: true })}
                  >
                    <Undo2 aria-hidden="true" /> Bring it back
                  </Button>
                ) : (
                  <>
                    <CopyButton what="sheet address" text={sheet.address} />
                    <Named name="Withdraw">
                      <QuietButton
                        aria-label={`Withdraw the link sheet “${sheet.name}”`}
                        isDisabled={withdrawing.isLoading}
                        onPress={() => void withdraw({ id: sheet.id, back: false })}
                      >
                        <X aria-hidden="true" />
                      </QuietButton>
                    </Named>
                  </>
                )}
              </Row>
            </Line>
          ))}
        </FramedList>
      )}
      <Faded>
        Withdrawing a sheet ends its own address alone. The addresses that stand on it stay open; withdraw
        their keys to end them too.
      </Faded>
    </Stack>
  );
}

/** Returns how a sheet stands, in words. */
function standing({ items, withdrawnAt, by, at }: Sheet): string {
  const dead = items.filter((i) => !leadsOn(i.notes)).length;
  const count = items.length === 1 ? 'one address' : `${items.length || 'no'} addresses`;
  return [
    withdrawnAt
      ? `withdrawn on ${dayOf(withdrawnAt)}: its address leads nowhere, and can be brought back for a day`
      : '',
    count,
    dead ? `${dead} of them left out, as ${dead === 1 ? 'it leads' : 'they lead'} nowhere` : '',
    `changed on ${dayOf(at)}${by ? ` by ${by}` : ''}`,
  ]
    .filter(Boolean)
    .join(', ');
}
