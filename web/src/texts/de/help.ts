import type { Translation } from '@zonal/core/texts';
import type { en } from '../en/help';

export const de: Translation<typeof en> = {
  noGuide: 'Diese Anleitung gibt es nicht. Wählen Sie eine unter Hilfe.',
  guideNotLoaded: 'Die Anleitung ließ sich nicht laden. Laden Sie die Seite neu.',
  fetchingGuide: 'Die Anleitung wird geladen',
  help: 'Hilfe',
  wordsSay: '<link>Wörter</link>: was die Wörter auf diesen Seiten bedeuten',
  firstDaySay: '<link>Ihr erster Tag</link>: Schritt für Schritt vom leeren Haus zur Adresse für Leser',
  guides: 'Anleitungen',
  pressKey: '<kbd>?</kbd> zeigt auf jeder Seite die Tastenkürzel.',
  words: 'Wörter',
  productWords: 'Wörter dieses Produkts',
  tradeWords: 'Wörter des Fachs',
  writingEntries: 'Einträge schreiben',
  filesInOut: 'Dateien herein und hinaus',
  timeZones: 'Zeitzonen',
  disclosure: 'Was hinausgeht und was nicht',
  handingOut: 'Adressen weitergeben',
  inSync: 'Auf dem neuesten Stand bleiben',
  peopleAndRights: 'Personen und Rechte',
  security: 'Sicherheit',
  runningIt: 'Betrieb',
};
