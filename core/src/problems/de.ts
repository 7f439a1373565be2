import type { ProblemCode } from './table';

/** The sentence of each error in German, with the same blanks as the English one. */
export const PROBLEMS_DE: Readonly<Record<ProblemCode, string>> = {
  'not-signed-in': 'Sie sind nicht angemeldet. Melden Sie sich an und versuchen Sie es noch einmal.',
  'sign-in-failed':
    'E-Mail-Adresse und Passwort passen nicht zusammen. Prüfen Sie beide und versuchen Sie es noch einmal.',
  'csrf-missing': 'Diese Seite ist nicht mehr aktuell. Laden Sie sie neu und versuchen Sie es noch einmal.',
  'too-many-tries': 'Zu viele Versuche. Warten Sie {seconds} Sekunden und versuchen Sie es noch einmal.',
  'steward-only': 'Das kann nur die Verwaltung ändern. Fragen Sie die Verwaltung Ihrer Organisation.',
  'not-allowed':
    'Dafür fehlt Ihnen das Recht: {deed}. Es haben: {who}. Bitten Sie jemanden davon, es zu tun oder Ihnen das Recht zu geben.',
  'publisher-missing':
    'Ein Kalender braucht mindestens eine Person mit aktivem Konto, die ihn herausgibt. Tragen Sie erst eine andere ein.',
  'person-unknown':
    'Eine dieser Personen hat kein Konto mehr. Laden Sie die Seite neu und wählen Sie noch einmal.',
  'steward-missing':
    'Ein Haus braucht mindestens eine Person mit aktivem Konto in der Verwaltung. Nehmen Sie erst jemand anderen auf.',
  'publisher-resting':
    '{name} gibt als einzige Person heraus: {calendars}. Tragen Sie dort erst jemand anderen ein.',
  'password-weak': '{reason}',
  'password-wrong': 'Das ist nicht Ihr jetziges Passwort. Geben Sie es noch einmal ein.',
  'pass-unknown':
    'Unter dieser Adresse ist nichts. Kopieren Sie sie ganz aus der Mail, oder bitten Sie um eine neue.',
  'pass-used':
    'Diese Adresse gilt nur einmal und ist schon benutzt. Melden Sie sich an, oder bitten Sie um eine neue.',
  'pass-ended': 'Diese Adresse galt bis {ends}. Bitten Sie um eine neue.',
  'invitation-withdrawn':
    'Diese Einladung gilt nicht mehr: Sie wurde zurückgezogen oder geändert und neu gesendet, oder wer sie schickte, darf niemanden mehr einladen. Suchen Sie eine neuere Mail, oder bitten Sie um eine neue Einladung.',
  'author-not-allowed':
    'Wer das geplant hat, darf nicht mehr alle Kalender darin herausgeben, also wurde es nicht veröffentlicht. Wer das darf, kann es neu planen.',
  'asker-suspended':
    'Das Konto der bittenden Person ist gesperrt, also wurde nichts gewährt. Geben Sie das Konto erst frei, oder lehnen Sie ab.',
  'invitation-answered':
    'Diese Einladung wurde schon angenommen oder zurückgezogen. Laden Sie die Seite neu.',
  'invitation-pending':
    'Diese Personen sind schon eingeladen und haben noch nicht geantwortet: {emails}. Senden Sie stattdessen ihre Einladung noch einmal.',
  'too-many-invitations':
    '{most} Einladungen warten schon auf Antwort. Ziehen Sie einige zurück, die nicht gebraucht werden.',
  'address-known':
    'Diese Personen haben schon ein Konto: {emails}. Tragen Sie sie stattdessen bei den Personen eines Kalenders ein.',
  'calendar-gone':
    'Einen dieser Kalender gibt es nicht mehr. Laden Sie die Seite neu und wählen Sie noch einmal.',
  'too-many-wishes': '{most} Ihrer Anfragen warten schon auf Antwort. Ziehen Sie erst eine zurück.',
  'key-person':
    'Ein Schlüssel für Crew oder Haus gehört einer Person aus dem Haus, einer für Außenstehende nicht. Wählen Sie die Person, oder einen anderen Kreis.',
  'key-shows-nothing':
    '{name} darf von einem Kalender dieses Fensters nichts sehen, also zeigte ein eigener Schlüssel nichts. Tragen Sie die Person dort ein und legen Sie dann den Schlüssel an.',
  'mail-state': 'Diese Mail ist gesendet oder wird gerade gesendet. Laden Sie die Seite neu.',
  'push-address': 'An diese Adresse lässt sich nichts pushen: {reason}',
  'push-missing': 'Für diesen Schlüssel gibt es keinen Push. Geben Sie erst eine Adresse ein.',
  'mail-server-set':
    'Es ist ein Mailserver eingerichtet, also kann diese Person beim Anmelden ein neues Passwort anfordern. Es wurde keine Adresse angelegt.',
  'mail-server-missing': 'Es ist kein Mailserver eingerichtet. Richten Sie erst einen ein.',
  'sight-stopped':
    'Was Sie von diesem Kalender sehen dürfen, lässt sich im Moment nicht berechnen. Bitten Sie jemanden, der ihn herausgibt, nachzusehen.',
  'choices-missing': 'Die Eigenschaft „{name}“ hat keine Auswahl. Fügen Sie eine hinzu.',
  'not-found': 'Hier ist nichts. Vielleicht wurde es gelöscht; gehen Sie zurück und laden Sie neu.',
  'input-invalid': 'Prüfen Sie diese Felder: {fields}.',
  'body-unreadable': 'Die Anfrage ließ sich nicht als {expected} lesen. Senden Sie sie in dieser Form.',
  'request-malformed':
    'Die Anfrage lässt sich nicht lesen: {reason}. Prüfen Sie Adresse, Kopf und Inhalt, und senden Sie sie noch einmal.',
  'encoding-unsupported':
    'Der Inhalt ist in einer Kodierung, die nicht unterstützt wird ({reason}). Senden Sie ihn als JSON in UTF-8.',
  'value-out-of-range':
    'Ein Wert ist zu groß, zu klein oder von falscher Art. Prüfen Sie Zahlen und Texte und senden Sie noch einmal.',
  'account-resting':
    'Dieses Konto ist gesperrt. Bitten Sie die Verwaltung Ihrer Organisation, es wieder freizugeben.',
  'too-many-changes':
    '{most} Ihrer Änderungen warten schon aufs Speichern, also wurde diese nicht gespeichert. Speichern Sie in einer Minute noch einmal.',
  'too-many-mails':
    'Sie haben in einer Stunde {most} Mails ausgelöst, also wurde diese nicht gesendet. Versuchen Sie es in einer Stunde wieder.',
  'too-many-mails-of-house':
    'Ihre Organisation hat in einer Stunde {most} Mails gesendet, also wurde diese nicht gesendet. Versuchen Sie es in einer Stunde wieder.',
  'too-many-mails-to-one':
    'Diese Adresse hat in einer Stunde {most} solche Mails bekommen, also wurde diese nicht gesendet. Versuchen Sie es in einer Stunde wieder.',
  'too-many-streams':
    'Sie haben schon {most} Seiten dieser Anwendung offen. Schließen Sie einige und laden Sie diese neu.',
  'too-large':
    'Das ist größer als {limit}. Teilen Sie es in kleinere Dateien und importieren Sie sie nacheinander.',
  'version-conflict':
    'Jemand anderes hat das inzwischen geändert. Vergleichen Sie beide Fassungen und wählen Sie, was gelten soll.',
  'edit-overtaken':
    'Das lässt sich nicht rückgängig machen oder wiederholen: {label}. {title} wurde seither geändert. Es wurde nichts geändert; öffnen und berichtigen Sie es von Hand.',
  'edit-closed':
    'Diese Änderung ist schon ausgeführt, rückgängig gemacht oder verworfen. Laden Sie die Seite neu.',
  'uid-taken':
    'Im Kalender gibt es schon einen Eintrag mit derselben Kennung. Kopieren Sie den Eintrag, statt ihn zu verschieben.',
  'zone-guided':
    'Dieser Kalender hat Einträge. Benutzen Sie „Zeitzone ändern“: Dort sehen Sie, was sich verschöbe.',
  'calendar-in-use': 'Diesen Kalender zeigen: {windows}. Nehmen Sie ihn erst aus diesen Fenstern heraus.',
  'name-taken': 'Der Name „{name}“ ist vergeben. Wählen Sie einen anderen.',
  'zone-unknown': '„{zone}“ ist keine Zeitzone der IANA-Datenbank. Wählen Sie eine aus der Liste.',
  'date-invalid': '„{text}“ ist kein Datum. Schreiben Sie es wie 2026-05-31.',
  'time-invalid': '„{text}“ ist kein Datum mit Uhrzeit. Schreiben Sie es wie 2026-05-31T14:30:00.',
  'end-before-start': 'Das Ende ist vor dem Anfang. Verschieben Sie eines von beiden.',
  'year-out-of-reach': '„{text}“ liegt außerhalb der Jahre {first} bis {last}. Wählen Sie ein anderes Jahr.',
  'span-too-long':
    '{which} kann höchstens {days} Tage dauern. Lassen Sie früher enden, oder schreiben Sie mehrere Einträge.',
  'image-unreadable':
    'Diese Datei ist kein Bild, das sich zeigen lässt. Wählen Sie eine Datei in JPEG, PNG, WebP oder GIF.',
  'image-text-missing':
    'Beschreiben Sie, was das Bild zeigt. Wer es nicht sehen kann, bekommt stattdessen diesen Text.',
  'image-unknown':
    'Das Bild dieses Eintrags ist nicht mehr gespeichert. Wählen Sie die Datei noch einmal, oder entfernen Sie das Bild.',
  'too-many-images': 'Sie haben an einem Tag {most} Bilder hochgeladen. Machen Sie morgen weiter.',
  'entry-too-large':
    'Ein Eintrag kann höchstens {limit} {what} haben; dieser hat {count}. Teilen Sie ihn in mehrere.',
  'window-uncomputable':
    'Etwas darin lässt sich nicht berechnen. Bitten Sie, wer den Server betreibt, im Protokoll nachzusehen.',
  'entry-uncomputable':
    'Der Eintrag „{title}“ lässt sich nicht berechnen: {reason} Öffnen und berichtigen Sie ihn, oder lassen Sie ihn drinnen.',
  'start-end-differ':
    'Anfang und Ende müssen von einer Art sein: beide Tage, beide ohne Zone, oder beide in einer Zeitzone.',
  'rule-invalid': 'Die Wiederholungsregel lässt sich nicht lesen: {reason}.',
  'too-much-work':
    'Die Berechnung braucht mehr Schritte als erlaubt ({what}). Vereinfachen Sie es, oder teilen Sie es auf.',
  'milestone-recurs':
    'Ein Meilenstein findet einmal statt. Entfernen Sie die Wiederholung, oder machen Sie ein Ereignis oder eine Frist daraus.',
  'property-invalid': '„{value}“ passt nicht zu „{name}“: Nötig ist {expected}.',
  'range-invalid': 'Der Zeitraum endet, bevor er beginnt. Vertauschen Sie seine Enden.',
  'range-too-long': 'Der Zeitraum ist länger als {limit}. Verlangen Sie einen kürzeren.',
  'file-empty': 'Die Datei ist leer. Geben Sie sie noch einmal aus und importieren Sie sie neu.',
  'file-not-calendar':
    'Zeile {line}: Das ist keine iCalendar-Datei (sie beginnt nicht mit BEGIN:VCALENDAR). Wählen Sie eine .ics-Datei.',
  'file-malformed':
    'Zeile {line}: {reason}. Es wurde nichts importiert; berichtigen Sie die Zeile, oder geben Sie die Datei neu aus.',
  'file-version-old':
    'Zeile {line}: Das ist eine Datei in vCalendar {version}, einem älteren Format als iCalendar, das nicht unterstützt wird. Geben Sie sie als iCalendar (.ics) aus und importieren Sie diese.',
  'zone-undefined': '{reason}, also wurde sein Inhalt ausgelassen. Alles andere wurde gelesen.',
  'component-unreadable': 'Zeile {line}: {reason}. Das wurde ausgelassen; alles andere wurde gelesen.',
  'table-unreadable':
    'Zeile {line}: {reason}. Es wurde nichts importiert; berichtigen Sie die Zeile, oder geben Sie die Tabelle neu aus.',
  'table-row': 'Diese Zeile wurde ausgelassen: {reason}.',
  'columns-missing': 'Wählen Sie die Spalte für: {columns}. Machen Sie dann weiter.',
  'filter-invalid':
    'Der Filter lässt sich nicht lesen: {reason}. Berichtigen oder entfernen Sie diese Bedingung.',
  'filter-contradictory':
    'Der Filter widerspricht sich, also kann nie etwas passen. Entfernen Sie eine Bedingung, oder verknüpfen Sie mit „oder“.',
  'pattern-invalid': 'Das Muster der Titel lässt sich nicht lesen: {reason}.',
  'horizon-invalid': 'Der Zeitraum endet ({to}), bevor er beginnt ({from}). Vertauschen Sie die Tage.',
  'cut-empty':
    'Zugeschnittenes Glas zeigt mindestens ein Feld. Wählen Sie eines, oder nehmen Sie mattes oder geschlossenes Glas.',
  'confirm-needed': 'Das hat draußen eine große Wirkung, also müssen Sie es erst bestätigen: {effects}.',
  'draft-missing': 'Von diesem Fenster gibt es keinen Entwurf. Ändern Sie erst etwas.',
  'expiry-past':
    'Ein Schlüssel kann nicht in der Vergangenheit ablaufen. Wählen Sie einen späteren Tag; um alle zu beenden, schließen Sie das Fenster.',
  'key-ended':
    'Dieser Schlüssel ist abgelaufen oder zurückgezogen, also hat er keine Adresse, die sich ersetzen ließe. Setzen Sie erst ein späteres Ende, oder stellen Sie ihn wieder her.',
  'key-gone':
    'Dieser Schlüssel wurde vor mehr als einem Tag zurückgezogen und lässt sich nicht wiederherstellen. Legen Sie für denselben Ort einen neuen an.',
  'too-many-keys':
    'Ein Fenster hat höchstens {most} Schlüssel. Ziehen Sie unbenutzte zurück, oder öffnen Sie ein zweites Fenster.',
  'link-unknown':
    'Eine Adresse auf diesem Blatt gibt es nicht mehr. Laden Sie die Seite neu und wählen Sie noch einmal.',
  'sheet-gone':
    'Dieses Linkblatt wurde zurückgezogen. Stellen Sie es innerhalb eines Tages wieder her, oder legen Sie ein neues an.',
  'too-many-sheets': 'Sie haben schon {most} Linkblätter. Ziehen Sie unbenutzte zurück.',
  'too-many-sheets-of-house': 'Ihre Organisation hat schon {most} Linkblätter. Ziehen Sie unbenutzte zurück.',
  'too-many-calendars':
    'Sie haben schon {most} Kalender angelegt. Löschen Sie unbenutzte, oder bitten Sie jemand anderen, diesen anzulegen.',
  'too-many-windows': 'Sie haben schon {most} Fenster geöffnet. Bitten Sie jemand anderen, dieses zu öffnen.',
  'too-many-staged-edits':
    '{most} Ihrer Änderungen warten auf ihre Ausführung. Führen Sie erst einige aus, oder verwerfen Sie sie; jede verfällt nach einem Tag.',
  'too-many-ceiling-requests':
    '{most} Ihrer Bitten um eine höhere Obergrenze warten schon auf Antwort. Warten Sie, bis einige beantwortet sind.',
  'schedule-past': 'Diese Zeit ist vorbei. Wählen Sie eine spätere.',
  'label-in-use':
    'Das Etikett „{label}“ ist an {count} Einträgen. Entfernen Sie es dort erst, und löschen Sie es dann.',
  'lock-down-over':
    'Die Verriegelung ist älter als ein Tag und lässt sich nicht mehr mit einem Schritt aufheben. Die Verwaltung setzt unter Haus die Obergrenzen neu.',
  'request-answered': 'Diese Anfrage ist schon beantwortet. Laden Sie die Seite neu.',
  'revision-missing': 'Im Logbuch gibt es keinen Stand mit dieser Nummer. Wählen Sie einen aus der Liste.',
  'window-open': 'Dieses Fenster ist offen. Schließen Sie es, bevor Sie es löschen.',
  'window-closed': 'Dieses Fenster ist geschlossen. Öffnen Sie es wieder, bevor Sie es ändern.',
  'source-missing': 'Ein Fenster braucht mindestens einen Kalender. Wählen Sie einen.',
  'too-many-sources':
    'Sie haben {count} Kalender gewählt; ein Fenster kann höchstens {most} haben. Verteilen Sie sie auf mehrere Fenster.',
  'closing-past':
    'Dieser Zeitpunkt ist vorbei. Wählen Sie einen späteren, oder schließen Sie das Fenster jetzt.',
  'look-invalid':
    'Diese Angaben für die Einbettung gelten nicht: {names}. Wählen Sie einen der angebotenen Werte.',
  'host-invalid':
    '„{host}“ ist nicht der Name einer Website. Schreiben Sie ihn wie stadt.example oder https://stadt.example.',
  'storage-away':
    'Die Datenbank ist nicht erreichbar, also wurde nichts gespeichert. Lassen Sie diese Seite offen und versuchen Sie es in einer Minute wieder.',
  'desk-away':
    'Dieser Teil des Servers startet gerade neu, also ist nichts geschehen. Versuchen Sie es in ein paar Sekunden wieder.',
  'outside-stopped':
    'Das ist gespeichert, aber was Leser von {windows} sehen sollen, lässt sich nicht berechnen. Bis das behoben ist, bekommen sie nichts. {reason}',
  'outside-unsure':
    'Das ist gespeichert, wirkt aber draußen vielleicht noch nicht. Bis dahin wird draußen nichts gezeigt. Laden Sie in einer Minute neu.',
  'change-repeated':
    'Das wurde zweimal gesendet, und das erste wird noch bearbeitet. Laden Sie die Seite neu, um das Ergebnis zu sehen.',
  'change-id-taken':
    'Die Kennung dieser Änderung gehört schon zu einer anderen. Senden Sie sie mit einer neuen.',
  'outcome-unknown':
    'Der Server wurde beim Speichern unterbrochen, darum ist unbekannt, ob gespeichert wurde. Laden Sie die Seite neu und sehen Sie nach, bevor Sie es noch einmal senden.',
  unexpected:
    'Bei uns ist etwas schiefgegangen, und es wurde nichts gespeichert. Versuchen Sie es noch einmal. Wenn es so bleibt, nennen Sie denen, die diesen Server betreiben, die Nummer {id}.',
};
