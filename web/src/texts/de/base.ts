import type { Translation } from '@zonal/core/texts';
import type { en } from '../en/base';

export const de: Translation<typeof en> = {
  opening: 'Wird geöffnet',
  noAnswer:
    'Der Server antwortet nicht. Was Sie geschrieben haben, ist noch da; versuchen Sie es gleich noch einmal.',
  copied: 'Kopiert: {what}',
  copy: '{what} kopieren',
  pickDay: 'Tag wählen',
  previousMonth: 'Voriger Monat',
  nextMonth: 'Nächster Monat',
  discardQuestion: 'Änderungen verwerfen?',
  keepEditing: 'Weiter bearbeiten',
  discard: 'Änderungen verwerfen',
  notSaved: 'Was Sie hier geschrieben haben, ist nicht gespeichert.',
  screenNotOpened:
    'Diese Seite ließ sich nicht öffnen. Vielleicht ist die Verbindung unterbrochen, oder es gibt eine neue Version von Zonal Window.',
  loadAgain: 'Neu laden',
  overtaken:
    'Inzwischen hat jemand anderes hier etwas geändert: {what}. Von Ihrem Stand geht nichts verloren.',
  keepMine: 'Meine Werte behalten',
  copyTheirs: 'Die anderen Werte übernehmen',
  askInDirectory: 'Im Verzeichnis darum bitten',
  close: 'Schließen',
  allWords: 'Alle Wörter',
  allZones: 'Alle Zonen: {label}',
  noZone: 'Dazu gibt es keine Zeitzone.',
  greeting: 'Entscheiden Sie, was jedes Publikum von Ihren Kalendern sieht, und geben Sie es weiter.',
  outOfDate: 'Was Sie sehen, ist vielleicht nicht mehr aktuell.',
  tryAgain: 'Noch einmal versuchen',
  emailAddress: 'E-Mail-Adresse',
  sessionEnded:
    'Ihre Sitzung ist zu Ende, {name}. Melden Sie sich wieder an, um dort weiterzumachen: Was Sie geschrieben haben, ist noch da.',
  notBegun:
    'Hier gibt es noch kein Konto. Öffnen Sie die Adresse, die der Server beim Start ausgegeben hat, und legen Sie dort das erste Konto an.',
  password: 'Passwort',
  signIn: 'Anmelden',
  forgotPassword: 'Passwort vergessen?',
  demoPeople: 'Personen der Demo',
  demoSignIn: 'Dies ist die Demo. Anmelden als:',
  oneServerUnconfirmed:
    'Gespeichert. Ein Server hat es noch nicht bestätigt und zeigt vielleicht noch den früheren Stand, längstens bis {time}.',
  serversUnconfirmed:
    'Gespeichert. {servers} Server haben es noch nicht bestätigt und zeigen vielleicht noch den früheren Stand, längstens bis {time}.',
};
