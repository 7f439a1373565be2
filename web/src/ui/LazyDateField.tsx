import type { ComponentProps } from 'react';
import type { DateField } from './DateFields';
import { LazyScreen, lazyScreen } from './LazyScreen';

const Later = lazyScreen<ComponentProps<typeof DateField>>(() =>
  import('./DateFields').then((file) => file.DateField),
);

/** A field for a day on screens of which few show one: its script is fetched with the first. */
export function LazyDateField(props: ComponentProps<typeof DateField>) {
  return (
    <LazyScreen>
      <Later {...props} />
    </LazyScreen>
  );
}
