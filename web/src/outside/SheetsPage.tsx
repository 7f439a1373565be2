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
import { t } from '../texts/outside';

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
  if (!sheets) return <Waiting what={t('fetchingSheets')} error={error} />;
  const openNew = (
    <MainButton onPress={() => void navigate('/sheets/new')}>
      <ListChecks aria-hidden="true" /> {t('createLinkSheet')}
    </MainButton>
  );
  return (
    <Stack>
      <Row style={{ justifyContent: 'space-between' }}>
        <h1>{t('linkSheets')}</h1>
        {openNew}
      </Row>
      <p>{t.rich('sheetsHint', { link: (text) => <Link to="/windows">{text}</Link> })}</p>
      {problem && <ProblemNotice problem={problem} />}
      {!sheets.length ? (
        <Empty>
          <p>{t('noSheets')}</p>
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
                    <Undo2 aria-hidden="true" /> {t('restore')}
                  </Button>
                ) : (
                  <>
                    <CopyButton what={t('sheetAddress')} text={sheet.address} />
                    <Named name="Withdraw">
                      <QuietButton
                        aria-label={t('withdrawSheet', { name: sheet.name })}
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
      <Faded>{t('withdrawSheetHint')}</Faded>
    </Stack>
  );
}

/** Returns how a sheet stands, in words. */
function standing({ items, withdrawnAt, by, at }: Sheet): string {
  const dead = items.filter((i) => !leadsOn(i.notes)).length;
  return [
    withdrawnAt ? t('sheetWithdrawnOn', { day: dayOf(withdrawnAt) }) : '',
    t('addressCount', { count: items.length }),
    dead ? t('deadCount', { count: dead }) : '',
    by ? t('changedOnBy', { day: dayOf(at), by }) : t('changedOn', { day: dayOf(at) }),
  ]
    .filter(Boolean)
    .join(', ');
}
