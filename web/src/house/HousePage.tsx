import { KEPT_DAYS } from '@zonal/core/reach';
import { ArchivePanel } from './archive/ArchivePanel';
import { CeilingsPanel } from './CeilingsPanel';
import { LabelsPanel } from './LabelsPanel';
import { HouseFacts } from './HouseFacts';
import { HouseNav } from './HouseNav';
import { usePlaces, type Places } from './places';
import { capital } from '@zonal/core/entries';
import { TroublesPanel } from './TroublesPanel';
import { PROPERTY_KINDS, PROPERTY_KIND_WORDS, type PropertyDefinition } from '@zonal/core/entries';
import { Plus, X } from 'lucide-react';
import { useState, type FormEvent } from 'react';
import styled from 'styled-components';
import {
  problemOf,
  useCalendarsQuery,
  useCeilingsQuery,
  useHouseQuery,
  useLabelsQuery,
  useSaveHouseMutation,
} from '../api/zonalApi';
import { Waiting } from '../api/Waiting';
import type { House } from '@zonal/core/api';
import { useAppSelector } from '../store';
import { Button, MainButton, QuietButton } from '../ui/Button';
import { SelectOne } from '../ui/Choice';
import { Field } from '../ui/Field';
import { Faded, Pair, Row, SideBySide, Stack } from '../ui/layout';
import { Empty } from '../ui/Notice';
import { ZoneSelect } from '../ui/ZoneSelect';
import { Refusal } from '../ui/Refusal';
import { useUnsavedForm } from '../ui/Unsaved';

const Line = styled.div`
  display: grid;
  grid-template-columns: 1fr 10rem 2fr auto;
  gap: 0.6rem;
  align-items: end;
  @media (max-width: 44rem) {
    grid-template-columns: 1fr auto;
  }
`;

/** The organisation: its zone, its holidays and its own properties of entries. */
export function HousePage() {
  const steward = useAppSelector((state) => state.person.user?.role === 'steward');
  const { data: house, error } = useHouseQuery();
  const places = usePlaces();
  // The page comes as a whole: parts that arrived later would move the others.
  const isFilling = [useCeilingsQuery(), useCalendarsQuery(), useLabelsQuery()].some((q) => q.isLoading);
  if (!house || isFilling) return <Waiting what="Fetching the house" error={error} />;
  return (
    <Stack>
      <h1>House</h1>
      {steward && <HouseNav />}
      <TroublesPanel />
      <CeilingsPanel steward={steward} />
      <SideBySide>
        {steward ? (
          <HouseForm key={house.version} house={house} places={places} />
        ) : (
          <Stack>
            <p>Only stewards can change these settings.</p>
            <HouseFacts house={house} places={places} />
          </Stack>
        )}
        <Stack>
          <LabelsPanel />
          {steward && <ArchivePanel />}
        </Stack>
      </SideBySide>
    </Stack>
  );
}

function HouseForm({ house, places }: { house: House; places: Places | null }) {
  const [form, setForm] = useState(house);
  // The form begins anew with what was kept; what became of saving outlasts that.
  const [save, saving] = useSaveHouseMutation({ fixedCacheKey: 'house' });
  const sending = useUnsavedForm(form);
  const set = (part: Partial<House>) => setForm((f) => ({ ...f, ...part }));
  const setProperty = (at: number, part: Partial<PropertyDefinition>) =>
    set({ properties: form.properties.map((p, i) => (i === at ? { ...p, ...part } : p)) });
  const regions = places?.regionsOf(form.country) ?? [];
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const properties = form.properties
      .map((p) => ({ ...p, name: p.name.trim(), choices: p.choices.map((c) => c.trim()).filter(Boolean) }))
      .filter((p) => p.name);
    const watchWords = form.watchWords.map((w) => w.trim()).filter((w) => w.length > 1);
    const publicContacts = form.publicContacts.map((one) => one.trim()).filter(Boolean);
    const mailDomains = form.mailDomains.map((d) => d.trim().toLowerCase().replace(/^@/, '')).filter(Boolean);
    const refused = sending();
    const { error } = await save({ ...form, properties, watchWords, publicContacts, mailDomains });
    if (error) refused();
  };
  return (
    <form onSubmit={(event) => void submit(event)}>
      <Stack>
        <Pair>
          <Field label="Name of the organisation" value={form.name} onChange={(name) => set({ name })} />
          <ZoneSelect label="Home time zone" value={form.zone} onChange={(zone) => set({ zone })} />
        </Pair>
        <h2>Public holidays</h2>
        <Pair>
          <SelectOne
            label="Country"
            value={form.country}
            options={[
              { value: '', text: 'none' },
              ...(
                places?.countries ?? (form.country ? [{ code: form.country, name: form.country }] : [])
              ).map((c) => ({
                value: c.code,
                text: c.name,
              })),
            ]}
            onChange={(country) => set({ country, region: '' })}
          />
          <SelectOne
            label="Region"
            value={form.region}
            options={[
              { value: '', text: regions.length ? 'the whole country' : 'no regions' },
              ...(places ? regions : form.region ? [{ code: form.region, name: form.region }] : []).map(
                (r) => ({
                  value: r.code,
                  text: r.name,
                }),
              ),
            ]}
            onChange={(region) => set({ region })}
          />
        </Pair>
        <h2>Properties of entries</h2>
        <Faded>
          Extra fields for all entries of the house, such as a berth or a number of people. Readers outside
          see them through clear glass only.
        </Faded>
        {!form.properties.length && <Empty>No properties yet.</Empty>}
        {form.properties.map((p, i) => (
          <Line key={i}>
            <Field label={`Property ${i + 1}`} value={p.name} onChange={(name) => setProperty(i, { name })} />
            <SelectOne
              label="Kind"
              value={p.kind}
              options={PROPERTY_KINDS.map((k) => ({ value: k, text: capital(PROPERTY_KIND_WORDS[k]) }))}
              onChange={(kind) => setProperty(i, { kind })}
            />
            {p.kind === 'choice' ? (
              <Field
                label="Choices, with commas between"
                value={p.choices.join(',')}
                onChange={(text) => setProperty(i, { choices: text.split(',') })}
              />
            ) : (
              <span />
            )}
            <QuietButton
              aria-label={`Take ${p.name || 'this property'} out`}
              onPress={() => set({ properties: form.properties.filter((_, n) => n !== i) })}
            >
              <X aria-hidden="true" />
            </QuietButton>
          </Line>
        ))}
        <Row>
          <Button
            onPress={() => set({ properties: [...form.properties, { name: '', kind: 'text', choices: [] }] })}
          >
            <Plus aria-hidden="true" /> Add a property
          </Button>
        </Row>
        <Faded>Removing a property keeps existing values; they appear as “undefined property”.</Faded>
        <h2>Sensitive words</h2>
        <Field
          label="Warn before publishing entries that contain these words, with commas between"
          value={form.watchWords.join(',')}
          onChange={(text) => set({ watchWords: text.split(',') })}
          help="Rehearsals and sightlines also report mail addresses, phone numbers, passcodes and names."
        />
        <Field
          label="Your public mail addresses and phone numbers, with commas between"
          value={form.publicContacts.join(',')}
          onChange={(text) => set({ publicContacts: text.split(',') })}
          help="Nobody is warned of these."
        />
        <h2>Mail addresses of the house</h2>
        <Field
          label="Domains of your own mail addresses, with commas between"
          value={form.mailDomains.join(',')}
          onChange={(text) => set({ mailDomains: text.split(',') })}
          help="Whoever is invited at another address is pointed out as an outsider. Empty: nobody is."
        />
        <h2>Subscriber data retention</h2>
        <SelectOne
          label="Keep single polls"
          value={String(form.pollDays)}
          options={KEPT_DAYS.map((d) => ({
            value: String(d),
            text: d === 365 ? 'for a year' : `for ${d} days`,
          }))}
          onChange={(days) => set({ pollDays: Number(days) })}
        />
        <Faded>
          After that, only the number of polls a day for each key and each program’s rhythm remain. Who polls
          is never stored.
        </Faded>
        <Refusal problem={problemOf(saving.error)} />
        <Row>
          <MainButton type="submit" isDisabled={saving.isLoading}>
            Save
          </MainButton>
          {saving.isSuccess && <span role="status">Saved.</span>}
        </Row>
      </Stack>
    </form>
  );
}
