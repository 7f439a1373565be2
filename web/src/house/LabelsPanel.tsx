import { X } from 'lucide-react';
import styled from 'styled-components';
import { problemOf, useForgetLabelMutation, useLabelsQuery } from '../api/zonalApi';
import { Waiting } from '../api/Waiting';
import { QuietButton } from '../ui/Button';
import { Faded, Stack } from '../ui/layout';
import { Empty, Notice } from '../ui/Notice';

const List = styled.ul`
  list-style: none;
  margin: 0;
  padding: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem 1.2rem;
  li {
    display: flex;
    align-items: center;
    gap: 0.3rem;
  }
`;

/** The labels that filters may name. One that no entry bears can be forgotten; filters that name it then break. */
export function LabelsPanel() {
  const { data: labels, error } = useLabelsQuery();
  const [forget, forgetting] = useForgetLabelMutation();
  if (!labels) return <Waiting what="Fetching labels" error={error} />;
  return (
    <Stack as="section" aria-labelledby="labels">
      <h2 id="labels">Labels</h2>
      <Faded>
        Every label that an entry has had. One that no entry bears can be forgotten; a filter that names it is
        broken from then on, and its window shows less.
      </Faded>
      {forgetting.error && <Notice>{problemOf(forgetting.error)?.message}</Notice>}
      {!labels.length && <Empty>No entry has a label yet.</Empty>}
      <List>
        {labels.map(({ name, count, windows }) => (
          <li key={name}>
            <strong>{name}</strong>
            <Faded>
              {count ? `on ${count} ${count === 1 ? 'entry' : 'entries'}` : 'on no entry'}
              {windows.length > 0 && `, in the filter of ${windows.join(', ')}`}
            </Faded>
            {count === 0 && (
              <QuietButton
                aria-label={`Forget the label ${name}`}
                isDisabled={forgetting.isLoading}
                onPress={() => void forget(name)}
              >
                <X aria-hidden="true" />
              </QuietButton>
            )}
          </li>
        ))}
      </List>
    </Stack>
  );
}
