import type { OutwardWindow, WindowKey } from '@zonal/core/api';
import { PUBLIC_READERS, canComeBack, keyState, publicAddressEnd } from '@zonal/core/glass';
import { KeyRound, Pencil, QrCode, RefreshCw, Undo2, X } from 'lucide-react';
import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import styled from 'styled-components';
import { problemOf, useWithdrawKeyMutation } from '../api/zonalApi';
import { Button, QuietButton } from '../ui/Button';
import { CopyButton } from '../ui/CopyButton';
import { Rings } from '../ui/GlassMark';
import { Faded, OutsideBox, Row } from '../ui/layout';
import { Named } from '../ui/Named';
import { Refusal } from '../ui/Refusal';
import { momentWords } from '../ui/timeWords';
import { useNow } from '../ui/useNow';
import { KeyCard } from './KeyCard';
import { KeySheet, KeyTurnSheet } from './KeySheet';
import { keyWords } from './keyWords';
import { WithdrawDialog } from './WithdrawDialog';
import { Term } from '../ui/Term';
import { t } from '../texts/glass';

const Key = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 0.3rem 1rem;
  align-items: center;
  border-top: 1px solid var(--hair);
  padding-top: 0.5rem;
  @media (max-width: 60rem) {
    grid-template-columns: minmax(0, 1fr);
  }
  &[data-over] {
    color: var(--faded);
  }
`;

const Who = styled.div`
  display: flex;
  gap: 0.6rem;
  align-items: baseline;
  min-width: 0;
  overflow-wrap: anywhere;
  small {
    display: block;
  }
  > svg {
    flex: none;
  }
`;

type Work =
  | { readonly kind: 'change' | 'turn' | 'card' | 'withdraw'; readonly key: WindowKey }
  | { readonly kind: 'new' };

/** The keys of a window: to whom each is made out, how it stands, and its addresses to hand out. */
export function Keys({ window }: { window: OutwardWindow }) {
  const [query, setQuery] = useSearchParams();
  // Whom a key is wanted for, where one comes from an invitation.
  const [wantedFor] = useState(() => query.get('key-for') ?? '');
  const [work, setWork] = useState<Work | null>(() => (wantedFor ? { kind: 'new' } : null));
  const [withdraw, withdrawing] = useWithdrawKeyMutation();
  const now = useNow();
  const problem = problemOf(withdrawing.error);
  const done = () => {
    setWork(null);
    if (query.has('key-for')) setQuery({}, { replace: true });
  };
  // As it is now: what was just changed stands in the window, not in what was opened.
  const keyNow = (id: string) => window.keys.find((k) => k.id === id)!;
  return (
    <OutsideBox aria-labelledby="keys">
      <Row style={{ justifyContent: 'space-between' }}>
        <h2 id="keys">{t.rich('keysTitle', { term: (text) => <Term word="key">{text}</Term> })}</h2>
        <Button onPress={() => setWork({ kind: 'new' })}>
          <KeyRound aria-hidden="true" /> {t('newKey')}
        </Button>
      </Row>
      <Faded>{t('keysHint')}</Faded>
      {publicAddressEnd(window) > now && (
        <Key role="group" aria-label={t('noticeBoard')}>
          <Who>
            <Rings audience="street" />
            <span>
              <strong>{PUBLIC_READERS}</strong>
              {window.publicUntil ? (
                <small>{t('unlistedUntil', { time: momentWords(window.publicUntil, now) })}</small>
              ) : (
                <small>
                  {t.rich('listedOnBoard', {
                    term: (text) => <Term word="noticeBoard">{text}</Term>,
                    a: (text) => <a href="/board">{text}</a>,
                  })}
                </small>
              )}
            </span>
          </Who>
          <Row>
            <CopyButton what={t('publicAddress')} text={window.listedSee} />
          </Row>
        </Key>
      )}
      {window.keys.map((key) => {
        const over = keyState(key, now) === 'ended';
        return (
          <Key key={key.id} role="group" aria-label={key.madeOutTo} {...(over ? { 'data-over': '' } : {})}>
            <Who>
              <Rings audience={key.audience} />
              <span>
                <strong>{key.madeOutTo}</strong>
                <small>{keyWords(key, window.hostZone, now).join(', ')}</small>
              </span>
            </Who>
            <Row>
              {!over && (
                <>
                  <CopyButton what={t('pageAddress')} text={key.see} />
                  <CopyButton what={t('feedAddress')} text={key.feed} />
                  <Link to={`/windows/${window.id}/embed/${key.id}`}>{t('onAnotherSite')}</Link>
                  <Link to={`/reach/${window.id}?push=${key.id}`}>{t('toSystem')}</Link>
                  <Named name="QR code, print">
                    <QuietButton
                      aria-label={t('cardOfKey', { place: key.madeOutTo })}
                      onPress={() => setWork({ kind: 'card', key })}
                    >
                      <QrCode aria-hidden="true" />
                    </QuietButton>
                  </Named>
                  <Named name="New address">
                    <QuietButton
                      aria-label={t('newAddressFor', { place: key.madeOutTo })}
                      onPress={() => setWork({ kind: 'turn', key })}
                    >
                      <RefreshCw aria-hidden="true" />
                    </QuietButton>
                  </Named>
                </>
              )}
              {!key.withdrawnAt && (
                <Named name="Change">
                  <QuietButton
                    aria-label={t('changeKeyOf', { place: key.madeOutTo })}
                    onPress={() => setWork({ kind: 'change', key })}
                  >
                    <Pencil aria-hidden="true" />
                  </QuietButton>
                </Named>
              )}
              {key.withdrawnAt ? (
                canComeBack(key, now) && (
                  <Button
                    isDisabled={withdrawing.isLoading}
                    onPress={() => void withdraw({ id: key.id, back: true })}
                  >
                    <Undo2 aria-hidden="true" /> {t('restoreKey')}
                  </Button>
                )
              ) : (
                <Named name="Withdraw">
                  <QuietButton
                    aria-label={t('withdrawKeyOf', { place: key.madeOutTo })}
                    isDisabled={withdrawing.isLoading}
                    onPress={() => setWork({ kind: 'withdraw', key })}
                  >
                    <X aria-hidden="true" />
                  </QuietButton>
                </Named>
              )}
            </Row>
            {withdrawing.originalArgs?.id === key.id && <Refusal problem={problem} />}
          </Key>
        );
      })}
      {work?.kind === 'new' && <KeySheet window={window} keyOf={null} madeOutTo={wantedFor} onClose={done} />}
      {work?.kind === 'change' && <KeySheet window={window} keyOf={keyNow(work.key.id)} onClose={done} />}
      {work?.kind === 'turn' && <KeyTurnSheet window={window} keyOf={keyNow(work.key.id)} onClose={done} />}
      {work?.kind === 'withdraw' && (
        <WithdrawDialog
          withdrawn={work.key}
          onWithdraw={() => {
            void withdraw({ id: work.key.id, back: false });
            done();
          }}
          onCancel={done}
        />
      )}
      {work?.kind === 'card' && <KeyCard window={window} keyOf={keyNow(work.key.id)} onClose={done} />}
    </OutsideBox>
  );
}
