import { X } from 'lucide-react';
import styled from 'styled-components';
import { problemOf, useForgetLabelMutation, useLabelsQuery } from '../api/zonalApi';
import { Waiting } from '../api/Waiting';
import { QuietButton } from '../ui/Button';
import { Faded, Stack } from '../ui/layout';
import { Empty, Notice } from '../ui/Notice';
import { t } from '../texts/house';

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
  if (!labels) return <Waiting what={t('fetchingLabels')} error={error} />;
  return (
    <Stack as="section" aria-labelledby="labels">
      <h2 id="labels">{t('labels')}</h2>
      <Faded>{t('labelsHint')}</Faded>
      {forgetting.error && <Notice>{problemOf(forgetting.error)?.message}</Notice>}
      {!labels.length && <Empty>{t('noLabels')}</Empty>}
      <List>
        {labels.map(({ name, count, windows }) => (
          <li key={name}>
            <strong>{name}</strong>
            <Faded>
              {count ? t('onEntries', { count }) : t('onNoEntry')}
              {windows.length > 0 && t('inFilterOf', { windows: windows.join(', ') })}
            </Faded>
            {count === 0 && (
              <QuietButton
                aria-label={t('deleteLabel', { name })}
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
