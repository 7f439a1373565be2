import type { EmbedInput, OutwardWindow, WindowKey } from '@zonal/core/api';
import {
  EMBED_WAYS,
  USUAL_HEIGHT,
  embedCode,
  embedHeight,
  fitScript,
  lookAddress,
  type EmbedLook,
  type EmbedWay,
} from '@zonal/core/forms';
import { keyState } from '@zonal/core/glass';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import styled from 'styled-components';
import { problemOf, useKeepEmbedMutation, useSessionQuery, useWindowsQuery } from '../api/zonalApi';
import { Waiting } from '../api/Waiting';
import { OutsideButton } from '../ui/Button';
import { ChoiceStrip } from '../ui/Choice';
import { CopyButton } from '../ui/CopyButton';
import { Field } from '../ui/Field';
import { Faded, Row, Stack } from '../ui/layout';
import { Empty, Notice } from '../ui/Notice';
import { Refusal } from '../ui/Refusal';
import { Overtaken } from '../ui/Overtaken';
import { useNow } from '../ui/useNow';
import { EmbedTrial } from './EmbedTrial';
import { LookFields } from './LookFields';
import { PastedEmbed } from './PastedEmbed';
import { useUnsaved } from '../ui/Unsaved';
import { t } from '../texts/glass';

const Halves = styled.div`
  display: grid;
  grid-template-columns: 25rem minmax(0, 1fr);
  gap: 1.2rem;
  align-items: start;
  @media (max-width: 60rem) {
    grid-template-columns: minmax(0, 1fr);
  }
`;

const Code = styled.textarea`
  width: 100%;
  height: 7.5rem;
  resize: vertical;
  border: 1px solid var(--outside);
  background: var(--sheet);
  padding: 0.5rem;
  font:
    0.78rem/1.4 'B612 Mono',
    monospace;
`;

const WAYS: Readonly<Record<EmbedWay, { word: string; plain: string }>> = {
  frame: { word: t('wayFrame'), plain: t('wayFrameSay') },
  fitting: {
    word: t('wayFitting'),
    plain: t('wayFittingSay'),
  },
  link: { word: t('wayLink'), plain: t('wayLinkSay') },
};

/** Puts a window on another site: how its embed looks, tried in model pages, and the code to be pasted. */
export function EmbedPage() {
  const { id, keyId } = useParams();
  const { data: windows, error } = useWindowsQuery();
  if (!windows) return <Waiting what={t('fetchingWindow')} error={error} />;
  const window = windows.find((w) => w.id === id);
  const key = window?.keys.find((k) => k.id === keyId);
  if (!window || !key) return <Empty>{t('noSuchKey')}</Empty>;
  return <Builder key={key.id} window={window} keyOf={key} />;
}

function Builder({ window, keyOf }: { window: OutwardWindow; keyOf: WindowKey }) {
  const { data: session } = useSessionQuery();
  const [look, setLook] = useState<EmbedLook>(keyOf.look);
  const [hosts, setHosts] = useState(keyOf.hosts.join('\n'));
  const [version, setVersion] = useState(keyOf.version);
  const [way, setWay] = useState<EmbedWay>('frame');
  const [written, setWritten] = useState(String(USUAL_HEIGHT));
  const { height, note } = embedHeight(written);
  const [held, setHeld] = useState<'held' | 'fixed'>('held');
  const [keep, keeping] = useKeepEmbedMutation();
  const now = useNow();
  const problem = problemOf(keeping.error);
  const current = problem?.code === 'version-conflict' ? (problem.details['current'] as WindowKey) : null;
  const sites = hosts.split(/[\s,]+/).filter(Boolean);
  const name = window.wording.name;
  const tried = lookAddress(keyOf.embed, look);
  const code = embedCode({
    way,
    name,
    height,
    embed: held === 'fixed' ? tried : keyOf.embed,
    see: keyOf.see,
    script: fitScript(new URL(keyOf.embed).origin),
  });
  const wanted = held === 'held' ? look : keyOf.look;
  const changed = !same(wanted, keyOf.look) || !same(sites, keyOf.hosts);
  useUnsaved(changed && !keeping.isLoading);
  const save = async () => {
    const body: EmbedInput = { look: wanted, hosts: sites, version };
    const { data } = await keep({ id: keyOf.id, ...body });
    const kept = data?.keys.find((k) => k.id === keyOf.id);
    if (!kept) return;
    setVersion(kept.version);
    setHosts(kept.hosts.join('\n'));
  };
  return (
    <Stack>
      <div>
        <h1>{t('onOtherSite', { name })}</h1>
        <Faded>
          {t.rich('embedOfKey', {
            place: keyOf.madeOutTo,
            link: (text) => <Link to={`/windows/${window.id}`}>{text}</Link>,
          })}
        </Faded>
      </div>
      {(window.closedAt || keyState(keyOf, now) === 'ended') && <Notice>{t('showsNothingNow')}</Notice>}
      <Halves>
        <Stack>
          <LookFields look={look} window={window} onChange={setLook} />
          <PastedEmbed embed={keyOf.embed} onTake={setLook} />
          <Field
            label={t('allowedSites')}
            lines
            value={hosts}
            onChange={setHosts}
            help={t('allowedSitesHelp')}
          />
          <ChoiceStrip
            label={t('choicesAre')}
            value={held}
            options={[
              { value: 'held', text: t('choicesKept') },
              { value: 'fixed', text: t('choicesInCode') },
            ]}
            onChange={setHeld}
          />
          <Faded>{held === 'held' ? t('choicesKeptSay') : t('choicesInCodeSay')}</Faded>
          {current && (
            <Overtaken
              what="key"
              onMine={() => setVersion(current.version)}
              onTheirs={() => {
                setLook(current.look);
                setHosts(current.hosts.join('\n'));
                setVersion(current.version);
                keeping.reset();
              }}
            />
          )}
          <Refusal problem={current ? null : problem} />
          <Row>
            <OutsideButton isDisabled={!changed || keeping.isLoading} onPress={() => void save()}>
              {t('showOnSites')}
            </OutsideButton>
            <Faded role="status">{changed ? t('sitesShowFormer') : t('sitesShowStored')}</Faded>
          </Row>
        </Stack>
        <Stack>
          <EmbedTrial tryOut={session?.tryOut ?? ''} embed={tried} name={name} way={way} height={height} />
          <h2 id="code">{t('codeToPaste')}</h2>
          <Row>
            <ChoiceStrip
              label={t('codeAs')}
              hideLabel
              value={way}
              options={EMBED_WAYS.map((w) => ({ value: w, text: WAYS[w].word }))}
              onChange={setWay}
            />
            {way !== 'link' && (
              <label>
                {t('height')}
                <input
                  type="number"
                  min={100}
                  max={5000}
                  step={20}
                  value={written}
                  onChange={(e) => setWritten(e.target.value)}
                />{' '}
                {t('pixels')}
              </label>
            )}
          </Row>
          <Faded>{WAYS[way].plain}</Faded>
          {way !== 'link' && note && <Faded role="status">{note}</Faded>}
          <Code readOnly aria-labelledby="code" value={code} onFocus={(e) => e.target.select()} />
          <Row>
            <CopyButton what={t('embedCode')} text={code} />
            <CopyButton what={t('pageAddress')} text={keyOf.see} />
          </Row>
          <Faded>{t('oembedHint')}</Faded>
        </Stack>
      </Halves>
    </Stack>
  );
}

/** Whether two pieces of plain data say the same. */
function same(a: object, b: object): boolean {
  const text = (value: object) => JSON.stringify(Object.entries(value).sort());
  return text(a) === text(b);
}
