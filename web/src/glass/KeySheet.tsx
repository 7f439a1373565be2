import type { KeyInput, OutwardWindow, WindowKey } from '@zonal/core/api';
import { KEY_LIMITS, AUDIENCES, OUTSIDERS, type Audience, type Demand, type Glass } from '@zonal/core/glass';
import { useState, type FormEvent } from 'react';
import { problemOf, usePeopleQuery, useSaveKeyMutation, useTurnKeyMutation } from '../api/zonalApi';
import { Confirmations, useConfirming } from '../rehearsal/Confirmations';
import { Button, MainButton } from '../ui/Button';
import { ChoiceStrip, SelectOne } from '../ui/Choice';
import { LazyDateField } from '../ui/LazyDateField';
import { Field } from '../ui/Field';
import { Faded, Row, Stack } from '../ui/layout';
import { Overtaken } from '../ui/Overtaken';
import { Refusal } from '../ui/Refusal';
import { Sheet } from '../ui/Sheet';
import { Tick } from '../ui/Tick';
import { useChanged } from '../ui/Unsaved';
import { endOfDay, lastDayOf } from './keyWords';
import { t } from '../texts/glass';
import { AUDIENCE_WORDS, GLASS_WORDS } from '../texts/glassWords';

interface KeySheetProps {
  window: OutwardWindow;
  /** Null for a new one. */
  keyOf: WindowKey | null;
  /** The mail address of an outsider that a new one is for. */
  madeOutTo?: string;
  onClose: () => void;
}

const CAPS = ['', 'clear', 'tinted', 'frosted'] as const;

/** Makes a key out to a place or person, or changes one. */
export function KeySheet({ window, keyOf, madeOutTo = '', onClose }: KeySheetProps) {
  const { hostZone } = window;
  const [form, setForm] = useState(() => ({
    ...formOf(keyOf, hostZone),
    ...(madeOutTo ? { madeOutTo, contact: madeOutTo, audience: 'partners' as Audience } : {}),
  }));
  const [version, setVersion] = useState(keyOf?.version);
  const [save, saving] = useSaveKeyMutation();
  const refusal = problemOf(saving.error);
  const demands = (refusal?.details['demands'] as readonly Demand[] | undefined) ?? [];
  const confirming = useConfirming(demands, window.wording.name, t('windowsName'));
  const current = refusal?.code === 'version-conflict' ? (refusal.details['current'] as WindowKey) : null;
  const meantForFits =
    !form.meantFor || (/^[1-9]\d*$/.test(form.meantFor) && Number(form.meantFor) <= KEY_LIMITS.meantFor);
  const isChanged = useChanged(form);
  const set = (part: Partial<typeof form>) => setForm((f) => ({ ...f, ...part }));

  const { data: everybody = [] } = usePeopleQuery();
  const own = !(OUTSIDERS as readonly Audience[]).includes(form.audience);
  const colleagues = everybody.filter((a) => !a.restedAt);
  const colleague = colleagues.find((a) => a.id === form.userId);

  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const { lastDay, cap, meantFor, userId, ...rest } = form;
    const body: KeyInput = {
      ...rest,
      madeOutTo: own ? (colleague?.name ?? '') : form.madeOutTo.trim(),
      userId: own ? userId : null,
      cap: own ? null : cap || null,
      meantFor: meantFor ? Number(meantFor) : null,
      // An end that was not touched stays to the moment.
      expiresAt:
        keyOf && lastDay === lastDayOf(keyOf, hostZone) ? keyOf.expiresAt : endOfDay(lastDay, hostZone),
      confirmed: confirming.accepted,
      ...(version === undefined ? {} : { version }),
    };
    const { error } = await save({ windowId: window.id, id: keyOf?.id ?? null, body });
    if (!error) onClose();
  };

  return (
    <Sheet
      title={keyOf ? t('keyOf', { place: keyOf.madeOutTo }) : t('newKey')}
      onClose={onClose}
      isChanged={isChanged}
    >
      <form onSubmit={(event) => void submit(event)}>
        <Stack>
          {current && (
            <Overtaken
              what="key"
              onMine={() => setVersion(current.version)}
              onTheirs={() => {
                setForm(formOf(current, hostZone));
                setVersion(current.version);
                saving.reset();
              }}
            />
          )}
          <ChoiceStrip
            label={t('zone')}
            value={form.audience}
            options={AUDIENCES.map((z) => ({
              value: z,
              text: AUDIENCE_WORDS[z].word,
              help: AUDIENCE_WORDS[z].plain,
            }))}
            onChange={(audience) => set({ audience })}
          />
          <Faded>
            {AUDIENCE_WORDS[form.audience].word}: {AUDIENCE_WORDS[form.audience].plain}.
          </Faded>
          {own ? (
            <>
              <SelectOne
                label={t('colleague')}
                value={form.userId}
                options={[
                  { value: '', text: t('choose') },
                  ...colleagues.map((a) => ({ value: a.id, text: `${a.name}, ${a.email}` })),
                ]}
                onChange={(userId) => set({ userId })}
              />
              <Faded>{t('colleagueHint')}</Faded>
            </>
          ) : (
            <>
              <Field
                label={t('issuedTo')}
                value={form.madeOutTo}
                onChange={(madeOutTo) => set({ madeOutTo })}
                help={t('issuedToHelp')}
                maxLength={KEY_LIMITS.nameLetters}
                isRequired
                autoFocus
              />
              <SelectOne
                label={t('showsAtMost')}
                value={form.cap}
                options={CAPS.map((c) => ({
                  value: c,
                  text: c ? `${GLASS_WORDS[c].word}: ${GLASS_WORDS[c].plain}` : t('whatWindowShows'),
                }))}
                onChange={(cap) => set({ cap })}
              />
            </>
          )}
          <Row>
            <LazyDateField
              label={t('openUntilEnd')}
              value={form.lastDay}
              onChange={(lastDay) => set({ lastDay })}
            />
            {form.lastDay && <Button onPress={() => set({ lastDay: '' })}>{t('removeEnd')}</Button>}
          </Row>
          <Field
            label={t('expectedReaders')}
            inputMode="numeric"
            value={form.meantFor}
            onChange={(meantFor) => set({ meantFor })}
            error={meantForFits ? undefined : t('expectedReadersInvalid', { most: KEY_LIMITS.meantFor })}
            help={t('expectedReadersHelp')}
          />
          <Tick isSelected={form.matters} onChange={(matters) => set({ matters })}>
            {t('important')}
            <small>{t('importantHint')}</small>
          </Tick>
          <Field
            label={t('contact')}
            value={form.contact}
            onChange={(contact) => set({ contact })}
            help={t('contactHelp')}
            maxLength={KEY_LIMITS.contactLetters}
          />
          <Field
            label={t('notes')}
            value={form.notes}
            onChange={(notes) => set({ notes })}
            lines
            maxLength={KEY_LIMITS.noteLetters}
          />
          <Faded>{t('contactHint')}</Faded>
          <Confirmations {...confirming} />
          <Refusal problem={current || demands.length ? null : refusal} />
          <Row>
            <MainButton
              type="submit"
              isDisabled={
                saving.isLoading ||
                !(own ? colleague : form.madeOutTo.trim()) ||
                !meantForFits ||
                !confirming.ready
              }
            >
              {keyOf ? t('save') : t('createKey')}
            </MainButton>
            <Button onPress={onClose}>{t('discardChanges')}</Button>
          </Row>
        </Stack>
      </form>
    </Sheet>
  );
}

function formOf(key: WindowKey | null, hostZone: string) {
  return {
    madeOutTo: key?.madeOutTo ?? '',
    audience: key?.audience ?? ('partners' as Audience),
    userId: key?.userId ?? '',
    cap: (key?.userId ? '' : (key?.cap ?? '')) as '' | Exclude<Glass, 'shut'>,
    lastDay: key ? lastDayOf(key, hostZone) : '',
    meantFor: key?.meantFor ? String(key.meantFor) : '',
    matters: key?.matters ?? false,
    contact: key?.contact ?? '',
    notes: key?.notes ?? '',
  };
}

/** Gives a key a new address, and says what becomes of the old one. */
export function KeyTurnSheet({ window, keyOf, onClose }: KeySheetProps & { keyOf: WindowKey }) {
  const [days, setDays] = useState('14');
  const [turn, turning] = useTurnKeyMutation();
  const refusal = problemOf(turning.error);
  const graceDays = Number(days);
  const fits = /^\d+$/.test(days) && graceDays <= KEY_LIMITS.graceDays;
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const { error } = await turn({ id: keyOf.id, graceDays });
    if (!error) onClose();
  };
  return (
    <Sheet title={t('newAddressFor', { place: keyOf.madeOutTo })} onClose={onClose}>
      <form onSubmit={(event) => void submit(event)}>
        <Stack>
          <p>{t('newAddressHint', { place: keyOf.madeOutTo, window: window.wording.name })}</p>
          <Field
            label={t('graceDays')}
            inputMode="numeric"
            value={days}
            onChange={setDays}
            error={fits ? undefined : t('graceDaysInvalid', { most: KEY_LIMITS.graceDays })}
            help={t('graceDaysHelp')}
          />
          <Refusal problem={refusal} />
          <Row>
            <MainButton type="submit" isDisabled={turning.isLoading || !fits}>
              {t('replaceAddress')}
            </MainButton>
            <Button onPress={onClose}>{t('cancel')}</Button>
          </Row>
        </Stack>
      </form>
    </Sheet>
  );
}
