/**
 * Every error that a user can cause, in one table: HTTP status and a sentence that says what to do.
 * `{name}` in a sentence is filled from the details given with the error.
 */
export const PROBLEMS = {
  'not-signed-in': { status: 401, say: 'You are not signed in. Sign in and try again.' },
  'sign-in-failed': {
    status: 401,
    say: 'This e-mail address and password do not match. Check both and try again.',
  },
  'csrf-missing': { status: 403, say: 'This page is out of date. Reload it and try again.' },
  'too-many-tries': { status: 429, say: 'Too many tries. Wait {seconds} seconds and try again.' },
  'steward-only': {
    status: 403,
    say: 'Only a steward can change this. Ask a steward of your organisation.',
  },
  'not-allowed': {
    status: 403,
    say: 'To {deed} you need to be {who}. Ask one of them to do it, or to let you do it.',
  },
  'publisher-missing': {
    status: 422,
    say: 'A calendar needs at least one publisher whose account is not at rest. Name another one first.',
  },
  'person-unknown': {
    status: 422,
    say: 'One of these people has no account any more. Reload the page, and choose again.',
  },
  'steward-missing': {
    status: 409,
    say: 'A house needs at least one steward who is not at rest. Make somebody else one first.',
  },
  'publisher-resting': {
    status: 409,
    say: '{name} is the only publisher of: {calendars}. Name another one for each of them first.',
  },
  'password-weak': { status: 422, say: '{reason}' },
  'password-wrong': { status: 403, say: 'This is not your password now. Write it again.' },
  'pass-unknown': {
    status: 404,
    say: 'This address leads nowhere. Copy the whole of it from the mail, or ask for a new one.',
  },
  'pass-used': {
    status: 410,
    say: 'This address was used already, and works once only. Sign in, or ask for a new one.',
  },
  'pass-ended': { status: 410, say: 'This address worked until {ends}. Ask for a new one.' },
  'invitation-withdrawn': {
    status: 410,
    say: 'This invitation is no longer valid: it was withdrawn, changed and sent again, or whoever sent it may no longer invite people. Look for a newer mail, or ask for a new invitation.',
  },
  'author-not-allowed': {
    status: 403,
    say: 'Whoever scheduled this may no longer publish all its calendars, so it was not published. Somebody who may can schedule it again.',
  },
  'asker-suspended': {
    status: 409,
    say: 'The account of whoever asked is suspended, so nothing was granted. Activate the account first, or decline the request.',
  },
  'invitation-answered': {
    status: 409,
    say: 'This invitation was accepted or withdrawn already. Reload the page to see what became of it.',
  },
  'invitation-pending': {
    status: 409,
    say: 'These are invited already, and have not answered yet: {emails}. Send theirs again instead.',
  },
  'too-many-invitations': {
    status: 422,
    say: '{most} invitations wait for an answer already. Withdraw some that are not needed.',
  },
  'address-known': {
    status: 409,
    say: 'These have an account already: {emails}. Say under a calendar’s people what they are to it.',
  },
  'calendar-gone': {
    status: 422,
    say: 'One of these calendars is not there any more. Reload the page, and choose again.',
  },
  'too-many-wishes': {
    status: 422,
    say: '{most} of your wishes wait for an answer already. Take one back first.',
  },
  'key-person': {
    status: 422,
    say: 'A key for Crew or House is one colleague’s own, and one for outsiders is not. Choose the colleague, or another zone.',
  },
  'key-shows-nothing': {
    status: 422,
    say: '{name} may see nothing of one of this window’s calendars, so a key of their own would show nothing. Say under that calendar’s people what they see, then make the key.',
  },
  'mail-state': {
    status: 409,
    say: 'This mail was sent, or is being sent just now. Reload the page to see what became of it.',
  },
  'push-address': {
    status: 422,
    say: 'Changes cannot be pushed to this address: {reason}',
  },
  'push-missing': {
    status: 409,
    say: 'Nothing is pushed for this key. Give an address first.',
  },
  'mail-server-set': {
    status: 409,
    say: 'A mail server is set up, so this person can ask for a new password on the page to sign in. No address was made.',
  },
  'mail-server-missing': {
    status: 409,
    say: 'No mail server is set. Set one first.',
  },
  'sight-stopped': {
    status: 503,
    say: 'What you may see of this calendar cannot be worked out just now. Ask a publisher of it to look.',
  },
  'choices-missing': {
    status: 422,
    say: 'The property “{name}” has nothing to choose from. Add its choices.',
  },
  'not-found': { status: 404, say: 'There is nothing here. It may have been deleted; go back and reload.' },
  'input-invalid': { status: 422, say: 'Some fields need another look: {fields}.' },
  'body-unreadable': {
    status: 400,
    say: 'The request could not be read as {expected}. Send it again in that form.',
  },
  'request-malformed': {
    status: 400,
    say: 'The request cannot be read: {reason}. Check its address, its headers and its body, and send it again.',
  },
  'encoding-unsupported': {
    status: 415,
    say: 'The body is written in a way that is not read here ({reason}). Send it as JSON in UTF-8.',
  },
  'value-out-of-range': {
    status: 422,
    say: 'A value is too large, too small, or not of its kind. Check the numbers and texts, and send it again.',
  },
  'account-resting': {
    status: 403,
    say: 'This account is at rest. Ask a steward of your organisation to take it up again.',
  },
  'too-many-changes': {
    status: 429,
    say: '{most} of your changes are waiting to be saved already, so this one was not. Save it again in a minute.',
  },
  'too-many-mails': {
    status: 429,
    say: 'You have caused {most} mails within an hour, so this one was not sent. Try again in an hour.',
  },
  'too-many-mails-of-house': {
    status: 429,
    say: 'Your organisation has sent {most} mails within an hour, so this one was not sent. Try again in an hour.',
  },
  'too-many-mails-to-one': {
    status: 429,
    say: 'This address got {most} mails of this kind within an hour, so this one was not sent. Try again in an hour.',
  },
  'too-many-streams': {
    status: 429,
    say: 'You have this application open {most} times already. Close some of its pages, and reload this one.',
  },
  'too-large': {
    status: 413,
    say: 'This is larger than {limit}. Split it into smaller files and bring them in one by one.',
  },
  'version-conflict': {
    status: 409,
    say: 'Somebody else changed this in the meantime. Compare both versions and choose what to keep.',
  },
  'edit-overtaken': {
    status: 409,
    say: '“{label}” cannot be taken back or done again: {title} was changed since. Nothing was changed; open it and mend it by hand.',
  },
  'edit-closed': {
    status: 409,
    say: 'This change was applied, taken back or dropped already. Reload the page to see what is there now.',
  },
  'uid-taken': {
    status: 409,
    say: 'The calendar has an entry with the same identifier already. Copy the entry instead of moving it.',
  },
  'zone-guided': {
    status: 409,
    say: 'This calendar has entries. Change its time zone with “Change the time zone”, which shows what would move.',
  },
  'calendar-in-use': {
    status: 409,
    say: 'This calendar is shown in: {windows}. Take it out of these windows first.',
  },
  'name-taken': { status: 409, say: 'There is already one called “{name}”. Choose another name.' },
  'zone-unknown': {
    status: 422,
    say: '“{zone}” is not a time zone of the IANA database. Choose one from the list.',
  },
  'date-invalid': { status: 422, say: '“{text}” is not a date. Write it as 2026-05-31.' },
  'time-invalid': { status: 422, say: '“{text}” is not a date and time. Write it as 2026-05-31T14:30:00.' },
  'end-before-start': { status: 422, say: 'The end is before the start. Move one of them.' },
  'year-out-of-reach': {
    status: 422,
    say: '“{text}” is outside the years {first} to {last}, in which calendars here can be. Choose another year.',
  },
  'span-too-long': {
    status: 422,
    say: '{which} lasts at most {days} days here. End it earlier, or write several entries.',
  },
  'entry-too-large': {
    status: 422,
    say: 'An entry holds at most {limit} {what}; this one has {count}. Split it into several entries.',
  },
  'entry-uncomputable': {
    status: 422,
    say: 'The entry “{title}” cannot be worked out: {reason} Open it and mend it, or keep it in.',
  },
  'start-end-differ': {
    status: 422,
    say: 'Start and end must be of one kind: both dates, both floating, or both in a time zone.',
  },
  'rule-invalid': { status: 422, say: 'The recurrence rule cannot be read: {reason}.' },
  'too-much-work': {
    status: 422,
    say: 'Working out {what} takes more steps than are allowed here. Make it plainer, or split it.',
  },
  'milestone-recurs': {
    status: 422,
    say: 'A milestone takes place once. Take the recurrence away, or make it an event or a due item.',
  },
  'property-invalid': { status: 422, say: '“{value}” does not fit “{name}”: it must be {expected}.' },
  'range-invalid': { status: 422, say: 'The range ends before it starts. Swap its ends.' },
  'range-too-long': { status: 422, say: 'The range is longer than {limit}. Ask for a shorter one.' },
  'file-empty': {
    status: 422,
    say: 'The file has nothing in it. Export it again and bring it in once more.',
  },
  'file-not-calendar': {
    status: 422,
    say: 'Line {line}: this is not an iCalendar file (it does not start with BEGIN:VCALENDAR). Choose an .ics file.',
  },
  'file-malformed': {
    status: 422,
    say: 'Line {line}: {reason}. Nothing was imported; fix that line or export the file again.',
  },
  'file-version-old': {
    status: 422,
    say: 'Line {line}: this is a vCalendar {version} file, an older form than iCalendar, and is not read here. Export it as iCalendar (.ics) and bring that in.',
  },
  'zone-undefined': {
    status: 422,
    say: '{reason}, so what is in it was left out. Everything else was read.',
  },
  'component-unreadable': {
    status: 422,
    say: 'Line {line}: {reason}. It was left out; everything else was read.',
  },
  'table-unreadable': {
    status: 422,
    say: 'Row {line}: {reason}. Nothing was imported; fix that row or export the table again.',
  },
  'table-row': { status: 422, say: 'This row was left out: {reason}.' },
  'columns-missing': { status: 422, say: 'Say which column holds: {columns}. Then go on.' },
  'filter-invalid': {
    status: 422,
    say: 'The filter cannot be read: {reason}. Mend that condition, or take it out.',
  },
  'filter-contradictory': {
    status: 422,
    say: 'The filter contradicts itself, so nothing could ever pass it. Take one of its conditions out, or join them by “or”.',
  },
  'pattern-invalid': {
    status: 422,
    say: 'The pattern of titles cannot be read: {reason}.',
  },
  'horizon-invalid': {
    status: 422,
    say: 'The horizon ends ({to}) before it starts ({from}). Swap its days.',
  },
  'cut-empty': {
    status: 422,
    say: 'A cut glass lets at least one field through. Pick one, or make the glass frosted or shut.',
  },
  'confirm-needed': {
    status: 409,
    say: 'This has a large effect outside, so it must be confirmed first: {effects}.',
  },
  'draft-missing': { status: 404, say: 'There is no draft of this window. Change something first.' },
  'expiry-past': {
    status: 422,
    say: 'A key cannot end in the past. Choose a later day; to shut everybody out at once, close the window.',
  },
  'key-ended': {
    status: 409,
    say: 'This key has ended or was withdrawn, so it has no address to replace. Set a later end, or bring it back, first.',
  },
  'key-gone': {
    status: 409,
    say: 'This key was withdrawn more than a day ago, so it stays so. Make a new one out to the same place.',
  },
  'too-many-keys': {
    status: 422,
    say: 'A window has at most {most} keys. Withdraw some that are not used, or open a second window.',
  },
  'link-unknown': {
    status: 422,
    say: 'One of the addresses on this sheet is not there any more. Reload the page, and choose again.',
  },
  'sheet-gone': {
    status: 409,
    say: 'This link sheet was withdrawn. Bring it back within a day of that, or make a new one.',
  },
  'too-many-sheets': {
    status: 422,
    say: 'You have {most} link sheets already. Withdraw some that are not used.',
  },
  'too-many-sheets-of-house': {
    status: 422,
    say: 'Your organisation has {most} link sheets already. Withdraw some that are not used.',
  },
  'too-many-calendars': {
    status: 422,
    say: 'You have made {most} calendars already. Delete some that are not used, or let a colleague make this one.',
  },
  'too-many-windows': {
    status: 422,
    say: 'You have opened {most} windows already. Let a colleague open this one.',
  },
  'too-many-staged-edits': {
    status: 422,
    say: '{most} of your edits wait to be applied. Apply or discard some first; each ends after a day.',
  },
  'too-many-ceiling-requests': {
    status: 422,
    say: '{most} of your requests for a higher ceiling wait for an answer already. Wait until some are answered.',
  },
  'schedule-past': { status: 422, say: 'That time has passed. Choose one that is still to come.' },
  'label-in-use': {
    status: 409,
    say: 'The label “{label}” is on {count} entries. Take it off them first, then forget it.',
  },
  'lock-down-over': {
    status: 409,
    say: 'The lock-down is more than a day old, so it cannot be taken back in one step. A steward sets the ceilings anew under House.',
  },
  'request-answered': { status: 409, say: 'This request was answered already. Reload the page.' },
  'revision-missing': {
    status: 404,
    say: 'The ledger has no revision of this number. Choose one from the list.',
  },
  'window-open': { status: 409, say: 'This window is open. Close it before you delete it.' },
  'window-closed': { status: 409, say: 'This window is closed. Open it again before you change it.' },
  'source-missing': { status: 422, say: 'A window needs at least one calendar. Choose one.' },
  'too-many-sources': {
    status: 422,
    say: 'These are {count} calendars; a window takes at most {most}. Spread them over several windows.',
  },
  'closing-past': {
    status: 422,
    say: 'That moment is over. Choose a later one, or close the window now.',
  },
  'look-invalid': {
    status: 422,
    say: 'Of how the embed is to look, this cannot be: {names}. Choose one of the values that are offered.',
  },
  'host-invalid': {
    status: 422,
    say: '“{host}” is no site that can hold an embed. Write its name, such as town.example or https://town.example.',
  },
  'storage-away': {
    status: 503,
    say: 'The store cannot be reached just now, so nothing was saved. Keep this page open and try again in a minute.',
  },
  'desk-away': {
    status: 503,
    say: 'This part of the server is just being started again, so nothing was done. Try again in a few seconds.',
  },
  'outside-stopped': {
    status: 503,
    say: 'This is saved, but what readers are to see of {windows} cannot be worked out, so they get nothing until that is mended. {reason}',
  },
  'outside-unsure': {
    status: 503,
    say: 'This is saved, but it is not sure that it acts outside yet, so nothing is shown outside until it does. Reload in a minute.',
  },
  'change-repeated': {
    status: 409,
    say: 'This was sent twice, and the other one is being worked on. Reload the page to see what became of it.',
  },
  'change-id-taken': {
    status: 422,
    say: 'The id of this change stands for another one already. Send it with a new id.',
  },
  'outcome-unknown': {
    status: 503,
    say: 'The server was interrupted just as it was to save this, so it is not known whether it did. Reload the page and look before you send it again.',
  },
  unexpected: {
    status: 500,
    say: 'Something went wrong on our side and nothing was saved. Try again; if it stays, tell whoever runs this server the number {id}.',
  },
} as const satisfies Record<string, { status: number; say: string }>;

export type ProblemCode = keyof typeof PROBLEMS;
