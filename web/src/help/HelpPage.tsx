import { Link } from 'react-router';
import { FramedList, ReadingPage } from '../ui/layout';
import { DOCUMENTS, type DocumentName } from './documents';
import { t } from '../texts/help';

/** The way to everything that explains the application. */
export function HelpPage() {
  return (
    <ReadingPage>
      <h1>{t('help')}</h1>
      <FramedList>
        <li>{t.rich('wordsSay', { link: (text) => <Link to="/help/words">{text}</Link> })}</li>
        <li>{t.rich('firstDaySay', { link: (text) => <Link to="/first-day">{text}</Link> })}</li>
      </FramedList>
      <h2>{t('guides')}</h2>
      <FramedList>
        {(Object.keys(DOCUMENTS) as DocumentName[]).map((name) => (
          <li key={name}>
            <Link to={`/help/${name}`}>{DOCUMENTS[name].title}</Link>
          </li>
        ))}
      </FramedList>
      <p>{t.rich('pressKey', { kbd: (text) => <kbd>{text}</kbd> })}</p>
    </ReadingPage>
  );
}
