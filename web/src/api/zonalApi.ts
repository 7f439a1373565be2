import type {
  BodyOf,
  Acceptance,
  AnswerOf,
  CalendarInput,
  CalendarPeopleInput,
  CeilingInput,
  CeilingReply,
  CeilingWish,
  ClosingInput,
  DraftInput,
  EditInput,
  EmbedInput,
  FirstSteward,
  House,
  InvitationInput,
  InvitationsInput,
  KeyInput,
  KeyTurn,
  MailServerInput,
  MuteInput,
  OutwardWindow,
  NewPassword,
  QueryOf,
  PushInput,
  ReachMail,
  Schedule,
  SheetCheck,
  SheetInput,
  WishInput,
  WishReply,
  ZoneChange,
} from '@zonal/core/api';
import type { FindQuery } from '@zonal/core/entries';
import type { WindowInput } from '@zonal/core/glass';
import { SIGNED_IN, bare, baseApi, endpointsOf } from './baseApi';

export {
  TAGS,
  csrfToken,
  problemOf,
  queryByName,
  useSessionQuery,
  useSignInMutation,
  useSignOutEverywhereMutation,
  useSignOutMutation,
} from './baseApi';

/** Pages of windows are ordered by id; people look for names. */
const byName = (windows: readonly OutwardWindow[]): readonly OutwardWindow[] =>
  [...windows].sort((a, b) => a.wording.name.localeCompare(b.wording.name));

/** All of the API. */
export const zonalApi = baseApi.injectEndpoints({
  endpoints: (build) => {
    const { query, mutation } = endpointsOf(build);
    const byId = (id: string) => ({ path: { id } });

    return {
      calendars: query('GET /calendars', bare, ['Calendar']),
      saveCalendar: mutation(
        ({ id }: SavedCalendar) => (id ? 'PUT /calendars/:id' : 'POST /calendars'),
        ({ id = '', body }) => ({ path: { id }, body }),
        ['Calendar'],
      ),
      deleteCalendar: mutation(
        'DELETE /calendars/:id',
        (id: string) => ({ path: { id }, query: { windows: 'take-out' as const } }),
        ['Calendar', 'Entry', 'Window'],
      ),
      archiveCalendar: mutation(
        'PUT /calendars/:id/archive',
        ({ id, archived }: { id: string; archived: boolean }) => ({ path: { id }, body: { archived } }),
        ['Calendar'],
      ),
      uploadImage: mutation(
        'POST /calendars/:id/images',
        ({ calendarId, file }: { calendarId: string; file: File }) => ({ path: { id: calendarId }, file }),
        [],
      ),
      rezoneCalendar: mutation(
        'POST /calendars/:id/zone',
        ({ id, ...body }: ZoneChange & { id: string }) => ({ path: { id }, body }),
        ['Entry', 'Calendar'],
      ),
      calendarImpact: query('GET /calendars/:id/impact', byId, ['Window', 'Entry']),
      lockDown: mutation(
        ({ locked }: { id: string; locked: boolean }) =>
          locked ? 'POST /calendars/:id/lock-down' : 'DELETE /calendars/:id/lock-down',
        ({ id }) => byId(id),
        ['Calendar', 'Window', 'Ceiling'],
      ),

      allEntries: query(
        'GET /calendars/:id/entries',
        (id: string) => ({ path: { id }, query: {} }),
        (_result, _error, id) => ['Entry', { type: 'Entry', id }],
      ),
      entries: query(
        'GET /calendars/:id/entries',
        ({ calendarId: id, from, to }: { calendarId: string; from: string; to: string }) => ({
          path: { id },
          query: { from, to },
        }),
        (_result, _error, { calendarId }) => ['Entry', { type: 'Entry', id: calendarId }],
      ),
      entryHistory: query('GET /entries/:id/history', byId, ['Entry', 'Window']),
      find: query('GET /find', (asked: FindQuery) => ({ query: asked }), ['Entry']),
      makeEdit: mutation('POST /edits', (body: EditInput) => ({ body }), ['Entry', 'Calendar']),
      turnEdit: mutation(
        ({ way }: { id: string; way: 'take-back' | 'again' }) => `POST /edits/:id/${way}` as const,
        ({ id }) => byId(id),
        ['Entry', 'Calendar'],
      ),

      pass: query('POST /passes', (token: string) => ({ body: { token } }), []),
      accept: mutation('POST /passes/invitation', (body: Acceptance) => ({ body }), SIGNED_IN),
      begin: mutation('POST /passes/first', (body: FirstSteward) => ({ body }), SIGNED_IN),
      renewPassword: mutation('POST /passes/password', (body: NewPassword) => ({ body }), SIGNED_IN),
      confirmAddress: mutation('POST /passes/address', (token: string) => ({ body: { token } }), [
        'Account',
        'Person',
      ]),
      forgotten: mutation('POST /forgotten', (email: string) => ({ body: { email } }), []),

      account: query('GET /account', bare, ['Account']),
      saveAccount: mutation('PUT /account', (body: BodyOf<'PUT /account'>) => ({ body }), [
        'Account',
        'Session',
        'Person',
      ]),
      changePassword: mutation(
        'PUT /account/password',
        (body: { password: string; next: string }) => ({ body }),
        ['Account'],
      ),
      changeAddress: mutation(
        'POST /account/address',
        (body: { email: string; password: string }) => ({ body }),
        [],
      ),
      signOutDevice: mutation('DELETE /account/devices/:id', byId, ['Account']),

      directory: query('GET /directory', bare, ['Calendar', 'Directory']),
      putOnDesk: mutation(
        'PUT /directory/:id/desk',
        ({ id, onDesk }: { id: string; onDesk: boolean }) => ({ path: { id }, body: { onDesk } }),
        ['Calendar', 'Directory'],
      ),
      wishes: query('GET /wishes', bare, ['Wish', 'Calendar']),
      ask: mutation(
        'POST /calendars/:id/wishes',
        ({ id, body }: { id: string; body: WishInput }) => ({ path: { id }, body }),
        ['Wish'],
      ),
      answerWish: mutation(
        'POST /wishes/:id',
        ({ id, body }: { id: string; body: WishReply }) => ({ path: { id }, body }),
        ['Wish', 'Person', 'Calendar'],
      ),
      takeWishBack: mutation('DELETE /wishes/:id', byId, ['Wish']),

      people: query('GET /people', bare, ['Person']),
      makeSteward: mutation(
        'PUT /people/:id/steward',
        ({ id, steward }: { id: string; steward: boolean }) => ({ path: { id }, body: { steward } }),
        ['Person', 'Session'],
      ),
      makePasswordAddress: mutation('POST /people/:id/password-address', byId, []),
      restAccount: mutation(
        'PUT /people/:id/rest',
        ({ id, rested }: { id: string; rested: boolean }) => ({ path: { id }, body: { rested } }),
        ['Person'],
      ),
      invitations: query('GET /invitations', bare, ['Invitation']),
      invite: mutation('POST /invitations', (body: InvitationsInput) => ({ body }), [
        'Invitation',
        'Person',
        'Post',
      ]),
      changeInvitation: mutation(
        'PUT /invitations/:id',
        ({ id, body }: { id: string; body: InvitationInput }) => ({ path: { id }, body }),
        ['Invitation', 'Person'],
      ),
      resendInvitation: mutation('POST /invitations/:id/resend', byId, ['Invitation', 'Post']),
      withdrawInvitation: mutation('DELETE /invitations/:id', byId, ['Invitation', 'Person']),

      journal: query('GET /journal', (asked: JournalQuery) => ({ query: asked }), ['Journal']),
      post: query('GET /post', bare, ['Post']),
      setMailServer: mutation('PUT /post/server', (body: MailServerInput) => ({ body }), ['Post', 'Session']),
      forgetMailServer: mutation('DELETE /post/server', bare, ['Post', 'Session']),
      sendTestMail: mutation('POST /post/test', bare, ['Post']),
      mailAgain: mutation('POST /post/:id/again', byId, ['Post']),
      standings: query('GET /standings', bare, ['Person', 'Calendar']),
      calendarPeople: query('GET /calendars/:id/people', byId, ['Person', 'Calendar']),
      saveCalendarPeople: mutation(
        'PUT /calendars/:id/people',
        ({ id, body }: { id: string; body: CalendarPeopleInput }) => ({ path: { id }, body }),
        ['Person', 'Calendar', 'Entry'],
      ),

      house: query('GET /house', bare, ['House']),
      watch: query('GET /house/watch', bare, ['House']),
      saveHouse: mutation('PUT /house', (body: House) => ({ body }), ['House', 'Window']),
      labels: query('GET /labels', bare, ['Label', 'Entry']),
      forgetLabel: mutation('DELETE /labels/:name', (name: string) => ({ path: { name } }), [
        'Label',
        'Window',
      ]),
      ceilings: query('GET /ceilings', bare, ['Ceiling', 'Window']),
      setCeiling: mutation('PUT /ceilings', (body: CeilingInput) => ({ body }), ['Ceiling', 'Window']),
      takeCeilingRequestBack: mutation('DELETE /ceilings/requests/:id', byId, ['Ceiling']),
      askCeiling: mutation('POST /ceilings/requests', (body: CeilingWish) => ({ body }), ['Ceiling']),
      answerRequest: mutation(
        'POST /ceilings/requests/:id',
        ({ id, ...body }: CeilingReply & { id: string }) => ({ path: { id }, body }),
        ['Ceiling', 'Window'],
      ),

      windows: query('GET /windows', (_args: void) => ({ query: {} }), ['Window'], byName),
      openWindow: mutation('POST /windows', (body: WindowInput) => ({ body }), ['Window']),
      deleteWindow: mutation('DELETE /windows/:id', byId, ['Window', 'Calendar']),
      saveWindow: mutation(
        'PUT /windows/:id',
        ({ id, body }: { id: string; body: WindowInput }) => ({ path: { id }, body }),
        ['Window'],
      ),
      keepDraft: build.mutation<AnswerOf<'PUT /windows/:id/draft'>, DraftInput & { id: string }>({
        query: ({ id, ...body }) => ({ name: 'PUT /windows/:id/draft', path: { id }, body }),
        // The draft alone is new; the windows need not be fetched again for it.
        onQueryStarted: async ({ id }, { dispatch, queryFulfilled }) => {
          const { data } = await queryFulfilled.catch(() => ({ data: null }));
          if (!data) return;
          dispatch(
            zonalApi.util.updateQueryData('windows', undefined, (windows) =>
              windows.map((w) => (w.id === id ? { ...w, draft: data } : w)),
            ),
          );
        },
      }),
      discardDraft: mutation('DELETE /windows/:id/draft', byId, ['Window']),
      scheduleDraft: mutation(
        'POST /windows/:id/schedule',
        ({ id, ...body }: Schedule & { id: string }) => ({ path: { id }, body }),
        ['Window'],
      ),
      versions: query('GET /windows/:id/versions', byId, ['Window']),
      setClosing: mutation(
        'PUT /windows/:id/closing',
        ({ id, ...body }: ClosingInput & { id: string }) => ({ path: { id }, body }),
        ['Window'],
      ),
      shutWindow: mutation(
        ({ close }: { id: string; close: boolean }) =>
          close ? 'POST /windows/:id/close' : 'POST /windows/:id/open',
        ({ id }) => byId(id),
        ['Window'],
      ),

      takeOut: mutation(
        'DELETE /windows/:id/sources/:calendarId',
        ({ id, calendarId }: { id: string; calendarId: string }) => ({ path: { id, calendarId } }),
        ['Window'],
      ),

      ledger: query('GET /keys/:id/ledger', byId, ['Window', 'Entry']),
      pastView: query(
        'GET /keys/:id/ledger/:number',
        ({ keyId: id, number }: { keyId: string; number: number }) => ({ path: { id, number } }),
        [],
      ),
      saveKey: mutation(
        ({ id }: SavedKey) => (id ? 'PUT /keys/:id' : 'POST /windows/:id/keys'),
        ({ id, windowId, body }) => ({ path: { id: id ?? windowId }, body }),
        ['Window'],
      ),
      keepEmbed: mutation(
        'PUT /keys/:id/embed',
        ({ id, ...body }: EmbedInput & { id: string }) => ({ path: { id }, body }),
        ['Window'],
      ),
      turnKey: mutation(
        'POST /keys/:id/turn',
        ({ id, ...body }: KeyTurn & { id: string }) => ({ path: { id }, body }),
        ['Window'],
      ),
      withdrawKey: mutation(
        ({ back }: { id: string; back: boolean }) =>
          back ? 'POST /keys/:id/bring-back' : 'POST /keys/:id/withdraw',
        ({ id }) => byId(id),
        ['Window'],
      ),

      // What is on them leads somewhere else whenever a window or a key is changed.
      reach: query('GET /reach', bare, ['Reach']),
      windowReach: query('GET /windows/:id/reach', (id: string) => ({ path: { id } }), ['Reach']),
      knowing: query('GET /reach/knowing', (query: QueryOf<'GET /reach/knowing'>) => ({ query }), ['Reach']),
      push: query('GET /keys/:id/push', (id: string) => ({ path: { id } }), ['Push']),
      savePush: mutation(
        'PUT /keys/:id/push',
        ({ id, body }: { id: string; body: PushInput }) => ({ path: { id }, body }),
        ['Push', 'Reach'],
      ),
      pausePush: mutation(
        'PUT /keys/:id/push/state',
        ({ id, paused }: { id: string; paused: boolean }) => ({ path: { id }, body: { paused } }),
        ['Push', 'Reach'],
      ),
      turnPushSecret: mutation('POST /keys/:id/push/secret', byId, ['Push']),
      testPush: mutation('POST /keys/:id/push/test', byId, ['Push']),
      endPush: mutation('DELETE /keys/:id/push', byId, ['Push', 'Reach']),
      alerts: query('GET /alerts', bare, ['Alert']),
      mute: mutation(
        'PUT /windows/:id/alerts',
        ({ windowId, body }: { windowId: string; body: MuteInput }) => ({ path: { id: windowId }, body }),
        ['Alert'],
      ),
      setUrgent: mutation(
        'PUT /windows/:id/urgent',
        ({ id, by }: { id: string; by: string | null }) => ({ path: { id }, body: { by } }),
        ['Reach', 'Alert'],
      ),
      mailReach: mutation(
        'POST /windows/:id/reach/mail',
        ({ id, body }: { id: string; body: ReachMail }) => ({ path: { id }, body }),
        ['Post'],
      ),

      sheets: query('GET /sheets', bare, ['Sheet', 'Window']),
      checkItems: query('POST /sheets/check', (body: SheetCheck) => ({ body }), ['Window']),
      saveSheet: mutation(
        ({ id }: SavedSheet) => (id ? 'PUT /sheets/:id' : 'POST /sheets'),
        ({ id, body }) => ({ path: { id: id ?? '' }, body }),
        ['Sheet'],
      ),
      turnSheet: mutation('POST /sheets/:id/turn', byId, ['Sheet']),
      withdrawSheet: mutation(
        ({ back }: { id: string; back: boolean }) =>
          back ? 'POST /sheets/:id/bring-back' : 'POST /sheets/:id/withdraw',
        ({ id }) => byId(id),
        ['Sheet'],
      ),
    };
  },
});

/** What is asked of the journal. */
export type JournalQuery = QueryOf<'GET /journal'>;

/** A link sheet that is made, or changed where it has an id. */
interface SavedSheet {
  readonly id: string | null;
  readonly body: SheetInput;
}

/** A key that is made, or changed where it has an id. */
interface SavedKey {
  readonly id: string | null;
  readonly windowId: string;
  readonly body: KeyInput;
}

/** A calendar that is made, or changed where it has an id. */
interface SavedCalendar {
  readonly id?: string;
  readonly body: CalendarInput;
}

export const {
  useCalendarsQuery,
  useSaveCalendarMutation,
  useDeleteCalendarMutation,
  useArchiveCalendarMutation,
  useRezoneCalendarMutation,
  useUploadImageMutation,
  useCalendarImpactQuery,
  useAllEntriesQuery,
  useFindQuery,
  useEntryHistoryQuery,
  useMakeEditMutation,
  useTurnEditMutation,
  usePassQuery,
  useAcceptMutation,
  useBeginMutation,
  useRenewPasswordMutation,
  useConfirmAddressMutation,
  useForgottenMutation,
  useAccountQuery,
  useSaveAccountMutation,
  useChangePasswordMutation,
  useChangeAddressMutation,
  useSignOutDeviceMutation,
  useMakeStewardMutation,
  useRestAccountMutation,
  useMakePasswordAddressMutation,
  useInvitationsQuery,
  useInviteMutation,
  useChangeInvitationMutation,
  useResendInvitationMutation,
  useWithdrawInvitationMutation,
  useJournalQuery,
  useLazyJournalQuery,
  usePostQuery,
  useSetMailServerMutation,
  useForgetMailServerMutation,
  useSendTestMailMutation,
  useMailAgainMutation,
  useDirectoryQuery,
  usePutOnDeskMutation,
  useWishesQuery,
  useAskMutation,
  useAnswerWishMutation,
  useTakeWishBackMutation,
  usePeopleQuery,
  useStandingsQuery,
  useCalendarPeopleQuery,
  useSaveCalendarPeopleMutation,
  useHouseQuery,
  useWatchQuery,
  useSaveHouseMutation,
  useWindowsQuery,
  useOpenWindowMutation,
  useSaveWindowMutation,
  useSaveKeyMutation,
  useKeepEmbedMutation,
  useTurnKeyMutation,
  useWithdrawKeyMutation,
  useSetClosingMutation,
  useShutWindowMutation,
  useDeleteWindowMutation,
  useTakeOutMutation,
  useKeepDraftMutation,
  useDiscardDraftMutation,
  useScheduleDraftMutation,
  useVersionsQuery,
  useLedgerQuery,
  usePastViewQuery,
  useLabelsQuery,
  useForgetLabelMutation,
  useCeilingsQuery,
  useSetCeilingMutation,
  useAskCeilingMutation,
  useTakeCeilingRequestBackMutation,
  useAnswerRequestMutation,
  useLockDownMutation,
  useReachQuery,
  useWindowReachQuery,
  useKnowingQuery,
  useMailReachMutation,
  usePushQuery,
  useSavePushMutation,
  usePausePushMutation,
  useTurnPushSecretMutation,
  useTestPushMutation,
  useEndPushMutation,
  useAlertsQuery,
  useMuteMutation,
  useSetUrgentMutation,
  useSheetsQuery,
  useCheckItemsQuery,
  useSaveSheetMutation,
  useTurnSheetMutation,
  useWithdrawSheetMutation,
} = zonalApi;
