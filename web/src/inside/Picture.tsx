import type { EntryImage } from '@zonal/core/entries';
import styled from 'styled-components';

const Shown = styled.img`
  display: block;
  width: auto;
  height: auto;
  max-width: 100%;
  max-height: 14rem;
  border: 1px solid var(--line);
`;

/** The image of an entry of a calendar. */
export function Picture({ image, calendarId }: { image: EntryImage; calendarId: string }) {
  const { name, alt, width, height } = image;
  const address = `/api/calendars/${calendarId}/images/${name}`;
  return <Shown src={address} alt={alt} width={width} height={height} />;
}
