import { type GlossaryWord } from '@zonal/core/glossary';
import { capital } from '@zonal/core/entries';
import { useEffect } from 'react';
import { Link, useLocation } from 'react-router';
import styled from 'styled-components';
import { ReadingPage } from '../ui/layout';
import { t } from '../texts/help';
import { PRODUCT_WORDS, TRADE_WORDS } from '../texts/glossaryWords';

const Words = styled.dl`
  margin: 0;
  display: grid;
  grid-template-columns: 9rem 1fr;
  gap: 0.5rem 1rem;
  dt {
    font-weight: 700;
    scroll-margin-top: 1rem;
  }
  dd {
    margin: 0;
  }
  dt:target,
  dt:target + dd {
    background: var(--shade);
  }
  @media (max-width: 34rem) {
    grid-template-columns: 1fr;
  }
`;

/** All words of the product and of the trade, with their meanings. */
export function WordsPage() {
  const { hash } = useLocation();
  // The browser looks for the place before the list is there.
  useEffect(() => {
    document.getElementById(hash.slice(1))?.scrollIntoView();
  }, [hash]);
  return (
    <ReadingPage>
      <p>
        <Link to="/help">{t('help')}</Link>
      </p>
      <h1>{t('words')}</h1>
      <h2>{t('productWords')}</h2>
      <WordList words={PRODUCT_WORDS} />
      <h2>{t('tradeWords')}</h2>
      <WordList words={TRADE_WORDS} />
    </ReadingPage>
  );
}

function WordList({ words }: { words: Readonly<Record<string, GlossaryWord>> }) {
  return (
    <Words>
      {Object.entries(words).flatMap(([id, { word, meaning }]) => [
        <dt key={id} id={id}>
          {capital(word)}
        </dt>,
        <dd key={`${id}-meaning`}>{meaning}</dd>,
      ])}
    </Words>
  );
}
