import type { EntryField, Exposure, ExposureGroup } from '@zonal/core/glass';
import styled from 'styled-components';
import { problemOf, useHouseQuery, useSaveHouseMutation } from '../api/zonalApi';
import { useAppSelector } from '../store';
import { QuietButton } from '../ui/Button';
import { ProblemNotice } from '../ui/ProblemNotice';
import { fieldWord } from '../texts/entryWords';
import { t } from '../texts/rehearsal';

const Lines = styled.ul`
  margin: 0.3rem 0 0;
  padding-left: 1.1rem;
  max-height: 12rem;
  overflow: auto;
  overflow-wrap: anywhere;
`;

const KIND_WORDS: Readonly<Record<Exposure['kind'], string>> = {
  'mail-address': t('mailAddress'),
  'phone-number': t('phoneNumber'),
  passcode: t('passcodeLink'),
  person: t('personName'),
  'watch-word': t('sensitiveWord'),
};

const placeWords = ({ field, title }: Exposure) =>
  t('exposurePlace', { field: fieldWord(field as EntryField), title });

function placesWords({ places, count }: ExposureGroup): string {
  const listed = places.map(placeWords).join(', ');
  if (count === 1) return listed;
  const more = count - places.length;
  return more
    ? t('exposurePlacesMore', { count, places: listed, more })
    : t('exposurePlaces', { count, places: listed });
}

/**
 * Lists sensitive matter by what was found. A steward can mark an address or a number as public: the house stores it, and nobody is
 * warned of it again.
 */
export function ExposureList({ groups, more = 0 }: { groups: readonly ExposureGroup[]; more?: number }) {
  const { data: house } = useHouseQuery();
  const [save, saving] = useSaveHouseMutation();
  const isSteward = useAppSelector((state) => state.person.user?.role === 'steward');
  const markAsPublic = (text: string) => {
    if (house) void save({ ...house, publicContacts: [...house.publicContacts, text] });
  };
  return (
    <>
      <Lines>
        {groups.map((group) => (
          <li key={`${group.kind}|${group.text}`}>
            {t.rich('exposureIn', {
              kind: KIND_WORDS[group.kind],
              text: group.text,
              places: placesWords(group),
              strong: (text) => <strong>{text}</strong>,
            })}
            {isSteward && (group.kind === 'mail-address' || group.kind === 'phone-number') && (
              <QuietButton
                isDisabled={!house || saving.isLoading}
                aria-label={t('markPublicNamed', { text: group.text })}
                onPress={() => markAsPublic(group.text)}
              >
                {t('markPublic')}
              </QuietButton>
            )}
          </li>
        ))}
        {more > 0 && <li>{t('andMore', { count: more })}</li>}
      </Lines>
      <ProblemNotice problem={problemOf(saving.error)} />
    </>
  );
}
