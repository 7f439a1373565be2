import { describe, expect, it } from 'vitest';
import { addressesIn, invitationState, isOutside } from './invitations';
import { passwordTrouble, passwordWords } from './passwords';

describe('invitations', () => {
  it('are read out of what somebody pasted', () => {
    expect(addressesIn(' Mara@house.example; <jon@house.example>,\n"mara@house.example"\teb ')).toEqual([
      'mara@house.example',
      'jon@house.example',
      'eb',
    ]);
    expect(addressesIn('  \n ')).toEqual([]);
  });

  it('are outside the house where their domain, and those above it, are none of its own', () => {
    const own = ['house.example'];
    expect(isOutside('a@house.example', own)).toBe(false);
    expect(isOutside('a@Office.House.example', own)).toBe(false);
    expect(isOutside('a@nothouse.example', own)).toBe(true);
    expect(isOutside('a@house.example.evil', own)).toBe(true);
    expect(isOutside('a@anywhere.example', [])).toBe(false);
  });

  it('end by themselves, unless they were answered', () => {
    const [open, past] = [{ acceptedAt: null, withdrawnAt: null }, new Date(1000)];
    expect(invitationState({ ...open, endsAt: past }, 999)).toBe('pending');
    expect(invitationState({ ...open, endsAt: past }, 1000)).toBe('ended');
    expect(invitationState({ ...open, acceptedAt: past, endsAt: past }, 2000)).toBe('accepted');
    expect(invitationState({ ...open, withdrawnAt: past, endsAt: past }, 2000)).toBe('withdrawn');
  });
});

describe('a password', () => {
  const own = { name: 'Mara Quist', email: 'mara.quist@house.example' };
  it.each([
    ['short', /at least 10/],
    ['x'.repeat(201), /at most 200/],
    ['abababababab', /same few letters/],
    ['mara.quist12', /little more than your name/],
    ['MARA QUIST!!', /little more than your name/],
    ['three plain words', null],
  ])('%s', (password, trouble) => {
    const found = passwordTrouble(password, own);
    if (trouble) expect(passwordWords(found!)).toMatch(trouble);
    else expect(found).toBe(null);
  });
});
