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
  if (!sheets) return <Waiting what="Fetching the link sheet" error={error} />;
  const sheet = sheets.find((s) => s.id === id) ?? null;
  if (!sheet && id !== 'new')
    return (
      <Empty>There is no such link sheet. It may have been withdrawn; go back to the link sheets.</Empty>
    );
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
        <h1>{sheet ? sheet.name : 'New link sheet'}</h1>
        <Faded>
          Addresses that are handed on together. <Link to="/sheets">Back to the link sheets</Link>
        </Faded>
      </div>
      <Halves>
        <Stack>
          <h2 id="choose">Choose addresses</h2>
          <ItemsChooser items={draft.items} full={full} onChange={(items) => set({ items })} />
        </Stack>
        <Stack>
          <h2>The sheet</h2>
          <Field
            label="Name"
            value={draft.name}
            onChange={(name) => set({ name })}
            maxLength={SHEET_LIMITS.nameLetters}
            help="Readers see it, such as “Calendars for new colleagues”."
            isRequired
          />
          <Field
            label="Note to readers"
            lines
            value={draft.note}
            onChange={(note) => set({ note })}
            maxLength={SHEET_LIMITS.noteLetters}
          />
          <ItemsList items={draft.items} onChange={(items) => set({ items })} />
          {current && (
            <Overtaken
              what="link sheet"
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
              {sheet ? 'Save, and show it so' : 'Make the sheet and its address'}
            </OutsideButton>
            {sheet && changed && <Button onPress={() => setDraft(draftOf(sheet))}>Leave it as it was</Button>}
            <Faded role="status">
              {!sheet
                ? 'Nothing of it is outside yet.'
                : changed
                  ? 'Its readers still find it as it was.'
                  : 'Its readers find it as it stands here.'}
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
