import type { DraftEntry } from '@zonal/core/forms';
import type { Standing } from '@zonal/core/rights';
import {
  BLANK_WINDOW,
  PLAIN_TITLE,
  type Audience,
  type Colour,
  type Filter,
  type Glass,
  type PlatePattern,
  type PlateShape,
  type Rounding,
  type WordingText,
  type WindowSaid,
} from '@zonal/core/glass';
import { weekdayOf, type Day } from '@zonal/core/zones';
import { HOME, allDay, changed, date, recurring, timed } from './drafts';
import { pick, randomFrom } from '@zonal/core/followers';

export interface DemoCalendar {
  readonly plate: string;
  readonly name: string;
  readonly description: string;
  readonly colour: Colour;
  readonly shape: PlateShape;
  readonly pattern: PlatePattern;
  readonly entries: readonly DraftEntry[];
}

export interface DemoWindow {
  readonly slug: string;
  readonly name: string;
  readonly description: string;
  readonly colour: Colour;
  readonly busyWord: string;
  readonly rounding: Rounding;
  readonly nextDays: number;
  readonly listed: boolean;
  readonly audience: Audience;
  readonly keys: readonly string[];
  readonly topic: string;
  readonly place: string;
  readonly contact: string;
  readonly translations: WordingText[];
  readonly titlePattern: string;
  readonly filter: Filter | null;
  /** Glass by the calendar's plate, and its name as outsiders read it. */
  readonly sources: readonly (readonly [plate: string, glass: Glass, as: string])[];
}

/** The picture of the market, in `demo/images/market.webp`. */
export const MARKET_IMAGE = {
  name: '5a7d1e0c43b9f28660c1ab5e9d3f7042',
  alt: 'Two stalls with fish and bread on the quay, and a sailing boat behind them',
  width: 960,
  height: 540,
};

const PAST = 62;
const NEXT = 184;

/** Returns the calendars of the Ostrel Harbour Trust around a day. The same day gives the same content. */
export function calendarsAround(today: Day): DemoCalendar[] {
  return [bridge(today), quay(today), works(today), pilots(today), lighthouse(today), diary(today)];
}

/** Returns the first day on or after `day` that falls on a weekday (0 for Monday). */
function next(weekday: number, day: Day): Day {
  return day + ((weekday - weekdayOf(day) + 7) % 7);
}

const VESSELS = [
  'MV Corrigan Light',
  'Brig Halvard',
  'MV Northern Tern',
  'Sail trainer Ysolde',
  'MV Petrel Sound',
];

/** The swing bridge opens around high water, which comes some 50 minutes later each day. */
function bridge(today: Day): DemoCalendar {
  const random = randomFrom(11);
  const entries: DraftEntry[] = [];
  for (let highWater = 5 * 60 + 20, day = today - PAST; day < today + NEXT;) {
    if (highWater >= 1440) {
      highWater -= 1440;
      day++;
      continue;
    }
    if (highWater > 380 && highWater < 1250) {
      const start = Math.round(highWater / 5) * 5 - 20;
      const vessel = random() < 0.3 ? ` for ${pick(random, VESSELS)}` : '';
      entries.push(
        timed(`bridge-${day}-${start}`, day, start, 40, {
          title: `Bridge opens${vessel}`,
          place: 'Swing bridge, Inner Lock',
          description:
            'Road closed while the bridge is open. Times move with the wind; call the lock on channel 12.',
          labels: vessel ? ['bridge', 'named vessel'] : ['bridge'],
          contact: 'Lock keeper, channel 12',
          status: random() < 0.06 ? 'cancelled' : random() < 0.1 ? 'tentative' : 'confirmed',
        }),
      );
    }
    highWater += 745;
  }
  const inspection = timed('lock-inspection', next(2, today - 400), '07:30', 90, {
    title: 'Lock closed for inspection',
    place: 'Inner Lock',
    labels: ['lock'],
  });
  entries.push(recurring(inspection, 'FREQ=MONTHLY;BYDAY=1WE'));
  return {
    plate: 'BL',
    name: 'Bridge and lock times',
    description: 'Openings of the swing bridge and closures of the Inner Lock, by the tide.',
    colour: 'steelblue',
    shape: 'pennant',
    pattern: 'stripes',
    entries,
  };
}

function quay(today: Day): DemoCalendar {
  const random = randomFrom(23);
  const saturday = next(5, today - 400);
  const market = timed('market', saturday, '09:00', 300, {
    title: 'Saturday market',
    place: 'Long Quay',
    description: 'Fish, bread and flowers.\nStalls: https://ostrel.example/market',
    publicLink: 'https://ostrel.example/market',
    labels: ['market', 'family'],
    image: MARKET_IMAGE,
    shows: 'free',
  });
  const soon = next(5, today + 3);
  const entries: DraftEntry[] = [
    recurring(
      market,
      'FREQ=WEEKLY',
      [soon + 28],
      [
        changed(market, soon + 7, 60, { title: 'Saturday market, starts late', place: 'Ropewalk hall' }),
        changed(market, soon + 21, 0, { title: 'Winter market', status: 'tentative' }),
      ],
    ),
    recurring(
      timed('tours', next(6, today - 390), '14:00', 75, {
        title: 'Guided walk: the old harbour',
        place: 'Customs stair',
        labels: ['tour'],
        contact: 'Visitor desk, visit@ostrel.example',
        people: [{ name: 'Ada Tollund', address: 'ada@ostrel.example' }],
      }),
      'FREQ=WEEKLY;INTERVAL=2',
    ),
    allDay('regatta', next(4, today + 120), 3, {
      title: 'Ostrel regatta',
      place: 'Outer basin',
      description: 'Three days of races. Berths are limited.',
      publicLink: 'https://ostrel.example/regatta',
      labels: ['regatta', 'family'],
    }),
    allDay('open-day', next(6, today + 60), 1, {
      title: 'Harbour open day',
      place: 'All quays',
      labels: ['family'],
    }),
  ];
  const shows = [
    'Brass on the steps',
    'Net-mending class',
    'Shanty evening',
    'Film on the slipway',
    'Knot school',
  ];
  for (let week = -8; week < 26; week++) {
    const day = next(pick(random, [3, 4, 6]), today + week * 7);
    entries.push(
      timed(`quay-${week}`, day, pick(random, ['18:30', '19:00', '20:00']), pick(random, [60, 90, 120]), {
        title: pick(random, shows),
        place: pick(random, ['Long Quay', 'Ropewalk hall', 'Customs stair']),
        description: 'Admission free. In bad weather in the Ropewalk hall. Questions: quay@ostrel.example',
        labels: [pick(random, ['music', 'craft', 'family'])],
        status: random() < 0.12 ? 'tentative' : 'confirmed',
        shows: 'free',
      }),
    );
  }
  return {
    plate: 'EV',
    name: 'Events on the quay',
    description: 'What is open to everybody on the quays.',
    colour: 'seagreen',
    shape: 'barrel',
    pattern: 'dots',
    entries,
  };
}

const SITES = [
  'North Channel',
  'Ferry berth 2',
  'Coal pier',
  'Inner Lock sill',
  'East breakwater',
  'Slipway',
];
const JOBS = ['Dredging', 'Sounding survey', 'Pile repair', 'Fender replacement', 'Lamp and buoy work'];

function works(today: Day): DemoCalendar {
  const random = randomFrom(37);
  const entries: DraftEntry[] = [];
  for (let i = 0; i < 40; i++) {
    const day = today - PAST + Math.floor((i * (PAST + NEXT)) / 40);
    const job = pick(random, JOBS);
    const site = pick(random, SITES);
    const days = 1 + Math.floor(random() * 6);
    entries.push(
      allDay(`works-${i}`, day, days, {
        title: `${job}: ${site}`,
        place: site,
        description: `Contract OHT-${200 + i}. Keep 50 m clear of the plant.`,
        properties: [{ name: 'Contract', value: `OHT-${200 + i}` }],
        labels: ['works', job.split(' ')[0]!.toLowerCase()],
        status: random() < 0.2 ? 'tentative' : random() < 0.06 ? 'cancelled' : 'confirmed',
        people: [
          {
            name: pick(random, ['Birk Osman', 'Lene Faro', 'Tam Oyelaran']),
            address: 'works@ostrel.example',
          },
        ],
        hold: random() < 0.08 ? 'frost' : 'none',
      }),
    );
  }
  const call = timed('works-call', next(0, today - 395), '13:00', 30, {
    title: 'Works briefing (by phone)',
    joinLink: 'https://meet.ostrel.example/works?pin=4471',
    labels: ['briefing'],
  });
  const shifted = next(0, today + 8);
  entries.push(
    recurring(
      call,
      'FREQ=WEEKLY;BYDAY=MO',
      [shifted + 14],
      [changed(call, shifted, 90, { title: 'Works briefing, moved' })],
    ),
  );
  const milestones = [
    ['Berth 2 clear for the ferry', 5, 4, 'Ferry berth 2'],
    ['North Channel at full depth', 19, 9, 'North Channel'],
    ['Coal pier handed over', 33, 0, 'Coal pier'],
    ['Lock sill under water again', 47, -3, 'Inner Lock sill'],
    ['Breakwater lamps lit', 75, 14, 'East breakwater'],
  ] as const;
  for (const [title, planned, slip, site] of milestones) {
    const entry = allDay(`milestone-${planned}`, today + planned + slip, 1, {
      title,
      place: site,
      kind: 'milestone',
      planned: date(today + planned),
      shows: 'free',
      labels: ['milestone'],
      properties: [{ name: 'Contract', value: `OHT-${300 + planned}` }],
    });
    entries.push(entry);
  }
  return {
    plate: 'DW',
    name: 'Dredging and works',
    description: 'Works that close a berth or a channel.',
    colour: 'darkgoldenrod',
    shape: 'chamfer',
    pattern: 'checks',
    entries,
  };
}

const PILOTS = ['R. Anker', 'S. Dellacroix', 'M. Ferhat', 'P. Niewland'];

function pilots(today: Day): DemoCalendar {
  const first = next(0, today - 392);
  const watches = [
    ['early', '06:00', 480],
    ['late', '14:00', 480],
    ['night', '22:00', 480],
  ] as const;
  const entries = watches.flatMap(([name, start, minutes]) =>
    PILOTS.map((pilot, i) => {
      const day = first + i * 7;
      const watch = timed(`watch-${name}-${i}`, day, start, minutes, {
        title: `Pilot on duty: ${pilot} (${name} watch)`,
        place: 'Pilot station',
        people: [{ name: pilot, address: `${pilot.split(' ')[1]!.toLowerCase()}@ostrel.example` }],
        labels: ['roster', name],
      });
      return recurring(watch, 'FREQ=WEEKLY;INTERVAL=4;BYDAY=MO,TU,WE,TH,FR,SA,SU');
    }),
  );
  return {
    plate: 'PR',
    name: 'Pilots’ duty roster',
    description: 'Who is on watch. Names stay inside.',
    colour: 'slateblue',
    shape: 'square',
    pattern: 'rails',
    entries,
  };
}

const GROUPS = ['Fernhill school', 'Lantern club', 'Saltgrass birders', 'Evening class', 'Scouts of Ostrel'];

function lighthouse(today: Day): DemoCalendar {
  const random = randomFrom(53);
  const cleaning = recurring(
    timed('lamp-cleaning', next(1, today - 398), '08:00', 120, {
      title: 'Lamp room closed: cleaning',
      place: 'Ostrel Light',
    }),
    'FREQ=WEEKLY;BYDAY=TU',
  );
  const entries: DraftEntry[] = [cleaning];
  for (let week = -9; week < 26; week++) {
    for (const weekday of [5, 6]) {
      for (const slot of ['10:00', '11:30', '14:00']) {
        if (random() > 0.4) continue;
        const group = pick(random, GROUPS);
        entries.push(
          timed(`visit-${week}-${weekday}-${slot}`, next(weekday, today + week * 7), slot, 75, {
            title: `Visit: ${group}`,
            place: 'Ostrel Light',
            description: `${8 + Math.floor(random() * 20)} people. Contact on the booking sheet.`,
            labels: ['visit'],
            status: random() < 0.25 ? 'tentative' : 'confirmed',
            people: [{ name: `${group} (leader)`, address: '' }],
          }),
        );
      }
    }
  }
  return {
    plate: 'LV',
    name: 'Lighthouse visits',
    description: 'Groups that climb the light. Slots that are taken.',
    colour: 'firebrick',
    shape: 'arch',
    pattern: 'solid',
    entries,
  };
}

function diary(today: Day): DemoCalendar {
  const board = timed('board', next(3, today - 380), '16:00', 120, {
    title: 'Trust board',
    place: 'Board room',
    description: 'Papers three days before.',
    labels: ['board'],
    hold: 'keep-in',
  });
  const month = next(3, today + 10);
  const entries: DraftEntry[] = [
    recurring(board, 'FREQ=MONTHLY;BYDAY=3TH'),
    recurring(
      timed('team', next(0, today - 370), '09:00', 45, {
        title: 'Team meeting',
        place: 'Map room',
        joinLink: 'https://meet.ostrel.example/team?pin=9020',
      }),
      'FREQ=WEEKLY',
    ),
    timed('tender', month, '11:00', 60, {
      title: 'Tender opening, dredger charter',
      place: 'Board room',
      hold: 'keep-in',
    }),
    ...(
      [
        ['Tide tables to the printer', 6, 'confirmed'],
        ['Berth dues invoiced', 9, 'confirmed'],
        ['Diving permits renewed', -4, 'done'],
      ] as const
    ).map(([title, days, status]) =>
      allDay(`due-${days}`, today + days, 1, {
        title,
        status,
        kind: 'due',
        shows: 'free',
        labels: ['office'],
      }),
    ),
    allDay('audit', month + 20, 2, { title: 'Auditors in the house', hold: 'frost' }),
  ];
  return {
    plate: 'HD',
    name: 'House diary',
    description: 'The trust’s own diary. Never published.',
    colour: 'slategray',
    shape: 'square',
    pattern: 'solid',
    entries,
  };
}

/** The four windows of the demo, each of another glass. */
export const WINDOWS: readonly DemoWindow[] = [
  {
    slug: 'bridge-times',
    name: 'Bridge times',
    description: 'When the swing bridge at Ostrel opens and the road is closed.',
    colour: 'steelblue',
    busyWord: 'Closed',
    rounding: 0,
    nextDays: 180,
    listed: true,
    audience: 'street',
    keys: ['Anybody with the address'],
    topic: 'Traffic',
    place: 'Swing bridge, Ostrel',
    contact: 'Lock office, channel 12',
    translations: [
      {
        language: 'fr',
        name: 'Horaires du pont',
        description: 'Quand le pont tournant d’Ostrel s’ouvre et la route est fermée.',
        topic: 'Circulation',
      },
    ],
    titlePattern: PLAIN_TITLE,
    filter: null,
    sources: [['BL', 'tinted', 'Bridge and lock']],
  },
  {
    slug: 'on-the-quay',
    name: 'On the quay',
    description: 'Markets, music and walks in the harbour of Ostrel.',
    colour: 'seagreen',
    busyWord: 'Taken',
    rounding: 0,
    nextDays: 180,
    listed: false,
    audience: 'street',
    keys: ['Town web site'],
    topic: 'Events',
    place: 'Ostrel',
    contact: '',
    translations: [],
    titlePattern: PLAIN_TITLE,
    filter: null,
    sources: [['EV', 'clear', 'On the quay']],
  },
  {
    slug: 'works-ahead',
    name: 'Works ahead',
    description: 'Berths and channels that are closed for works, and when the light is visited.',
    colour: 'darkgoldenrod',
    busyWord: 'Light visited',
    rounding: 0,
    nextDays: 90,
    listed: false,
    audience: 'partners',
    keys: ['Shipping agents', 'Ferry line’s operations desk', 'Residents of Far Bay'],
    topic: 'Works',
    place: '',
    contact: 'Works desk of the trust',
    translations: [],
    titlePattern: '{calendar}: {title}',
    filter: { not: { field: 'label', value: 'sounding' } },
    sources: [
      ['DW', 'tinted', 'Works'],
      ['LV', 'frosted', 'Lighthouse'],
    ],
  },
  {
    slug: 'lighthouse-slots',
    name: 'Lighthouse slots',
    description: 'Times at which the light is taken. All others can be asked for.',
    colour: 'firebrick',
    busyWord: 'Taken',
    rounding: 30,
    nextDays: 120,
    listed: false,
    audience: 'street',
    keys: ['Visitor desk'],
    topic: 'Visits',
    place: 'Ostrel light',
    contact: '',
    translations: [],
    titlePattern: PLAIN_TITLE,
    filter: null,
    sources: [['LV', 'frosted', 'Lighthouse']],
  },
];

/** What the people of the demo are to calendars, by the plate of each; a reader through a glass. */
export const STANDINGS_OF: Readonly<Record<string, Readonly<Record<string, Standing | Glass>>>> = {
  'ida@ostrel.example': {
    BL: 'publisher',
    EV: 'publisher',
    DW: 'publisher',
    PR: 'publisher',
    LV: 'publisher',
    HD: 'publisher',
  },
  'jon@ostrel.example': {
    BL: 'publisher',
    EV: 'publisher',
    DW: 'publisher',
    PR: 'publisher',
    LV: 'publisher',
    HD: 'frosted',
  },
  'ebba@ostrel.example': { EV: 'editor', LV: 'editor', DW: 'tinted', PR: 'frosted' },
  'per@ostrel.example': { PR: 'clear', DW: 'tinted', HD: 'frosted' },
};

/** The glass through which everybody in the house sees a calendar; of others they see nothing. */
export const HOUSE_GLASS: Readonly<Record<string, Glass>> = {
  BL: 'tinted',
  EV: 'clear',
  DW: 'tinted',
  LV: 'frosted',
};

/** Calendars that everybody in the house may know of, though they see nothing of them: they can ask. */
export const KNOWN: readonly string[] = ['PR'];

/** What somebody asked for, and nobody answered yet. */
export const WISH = {
  by: 'siri@ostrel.example',
  plate: 'PR',
  glass: 'frosted',
  reason: 'I plan the school visits, and need to know when no pilot is free.',
} as const;

/** The link sheet of the demo: windows by slug with the keys on it; none stands for the address for everybody. */
export const SHEET = {
  name: 'Harbour calendars for shipping agents',
  note: 'What a ship’s agent needs for a call at Ostrel. Follow the feeds, and changes reach you by themselves.',
  items: [
    ['bridge-times', null],
    ['works-ahead', 'Shipping agents'],
    ['lighthouse-slots', 'Visitor desk'],
  ],
} as const;

/** Returns what a window of the demo says; `idOf` tells the calendar of a plate. */
export function saidOfDemo(window: DemoWindow, idOf: (plate: string) => string): WindowSaid {
  const { sources, nextDays, slug: _slug, audience: _audience, keys: _keys, ...said } = window;
  return {
    ...BLANK_WINDOW,
    ...said,
    language: 'en',
    hostZone: HOME,
    horizon: { kind: 'rolling', pastDays: 60, nextDays },
    sources: sources.map(([plate, glass, as]) => ({ calendarId: idOf(plate), glass, fields: [], as })),
  };
}
