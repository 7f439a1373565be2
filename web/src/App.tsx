import type { Session } from '@zonal/core/api';
import { useEffect, useState } from 'react';
import { useSessionQuery } from './api/baseApi';
import { FetchTrouble } from './shell/FetchTrouble';
import { isPassPath } from './shell/passPaths';
import { SignIn } from './shell/SignIn';
import { useAppSelector } from './store';
import { LazyScreen, lazyScreen } from './ui/LazyScreen';
import { Loading } from './ui/Notice';
import { t } from './texts/base';
import { isSpoken, storeLanguage } from './texts/language';
import { loadLanguage } from './texts/loadLanguage';

const loadScreens = async () => {
  await loadLanguage();
  return (await import('./Screens')).Screens;
};
const Screens = lazyScreen(loadScreens);

/** The page to sign in, which needs little, or everything else, whose script is fetched once somebody needs it. */
export function App() {
  const { data, error } = useSessionQuery();
  const user = useAppSelector((state) => state.person.user);
  const isSomebodyElse = useReloadForSomebodyElse(user?.email);
  const isOtherLanguage = useReloadForLanguage(user);
  if (!data && error) return <FetchTrouble />;
  if (!data || isSomebodyElse || isOtherLanguage) return <Loading what={t('opening')} />;
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

/** Loads the page again if it does not speak the language of the account that signs in. Returns whether that is under way. */
function useReloadForLanguage(user: Session['user']): boolean {
  const language = user?.language ?? null;
  const isOther = user !== null && !isSpoken(language);
  useEffect(() => {
    if (user) storeLanguage(language);
    if (isOther) window.location.reload();
  }, [user, language, isOther]);
  return isOther;
}
