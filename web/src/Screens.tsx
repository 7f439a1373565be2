import { Activity } from 'react';
import { I18nProvider } from 'react-aria-components';
import { RouterProvider, createBrowserRouter, useLocation } from 'react-router';
import { useKeepFetched } from './api/useKeepFetched';
import { useSessionQuery } from './api/baseApi';
import { Sections } from './Sections';
import { isPassPath, type PassPath } from './shell/passPaths';
import { SignIn, type Returning } from './shell/SignIn';
import { useAppSelector } from './store';
import { LazyScreen, lazyScreen } from './ui/LazyScreen';
import { Empty } from './ui/Notice';
import { t } from './texts/shell';
import { LOCALE } from './texts/language';

const loadPassPages = () => import('./shell/PassPages');

const PASS_PAGES: Readonly<Record<PassPath, ReturnType<typeof lazyScreen>>> = {
  '/welcome': lazyScreen(() => loadPassPages().then((file) => file.WelcomePage)),
  '/begin': lazyScreen(() => loadPassPages().then((file) => file.BeginPage)),
  '/new-password': lazyScreen(() => loadPassPages().then((file) => file.NewPasswordPage)),
  '/confirm-address': lazyScreen(() => loadPassPages().then((file) => file.ConfirmAddressPage)),
};

/** One route for all: the application finds its screen itself. This kind of router can ask before a screen is left. */
const router = createBrowserRouter([{ path: '*', element: <CurrentScreen />, errorElement: <Failed /> }]);

/** Shows the screen of the address in the browser's address bar. */
export function Screens() {
  return (
    // Dates are read and typed as everywhere else on the screen, whatever the browser speaks.
    <I18nProvider locale={LOCALE}>
      <RouterProvider router={router} />
    </I18nProvider>
  );
}

/** Shown if the application itself fails. */
function Failed() {
  return <Empty>{t.rich('brokenScreen', { a: (text) => <a href="/">{text}</a> })}</Empty>;
}

function CurrentScreen() {
  const { pathname, hash } = useLocation();
  const { user, isSessionLost } = useAppSelector((state) => state.person);
  const { data } = useSessionQuery();
  if (isPassPath(pathname)) {
    const PassPage = PASS_PAGES[pathname];
    return (
      <LazyScreen key={pathname}>
        <PassPage key={hash} />
      </LazyScreen>
    );
  }
  if (!user) return <SignIn />;
  return (
    <>
      {/* Hidden, but kept with all that was typed: after signing in again, people go on where they were. */}
      <Activity mode={isSessionLost ? 'hidden' : 'visible'}>
        <Sections key={user.email} user={user} postbox={data?.postbox ?? ''} />
      </Activity>
      {isSessionLost && <SignInAgain user={user} />}
    </>
  );
}

function SignInAgain({ user }: { user: Returning }) {
  useKeepFetched();
  return <SignIn returning={user} />;
}
