import { textsByLanguage } from '../../texts/readMessages';

/** What the report and the preview of an imported file say, as ICU messages. */
export const FILE_TEXTS = {
  en: {
    utf16: 'The file is in UTF-16; it was read as such.',
    notUtf8: 'The file is not in UTF-8; it was read as Latin-1 (Windows-1252). Check letters with accents.',
    severalCalendars: 'The file holds {count} calendars; all were read into one.',
    lineLeftOut: 'Line {line} was left out: {reason}.',
    moreLinesLeftOut: 'Further lines of it were left out as well.',
    noDueDate: 'It is a task with no due date; calendars here hold entries with a time.',
    isJournal: 'It is a journal note; calendars here hold entries with a time.',
    isFreeBusy: 'It is a busy-time statement, not an entry.',
    isNoEntry: '{name} is not an entry.',

    newerEntry: 'The file has a newer version of this entry.',
    newerDate: 'The file has a newer version of this date.',
    slotFitted: 'The date that it replaces was fitted to the clock of its series.',
    noSeries: 'It changes one date of an entry that does not recur; it was read as an entry of its own.',
    seriesMissing: 'The series that it belongs to is not in the file; it was read as an entry of its own.',
    ruleOfDate: 'It changes one date and has a rule as well; the rule was left out.',
    seriesAsDate: 'The file marks the series as a change of one of its own dates; it was read as the series.',
    exactLength:
      'It lasts exactly so long also when clocks change: {count} of its dates say their end by themselves.',

    noIdentifier: 'It has no identifier (UID); it was given one.',
    onlyThisDate:
      'The file changes this and all later dates (RANGE=THISANDFUTURE); only this date was changed.',
    milestoneOnce: 'A milestone takes place once; as it recurs, it was read as an event.',
    noStartOfDue: 'A due item has no start here: its start was left out.',
    ruleByStart: 'Its rule counts from its start, days before it is due; its dates were written one by one.',
    durationUnreadable: 'Its duration “{text}” cannot be read; it was given no length.',
    endFitted: 'Start and end are of different kinds; the end was fitted to the start.',
    endBeforeStart: 'Its end is before its start; it was given the least length.',
    periodBackwards: 'One of its further dates ends before it starts; it was given the length of the first.',
    datesFitted: 'Some of its further dates were fitted to its start: whole days, or its time of day.',
    severalRules: 'It has several rules; only the first was read.',
    onlyFirstDate: 'Only its first date and dates given one by one were read.',
    exceptionsWritten: 'Its rule of exceptions (EXRULE) was written out as single dates, ten years ahead.',
    tooManyDates: 'It has more than {count} dates: those over a year ago and the last ones were left out.',
    ruleWrittenYears: 'Its rule was written out as single dates, {years} years ahead.',
    ruleWritten: 'Its rule was written out as single dates.',
    leapSecond: 'A leap second was read as the second before it.',
    hour24: 'The hour 24 was read as the midnight after.',

    zoneWindows: 'Time zone “{tzid}” was read as {zone} (it is the Windows name for it).',
    zoneSaid: 'Time zone “{tzid}” was read as {zone} (its definition says so).',
    zoneEnding: 'Time zone “{tzid}” was read as {zone} (its name ends so).',
    zoneUnknown: 'Time zone “{tzid}” is not known or defined; its times are kept as floating.',
    zoneBroken: 'Time zone “{tzid}” is defined in a way that cannot be read ({reason})',
    zoneAlike: 'Time zone “{tzid}” was read as {zone} (its clocks go alike over all of the file’s time).',
    zoneAlikeOthers:
      'Time zone “{tzid}” was read as {zone} (its clocks go alike over all of the file’s time, as in {count} other zones; check that it is this one).',
    zoneByDefinition:
      'Time zone “{tzid}” is like no known zone; its times were computed by its definition in the file.',

    reminders: 'Its reminders were left out.',
    partLeftOut: 'Its part {name} was left out.',
    parametersLeftOut: 'What its {name} lines say of language and the like was left out.',
    statusUnknown: 'Status “{text}” is not one of an entry; it was read as confirmed.',
    markedPrivate: 'It is marked PRIVATE in the file, so it is held to busy time only.',
    markedConfidential: 'It is marked CONFIDENTIAL in the file, so it is kept in.',
    fileInside: 'A file inside the entry was left out; only links are kept.',
    choiceUnknown: '{field} “{text}” is not known; it was read as {other}.',

    cancelsEntry: 'It takes an entry of the file back; that was read as cancelled.',
    cancelsDate: 'It takes one date of an entry of the file back; that was read as cancelled.',
    takesDateBack: 'It takes one date back (METHOD:CANCEL).',
    takesEntryBack: 'It takes an entry back (METHOD:CANCEL).',

    line: 'Line {line}',
    lineSays: 'Line {line}: {reason}',
    nothingToCancel: 'Line {line}: it takes something back (METHOD:CANCEL). There is no such entry here.',
    noDateToCancel: 'Line {line}: it takes something back (METHOD:CANCEL). The entry here has no such date.',
    dateCancelled: 'The file takes this date back.',
    entryCancelled: 'The file takes this entry back; it stays, as cancelled.',
    olderVersion: 'The file has version {sent}; version {stored} is here already.',
    changedHere: 'The file says what it said last time; it was changed here since.',
    changedBoth: 'It was changed here and in the file since it was last imported.',
    writtenHere: 'It was written or changed here, and the file says something else.',
    dateOfSeries: 'One date of a series that is here.',
  },
  de: {
    utf16: 'Die Datei ist in UTF-16 und wurde so gelesen.',
    notUtf8:
      'Die Datei ist nicht in UTF-8; sie wurde als Latin-1 (Windows-1252) gelesen. Prüfen Sie Umlaute und Akzente.',
    severalCalendars: 'Die Datei enthält {count} Kalender; alle wurden in einen gelesen.',
    lineLeftOut: 'Zeile {line} wurde weggelassen: {reason}.',
    moreLinesLeftOut: 'Auch weitere seiner Zeilen wurden weggelassen.',
    noDueDate: 'Das ist eine Aufgabe ohne Fälligkeit; Kalender enthalten hier Einträge mit einer Zeit.',
    isJournal: 'Das ist eine Notiz; Kalender enthalten hier Einträge mit einer Zeit.',
    isFreeBusy: 'Das ist eine Angabe belegter Zeit, kein Eintrag.',
    isNoEntry: '{name} ist kein Eintrag.',

    newerEntry: 'Eine neuere Fassung dieses Eintrags steht in der Datei.',
    newerDate: 'Eine neuere Fassung dieses Termins steht in der Datei.',
    slotFitted: 'Der Termin, den er ersetzt, wurde an die Uhr seiner Serie angepasst.',
    noSeries:
      'Er ändert einen Termin eines Eintrags, der sich nicht wiederholt; er wurde als eigener Eintrag gelesen.',
    seriesMissing:
      'Die Serie, zu der er gehört, ist nicht in der Datei; er wurde als eigener Eintrag gelesen.',
    ruleOfDate: 'Er ändert einen Termin und hat außerdem eine Regel; die Regel wurde weggelassen.',
    seriesAsDate:
      'Die Datei bezeichnet die Serie als Änderung eines ihrer Termine; er wurde als die Serie gelesen.',
    exactLength:
      'Er dauert auch bei Zeitumstellungen genau so lange: {count} seiner Termine haben ein eigenes Ende.',

    noIdentifier: 'Er hat keine Kennung (UID) und bekam eine.',
    onlyThisDate:
      'Die Datei ändert diesen und alle späteren Termine (RANGE=THISANDFUTURE); nur dieser wurde geändert.',
    milestoneOnce:
      'Ein Meilenstein findet einmal statt; weil er sich wiederholt, wurde er als Termin gelesen.',
    noStartOfDue: 'Eine Frist hat hier keinen Anfang: Ihr Anfang wurde weggelassen.',
    ruleByStart:
      'Seine Regel geht von seinem Anfang aus, Tage vor der Fälligkeit; seine Termine wurden einzeln eingetragen.',
    durationUnreadable: 'Seine Dauer „{text}“ lässt sich nicht lesen; er bekam keine Länge.',
    endFitted: 'Anfang und Ende sind von verschiedener Art; das Ende wurde an den Anfang angepasst.',
    endBeforeStart: 'Sein Ende liegt vor seinem Anfang; er bekam die geringste Länge.',
    periodBackwards: 'Einer seiner weiteren Termine endet vor seinem Anfang; er bekam die Länge des ersten.',
    datesFitted:
      'Einige seiner weiteren Termine wurden an seinen Anfang angepasst: ganze Tage, oder seine Uhrzeit.',
    severalRules: 'Er hat mehrere Regeln; nur die erste wurde gelesen.',
    onlyFirstDate: 'Nur sein erster Termin und einzeln genannte Termine wurden gelesen.',
    exceptionsWritten:
      'Seine Ausnahmeregel (EXRULE) wurde in einzelnen Terminen eingetragen, zehn Jahre voraus.',
    tooManyDates:
      'Er hat mehr als {count} Termine: Die vor über einem Jahr und die letzten wurden weggelassen.',
    ruleWrittenYears: 'Seine Regel wurde in einzelnen Terminen eingetragen, {years} Jahre voraus.',
    ruleWritten: 'Seine Regel wurde in einzelnen Terminen eingetragen.',
    leapSecond: 'Eine Schaltsekunde wurde als die Sekunde davor gelesen.',
    hour24: 'Die Stunde 24 wurde als die folgende Mitternacht gelesen.',

    zoneWindows: 'Zeitzone „{tzid}“ wurde als {zone} gelesen (so heißt sie unter Windows).',
    zoneSaid: 'Zeitzone „{tzid}“ wurde als {zone} gelesen (so sagt es ihre Definition).',
    zoneEnding: 'Zeitzone „{tzid}“ wurde als {zone} gelesen (so endet ihr Name).',
    zoneUnknown: 'Zeitzone „{tzid}“ ist weder bekannt noch definiert; ihre Zeiten bleiben ohne Zone.',
    zoneBroken: 'Zeitzone „{tzid}“ ist so definiert, dass es sich nicht lesen lässt ({reason})',
    zoneAlike:
      'Zeitzone „{tzid}“ wurde als {zone} gelesen (ihre Uhren gehen im ganzen Zeitraum der Datei gleich).',
    zoneAlikeOthers:
      'Zeitzone „{tzid}“ wurde als {zone} gelesen (ihre Uhren gehen im ganzen Zeitraum der Datei gleich, wie in {count} weiteren Zonen; prüfen Sie, ob es diese ist).',
    zoneByDefinition:
      'Zeitzone „{tzid}“ gleicht keiner bekannten; ihre Zeiten wurden nach ihrer Definition in der Datei berechnet.',

    reminders: 'Seine Erinnerungen wurden weggelassen.',
    partLeftOut: 'Sein Teil {name} wurde weggelassen.',
    parametersLeftOut: 'Was seine Zeilen {name} zu Sprache und Ähnlichem sagen, wurde weggelassen.',
    statusUnknown: 'Den Status „{text}“ kann ein Eintrag nicht haben; er wurde als bestätigt gelesen.',
    markedPrivate: 'In der Datei steht PRIVATE; deshalb zeigt er nur belegte Zeit.',
    markedConfidential: 'In der Datei steht CONFIDENTIAL; deshalb bleibt er drinnen.',
    fileInside: 'Eine Datei im Eintrag wurde weggelassen; nur Links bleiben.',
    choiceUnknown: '{field} „{text}“ ist nicht bekannt; es wurde als {other} gelesen.',

    cancelsEntry: 'Er sagt einen Eintrag der Datei ab; dieser wurde als abgesagt gelesen.',
    cancelsDate: 'Er sagt einen Termin eines Eintrags der Datei ab; dieser wurde als abgesagt gelesen.',
    takesDateBack: 'Er sagt einen Termin ab (METHOD:CANCEL).',
    takesEntryBack: 'Er sagt einen Eintrag ab (METHOD:CANCEL).',

    line: 'Zeile {line}',
    lineSays: 'Zeile {line}: {reason}',
    nothingToCancel: 'Zeile {line}: Sie sagt etwas ab (METHOD:CANCEL). Hier gibt es keinen solchen Eintrag.',
    noDateToCancel:
      'Zeile {line}: Sie sagt etwas ab (METHOD:CANCEL). Der Eintrag hier hat keinen solchen Termin.',
    dateCancelled: 'Die Datei sagt diesen Termin ab.',
    entryCancelled: 'Die Datei sagt diesen Eintrag ab; er bleibt, als abgesagt.',
    olderVersion: 'Die Datei hat Fassung {sent}; Fassung {stored} ist schon hier.',
    changedHere: 'Die Datei sagt dasselbe wie beim letzten Mal; hier wurde der Eintrag seitdem geändert.',
    changedBoth: 'Er wurde seit dem letzten Import hier und in der Datei geändert.',
    writtenHere: 'Er wurde hier geschrieben oder geändert, und die Datei sagt etwas anderes.',
    dateOfSeries: 'Ein Termin einer Serie, die es hier gibt.',
  },
} as const;

/** Returns what the report and the preview of an imported file say, in a language. */
export const fileTexts = textsByLanguage(FILE_TEXTS);
