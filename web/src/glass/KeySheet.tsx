import type { KeyInput, OutwardWindow, WindowKey } from '@zonal/core/api';
import {
  AUDIENCE_WORDS,
  GLASS_WORDS,
  KEY_LIMITS,
  AUDIENCES,
  OUTSIDERS,
  type Audience,
  type Demand,
  type Glass,
} from '@zonal/core/glass';
import { useState, type FormEvent } from 'react';
import { problemOf, usePeopleQuery, useSaveKeyMutation, useTurnKeyMutation } from '../api/zonalApi';
import { Confirmations, useConfirming } from '../rehearsal/Confirmations';
import { Button, MainButton } from '../ui/Button';
import { ChoiceStrip, SelectOne } from '../ui/Choice';
import { DateField } from '../ui/DateFields';
import { Field } from '../ui/Field';
import { Faded, Row, Stack } from '../ui/layout';
import { Overtaken } from '../ui/Overtaken';
import { Refusal } from '../ui/Refusal';
import { Sheet } from '../ui/Sheet';
import { Tick } from '../ui/Tick';
import { useChanged } from '../ui/Unsaved';
import { endOfDay, lastDayOf } from './keyWords';

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
  const confirming = useConfirming(demands, window.wording.name, 'the window’s name');
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
      title={keyOf ? `The key of ${keyOf.madeOutTo}` : 'New key'}
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
            label="Zone"
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
                label="The colleague whose own it is"
                value={form.userId}
                options={[
                  { value: '', text: 'Choose …' },
                  ...colleagues.map((a) => ({ value: a.id, text: `${a.name}, ${a.email}` })),
                ]}
                onChange={(userId) => set({ userId })}
              />
              <Faded>
                It never shows more than they may see inside, and follows that at once: when their rights are
                narrowed, or their account is put to rest. They find its address under their account.
              </Faded>
            </>
          ) : (
            <>
              <Field
                label="Made out to"
                value={form.madeOutTo}
                onChange={(madeOutTo) => set({ madeOutTo })}
                help="The place or person that gets it, such as “parish newsletter site”. Readers do not see it."
                maxLength={KEY_LIMITS.nameLetters}
                isRequired
                autoFocus
              />
              <SelectOne
                label="Shows at most"
                value={form.cap}
                options={CAPS.map((c) => ({
                  value: c,
                  text: c ? `${GLASS_WORDS[c].word}: ${GLASS_WORDS[c].plain}` : 'what the window shows',
                }))}
                onChange={(cap) => set({ cap })}
              />
            </>
          )}
          <Row>
            <DateField
              label="Open to the end of"
              value={form.lastDay}
              onChange={(lastDay) => set({ lastDay })}
            />
            {form.lastDay && <Button onPress={() => set({ lastDay: '' })}>Take the end back</Button>}
          </Row>
          <Field
            label="Made out for how many readers"
            inputMode="numeric"
            value={form.meantFor}
            onChange={(meantFor) => set({ meantFor })}
            error={meantForFits ? undefined : `A whole number from 1 to ${KEY_LIMITS.meantFor}, or nothing.`}
            help="People and programs together. When far more come, the address was passed on, and you are told."
          />
          <Tick isSelected={form.matters} onChange={(matters) => set({ matters })}>
            It matters that its readers know
            <small>You are told when the program of one of them goes silent.</small>
          </Tick>
          <Field
            label="Contact"
            value={form.contact}
            onChange={(contact) => set({ contact })}
            help="Whom to tell when something changes: a mail address or a number."
            maxLength={KEY_LIMITS.contactLetters}
          />
          <Field
            label="Notes"
            value={form.notes}
            onChange={(notes) => set({ notes })}
            lines
            maxLength={KEY_LIMITS.noteLetters}
          />
          <Faded>Contact and notes are for colleagues; they never go out.</Faded>
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
              {keyOf ? 'Save' : 'Make the key'}
            </MainButton>
            <Button onPress={onClose}>Leave without saving</Button>
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
    <Sheet title={`New address for ${keyOf.madeOutTo}`} onClose={onClose}>
      <form onSubmit={(event) => void submit(event)}>
        <Stack>
          <p>
            {keyOf.madeOutTo} gets a new address to “{window.wording.name}”. Use this when an address was
            passed on further than it should have been.
          </p>
          <Field
            label="Days for which the old address leads on"
            inputMode="numeric"
            value={days}
            onChange={setDays}
            error={fits ? undefined : `A whole number from 0 to ${KEY_LIMITS.graceDays}.`}
            help="Until then it shows the same, with one notice that carries the new address: whoever has the old one learns of it. Choose 0 to end it at once."
          />
          <Refusal problem={refusal} />
          <Row>
            <MainButton type="submit" isDisabled={turning.isLoading || !fits}>
              Give it a new address
            </MainButton>
            <Button onPress={onClose}>Leave it as it is</Button>
          </Row>
        </Stack>
      </form>
    </Sheet>
  );
}
