import { KEPT_DAYS } from '@zonal/core/reach';
import { ArchivePanel } from './archive/ArchivePanel';
import { CeilingsPanel } from './CeilingsPanel';
import { LabelsPanel } from './LabelsPanel';
import { HouseFacts } from './HouseFacts';
import { HouseNav } from './HouseNav';
import { usePlaces, type Places } from './places';
import { capital } from '@zonal/core/entries';
import { TroublesPanel } from './TroublesPanel';
import { PROPERTY_KINDS, type PropertyDefinition } from '@zonal/core/entries';
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
import { t } from '../texts/house';
import { PROPERTY_KIND_WORDS } from '../texts/entryWords';

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
  if (!house || isFilling) return <Waiting what={t('fetchingHouse')} error={error} />;
  return (
    <Stack>
      <h1>{t('house')}</h1>
      {steward && <HouseNav />}
      <TroublesPanel />
      <CeilingsPanel steward={steward} />
      <SideBySide>
        {steward ? (
          <HouseForm key={house.version} house={house} places={places} />
        ) : (
          <Stack>
            <p>{t('stewardsOnly')}</p>
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
          <Field label={t('organisationName')} value={form.name} onChange={(name) => set({ name })} />
          <ZoneSelect label={t('homeZone')} value={form.zone} onChange={(zone) => set({ zone })} />
        </Pair>
        <h2>{t('publicHolidays')}</h2>
        <Pair>
          <SelectOne
            label={t('country')}
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
            label={t('region')}
            value={form.region}
            options={[
              { value: '', text: regions.length ? t('wholeCountry') : t('noRegions') },
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
        <h2>{t('properties')}</h2>
        <Faded>{t('propertiesHint')}</Faded>
        {!form.properties.length && <Empty>{t('noProperties')}</Empty>}
        {form.properties.map((p, i) => (
          <Line key={i}>
            <Field
              label={t('propertyNumber', { number: i + 1 })}
              value={p.name}
              onChange={(name) => setProperty(i, { name })}
            />
            <SelectOne
              label={t('propertyKind')}
              value={p.kind}
              options={PROPERTY_KINDS.map((k) => ({ value: k, text: capital(PROPERTY_KIND_WORDS[k]) }))}
              onChange={(kind) => setProperty(i, { kind })}
            />
            {p.kind === 'choice' ? (
              <Field
                label={t('propertyChoices')}
                value={p.choices.join(',')}
                onChange={(text) => setProperty(i, { choices: text.split(',') })}
              />
            ) : (
              <span />
            )}
            <QuietButton
              aria-label={t('removeProperty', { name: p.name || t('thisProperty') })}
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
            <Plus aria-hidden="true" /> {t('addProperty')}
          </Button>
        </Row>
        <Faded>{t('removedPropertyHint')}</Faded>
        <h2>{t('sensitiveWords')}</h2>
        <Field
          label={t('sensitiveWordsField')}
          value={form.watchWords.join(',')}
          onChange={(text) => set({ watchWords: text.split(',') })}
          help={t('sensitiveWordsHelp')}
        />
        <Field
          label={t('publicContactsField')}
          value={form.publicContacts.join(',')}
          onChange={(text) => set({ publicContacts: text.split(',') })}
          help={t('publicContactsHelp')}
        />
        <h2>{t('ownDomains')}</h2>
        <Field
          label={t('ownDomainsField')}
          value={form.mailDomains.join(',')}
          onChange={(text) => set({ mailDomains: text.split(',') })}
          help={t('ownDomainsHelp')}
        />
        <h2>{t('dataRetention')}</h2>
        <SelectOne
          label={t('keepPolls')}
          value={String(form.pollDays)}
          options={KEPT_DAYS.map((d) => ({
            value: String(d),
            text: d === 365 ? t('forYear') : t('forDays', { days: d }),
          }))}
          onChange={(days) => set({ pollDays: Number(days) })}
        />
        <Faded>{t('retentionHint')}</Faded>
        <Refusal problem={problemOf(saving.error)} />
        <Row>
          <MainButton type="submit" isDisabled={saving.isLoading}>
            {t('save')}
          </MainButton>
          {saving.isSuccess && <span role="status">{t('saved')}</span>}
        </Row>
      </Stack>
    </form>
  );
}
