import { expect, test, type Browser, type Page } from '@playwright/test';
import { fork } from 'node:child_process';
import { once } from 'node:events';
import { changeHeaders, confirmLarge, signIn } from './demo';
import { OWN, POSTBOX } from './startDemo';

/** Returns the address in the newest mail to somebody, once there is one that says something. */
async function addressFor(to: string, subject: RegExp): Promise<string> {
  let address = '';
  await expect(async () => {
    const answer = await fetch(`${POSTBOX}/mails.json?to=${encodeURIComponent(to)}`);
    const mails = (await answer.json()) as { subject: string; text: string }[];
    const mail = mails.find((m) => subject.test(m.subject));
    address = /http\S+/.exec(mail?.text ?? '')?.[0] ?? '';
    expect(address, `a mail to ${to}`).not.toBe('');
  }).toPass();
  return address;
}

async function otherPage(browser: Browser): Promise<Page> {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  return context.newPage();
}

test('people are invited by mail, accept once, and are what they were promised', async ({
  page,
  browser,
}) => {
  await signIn(page);
  await page.goto('/house/people');
  await page.getByRole('button', { name: 'Invite people' }).press('Enter');
  const addresses = page.getByLabel('Email addresses');
  await addresses.fill('mara@ostrel.example, nowhere');
  await expect(page.getByText('No email address: nowhere')).toBeVisible();
  await expect(page.getByRole('button', { name: /Send/ })).toBeDisabled();
  await addresses.fill('mara@ostrel.example, agent@elsewhere.example');
  // An outsider is better served with a key, which is offered there.
  const outsiders = page.getByRole('region', { name: 'Outsiders' });
  await expect(outsiders).toContainText('agent@elsewhere.example');
  await outsiders.getByLabel('Window').selectOption({ label: 'Works ahead' });
  await expect(outsiders.getByRole('button', { name: /instead/ })).toBeEnabled();
  await addresses.fill('mara@ostrel.example');
  await expect(outsiders).toHaveCount(0);
  await page.getByLabel('Add a calendar').selectOption({ label: 'HD House diary' });
  await page.getByLabel('Glass for House diary').selectOption('tinted');
  await page.getByRole('button', { name: 'Send invitation' }).press('Enter');
  const line = page.getByRole('list', { name: 'Invitations' }).getByRole('listitem').first();
  await expect(line).toContainText('mara@ostrel.example, not answered yet');
  await expect(line).toContainText('reader of House diary through tinted glass');
  const first = await addressFor('mara@ostrel.example', /invited/);

  // Changed and sent again while it waits: the address of before opens nothing any more.
  await line.getByRole('button', { name: 'Change' }).press('Enter');
  await page.getByLabel('Glass for House diary').selectOption('frosted');
  await page.getByRole('button', { name: 'Save' }).press('Enter');
  await expect(line).toContainText('through frosted glass');
  await line.getByRole('button', { name: 'Send again to mara@ostrel.example' }).press('Enter');
  let second = first;
  await expect(async () => {
    second = await addressFor('mara@ostrel.example', /invited/);
    expect(second).not.toBe(first);
  }).toPass();

  const mara = await otherPage(browser);
  await mara.goto(first);
  await expect(mara.getByText('There is nothing at this address')).toBeVisible();
  await mara.goto(second);
  await expect(mara.getByText('reader of House diary through frosted glass')).toBeVisible();
  await mara.getByLabel('Your name').fill('Mara Quist');
  await mara.getByLabel('Password').fill('short');
  await mara.getByRole('button', { name: /Accept/ }).press('Enter');
  await expect(mara.getByText(/at least 10 letters/).first()).toBeVisible();
  await mara.getByLabel('Password').fill('three plain words');
  await mara.getByRole('button', { name: /Accept/ }).press('Enter');
  await expect(mara.getByRole('button', { name: 'Show House diary' })).toBeVisible();
  const late = await otherPage(browser);
  await late.goto(second);
  await expect(late.getByText('This address works only once and has been used already')).toBeVisible();
  await page.reload();
  await expect(line).toContainText('mara@ostrel.example, accepted');
  await expect(page.getByRole('list', { name: 'Accounts' })).toContainText('Mara Quist');

  // A forgotten password: every program is signed out, and the mail's address works once.
  await late.goto('/');
  await late.getByRole('button', { name: 'Forgot password?' }).press('Enter');
  await late.getByLabel('Email address').fill('mara@ostrel.example');
  await late.getByRole('button', { name: 'Send mail' }).press('Enter');
  await expect(late.getByText(/a mail is on its way/)).toBeVisible();
  await late.goto(await addressFor('mara@ostrel.example', /new password/));
  await late.getByLabel('Password').fill('another of my own');
  await late.getByRole('button', { name: 'Set password and sign in' }).press('Enter');
  await expect(late.getByRole('button', { name: 'Show House diary' })).toBeVisible();
  await mara.reload();
  await expect(mara.getByRole('button', { name: 'Sign in' })).toBeVisible();

  // At rest, nobody signs in with it.
  await page.getByRole('button', { name: 'Suspend Mara Quist' }).press('Enter');
  await expect(page.getByRole('button', { name: 'Activate Mara Quist again' })).toBeVisible();
  await mara.getByLabel('Email address').fill('mara@ostrel.example');
  await mara.getByLabel('Password').fill('another of my own');
  await mara.getByRole('button', { name: 'Sign in' }).press('Enter');
  await expect(mara.getByText(/This account is suspended/)).toBeVisible();

  // All of it stands in the journal.
  await page.getByRole('link', { name: 'Journal' }).press('Enter');
  const journal = page.getByRole('table', { name: 'Journal' });
  await expect(journal.getByRole('row').nth(1)).toContainText('Mara Quist');
  await expect(journal.getByRole('row').nth(1)).toContainText('suspended since');
  await page.getByLabel('About').selectOption({ label: 'accounts and invitations' });
  await expect(journal.getByRole('row').filter({ hasText: 'invitation' }).first()).toBeVisible();
});

test('a colleague asks to see a calendar, and a publisher lets them with its effect in sight', async ({
  page,
  browser,
}) => {
  await signIn(page);
  const siri = await otherPage(browser);
  await siri.goto('/');
  await siri.getByRole('button', { name: 'Siri Holme, colleague' }).press('Enter');
  await expect(siri.getByRole('button', { name: 'Show Bridge and lock times' })).toBeVisible();
  await siri.getByRole('link', { name: 'Directory' }).press('Enter');
  const all = siri.getByRole('list', { name: 'Calendars of the house' });
  await expect(all).toContainText('Pilots’ duty roster');
  // The house diary is not theirs to know of.
  await expect(all).not.toContainText('House diary');
  await siri.getByRole('button', { name: 'Hide Events on the quay from my view' }).press('Enter');
  await expect(siri.getByRole('button', { name: 'Show Events on the quay in my view' })).toBeVisible();
  await siri.getByRole('button', { name: 'Ask to see Pilots’ duty roster' }).press('Enter');
  await siri.getByLabel('Through which glass').selectOption('clear');
  await siri.getByLabel('Reason').fill('School visits need a free pilot');
  await siri.getByRole('button', { name: 'Send request' }).press('Enter');
  await expect(siri.getByRole('dialog')).toBeHidden();
  await siri.getByRole('link', { name: 'Your requests' }).click();
  await expect(siri.getByText(/To see “Pilots’ duty roster” through clear glass/)).toContainText(
    'not answered yet',
  );

  await page.goto('/requests');
  await expect(page.getByRole('link', { name: 'Requests 1 requests for you' })).toBeVisible();
  await expect(page.getByText('School visits need a free pilot')).toBeVisible();
  await page.getByRole('button', { name: /^Review the request of Siri Holme/ }).press('Enter');
  const seen = page.getByRole('list', { name: 'Preview' });
  await expect(seen).toContainText('Pilot on duty');
  await page.getByLabel('Through which glass').selectOption('frosted');
  await expect(seen).toContainText('Busy');
  await expect(seen).not.toContainText('Pilot on duty');
  await page.getByRole('button', { name: 'Grant', exact: true }).press('Enter');
  await expect(page.getByText('No request is waiting for your answer.')).toBeVisible();
  await siri.reload();
  await expect(siri.getByText(/To see “Pilots’ duty roster”/)).toContainText('granted');
  await siri.getByRole('link', { name: 'Calendars inside' }).press('Enter');
  await expect(siri.getByRole('button', { name: 'Show Pilots’ duty roster' })).toBeVisible();
  await expect(siri.getByRole('button', { name: 'Show Events on the quay' })).toHaveCount(0);
});

test('a request for a higher ceiling reaches a steward, who sees its effect and answers', async ({
  page,
  browser,
}) => {
  const siri = await otherPage(browser);
  await siri.goto('/');
  await siri.getByRole('button', { name: 'Siri Holme, colleague' }).press('Enter');
  await expect(siri.getByRole('button', { name: 'Show Bridge and lock times' })).toBeVisible();
  const headers = await changeHeaders(siri);
  const send = (path: string, data: object) => siri.request.post(`/api${path}`, { headers, data });
  const plate = { plate: 'BW', colour: 'teal', zone: 'America/Halifax', description: '' };
  const calendar = await (await send('/calendars', { ...plate, name: 'Boat wash' })).json();
  const ask = (audience: string) =>
    send('/ceilings/requests', { calendarId: calendar.id, audience, glass: 'clear', reason: 'Members ask' });
  await ask('street');
  await ask('partners');
  await siri.goto('/requests');
  const own = siri.getByRole('list', { name: 'Requests by you' });
  await siri.getByRole('button', { name: /^Withdraw .* Partners/ }).press('Enter');
  await expect(own).toContainText('for Partners to Clear: withdrawn');
  await expect(own).toContainText('for Street to Clear: not answered yet');

  await signIn(page);
  await page.getByRole('link', { name: /^Requests/ }).press('Enter');
  await page.getByRole('button', { name: /^Review .* “Boat wash”/ }).press('Enter');
  const sheet = page.getByRole('dialog', { name: 'Siri Holme asks for this ceiling' });
  await expect(sheet).toContainText('“Members ask”');
  await sheet.getByRole('button', { name: 'Decline' }).press('Enter');
  await expect(sheet).toBeHidden();
  await expect(page.getByRole('button', { name: /“Boat wash”/ })).toHaveCount(0);
  await siri.reload();
  await expect(own).toContainText('for Street to Clear: declined');
  await expect(own).toContainText('answered by Ida Maren');
  // Elsewhere Siri has no calendar in which she may write.
  expect((await siri.request.delete(`/api/calendars/${calendar.id}`, { headers })).ok()).toBe(true);
});

test('a first start without the demo leads to the first window and its address', async ({ browser }) => {
  const base = `http://127.0.0.1:${OWN.firstPort}`;
  const env = {
    ...process.env,
    DATABASE_URL: `${OWN.databaseUrl}_first`,
    PORT: String(OWN.firstPort),
    PUBLIC_URL: base,
    SESSION_SECRET: 'a secret of the tests',
  };
  const server = fork(process.env['SERVER_MAIN']!, { env, stdio: ['ignore', 'pipe', 'inherit', 'ipc'] });
  const ended = once(server, 'exit');
  let printed = '';
  server.stdout!.on('data', (part: Buffer) => (printed += part.toString()));
  try {
    await Promise.race([once(server, 'message'), ended]);
    expect(server.exitCode).toBeNull();
    const page = await otherPage(browser);
    await page.goto(base);
    await expect(page.getByText('There is no account here yet')).toBeVisible();
    await expect(() => expect(printed).toMatch(/http\S+\/begin#\S+/)).toPass();
    await page.goto(/http\S+\/begin#\S+/.exec(printed)![0]);
    await page.getByLabel('Name of your organisation').fill('Narrows Ferry Museum');
    await page.getByLabel('Country, for public holidays').selectOption({ label: 'Canada' });
    await page.getByLabel('Your name').fill('Mara Quist');
    await page.getByLabel('Your email address').fill('mara@museum.example');
    await page.getByLabel('Password').fill('three plain words');
    await page.getByRole('button', { name: 'Create account' }).press('Enter');
    await expect(page.getByRole('heading', { name: 'Your first day' })).toBeVisible();
    const readymade = page.getByRole('button', { name: 'Ready-made: public holidays' });
    await expect(readymade).toBeEnabled();
    await readymade.press('Enter');
    await page.getByRole('button', { name: 'Open the first window' }).press('Enter');
    await page.getByRole('button', { name: /Public holidays/ }).press('Enter');
    await page.getByLabel('Name that readers see').fill('When the museum is closed');
    await page.getByRole('button', { name: 'Open the window …' }).press('Enter');
    const open = page.getByRole('dialog').getByRole('button', { name: /^Open/ });
    await confirmLarge(page);
    await open.press('Enter');
    await expect(page.getByRole('heading', { name: 'Keys to hand out' })).toBeVisible();
    await page.getByRole('link', { name: 'Back to your first day' }).press('Enter');
    const addresses = page.getByRole('region', { name: 'Addresses of When the museum is closed' });
    const see = await addresses.getByRole('link').first().getAttribute('href');
    expect((await fetch(see!)).status).toBe(200);
    await page.getByRole('button', { name: 'I have it' }).press('Enter');
    await page.getByRole('button', { name: 'Go to the calendars' }).press('Enter');
    await expect(page.getByRole('button', { name: 'Show Public holidays' })).toBeVisible();

    // There is no mail server yet: the steward hands addresses over.
    await page.goto(`${base}/house/people`);
    await page.getByRole('button', { name: 'Invite people' }).press('Enter');
    await expect(page.getByText('No mail server is set up. You get an address')).toBeVisible();
    await page.getByLabel('Email addresses').fill('tam@museum.example, jon@museum.example');
    await page.getByRole('button', { name: 'Send 2 invitations' }).press('Enter');
    const addressesToGive = page.getByRole('list', { name: 'Addresses to hand over' });
    await expect(addressesToGive.getByRole('listitem')).toHaveCount(2);
    const welcome = await addressesToGive.locator('code').first().textContent();
    await page.getByRole('button', { name: 'Done' }).press('Enter');
    const tam = await otherPage(browser);
    await tam.goto(welcome!);
    await expect(tam.getByLabel('Your name')).toBeVisible();
    await page.getByRole('button', { name: 'New password for Mara Quist' }).press('Enter');
    await expect(addressesToGive.getByRole('listitem')).toHaveCount(1);
    const stranger = await otherPage(browser);
    await stranger.goto(base);
    await stranger.getByRole('button', { name: 'Forgot password?' }).press('Enter');
    await expect(stranger.getByText('This server sends no mail.')).toBeVisible();
  } finally {
    server.kill('SIGTERM');
    await ended;
  }
});
