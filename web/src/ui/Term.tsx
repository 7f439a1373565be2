import { type ProductWord } from '@zonal/core/glossary';
import type { ReactNode } from 'react';
import { Button, Dialog, DialogTrigger, Popover } from 'react-aria-components';
import { Link } from 'react-router';
import styled from 'styled-components';
import { openedLook } from './Field';
import { t } from '../texts/base';
import { PRODUCT_WORDS } from '../texts/glossaryWords';

const Word = styled(Button)`
  display: inline-block;
  min-height: 24px;
  padding: 0;
  border: 0;
  background: none;
  font: inherit;
  color: inherit;
  cursor: help;
  text-decoration: underline dotted var(--faded);
  text-underline-offset: 0.2em;
`;

const Meaning = styled(Popover)`
  ${openedLook}
  max-width: min(24rem, 92vw);
  padding: 0.7rem 0.9rem;
  p + p {
    margin-top: 0.5rem;
  }
`;

interface TermProps {
  /** The word of the product that is explained. */
  readonly word: ProductWord;
  /** How it stands in the text; left out for the word itself. */
  readonly children?: ReactNode;
}

/** A word of the product, which explains itself when it is pressed. Use it where the word stands first on a screen. */
export function Term({ word, children }: TermProps) {
  const { word: name, meaning } = PRODUCT_WORDS[word];
  return (
    <DialogTrigger>
      <Word>{children ?? name}</Word>
      <Meaning>
        <Dialog aria-label={name} style={{ outline: 'none' }}>
          <p>{meaning}</p>
          <p>
            <Link to={`/help/words#${word}`}>{t('allWords')}</Link>
          </p>
        </Dialog>
      </Meaning>
    </DialogTrigger>
  );
}
