import { Link } from 'react-router';
import { FramedList, ReadingPage } from '../ui/layout';
import { DOCUMENTS, type DocumentName } from './documents';

/** The way to everything that explains the application. */
export function HelpPage() {
  return (
    <ReadingPage>
      <h1>Help</h1>
      <FramedList>
        <li>
          <Link to="/help/words">Words</Link>: what the words on these screens mean
        </li>
        <li>
          <Link to="/first-day">A first day</Link>: from an empty house to a reader’s address, step by step
        </li>
      </FramedList>
      <h2>Guides</h2>
      <FramedList>
        {(Object.keys(DOCUMENTS) as DocumentName[]).map((name) => (
          <li key={name}>
            <Link to={`/help/${name}`}>{DOCUMENTS[name].title}</Link>
          </li>
        ))}
      </FramedList>
      <p>
        Press <kbd>?</kbd> on any screen to list the keys.
      </p>
    </ReadingPage>
  );
}
