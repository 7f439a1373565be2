import { Navigate, Route, Routes, useLocation } from 'react-router';
import { problemOf, useSessionQuery } from './api/zonalApi';
import { DirectoryPage } from './inside/DirectoryPage';
import { CalendarsPage } from './inside/CalendarsPage';
import { HousePage } from './house/HousePage';
import { JournalPage } from './house/JournalPage';
import { PeoplePage } from './house/PeoplePage';
import { PostPage } from './house/PostPage';
import { AccountPage } from './shell/AccountPage';
import { FirstDay } from './shell/FirstDay';
import { BeginPage, ConfirmAddressPage, NewPasswordPage, WelcomePage } from './shell/PassPages';
import { Shell } from './shell/Shell';
import { SignIn } from './shell/SignIn';
import { Empty, Loading } from './ui/Notice';
import { ProblemNotice } from './ui/ProblemNotice';
import { SightlinesPage } from './glass/SightlinesPage';
import { EmbedPage } from './glass/EmbedPage';
import { LedgerPage } from './glass/LedgerPage';
import { Studio } from './glass/Studio';
import { WindowsPage } from './glass/WindowsPage';
import { ReachPage } from './outside/reach/ReachPage';
import { ReachWindowPage } from './outside/reach/ReachWindowPage';
import { SheetPage } from './outside/SheetPage';
import { SheetsPage } from './outside/SheetsPage';

/** Pages of addresses that work once, whoever is signed in. */
const PASS_PAGES = {
  '/welcome': WelcomePage,
  '/begin': BeginPage,
  '/new-password': NewPasswordPage,
  '/confirm-address': ConfirmAddressPage,
} as const;

export function App() {
  const { pathname, hash } = useLocation();
  const { data, error, isLoading } = useSessionQuery();
  if (isLoading) return <Loading what="Opening" />;
  if (error) return <ProblemNotice problem={problemOf(error)} />;
  const PassPage = Object.hasOwn(PASS_PAGES, pathname)
    ? PASS_PAGES[pathname as keyof typeof PASS_PAGES]
    : null;
  if (PassPage) return <PassPage key={hash} />;
  if (!data?.user) return <SignIn />;
  return (
    <Shell user={data.user} postbox={data.postbox}>
      <Routes>
        <Route path="/" element={<Navigate to="/calendars" replace />} />
        <Route path="/calendars" element={<CalendarsPage />} />
        <Route path="/calendars/directory" element={<DirectoryPage />} />
        <Route path="/windows" element={<WindowsPage />} />
        <Route path="/windows/:id" element={<Studio />} />
        <Route path="/windows/:id/embed/:keyId" element={<EmbedPage />} />
        <Route path="/windows/:id/ledger" element={<LedgerPage />} />
        <Route path="/reach" element={<ReachPage />} />
        <Route path="/reach/:id" element={<ReachWindowPage />} />
        <Route path="/sheets" element={<SheetsPage />} />
        <Route path="/sheets/:id" element={<SheetPage />} />
        <Route path="/sightlines" element={<SightlinesPage />} />
        <Route path="/account" element={<AccountPage />} />
        <Route path="/first-day" element={<FirstDay />} />
        {data.user.role === 'steward' && (
          <>
            <Route path="/house/people" element={<PeoplePage />} />
            <Route path="/house/post" element={<PostPage />} />
            <Route path="/house/journal" element={<JournalPage />} />
          </>
        )}
        <Route path="/house" element={<HousePage steward={data.user.role === 'steward'} />} />
        <Route path="*" element={<Empty>There is no page at this address. Choose a section above.</Empty>} />
      </Routes>
    </Shell>
  );
}
