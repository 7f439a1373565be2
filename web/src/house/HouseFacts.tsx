import { zoneWithOffset } from '@zonal/core/forms';
import styled from 'styled-components';
import type { House } from '@zonal/core/api';
import { useNow } from '../ui/useNow';
import type { Places } from './places';
import { t } from '../texts/house';
import { PROPERTY_KIND_WORDS } from '../texts/entryWords';

const Facts = styled.dl`
  display: grid;
  grid-template-columns: max-content 1fr;
  gap: 0.35rem 1.2rem;
  margin: 0;
  dt {
    color: var(--faded);
  }
  dd {
    margin: 0;
  }
  @media (max-width: 44rem) {
    grid-template-columns: 1fr;
    dd {
      margin-bottom: 0.4rem;
    }
  }
`;

/** What is set for the house, for those who may not change it. */
export function HouseFacts({ house, places }: { house: House; places: Places | null }) {
  const now = useNow();
  const { country, region, properties, watchWords, publicContacts } = house;
  const nameOf = (list: readonly { code: string; name: string }[] | undefined, code: string) =>
    list?.find((one) => one.code === code)?.name ?? code;
  const holidays = country
    ? [nameOf(places?.countries, country), region && nameOf(places?.regionsOf(country), region)]
        .filter(Boolean)
        .join(', ')
    : 'none';
  return (
    <Facts>
      <dt>{t('organisationName')}</dt>
      <dd>{house.name}</dd>
      <dt>{t('homeZone')}</dt>
      <dd>{zoneWithOffset(house.zone, now)}</dd>
      <dt>{t('holidaysOf')}</dt>
      <dd>{holidays}</dd>
      <dt>{t('properties')}</dt>
      <dd>
        {properties
          .map((p) => `${p.name} (${[PROPERTY_KIND_WORDS[p.kind], ...p.choices].join(', ')})`)
          .join('; ') || 'none'}
      </dd>
      <dt>{t('sensitiveWords')}</dt>
      <dd>{watchWords.join(', ') || 'none'}</dd>
      <dt>{t('publicContacts')}</dt>
      <dd>{publicContacts.join(', ') || 'none'}</dd>
    </Facts>
  );
}
