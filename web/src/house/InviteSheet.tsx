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
      <Sheet title="Hand over the invitations" onClose={onClose} wide>
        <HandOut handedOut={handedOut} onClose={onClose} />
      </Sheet>
    );
  return (
    <Sheet title="Invite people" onClose={onClose} wide isChanged={text.trim() !== ''}>
      <form onSubmit={(event) => void submit(event)}>
        <Stack>
          <p>
            {session?.sendsMail === false
              ? 'No mail server is set up. You get an address for each person, to hand over yourself.'
              : 'Each person gets a mail with an address.'}{' '}
            It works once, for {INVITATION_DAYS} days. There they choose a name and a password.
          </p>
          <Field
            label="Mail addresses"
            value={text}
            onChange={setText}
            lines
            autoFocus
            help="Several at once: with commas, blanks or lines between them."
            error={
              malformed.length
                ? `No mail ${malformed.length === 1 ? 'address' : 'addresses'}: ${malformed.join(', ')}`
                : tooMany
                  ? `At most ${INVITATION_LIMITS.atOnce} at once.`
                  : undefined
            }
          />
          {outside.length > 0 && <KeyInstead emails={outside} onLeave={onClose} />}
          <h3>What they will be</h3>
          <StandingsFields value={standings} onChange={setStandings} />
          <Tick isSelected={steward} onChange={setSteward}>
            Stewards of the house
            <small>They may do everything: people, ceilings, settings, and every calendar.</small>
          </Tick>
          <Refusal problem={problemOf(error)} />
          <Row>
            <MainButton
              type="submit"
              isDisabled={isLoading || !emails.length || malformed.length > 0 || tooMany}
            >
              {emails.length > 1 ? `Send ${emails.length} invitations` : 'Send the invitation'}
            </MainButton>
            <Button onPress={onClose}>Cancel</Button>
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
    <OutsideBox aria-label="Outsiders">
      <strong>{emails.join(', ')}</strong>
      <span>
        {emails.length === 1 ? 'This address is' : 'These addresses are'} outside{' '}
        {house?.mailDomains.join(', ')}. With an account they would be of the house. A key as Partners is the
        better way for outsiders: no account, and no more than a window shows.
      </span>
      {own.length > 0 ? (
        <Row style={{ alignItems: 'end' }}>
          <SelectOne
            label="Window"
            value={windowId}
            options={[
              { value: '', text: 'Choose …' },
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
            Make a key for {emails[0]} instead
          </Button>
        </Row>
      ) : (
        <Faded>There is no open window yet: open one first, then make the key there.</Faded>
      )}
    </OutsideBox>
  );
}
