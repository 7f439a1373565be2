import { NavLink } from 'react-router';
import styled from 'styled-components';
import { t } from '../texts/house';

const Strip = styled.nav`
  display: flex;
  flex-wrap: wrap;
  gap: 0 1.4rem;
  border-bottom: 1px solid var(--line);
  a {
    padding: 0.3rem 0.1rem;
    text-decoration: none;
    border-bottom: 4px solid transparent;
  }
  a[aria-current='page'] {
    border-color: var(--ink);
  }
`;

/** What stewards look after, part by part. */
export function HouseNav() {
  return (
    <Strip aria-label={t('housePages')}>
      <NavLink to="/house" end>
        {t('settingsPage')}
      </NavLink>
      <NavLink to="/house/people">{t('people')}</NavLink>
      <NavLink to="/house/post">{t('mail')}</NavLink>
      <NavLink to="/house/journal">{t('journal')}</NavLink>
    </Strip>
  );
}
