import type { EmbedWay } from '@zonal/core/forms';
import { TriangleAlert } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import styled from 'styled-components';
import { ChoiceStrip } from '../ui/Choice';
import { Faded, Row, Stack } from '../ui/layout';
import { Empty } from '../ui/Notice';
import { TrueSize } from '../ui/TrueSize';
import { warningsOf, type EmbedSize } from './embedWarnings';
import { t } from '../texts/glass';

/** The model pages of another site, each at its path, and the width at which a desk shows it. */
const MODELS = {
  column: { word: t('modelColumn'), width: 1100 },
  article: { word: t('modelArticle'), width: 1100 },
  wide: { word: t('modelFull'), width: 1280 },
  dark: { word: t('modelDark'), width: 1100 },
  strict: { word: t('modelStrict'), width: 1100 },
} as const;
type Model = keyof typeof MODELS;
const NAMES = Object.keys(MODELS) as Model[];

const Stage = styled.div`
  position: relative;
  height: 27rem;
  border: 1px solid var(--line);
  background: var(--shade);
  > [data-model] {
    position: absolute;
    inset: 0;
    z-index: 1;
  }
  /* Seen through, not hidden: what is hidden is not loaded, and could tell nothing of its size. */
  > [data-model][data-behind] {
    opacity: 0;
    z-index: 0;
  }
`;

const Frame = styled(TrueSize)`
  width: 100%;
  height: 100%;
  iframe {
    width: 100%;
    height: 100%;
    border: 0;
    background: #fff;
  }
`;

interface EmbedTrialProps {
  /** Origin of the model pages; empty where there are none. */
  tryOut: string;
  /** The embed's address, with its look. */
  embed: string;
  name: string;
  way: EmbedWay;
  height: number;
}

/** Shows an embed in model pages of another site, all at once, and says of each where something is cut off. */
export function EmbedTrial({ tryOut, embed, name, way, height }: EmbedTrialProps) {
  const [model, setModel] = useState<Model>('article');
  const frames = useRef(new Map<Model, HTMLIFrameElement>());
  const [sizes, setSizes] = useState<Partial<Record<Model, EmbedSize>>>({});
  const query = new URLSearchParams({ embed, name, way, height: String(height) }).toString();
  useEffect(() => {
    const origin = new URL(embed).origin;
    const hear = (event: MessageEvent) => {
      const said = event.data as Partial<EmbedSize> | null;
      if (event.origin !== origin || said?.zonalWindow !== 'size') return;
      // It comes from the embed, whose parent is the model page in one of the frames.
      const holder = (event.source as Window | null)?.parent;
      const found = NAMES.find((n) => frames.current.get(n)?.contentWindow === holder);
      if (found) setSizes((s) => ({ ...s, [found]: said as EmbedSize }));
    };
    addEventListener('message', hear);
    return () => removeEventListener('message', hear);
  }, [embed]);
  if (!tryOut) return <Empty>{t('noTrialSite')}</Empty>;
  const warnings = (of: Model) => (sizes[of] ? warningsOf(sizes[of], way) : []);
  return (
    <Stack>
      <h2 id="trial">{t('trial')}</h2>
      <Row>
        <ChoiceStrip
          label={t('modelPage')}
          hideLabel
          value={model}
          options={NAMES.map((n) => ({
            value: n,
            text: (
              <>
                {MODELS[n].word}
                {warnings(n).length > 0 && <TriangleAlert aria-label={t('cutOff')} size={14} />}
              </>
            ),
          }))}
          onChange={setModel}
        />
      </Row>
      <Stage>
        {NAMES.map((n) => (
          <div key={n} data-model={n} {...(n === model ? {} : { 'data-behind': '', inert: true })}>
            <Frame width={MODELS[n].width}>
              <iframe
                ref={(frame) => {
                  if (frame) frames.current.set(n, frame);
                  else frames.current.delete(n);
                }}
                src={`${tryOut}/${n}?${query}`}
                title={t('modelOf', { model: MODELS[n].word })}
              />
            </Frame>
          </div>
        ))}
      </Stage>
      <div role="status">
        {way === 'link' ? (
          <Faded>{t('linkNotCut')}</Faded>
        ) : !sizes[model] ? (
          <Faded>{t('waitingForPage')}</Faded>
        ) : warnings(model).length ? (
          <ul>
            {warnings(model).map((text) => (
              <li key={text}>{text}</li>
            ))}
          </ul>
        ) : (
          <Faded>{t('nothingCutOff')}</Faded>
        )}
      </div>
    </Stack>
  );
}
