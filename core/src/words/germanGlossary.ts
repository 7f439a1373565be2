import type { PRODUCT_WORDS, TRADE_WORDS } from '../glossary/glossary';
import type { German } from './inLanguage';

export const PRODUCT_WORD_DE: German<typeof PRODUCT_WORDS> = {
  window: {
    word: 'Fenster',
    meaning:
      'Eine veröffentlichte Ansicht: einige Kalender, ein Filter, die gezeigten Tage, ein Glas und ein Name. Es hat eigene Adressen, und Schlüssel für alle, die sie bekommen.',
  },
  glass: {
    word: 'Glas',
    meaning:
      'Wie viel Leser hindurch sehen: Zu (nichts), Matt (nur wann die Zeit belegt ist), Getönt (Titel, Zeit und Ort), Klar (jedes Feld, das hinausdarf) oder Zugeschnitten (die Felder, die Sie wählen).',
  },
  zone: {
    word: 'Kreis',
    meaning:
      'Ein Ring von Lesern, von innen nach außen: Crew (namentlich genannte Personen im Haus), Haus (alle in der Organisation), Partner (Außenstehende mit eigenem Schlüssel) und Straße (alle, die die Adresse haben).',
  },
  ceiling: {
    word: 'Obergrenze',
    meaning:
      'Das klarste Glas, das ein Kreis je bekommen darf. Die Verwaltung setzt sie für das ganze Haus oder für einen Kalender; kein Fenster zeigt mehr.',
  },
  hold: {
    word: 'Sperre',
    meaning:
      'Ein Zeichen an einem Eintrag, das ihn überall begrenzt: „mattieren“ zeigt nur, dass die Zeit belegt ist, „drinnen lassen“ zeigt draußen nichts.',
  },
  key: {
    word: 'Schlüssel',
    meaning:
      'Eine geheime Adresse eines Fensters, ausgestellt für einen Ort oder eine Person. Sie können ihn umbenennen, ablaufen lassen, ersetzen oder zurückziehen, ohne die anderen zu berühren.',
  },
  sightlines: {
    word: 'Sichtlinien',
    meaning: 'Eine Tabelle Ihrer Kalender nach Kreisen: wer was sieht, und warum.',
  },
  rehearsal: {
    word: 'Probe',
    meaning: 'Der genaue Unterschied, den eine Änderung draußen macht, bevor Sie sie machen.',
  },
  ledger: { word: 'Logbuch', meaning: 'Die nummerierte Geschichte dessen, was ein Fenster gezeigt hat.' },
  reach: {
    word: 'Reichweite',
    meaning: 'Welche Abos welchen Stand haben, und wann die übrigen ihn bekommen dürften.',
  },
  dispatch: {
    word: 'Versand',
    meaning: 'Eine Kopie mit Datum oder eine Ankündigung, die Sie per Mail senden.',
  },
  doorbell: {
    word: 'Klingel',
    meaning: 'Eine Anfrage von draußen: nach mehr, nach einem Schlüssel oder nach einer Zeit.',
  },
  intake: {
    word: 'Zulauf',
    meaning:
      'Kalender, die hereinkommen: eine einmal importierte Datei, oder ein Feed von draußen, dem gefolgt wird.',
  },
  noticeBoard: {
    word: 'Anschlagbrett',
    meaning: 'Die öffentliche Liste der gelisteten Fenster. Auch Suchmaschinen finden sie.',
  },
  steward: {
    word: 'Verwaltung',
    meaning: 'Wer sich um das Haus kümmert: um Personen, Obergrenzen und Einstellungen.',
  },
  publisher: {
    word: 'Herausgabe',
    meaning: 'Wer einen Kalender herausgibt, öffnet Fenster darüber und stellt Schlüssel dazu aus.',
  },
  editor: { word: 'Bearbeitung', meaning: 'Wer einen Kalender bearbeitet, schreibt seine Einträge.' },
  reader: { word: 'Lesen', meaning: 'Wer einen Kalender liest, sieht ihn durch ein Glas.' },
  mirror: {
    word: 'Spiegel',
    meaning: 'Eine Kopie eines Fensters in einem eigenen Webverzeichnis, die aktuell gehalten wird.',
  },
  replySlip: {
    word: 'Antwortzettel',
    meaning: 'Der Teil der Seite eines Eintrags, auf dem Leute draußen sagen, ob sie kommen.',
  },
};

export const TRADE_WORD_DE: German<typeof TRADE_WORDS> = {
  feed: {
    word: 'Feed',
    meaning:
      'Eine Adresse, die Kalenderprogramme immer wieder lesen, sodass sie Änderungen von selbst zeigen.',
  },
  embed: { word: 'Einbettung', meaning: 'Ein Fenster, das in einer Seite einer anderen Website erscheint.' },
  snapshot: {
    word: 'Kopie mit Datum',
    meaning:
      'Eine Datei mit einem Kalender, wie er zu einem Zeitpunkt war. Spätere Änderungen erreichen sie nicht.',
  },
  subscriber: { word: 'Abo', meaning: 'Ein Programm, das für jemanden einem Feed folgt.' },
  poll: { word: 'Abruf', meaning: 'Eine Anfrage eines Programms an einen Feed, ob sich etwas geändert hat.' },
  revision: {
    word: 'Stand',
    meaning:
      'Ein nummerierter Zustand dessen, was ein Fenster zeigt. Mit jeder Änderung gibt es einen neuen.',
  },
  series: {
    word: 'Serie',
    meaning: 'Ein Eintrag, der sich wiederholt, nach einer Regel oder an eigenen Tagen.',
  },
  milestone: {
    word: 'Meilenstein',
    meaning:
      'Ein Eintrag mit einem geplanten Tag. Verschiebt er sich, sehen Leser um wie viel, soweit ihr Glas es zulässt.',
  },
  tentative: {
    word: 'vorläufig',
    meaning: 'Noch nicht sicher. Vorläufige Einträge können gekennzeichnet oder weggelassen werden.',
  },
  freeBusy: { word: 'frei/belegt', meaning: 'Ein Dokument, das nur sagt, wann die Zeit belegt ist.' },
  iCalendar: {
    word: 'iCalendar',
    meaning: 'Das Format von Kalenderdateien und Feeds, das fast alle Kalenderprogramme lesen (RFC 5545).',
  },
  calDav: {
    word: 'CalDAV',
    meaning: 'Ein Weg für Programme, nur zu holen, was sich in einem Kalender geändert hat (RFC 4791).',
  },
};
