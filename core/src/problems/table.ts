/**
 * Every error that a user can cause, in one table: HTTP status and a sentence that says what to do.
 * `{name}` in a sentence is filled from the details given with the error.
 */
export const PROBLEMS = {
  'not-signed-in': { status: 401, say: 'You are not signed in. Sign in and try again.' },
  'sign-in-failed': {
    status: 401,
    say: 'This email address and password do not match. Check both and try again.',
  },
  'csrf-missing': { status: 403, say: 'This page is out of date. Reload it and try again.' },
  'too-many-tries': { status: 429, say: 'Too many attempts. Wait {seconds} seconds and try again.' },
  'steward-only': {
    status: 403,
    say: 'Only a steward can change this. Ask a steward of your organisation.',
  },
  'not-allowed': {
    status: 403,
    say: 'To {deed} you need to be {who}. Ask one of them to do it or to give you the right.',
  },
  'publisher-missing': {
    status: 422,
    say: 'A calendar needs at least one publisher whose account is active. Name another one first.',
  },
  'person-unknown': {
    status: 422,
    say: 'One of these people no longer has an account. Reload the page and choose again.',
  },
  'steward-missing': {
    status: 409,
    say: 'A house needs at least one steward whose account is active. Make somebody else a steward first.',
  },
  'publisher-resting': {
    status: 409,
    say: '{name} is the only publisher of: {calendars}. Name another one for each of them first.',
  },
  'password-weak': { status: 422, say: '{reason}' },
  'password-wrong': { status: 403, say: 'This is not your current password. Enter it again.' },
  'pass-unknown': {
    status: 404,
    say: 'There is nothing at this address. Copy all of it from the mail, or ask for a new one.',
  },
  'pass-used': {
    status: 410,
    say: 'This address works only once and has been used already. Sign in, or ask for a new one.',
  },
  'pass-ended': { status: 410, say: 'This address worked until {ends}. Ask for a new one.' },
  'invitation-withdrawn': {
    status: 410,
    say: 'This invitation is no longer valid: it was withdrawn, or changed and sent again, or its sender may no longer invite people. Look for a newer mail, or ask for a new invitation.',
  },
  'author-not-allowed': {
    status: 403,
    say: 'The person who scheduled this may no longer publish all its calendars, so it was not published. Somebody who may can schedule it again.',
  },
  'asker-suspended': {
    status: 409,
    say: 'The account of the person who asked is suspended, so nothing was granted. Activate the account first, or decline the request.',
  },
  'invitation-answered': {
    status: 409,
    say: 'This invitation was accepted or withdrawn already. Reload the page to see its state.',
  },
  'invitation-pending': {
    status: 409,
    say: 'These people are invited already and have not answered yet: {emails}. Send their invitation again instead.',
  },
  'too-many-invitations': {
    status: 422,
    say: '{most} invitations are waiting for an answer already. Withdraw some that are not needed.',
  },
  'address-known': {
    status: 409,
    say: 'These people have an account already: {emails}. Add them to the people of a calendar instead.',
  },
  'calendar-gone': {
    status: 422,
    say: 'One of these calendars no longer exists. Reload the page and choose again.',
  },
  'too-many-wishes': {
    status: 422,
    say: '{most} of your requests are waiting for an answer already. Withdraw one first.',
  },
  'key-person': {
    status: 422,
    say: 'A key for Crew or House belongs to one colleague; a key for outsiders does not. Choose the colleague, or another zone.',
  },
  'key-shows-nothing': {
    status: 422,
    say: '{name} may see nothing of one of this window’s calendars, so a key of their own would show nothing. Add them to the people of that calendar, then create the key.',
  },
  'mail-state': {
    status: 409,
    say: 'This mail has been sent, or is being sent now. Reload the page to see its state.',
  },
  'push-address': {
    status: 422,
    say: 'Changes cannot be pushed to this address: {reason}',
  },
  'push-missing': {
    status: 409,
    say: 'There is no push for this key. Enter an address first.',
  },
  'mail-server-set': {
    status: 409,
    say: 'A mail server is set up, so this person can ask for a new password when signing in. No address was created.',
  },
  'mail-server-missing': {
    status: 409,
    say: 'No mail server is set up. Set one up first.',
  },
  'sight-stopped': {
    status: 503,
    say: 'What you may see of this calendar cannot be computed at the moment. Ask one of its publishers to check it.',
  },
  'choices-missing': {
    status: 422,
    say: 'The property “{name}” has no choices. Add some.',
  },
  'not-found': { status: 404, say: 'There is nothing here. It may have been deleted; go back and reload.' },
  'input-invalid': { status: 422, say: 'Check these fields: {fields}.' },
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
    say: 'The body has an encoding that is not supported ({reason}). Send it as JSON in UTF-8.',
  },
  'value-out-of-range': {
    status: 422,
    say: 'A value is too large, too small or of the wrong kind. Check the numbers and texts and send it again.',
  },
  'account-resting': {
    status: 403,
    say: 'This account is suspended. Ask a steward of your organisation to activate it again.',
  },
  'too-many-changes': {
    status: 429,
    say: '{most} of your changes are waiting to be saved already, so this one was not saved. Save it again in a minute.',
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
    say: 'This address received {most} mails of this kind within an hour, so this one was not sent. Try again in an hour.',
  },
  'too-many-streams': {
    status: 429,
    say: 'You have {most} pages of this application open already. Close some of them and reload this one.',
  },
  'too-large': {
    status: 413,
    say: 'This is larger than {limit}. Split it into smaller files and import them one by one.',
  },
  'version-conflict': {
    status: 409,
    say: 'Somebody else changed this in the meantime. Compare both versions and choose what to keep.',
  },
  'edit-overtaken': {
    status: 409,
    say: 'This cannot be undone or redone: {label}. {title} has been changed since. Nothing was changed; open it and correct it by hand.',
  },
  'edit-closed': {
    status: 409,
    say: 'This change was already applied, undone or discarded. Reload the page to see what is there now.',
  },
  'uid-taken': {
    status: 409,
    say: 'The calendar already has an entry with the same identifier. Copy the entry instead of moving it.',
  },
  'zone-guided': {
    status: 409,
    say: 'This calendar has entries. Use “Change time zone”, which shows what would move.',
  },
  'calendar-in-use': {
    status: 409,
    say: 'This calendar is shown in: {windows}. Remove it from these windows first.',
  },
  'name-taken': { status: 409, say: 'The name “{name}” is taken. Choose another one.' },
  'zone-unknown': {
    status: 422,
    say: '“{zone}” is not a time zone of the IANA database. Choose one from the list.',
  },
  'date-invalid': { status: 422, say: '“{text}” is not a date. Write it like 2026-05-31.' },
  'time-invalid': { status: 422, say: '“{text}” is not a date and time. Write it like 2026-05-31T14:30:00.' },
  'end-before-start': { status: 422, say: 'The end is before the start. Move one of them.' },
  'year-out-of-reach': {
    status: 422,
    say: '“{text}” is outside the supported years {first} to {last}. Choose another year.',
  },
  'span-too-long': {
    status: 422,
    say: '{which} can last at most {days} days. End it earlier, or write several entries.',
  },
  'image-unreadable': {
    status: 422,
    say: 'This file is not an image that can be shown. Choose a JPEG, PNG, WebP or GIF file.',
  },
  'image-text-missing': {
    status: 422,
    say: 'Describe what the image shows. Readers who cannot see it get this text instead.',
  },
  'image-unknown': {
    status: 422,
    say: 'The image of this entry is no longer stored. Choose the file again, or remove the image.',
  },
  'too-many-images': {
    status: 422,
    say: 'You have uploaded {most} images within a day. Go on tomorrow.',
  },
  'entry-too-large': {
    status: 422,
    say: 'An entry can have at most {limit} {what}; this one has {count}. Split it into several entries.',
  },
  'window-uncomputable': {
    status: 500,
    say: 'Something in it cannot be computed. Ask whoever runs the server to look at its log.',
  },
  'entry-uncomputable': {
    status: 422,
    say: 'The entry “{title}” cannot be computed: {reason} Open it and correct it, or keep it in.',
  },
  'start-end-differ': {
    status: 422,
    say: 'Start and end must be of one kind: both dates, both floating, or both in a time zone.',
  },
  'rule-invalid': { status: 422, say: 'The recurrence rule cannot be read: {reason}.' },
  'too-much-work': {
    status: 422,
    say: 'Computing {what} takes more steps than allowed. Simplify it, or split it.',
  },
  'milestone-recurs': {
    status: 422,
    say: 'A milestone takes place once. Remove the recurrence, or make it an event or a due item.',
  },
  'property-invalid': { status: 422, say: '“{value}” does not fit “{name}”: it must be {expected}.' },
  'range-invalid': { status: 422, say: 'The range ends before it starts. Swap its ends.' },
  'range-too-long': { status: 422, say: 'The range is longer than {limit}. Ask for a shorter one.' },
  'file-empty': {
    status: 422,
    say: 'The file is empty. Export it again and import it once more.',
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
    say: 'Line {line}: this is a vCalendar {version} file, an older format than iCalendar, which is not supported. Export it as iCalendar (.ics) and import that.',
  },
  'zone-undefined': {
    status: 422,
    say: '{reason}, so its contents were left out. Everything else was read.',
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
  'columns-missing': { status: 422, say: 'Choose the column for: {columns}. Then continue.' },
  'filter-invalid': {
    status: 422,
    say: 'The filter cannot be read: {reason}. Correct that condition, or remove it.',
  },
  'filter-contradictory': {
    status: 422,
    say: 'The filter contradicts itself, so nothing can ever match. Remove one of its conditions, or combine them with “or”.',
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
    say: 'A cut glass shows at least one field. Pick one, or choose frosted or shut glass.',
  },
  'confirm-needed': {
    status: 409,
    say: 'This has a large effect outside, so you must confirm it first: {effects}.',
  },
  'draft-missing': { status: 404, say: 'There is no draft of this window. Change something first.' },
  'expiry-past': {
    status: 422,
    say: 'A key cannot end in the past. Choose a later day; to end all keys at once, close the window.',
  },
  'key-ended': {
    status: 409,
    say: 'This key has ended or was withdrawn, so it has no address to replace. Set a later end, or restore it, first.',
  },
  'key-gone': {
    status: 409,
    say: 'This key was withdrawn more than a day ago and cannot be restored. Create a new one for the same place.',
  },
  'too-many-keys': {
    status: 422,
    say: 'A window has at most {most} keys. Withdraw some that are not used, or open a second window.',
  },
  'link-unknown': {
    status: 422,
    say: 'One of the addresses on this sheet no longer exists. Reload the page and choose again.',
  },
  'sheet-gone': {
    status: 409,
    say: 'This link sheet was withdrawn. Restore it within a day, or create a new one.',
  },
  'too-many-sheets': {
    status: 422,
    say: 'You already have {most} link sheets. Withdraw some that are not used.',
  },
  'too-many-sheets-of-house': {
    status: 422,
    say: 'Your organisation already has {most} link sheets. Withdraw some that are not used.',
  },
  'too-many-calendars': {
    status: 422,
    say: 'You have created {most} calendars already. Delete some that are not used, or ask a colleague to create this one.',
  },
  'too-many-windows': {
    status: 422,
    say: 'You have opened {most} windows already. Ask a colleague to open this one.',
  },
  'too-many-staged-edits': {
    status: 422,
    say: '{most} of your edits are waiting to be applied. Apply or discard some first; each ends after a day.',
  },
  'too-many-ceiling-requests': {
    status: 422,
    say: '{most} of your requests for a higher ceiling are waiting for an answer already. Wait until some are answered.',
  },
  'schedule-past': { status: 422, say: 'That time has passed. Choose a later one.' },
  'label-in-use': {
    status: 409,
    say: 'The label “{label}” is on {count} entries. Remove it from them first, then delete it.',
  },
  'lock-down-over': {
    status: 409,
    say: 'The lock-down is more than a day old, so it cannot be undone in one step. A steward sets the ceilings again under House.',
  },
  'request-answered': { status: 409, say: 'This request was answered already. Reload the page.' },
  'revision-missing': {
    status: 404,
    say: 'The ledger has no revision with this number. Choose one from the list.',
  },
  'window-open': { status: 409, say: 'This window is open. Close it before you delete it.' },
  'window-closed': { status: 409, say: 'This window is closed. Open it again before you change it.' },
  'source-missing': { status: 422, say: 'A window needs at least one calendar. Choose one.' },
  'too-many-sources': {
    status: 422,
    say: 'You chose {count} calendars; a window can have at most {most}. Spread them over several windows.',
  },
  'closing-past': {
    status: 422,
    say: 'That moment has passed. Choose a later one, or close the window now.',
  },
  'look-invalid': {
    status: 422,
    say: 'These choices for the embed are not valid: {names}. Choose one of the values that are offered.',
  },
  'host-invalid': {
    status: 422,
    say: '“{host}” is not the name of a site. Write it like town.example or https://town.example.',
  },
  'storage-away': {
    status: 503,
    say: 'The database is unavailable, so nothing was saved. Keep this page open and try again in a minute.',
  },
  'desk-away': {
    status: 503,
    say: 'This part of the server is restarting, so nothing was done. Try again in a few seconds.',
  },
  'outside-stopped': {
    status: 503,
    say: 'This is saved, but what readers should see of {windows} cannot be computed, so they get nothing until that is fixed. {reason}',
  },
  'outside-unsure': {
    status: 503,
    say: 'This is saved, but it may not have taken effect outside yet. Until it has, nothing is shown outside. Reload in a minute.',
  },
  'change-repeated': {
    status: 409,
    say: 'This was sent twice, and the first one is still being processed. Reload the page to see the result.',
  },
  'change-id-taken': {
    status: 422,
    say: 'The id of this change is already used by another one. Send it with a new id.',
  },
  'outcome-unknown': {
    status: 503,
    say: 'The server was interrupted while saving this, so it is not known whether it was saved. Reload the page and check before you send it again.',
  },
  unexpected: {
    status: 500,
    say: 'Something went wrong on our side and nothing was saved. Try again. If it keeps happening, give this number to whoever runs this server: {id}.',
  },
} as const satisfies Record<string, { status: number; say: string }>;

export type ProblemCode = keyof typeof PROBLEMS;
