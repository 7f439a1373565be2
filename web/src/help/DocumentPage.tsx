import { useEffect, useState } from 'react';
import Markdown, { type Components } from 'react-markdown';
import { Link, useParams } from 'react-router';
import remarkGfm from 'remark-gfm';
import styled from 'styled-components';
import { ReadingPage } from '../ui/layout';
import { Empty, Loading, Notice } from '../ui/Notice';
import { DOCUMENTS, isDocumentName, type DocumentName } from './documents';
import { t } from '../texts/help';

const Text = styled.div`
  line-height: 1.55;
  > * + * {
    margin-top: 0.8rem;
  }
  h2 {
    margin-top: 1.6rem;
  }
  table {
    display: block;
    overflow-x: auto;
    border-collapse: collapse;
  }
  th,
  td {
    text-align: left;
    vertical-align: top;
    padding: 0.3rem 0.6rem;
    border: 1px solid var(--hair);
  }
  pre {
    overflow-x: auto;
    padding: 0.6rem;
    background: var(--shade);
  }
`;

/** Links between documents lead to their screens; those to other files of the project are told and lead nowhere. */
const COMPONENTS: Components = {
  a: ({ href = '', children }) => {
    const name = /^([a-z-]+)\.md/.exec(href)?.[1] ?? '';
    if (isDocumentName(name)) return <Link to={`/help/${name}`}>{children}</Link>;
    return /^https?:/.test(href) ? (
      <a href={href} rel="noreferrer">
        {children}
      </a>
    ) : (
      <>{children}</>
    );
  },
};

/** One document of the guides. */
export function DocumentPage() {
  const { name = '' } = useParams();
  if (!isDocumentName(name)) return <Empty>{t('noGuide')}</Empty>;
  return <DocumentText key={name} name={name} />;
}

function DocumentText({ name }: { name: DocumentName }) {
  const [text, setText] = useState<string | null>(null);
  const [isLost, setIsLost] = useState(false);
  useEffect(() => {
    DOCUMENTS[name].load().then(
      (file) => setText(file.default),
      () => setIsLost(true),
    );
  }, [name]);
  if (isLost) return <Notice>{t('guideNotLoaded')}</Notice>;
  if (text === null) return <Loading what={t('fetchingGuide')} />;
  return (
    <ReadingPage>
      <p>
        <Link to="/help">{t('help')}</Link>
      </p>
      <Text>
        <Markdown remarkPlugins={[remarkGfm]} components={COMPONENTS}>
          {text}
        </Markdown>
      </Text>
    </ReadingPage>
  );
}
