/**
 * Every word that readers outside are told, as messages of ICU MessageFormat. What is quoted from a window or an entry, and
 * every date, time and list, comes in as an argument. The other languages have the same messages with the same arguments.
 */
export const en = {
  // The page
  skip: 'Go to the entries',
  questions: 'Questions: {contact}',
  languages: 'Languages of this calendar',
  original: 'original',
  revision: 'Revision {number}, changed {moment}. True as of {now}.',
  dayAtTime: '{day} at {time}',
  dayTime: '{day}, {time}',
  inZone: '{when} ({zone})',
  range: '{from} to {to}',

  // Zones and clocks
  zone: 'Time zone',
  timesHost: 'Times are in {zone}, the host’s zone.',
  timesOther: 'Times are in {zone}, not in the host’s zone {host}.',
  clocksForward: 'Clocks there go forward on {day} at {time}.',
  clocksBack: 'Clocks there go back on {day} at {time}.',
  hostTimes: 'Show the host’s times',
  ownTimes: 'Show my time ({zone})',
  unknownZone: '“{zone}” is not a known time zone, so the host’s times are shown.',
  settings: 'Zone, clock and language',

  // Days
  days: 'Days shown',
  earlier: 'Earlier',
  later: 'Later',
  today: 'Today',
  list: 'List',
  week: 'Week',
  month: 'Month',
  weekOf: 'Week of {day}',
  moreThere: '{count, plural, one {# more} other {# more}}',
  none: 'Nothing is announced for these days.',
  narrow: 'On a narrow screen, days before today are left out here; go to “Earlier” or to the list for them.',
  wholeDays: 'Whole days',

  // Entries
  untitled: 'Untitled',
  allDay: 'all day',
  allDayTo: 'all day, to {day}',
  until: 'until {time}',
  spanTo: '{start} to {day}, {end}',
  cancelled: 'cancelled',
  done: 'done',
  tentative: 'tentative',
  milestone: 'milestone',
  due: 'due',
  moved: 'date changed',
  free: 'the time stays free',
  with: 'With {people}',
  ask: 'Ask {contact}',
  more: 'More about it',
  join: 'Join online',
  dueWhen: 'Due {when}.',
  dueDone: 'Due {when}, done.',
  milestoneSo: '{done, select, yes {Milestone, reached.} other {Milestone.}}',
  milestonePlanned:
    '{done, select, yes {Milestone, reached: planned for {when}, now {slip}.} other {Milestone: planned for {when}, now {slip}.}}',
  asPlanned: 'as planned',
  slipDays:
    '{days, plural, one {# day} other {# days}} ({working, plural, one {# working day} other {# working days}}) {way, select, later {later} other {earlier}} than planned',
  slipMinutes:
    'the same day, {minutes, plural, one {# minute} other {# minutes}} {way, select, later {later} other {earlier}} than planned',

  // Finding
  find: 'Find',
  findWhat: 'Find in this calendar',
  found:
    '{count, plural, =0 {Nothing is found for “{words}” from {from} on.} one {One time is found for “{words}” from {from} on.} other {# times are found for “{words}” from {from} on.}}',
  foundMore: 'Only the first {count} are shown here. Go on from {day}.',
  findHelp:
    'Every word has to be there; capitals and accents make no difference. Days before are found from “Earlier”.',
  endFind: 'Show all days again',

  // One entry
  back: 'Back to “{name}”',
  oneFile: 'Add just this one (.ics)',
  oneDateFile: 'Add just this date (.ics)',
  seriesFile: 'Add all its dates (.ics)',
  oneHelp: 'A file with this as it is at this moment. To stay up to date, follow the whole calendar.',
  dates: 'Its dates',
  datesMore: '{count, plural, one {One more date follows.} other {# more dates follow.}}',
  datesNone: 'None of its dates lie ahead.',
  goneTitle: 'This is not shown here',
  gone: 'What this address led to is not in the calendar, or no longer. Look at the calendar for what is.',

  // Following and copies
  follow: 'Follow',
  followShort: 'stays up to date',
  copy: 'Take a copy',
  copyShort: 'a file that stays as it is',
  followSay: 'Your calendar program looks here again by itself, and shows changes as they are made.',
  followOpen: 'Follow in a calendar program',
  followHow: 'How to follow, step by step',
  copySay: 'A file with what is known at this moment. Later changes do not reach it.',
  copyFile: 'Take a copy (.ics)',
  wholePage: 'Open the whole page, to follow or take a copy',
  followTitle: 'Follow “{name}”',
  followOrCopy: 'Following is not the same as taking a copy',
  followLive:
    'Who follows sees every change by itself: what is moved moves, what is cancelled is marked, what is new appears.',
  followStill: 'A copy stays as it was when it was taken. Nobody can correct it afterwards.',
  followSync: 'For programs that sync by difference',
  followSyncSay:
    'A program that has room for a CalDAV account reads the same here and fetches only what has changed; it needs no password. Where it asks for a user name and a password, give the long word in the address as either.',
  followSteps: 'How to follow',
  followStep1: 'Press “{open}”. If your program opens and asks, say yes. That is all.',
  followStep2: 'If nothing opens, copy the address below.',
  followStep3:
    'In your calendar program look for adding a calendar by its address, from the web or by subscription. It is often found where calendars are added, not where files are imported.',
  followStep4: 'Paste the address and confirm. Importing a file would give you a copy instead.',
  followAddress: 'The address to follow',
  followCode: 'For another device: point its camera at this code; it opens this page there.',
  followCodeAlt: 'QR code of this page',
  followExpect: 'What to expect',
  followReadOnly: 'You can read it and not change it; your own entries stay apart from it.',
  followName: 'It will be called “{name}” in your program, unless you give it another name there.',
  followOften:
    'We ask programs to look again every hour. Many look every few hours, some only once a day; a few let you choose how often.',
  followStop: 'To stop, remove the calendar from your program. Nobody here is told.',
  followPrivate:
    'This address is yours to use. Whoever has it sees the same as you, so pass it on with care.',

  // The reader's settings
  settingsTitle: 'Zone, clock and language',
  yourZone: 'Your time zone',
  hostZoneChoice: 'The host’s zone, {zone}',
  language: 'Language',
  clock: 'Clock',
  clock24: '24 hours',
  clock12: '12 hours',
  firstDay: 'Weeks begin on',
  theme: 'Colours',
  themeAuto: 'as the device has them',
  themeLight: 'light',
  themeDark: 'dark',
  show: 'Show',
  kept: 'This browser keeps what you choose, for this calendar. Nothing of it is stored elsewhere.',

  // What feeds and files add
  copyName: '{name} (copy of {day})',
  copyNote: 'Copy as of {moment}. It does not change; the live calendar is at {address}',
  withPeople: 'With: {people}',
  noticeTitle: 'New address for “{name}”',
  noticeSay: 'This address ends on {day}. Follow the new one instead; what is shown there is the same.',
  farewellTitle: '“{name}” ends on {day}',
  farewellSay: 'It is published until then, and not afterwards.',
  noticeGo: 'Go to the new page',
  noticeFollow: 'or follow',

  // The notice board
  board: 'Notice board',
  boardSay: 'Calendars that are open to everybody',
  boardFind: 'Find a calendar',
  boardNotFound: 'No calendar is found for “{words}”.',
  boardEmpty: 'No calendar is listed here yet.',
  boardOthers: 'Other calendars',
  boardFollow: 'Follow the board: new calendars as a feed, all of them as an OPML file.',
  boardZone: 'Times in {zone}',
  boardMore: 'More calendars on the notice board',
  boardNext: 'Further',
  boardByTopic: 'By topic',
  boardByPlace: 'By place',

  // A link sheet
  sheetBusy: 'Shows busy times only.',
  sheetNothing: 'Nothing is shown there just now.',
  sheetPage: 'Page: {address}',
  sheetFeed: 'Feed, for calendar programs: {address}',
  sheetEmpty: 'No calendar is on this sheet just now.',
  sheetLasting: 'This sheet is kept up to date at {address}',
  sheetCare:
    'These addresses are yours to use. Whoever has them sees the same as you, so pass them on with care.',
  sheetFiles: 'To take along:',

  // Where an address leads nowhere
  unknownTitle: 'There is no window here',
  unknownSay:
    'This address leads nowhere. Check that it is complete, or ask whoever gave it to you for a new one.',
  closedTitle: 'This window is closed',
  closedSay: 'The calendar that was shown here is no longer published.',
  closedSince: 'The calendar that was shown here is no longer published since {day}.',
  askGiver: 'Ask whoever gave you the address.',
  expiredTitle: 'This address has ended',
  expiredSay: 'It was open until a set day. Ask whoever gave it to you for a new one.',
  withdrawnTitle: 'This address was withdrawn',
  withdrawnSay: 'It leads nowhere any more. Ask whoever gave it to you for a new one.',
  turnedTitle: 'This address was replaced',
  turnedSay: 'A new one has taken its place. Ask whoever gave it to you for it.',
  stoppedTitle: 'Not shown just now',
  stoppedSay: 'What this calendar shows is being put in order. Try again in a while.',
  unheardTitle: 'Not shown just now',
  unheardSay: 'It cannot be told just now whether this calendar is up to date. Try again in a while.',
  waitingTitle: 'One moment',
  waitingSay: 'This calendar is just being prepared. Try again in a few seconds.',
  manyTitle: 'Too many addresses that lead nowhere',
  manySay: 'Wait a minute, then try again.',
};
