import type { OutwardWindow, WindowReach } from '@zonal/core/api';
import { reachTable, plainName } from '@zonal/core/forms';
import { AUDIENCE_WORDS } from '@zonal/core/glass';
import { Download } from 'lucide-react';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import styled from 'styled-components';
import { useWindowReachQuery, useWindowsQuery } from '../../api/zonalApi';
import { isRefused } from '../../api/fetchTrouble';
import { Waiting } from '../../api/Waiting';
import { Button } from '../../ui/Button';
import { ChoiceStrip } from '../../ui/Choice';
import { Faded, Row, Stack } from '../../ui/layout';
import { Empty } from '../../ui/Notice';
import { saveFile } from '../../ui/saveFile';
import { Alerts } from './Alerts';
import { InTime } from './InTime';
import { LIVE } from './ReachPage';
import { Spread } from './Spread';
import { Subscribers } from './Subscribers';
import { byWords, percent, readersWords } from '../../ui/timeWords';

const Halves = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1.2fr) minmax(0, 1fr);
  gap: 1.2rem;
  align-items: start;
  @media (max-width: 60rem) {
    grid-template-columns: minmax(0, 1fr);
  }
`;

/** Whether the subscribers of one window are in sync: how its changes spread, who is behind, who will not know in time. */
export function ReachWindowPage() {
  const { id = '' } = useParams();
  const windows = useWindowsQuery();
  const { data, error } = useWindowReachQuery(id, { pollingInterval: LIVE });
  if (!data || !windows.data || isRefused(error))
    return <Waiting what="Counting" error={error ?? windows.error} />;
  const window = windows.data.find((w) => w.id === id);
  if (!window) return <Empty>There is no such window. It may have been deleted; go back to Reach.</Empty>;
  return <WindowPage key={id} window={window} reach={data} />;
}

function WindowPage({ window, reach }: { window: OutwardWindow; reach: WindowReach }) {
  const now = Date.parse(reach.at);
  const [chosen, setChosen] = useState(0);
  const view = reach.views[chosen] ?? reach.views[0];
  const { name } = window.wording;
  return (
    <Stack>
      <Row style={{ justifyContent: 'space-between' }}>
        <div>
          <h1>Reach of {name}</h1>
          <Faded>
            <Link to="/reach">All windows</Link> · <Link to={`/windows/${window.id}`}>Its studio</Link> ·{' '}
            <Link to={`/windows/${window.id}/ledger`}>Its ledger</Link>
          </Faded>
        </div>
        <Button onPress={() => saveFile(reachTable(reach), `${plainName(name, 'window')}-reach.csv`)}>
          <Download aria-hidden="true" /> Subscribers as CSV
        </Button>
      </Row>
      {!view && <Empty>Nobody has an address of this window. Make out a key in its studio.</Empty>}
      {view && (
        <>
          {reach.views.length > 1 && (
            <ChoiceStrip
              label="Seen"
              value={String(reach.views.indexOf(view))}
              options={reach.views.map(({ audience, cap }, i) => ({
                value: String(i),
                text: `by the ${AUDIENCE_WORDS[audience].word}${cap ? `, at most ${cap}` : ''}`,
              }))}
              onChange={(i) => setChosen(Number(i))}
            />
          )}
          <p role="status">
            {view.next.readers === 0 ? (
              'No program follows it yet. Pages and copies are counted with their keys.'
            ) : (
              <>
                <strong>
                  {percent(view.holding / view.next.readers)} of {readersWords(view.next.readers)}
                </strong>{' '}
                hold what is outside now
                {view.holding < view.next.readers * 0.9 &&
                  (view.next.nineInTenBy
                    ? `; nine in ten ${byWords(view.next.nineInTenBy, now)}`
                    : '; nine in ten will not this week')}
                {view.next.never > 0 && `; ${readersWords(view.next.never)} probably never will`}.
              </>
            )}
          </p>
          <Alerts windowId={window.id} now={now} />
          <Halves>
            <section aria-labelledby="spread">
              <Stack>
                <h2 id="spread">How a change spread</h2>
                <Spread key={`${view.audience}|${view.cap}`} view={view} />
              </Stack>
            </section>
            <InTime window={window} urgentBy={reach.urgentBy} />
          </Halves>
          <Subscribers window={window} reach={reach} />
        </>
      )}
    </Stack>
  );
}
