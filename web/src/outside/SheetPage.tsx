import type { Sheet, SheetInput } from '@zonal/core/api';
import { SHEET_LIMITS } from '@zonal/core/glass';
import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import styled from 'styled-components';
import { problemOf, useSaveSheetMutation, useSheetsQuery } from '../api/zonalApi';
import { Waiting } from '../api/Waiting';
import { Button, OutsideButton } from '../ui/Button';
import { Field } from '../ui/Field';
import { Faded, Row, Stack } from '../ui/layout';
import { Empty } from '../ui/Notice';
import { Overtaken } from '../ui/Overtaken';
import { Refusal } from '../ui/Refusal';
import { HandOut } from './HandOut';
import { ItemsChooser } from './ItemsChooser';
import { ItemsList } from './ItemsList';
import { draftOf } from './sheetDraft';
import { useUnsaved } from '../ui/Unsaved';
import { t } from '../texts/outside';

const Halves = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 5fr) minmax(0, 6fr);
  gap: 1.4rem;
  align-items: start;
  @media (max-width: 60rem) {
    grid-template-columns: minmax(0, 1fr);
  }
`;

/** One link sheet, or a new one: what is on it, each address checked, and how it is handed out. */
export function SheetPage() {
  const { id } = useParams();
  const { data: sheets, error } = useSheetsQuery();
  if (!sheets) return <Waiting what={t('fetchingSheet')} error={error} />;
  const sheet = sheets.find((s) => s.id === id) ?? null;
  if (!sheet && id !== 'new') return <Empty>{t('noSuchSheet')}</Empty>;
  return <Writing key={sheet?.id ?? 'new'} sheet={sheet} />;
}

function Writing({ sheet }: { sheet: Sheet | null }) {
  const [draft, setDraft] = useState(() => draftOf(sheet));
  const [save, saving] = useSaveSheetMutation();
  const navigate = useNavigate();
  const problem = problemOf(saving.error);
  const current = problem?.code === 'version-conflict' ? (problem.details['current'] as Sheet) : null;
  const set = (part: Partial<SheetInput>) => setDraft((d) => ({ ...d, ...part }));
  const changed = !sheet || !same(draft, draftOf(sheet));
  const leave = useUnsaved(!same(draft, draftOf(sheet)));
  const full = draft.items.length >= SHEET_LIMITS.links;
  const keep = async () => {
    const body = { ...draft, name: draft.name.trim() };
    const { data } = await save({ id: sheet?.id ?? null, body });
    if (!data) return;
    setDraft(draftOf(data));
    leave();
    if (!sheet) void navigate(`/sheets/${data.id}`, { replace: true });
  };
  return (
    <Stack>
      <div>
        <h1>{sheet ? sheet.name : t('newSheet')}</h1>
        <Faded>{t.rich('sheetHint', { link: (text) => <Link to="/sheets">{text}</Link> })}</Faded>
      </div>
      <Halves>
        <Stack>
          <h2 id="choose">{t('chooseAddresses')}</h2>
          <ItemsChooser items={draft.items} full={full} onChange={(items) => set({ items })} />
        </Stack>
        <Stack>
          <h2>{t('theSheet')}</h2>
          <Field
            label={t('name')}
            value={draft.name}
            onChange={(name) => set({ name })}
            maxLength={SHEET_LIMITS.nameLetters}
            help={t('sheetNameHelp')}
            isRequired
          />
          <Field
            label={t('noteToReaders')}
            lines
            value={draft.note}
            onChange={(note) => set({ note })}
            maxLength={SHEET_LIMITS.noteLetters}
          />
          <ItemsList items={draft.items} onChange={(items) => set({ items })} />
          {current && (
            <Overtaken
              what={t('linkSheet')}
              onMine={() => {
                set({ version: current.version });
                saving.reset();
              }}
              onTheirs={() => {
                setDraft(draftOf(current));
                saving.reset();
              }}
            />
          )}
          <Refusal problem={current ? null : problem} />
          <Row>
            <OutsideButton
              isDisabled={!changed || !draft.name.trim() || saving.isLoading}
              onPress={() => void keep()}
            >
              {sheet ? t('saveAndShow') : t('createSheet')}
            </OutsideButton>
            {sheet && changed && (
              <Button onPress={() => setDraft(draftOf(sheet))}>{t('discardChanges')}</Button>
            )}
            <Faded role="status">
              {!sheet ? t('sheetNotOutside') : changed ? t('sheetFormer') : t('sheetCurrent')}
            </Faded>
          </Row>
          {sheet && <HandOut sheet={sheet} changed={changed} onTurned={({ version }) => set({ version })} />}
        </Stack>
      </Halves>
    </Stack>
  );
}

/** Whether two drafts say the same. */
function same(a: SheetInput, b: SheetInput): boolean {
  const text = ({ name, note, items }: SheetInput) => JSON.stringify([name.trim(), note, items]);
  return text(a) === text(b);
}
