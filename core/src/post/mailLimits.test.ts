import { expect, it } from 'vitest';
import { MAIL_LIMITS, RECIPIENT_LIMITS, exceededMailLimit } from './mailLimits';

const NOTHING = { byAccount: 0, byHouse: 0, fromOutside: 0, toRecipient: 0 };

it.each([
  ['nothing was sent', 'ida', {}, null],
  ['one address had as many of this kind', 'ida', { toRecipient: 5 }, 'recipient'],
  ['one address had one less', 'ida', { toRecipient: 4 }, null],
  ['the account sent as many', 'ida', { byAccount: MAIL_LIMITS.perAccount }, 'account'],
  ['the house sent as many', 'ida', { byHouse: MAIL_LIMITS.perHouse }, 'house'],
  ['outsiders asked for as many', 'ida', { fromOutside: MAIL_LIMITS.fromOutside }, null],
  ['outsiders asked for as many', null, { fromOutside: MAIL_LIMITS.fromOutside }, 'outside'],
  ['the house sent as many', null, { byHouse: MAIL_LIMITS.perHouse }, null],
] as const)('if %s, a mail of %s exceeds the limit of %o: %s', (_what, authorId, sent, of) => {
  expect(exceededMailLimit('invitation', authorId, { ...NOTHING, ...sent })?.of ?? null).toBe(of);
});

it('a kind without a limit goes to one address as often as it has to', () => {
  expect(RECIPIENT_LIMITS.credentials).toBe(undefined);
  const many = { byAccount: 10_000, byHouse: 10_000, fromOutside: 10_000, toRecipient: 10_000 };
  expect(exceededMailLimit('credentials', 'ida', many)).toBe(null);
  expect(exceededMailLimit('notice', null, many)).toBe(null);
});
