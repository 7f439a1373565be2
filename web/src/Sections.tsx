import type { Session } from '@zonal/core/api';
import type { ComponentType } from 'react';
import { Navigate, Route, Routes } from 'react-router';
import { Shell } from './shell/Shell';
import { LazyScreen, lazyScreen } from './ui/LazyScreen';
import { Empty } from './ui/Notice';
import { UnsavedGuard } from './ui/Unsaved';
import { t } from './texts/shell';

type LoadScreen = () => Promise<ComponentType>;

/** The screens by their paths. Each one's script is fetched when it is shown first. */
const SCREENS: Readonly<Record<string, LoadScreen>> = {
  '/calendars': () => import('./inside/CalendarsPage').then((file) => file.CalendarsPage),
  '/calendars/directory': () => import('./inside/DirectoryPage').then((file) => file.DirectoryPage),
  '/windows': () => import('./glass/WindowsPage').then((file) => file.WindowsPage),
  '/windows/:id': () => import('./glass/Studio').then((file) => file.Studio),
  '/windows/:id/embed/:keyId': () => import('./glass/EmbedPage').then((file) => file.EmbedPage),
  '/windows/:id/ledger': () => import('./glass/LedgerPage').then((file) => file.LedgerPage),
  '/reach': () => import('./outside/reach/ReachPage').then((file) => file.ReachPage),
  '/reach/:id': () => import('./outside/reach/ReachWindowPage').then((file) => file.ReachWindowPage),
  '/sheets': () => import('./outside/SheetsPage').then((file) => file.SheetsPage),
  '/sheets/:id': () => import('./outside/SheetPage').then((file) => file.SheetPage),
  '/sightlines': () => import('./glass/SightlinesPage').then((file) => file.SightlinesPage),
  '/requests': () => import('./shell/RequestsPage').then((file) => file.RequestsPage),
  '/account': () => import('./shell/AccountPage').then((file) => file.AccountPage),
  '/first-day': () => import('./shell/FirstDay').then((file) => file.FirstDay),
  '/help': () => import('./help/HelpPage').then((file) => file.HelpPage),
  '/help/words': () => import('./help/WordsPage').then((file) => file.WordsPage),
  '/help/:name': () => import('./help/DocumentPage').then((file) => file.DocumentPage),
  '/house': () => import('./house/HousePage').then((file) => file.HousePage),
};

/** Screens that only stewards have. */
const STEWARD_SCREENS: Readonly<Record<string, LoadScreen>> = {
  '/house/people': () => import('./house/PeoplePage').then((file) => file.PeoplePage),
  '/house/post': () => import('./house/PostPage').then((file) => file.PostPage),
  '/house/journal': () => import('./house/JournalPage').then((file) => file.JournalPage),
};

function toRoutes(screens: Readonly<Record<string, LoadScreen>>) {
  return Object.entries(screens).map(([path, load]) => {
    const Screen = lazyScreen(load);
    return (
      <Route
        key={path}
        path={path}
        element={
          // Its own for each path: another screen shows at once that it is being opened.
          <LazyScreen key={path}>
            <Screen />
          </LazyScreen>
        }
      />
    );
  });
}

const ROUTES = toRoutes(SCREENS);
const STEWARD_ROUTES = toRoutes(STEWARD_SCREENS);

interface SectionsProps {
  readonly user: NonNullable<Session['user']>;
  /** Address of the page on which a stand-in shows the mails that were sent, or empty. */
  readonly postbox: string;
}

/** Shows everything for people who are signed in: the band and the screen of the address. */
export function Sections({ user, postbox }: SectionsProps) {
  return (
    <UnsavedGuard>
      <Shell user={user} postbox={postbox}>
        <Routes>
          <Route path="/" element={<Navigate to="/calendars" replace />} />
          {ROUTES}
          {user.role === 'steward' && STEWARD_ROUTES}
          <Route path="*" element={<Empty>{t('noSuchPage')}</Empty>} />
        </Routes>
      </Shell>
    </UnsavedGuard>
  );
}
