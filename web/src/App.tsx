import { useEffect, useState } from 'react';
import { useSessionQuery } from './api/baseApi';
import { FetchTrouble } from './shell/FetchTrouble';
import { isPassPath } from './shell/passPaths';
import { SignIn } from './shell/SignIn';
import { useAppSelector } from './store';
import { LazyScreen, lazyScreen } from './ui/LazyScreen';
import { Loading } from './ui/Notice';

const loadScreens = () => import('./Screens').then((file) => file.Screens);
const Screens = lazyScreen(loadScreens);

/** The page to sign in, which needs little, or everything else, whose script is fetched once somebody needs it. */
export function App() {
  const { data, error } = useSessionQuery();
  const user = useAppSelector((state) => state.person.user);
  const isSomebodyElse = useReloadForSomebodyElse(user?.email);
  if (!data && error) return <FetchTrouble />;
  if (!data || isSomebodyElse) return <Loading what="Opening" />;
  if (!user && !isPassPath(window.location.pathname)) return <SignIn onSend={() => void loadScreens()} />;
  return (
    <LazyScreen>
      <Screens />
    </LazyScreen>
  );
}

/**
 * Loads the page again if somebody else signs in: nothing that was fetched for one person is left for another. Returns whether
 * that is under way; nothing may be shown meanwhile.
 */
function useReloadForSomebodyElse(email: string | undefined): boolean {
  const [first, setFirst] = useState(email);
  if (email && !first) setFirst(email);
  const isSomebodyElse = !!email && !!first && email !== first;
  useEffect(() => {
    if (isSomebodyElse) window.location.reload();
  }, [isSomebodyElse]);
  return isSomebodyElse;
}
