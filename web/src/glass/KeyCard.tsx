import type { OutwardWindow, WindowKey } from '@zonal/core/api';
import { plainName } from '@zonal/core/forms';
import { useEffect, useState } from 'react';
import styled, { createGlobalStyle } from 'styled-components';
import { Button } from '../ui/Button';
import { ChoiceStrip } from '../ui/Choice';
import { CopyButton } from '../ui/CopyButton';
import { Row, Stack } from '../ui/layout';
import { Notice } from '../ui/Notice';
import { saveBlob, saveFile } from '../ui/saveFile';
import { Sheet } from '../ui/Sheet';
import { keyWords } from './keyWords';
import { useNow } from '../ui/useNow';
import { t } from '../texts/glass';

const Card = styled.div`
  display: grid;
  gap: 0.5rem;
  justify-items: start;
  background: #fff;
  color: #1c1a17;
  padding: 1.2rem;
  border: 1px solid var(--line);
  code {
    overflow-wrap: anywhere;
  }
  svg {
    width: 14rem;
    height: 14rem;
  }
`;

/** On paper there is nothing but the card. */
const OnPaper = createGlobalStyle`
  @media print {
    body * { visibility: hidden; }
    [data-card], [data-card] * { visibility: visible; }
    [data-card] { position: fixed; inset: 0 auto auto 0; border: 0; }
  }
`;

type Way = 'see' | 'feed';

/** The address of a key as a card: to be scanned, saved, printed. */
export function KeyCard({
  window,
  keyOf,
  onClose,
}: {
  window: OutwardWindow;
  keyOf: WindowKey;
  onClose: () => void;
}) {
  const [way, setWay] = useState<Way>('see');
  const [svg, setSvg] = useState('');
  const [problem, setProblem] = useState('');
  const now = useNow();
  const address = keyOf[way];
  const { name } = window.wording;
  const file = `${plainName(`${name} ${keyOf.madeOutTo}`, 'key')}-${way === 'see' ? 'page' : 'feed'}`;
  const undrawn = () => setProblem(t('codeNotDrawn'));
  useEffect(() => {
    let current = true;
    codeOf(address).then(
      (text) => current && setSvg(text),
      () => current && undrawn(),
    );
    return () => {
      current = false;
    };
  }, [address]);
  return (
    <Sheet title={t('cardOf', { place: keyOf.madeOutTo })} onClose={onClose}>
      <OnPaper />
      <Stack>
        <ChoiceStrip
          label={t('leadsTo')}
          value={way}
          options={[
            { value: 'see', text: t('toPage') },
            { value: 'feed', text: t('toFeed') },
          ]}
          onChange={setWay}
        />
        {problem && <Notice>{problem}</Notice>}
        <Card data-card="">
          <strong>{name}</strong>
          {window.wording.description && <span>{window.wording.description}</span>}
          <div
            role="img"
            aria-label={t('qrOf', { address })}
            // The library's own drawing of an address of ours.
            dangerouslySetInnerHTML={{ __html: svg }}
          />
          <code>{address}</code>
          <span>{way === 'see' ? t('pageForAnybody') : t('feedForPrograms')}</span>
        </Card>
        <small>{keyWords(keyOf, window.hostZone, now).join(', ')}</small>
        <Row>
          <CopyButton what="address" text={address} />
          <Button isDisabled={!svg} onPress={() => saveFile(svg, `${file}.svg`)}>
            {t('saveSvg')}
          </Button>
          <Button onPress={() => void pngOf(address).then((blob) => saveBlob(blob, `${file}.png`), undrawn)}>
            {t('savePng')}
          </Button>
          <Button onPress={() => globalThis.print()}>{t('print')}</Button>
        </Row>
      </Stack>
    </Sheet>
  );
}

/** The library comes only when a card is looked at. */
const library = () => import('qrcode');

async function codeOf(address: string): Promise<string> {
  const { toString } = await library();
  return toString(address, { type: 'svg', margin: 1, errorCorrectionLevel: 'M' });
}

async function pngOf(address: string): Promise<Blob> {
  const { toCanvas } = await library();
  const canvas = document.createElement('canvas');
  await toCanvas(canvas, address, { width: 1024, margin: 2, errorCorrectionLevel: 'M' });
  return new Promise((resolve, reject) =>
    canvas.toBlob((blob) => (blob ? resolve(blob) : reject(new Error(t('pictureFailed'))))),
  );
}
