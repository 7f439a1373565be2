import type { ToCalendar } from '@zonal/core/api';
import { INVITATION_DAYS, INVITATION_LIMITS, addressesIn, isOutside, may } from '@zonal/core/rights';
import { useState, type FormEvent } from 'react';
import { flushSync } from 'react-dom';
import { useNavigate } from 'react-router';
import {
  problemOf,
  useCalendarsQuery,
  useHouseQuery,
  useInviteMutation,
  useSessionQuery,
  useWindowsQuery,
} from '../api/zonalApi';
import { Button, MainButton } from '../ui/Button';
import { SelectOne } from '../ui/Choice';
import { Field } from '../ui/Field';
import { Faded, OutsideBox, Row, Stack } from '../ui/layout';
import { Refusal } from '../ui/Refusal';
import { Sheet } from '../ui/Sheet';
import { Tick } from '../ui/Tick';
import { HandOut, handedOutOf, type HandedOut } from './HandOut';
import { StandingsFields } from './StandingsFields';
import { t } from '../texts/house';

/** Asks people into the house by mail, several at once, with what they will be to which calendars. */
export function InviteSheet({ onClose }: { onClose: () => void }) {
  const [text, setText] = useState('');
  const [steward, setSteward] = useState(false);
  const [standings, setStandings] = useState<readonly ToCalendar[]>([]);
  const [handedOut, setHandedOut] = useState<readonly HandedOut[]>([]);
  const [invite, { error, isLoading }] = useInviteMutation();
  const { data: session } = useSessionQuery();
  const { data: house } = useHouseQuery();
  const emails = addressesIn(text);
  const malformed = emails.filter((one) => !/^[^@\s]+@[^@\s]+\.[^@\s.]+$/.test(one));
  const outside = emails.filter(
    (one) => !malformed.includes(one) && isOutside(one, house?.mailDomains ?? []),
  );
  const tooMany = emails.length > INVITATION_LIMITS.atOnce;
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const { data } = await invite({ emails, steward, standings });
    if (!data) return;
    const addresses = handedOutOf(data);
    if (addresses.length) setHandedOut(addresses);
    else onClose();
  };
  if (handedOut.length)
    return (
      <Sheet title={t('handOverInvitations')} onClose={onClose} wide>
        <HandOut handedOut={handedOut} onClose={onClose} />
      </Sheet>
    );
  return (
    <Sheet title={t('invitePeople')} onClose={onClose} wide isChanged={text.trim() !== ''}>
      <form onSubmit={(event) => void submit(event)}>
        <Stack>
          <p>
            {session?.sendsMail === false ? t('inviteWithoutMail') : t('inviteByMail')}{' '}
            {t('inviteHint', { days: INVITATION_DAYS })}
          </p>
          <Field
            label={t('emailAddresses')}
            value={text}
            onChange={setText}
            lines
            autoFocus
            help={t('severalAddresses')}
            error={
              malformed.length
                ? t('malformedAddresses', { count: malformed.length, texts: malformed.join(', ') })
                : tooMany
                  ? t('tooManyAddresses', { count: INVITATION_LIMITS.atOnce })
                  : undefined
            }
          />
          {outside.length > 0 && <KeyInstead emails={outside} onLeave={onClose} />}
          <h3>{t('theirRole')}</h3>
          <StandingsFields value={standings} onChange={setStandings} />
          <Tick isSelected={steward} onChange={setSteward}>
            {t('stewardsOfHouse')}
            <small>{t('stewardHint')}</small>
          </Tick>
          <Refusal problem={problemOf(error)} />
          <Row>
            <MainButton
              type="submit"
              isDisabled={isLoading || !emails.length || malformed.length > 0 || tooMany}
            >
              {emails.length > 1 ? t('sendInvitations', { count: emails.length }) : t('sendInvitation')}
            </MainButton>
            <Button onPress={onClose}>{t('cancel')}</Button>
          </Row>
        </Stack>
      </form>
    </Sheet>
  );
}

/** Outsiders are better served with a key: it is offered in the same step. */
function KeyInstead({ emails, onLeave }: { emails: readonly string[]; onLeave: () => void }) {
  const { data: windows = [] } = useWindowsQuery();
  const { data: calendars = [] } = useCalendarsQuery();
  const { data: house } = useHouseQuery();
  const navigate = useNavigate();
  const [windowId, setWindowId] = useState('');
  const own = windows.filter(
    (w) =>
      !w.closedAt &&
      w.sources.every((s) => calendars.some((c) => c.id === s.calendarId && may('publish', c.who))),
  );
  return (
    <OutsideBox aria-label={t('outsiders')}>
      <strong>{emails.join(', ')}</strong>
      <span>
        {t('outsideAddresses', { count: emails.length, domains: house?.mailDomains.join(', ') ?? '' })}
      </span>
      {own.length > 0 ? (
        <Row style={{ alignItems: 'end' }}>
          <SelectOne
            label={t('window')}
            value={windowId}
            options={[
              { value: '', text: t('choose') },
              ...own.map((w) => ({ value: w.id, text: w.wording.name })),
            ]}
            onChange={setWindowId}
          />
          <Button
            isDisabled={!windowId}
            onPress={() => {
              // The invitation is given up for the key: nobody has to be asked.
              flushSync(onLeave);
              void navigate(
                `/windows/${windowId}?${new URLSearchParams({ 'key-for': emails[0]! }).toString()}`,
              );
            }}
          >
            {t('createKeyInstead', { email: emails[0] ?? '' })}
          </Button>
        </Row>
      ) : (
        <Faded>{t('noOpenWindow')}</Faded>
      )}
    </OutsideBox>
  );
}
