import type { Translation } from '@zonal/core/texts';
import type { en } from '../en/labels';

export const de: Translation<typeof en> = {
  holdOfLabel: 'Sperre von „{label}“',
  removeLabelHold: '„{label}“ entfernen',
  addLabel: 'Etikett hinzufügen',
  chooseOne: 'eines wählen',
};
