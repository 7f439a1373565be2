/** How an invitation stands. */
export const INVITATION_STATES = {
  pending: 'not answered yet',
  accepted: 'accepted',
  ended: 'ended unanswered',
  withdrawn: 'withdrawn',
} as const;
export type InvitationState = keyof typeof INVITATION_STATES;

/** Days after which an invitation ends unanswered. */
export const INVITATION_DAYS = 14;

/** Invitations that are sent at once, and that wait for an answer at the same time. */
export const INVITATION_LIMITS = { atOnce: 50, pending: 500, standings: 200 } as const;

/** Returns how an invitation stands at an instant (milliseconds). */
export function invitationState(
  invitation: { readonly acceptedAt: Date | null; readonly withdrawnAt: Date | null; readonly endsAt: Date },
  now: number,
): InvitationState {
  if (invitation.acceptedAt) return 'accepted';
  if (invitation.withdrawnAt) return 'withdrawn';
  return invitation.endsAt.getTime() <= now ? 'ended' : 'pending';
}

/** Returns whether a mail address is outside the house's own domains; with none named nothing is. */
export function isOutside(email: string, domains: readonly string[]): boolean {
  const domain = email.split('@').at(-1)!.toLowerCase();
  return domains.length > 0 && !domains.some((own) => domain === own || domain.endsWith(`.${own}`));
}

/** Splits what somebody typed or pasted into mail addresses: commas, semicolons, blanks and lines stand between them. */
export function addressesIn(text: string): string[] {
  const found = text
    .split(/[\s,;]+/)
    .map((one) => one.replace(/^[<"']+|[>"']+$/g, '').toLowerCase())
    .filter(Boolean);
  return [...new Set(found)];
}
