import { NOTICE_WAYS, plainPage, readingOf, speechOf, type NoticeWay, type Speech } from '@zonal/core/forms';
import type { DigestReading } from '@zonal/core/post';
import { nextMorning } from '@zonal/core/reach';
import { zoneNamed } from '@zonal/core/zones';
import { isEmail } from 'class-validator';
import { Router, urlencoded, type ErrorRequestHandler, type Request, type Response } from 'express';
import { Op } from 'sequelize';
import { WindowRow } from '../db/models';
import { mailPrintOf, seal, unsealed } from '../db/sealed';
import { NoticeRow } from '../db/tellingModels';
import { mailAskedLimit } from '../http/limits';
import { log } from '../log';
import { acceptedBy, isReadable, pageHeaders, textIn } from '../outside/reader';
import { CONFIRM_FOR, noticeAddress, noticeOfPass, type NoticePass, type Noticing } from './notices';

type Page = 'Look' | 'Begun' | 'Stopped' | 'Ended' | 'NoMail' | 'Bad' | 'Many';

const STATUS: Readonly<Record<Page, number>> = {
  Look: 200,
  Begun: 200,
  Stopped: 200,
  Ended: 410,
  NoMail: 503,
  Bad: 422,
  Many: 429,
};

/** Returns the routes by which readers leave a mail address, confirm it, and stop: each says in their language what came of it. */
export function noticePages(noticing: Noticing, mayMail: () => Promise<boolean>): Router {
  const { sequelize, outbox, publicUrl } = noticing;
  const router = Router();
  router.use('/notices', pageHeaders);
  router.use('/notices', (req, res, next) => {
    if (isReadable(req.path)) next();
    else tell(res, speechTo(req, {}), 'Ended');
  });
  router.use('/notices', urlencoded({ extended: false, limit: '20kb' }));

  const many = (req: Request, res: Response) => tell(res, speechTo(req, {}), 'Many');
  router.post('/notices', ...mailAskedLimit('mail', many), async (req, res) => {
    const said = saidIn(req);
    const speech = speechTo(req, said.reading);
    const shown = await noticing.shownAt(said.at);
    // That page says why there is nothing.
    if (!shown) return res.redirect(303, `/see/${encodeURIComponent(said.at)}`);
    if (!isEmail(said.mail) || said.mail.length > MOST_LETTERS) return tell(res, speech, 'Bad');
    if (!(await mayMail())) return tell(res, speech, 'NoMail');
    const window = await WindowRow.findByPk(shown.windowId);
    if (!window) return res.redirect(303, `/see/${encodeURIComponent(said.at)}`);
    const keyId = shown.keyId === shown.windowId ? null : shown.keyId;
    const place = { windowId: shown.windowId, keyId, mailPrint: mailPrintOf(said.mail) };
    const now = new Date();
    const row = NoticeRow.build({
      ...place,
      token: seal(said.at),
      mail: seal(said.mail),
      way: said.way,
      reading: said.reading,
      zone: said.reading.tz || window.settings.hostZone,
      leftAt: now,
      nextAt: now,
    });
    const href = noticeAddress(publicUrl, row, 'confirm');
    const told = await noticing.told(said.at, null, { as: 'confirm', reading: said.reading, href });
    const letter = told?.letter;
    if (!letter) return tell(res, speech, 'NoMail');
    const { mailPrint } = place;
    await sequelize.transaction(async (transaction) => {
      // One after the other for each address: of many at once none goes uncounted.
      const replacements = { mailPrint };
      await sequelize.query('SELECT pg_advisory_xact_lock(hashtext(:mailPrint))', {
        transaction,
        replacements,
      });
      // Nobody learns whether an address is known already, nor how often it was asked for.
      const written = await outbox.put(said.mail, 'notice-confirm', letter, transaction, { toReader: true });
      if (written) await row.save({ transaction });
    });
    return tell(res, speech, 'Look');
  });

  /** A page with one button: what only looks at addresses, as mail programs do, changes nothing. */
  const ask = (what: NoticePass) => (req: Request, res: Response) => {
    const speech = speechTo(req, {});
    if (!noticeOfPass(String(req.params['pass']), what)) return tell(res, speech, 'Ended');
    const [title, say, label] =
      what === 'stop'
        ? ([
            speech.say('noticesStopTitle'),
            speech.say('noticesStopSay'),
            speech.say('noticesStopDo'),
          ] as const)
        : ([speech.say('notices'), speech.say('noticesConfirmAsk'), speech.say('noticesConfirmDo')] as const);
    // One-click programs send to the same address (RFC 8058 section 3.1).
    return send(res, 200, plainPage(title, say, speech.locale, { action: req.originalUrl, label }));
  };

  router.get('/notices/confirm/:pass', ask('confirm'));
  router.post('/notices/confirm/:pass', async (req, res) => {
    const id = noticeOfPass(String(req.params['pass']), 'confirm');
    const row = id && (await NoticeRow.findByPk(id));
    const speech = speechTo(req, row ? row.reading : {});
    if (!row) return tell(res, speech, 'Ended');
    if (row.confirmedAt) return tell(res, speech, 'Begun');
    if (Date.now() > row.leftAt.getTime() + CONFIRM_FOR) return tell(res, speech, 'Ended');
    const shown = await noticing.shownAt(unsealed(row.token));
    if (!shown) return res.redirect(303, `/see/${encodeURIComponent(unsealed(row.token))}`);
    const now = new Date();
    await sequelize.transaction(async (transaction) => {
      const { windowId, keyId, mailPrint, way, zone } = row;
      // The newest of what somebody said for one place counts.
      const others = { windowId, keyId, mailPrint, id: { [Op.ne]: row.id } };
      await NoticeRow.destroy({ where: others, transaction });
      // What there is now is seen there: only what changes from now on is told.
      await row.update(
        {
          confirmedAt: now,
          viewId: shown.viewId,
          told: shown.number,
          toldAt: now,
          nextAt: way === 'daily' ? new Date(nextMorning(zone, now.getTime())) : now,
        },
        { transaction },
      );
    });
    return tell(res, speech, 'Begun');
  });

  router.get('/notices/stop/:pass', ask('stop'));
  router.post('/notices/stop/:pass', async (req, res) => {
    const id = noticeOfPass(String(req.params['pass']), 'stop');
    const row = id && (await NoticeRow.findByPk(id));
    const speech = speechTo(req, row ? row.reading : {});
    if (!id) return tell(res, speech, 'Ended');
    // From here on no mail leaves: each is looked up before it does.
    await NoticeRow.destroy({ where: { id } });
    return tell(res, speech, 'Stopped');
  });

  router.use('/notices', (req, res) => tell(res, speechTo(req, {}), 'Ended'));
  const trouble: ErrorRequestHandler = (error: { status?: number }, req, res, _next) => {
    // A body that cannot be read is the reader's.
    if ((error.status ?? 500) < 500) return tell(res, speechTo(req, {}), 'Bad');
    log.warn({ err: error as unknown }, 'a change notice could not be seen to');
    tell(res, speechTo(req, {}), 'NoMail');
  };
  router.use('/notices', trouble);
  return router;
}

const MOST_LETTERS = 200;

interface Said {
  readonly at: string;
  readonly mail: string;
  readonly way: NoticeWay;
  readonly reading: DigestReading;
}

/** What a form said; what is not understood counts as not said. */
function saidIn(req: Request): Said {
  const body = (req.body ?? {}) as Readonly<Record<string, unknown>>;
  const text = (name: string) => (typeof body[name] === 'string' ? body[name].trim().slice(0, 300) : '');
  const tz = zoneNamed(text('tz'));
  const [lang, clock] = [text('lang').slice(0, 35), text('clock').slice(0, 4)];
  return {
    at: text('at'),
    mail: text('mail'),
    way: NOTICE_WAYS.find((way) => way === text('way')) ?? 'at-once',
    reading: { ...(tz ? { tz } : {}), ...(lang ? { lang } : {}), ...(clock ? { clock } : {}) },
  };
}

function speechTo(req: Request, { lang, clock }: DigestReading): Speech {
  return speechOf(readingOf({ lang: lang ?? textIn(req, 'lang'), clock, accepted: acceptedBy(req) }));
}

function tell(res: Response, speech: Speech, page: Page): void {
  const [title, say] = [speech.say(`notices${page}Title`), speech.say(`notices${page}Say`)];
  send(res, STATUS[page], plainPage(title, say, speech.locale));
}

function send(res: Response, status: number, page: string): void {
  res.status(status).set({
    'Cache-Control': 'no-store',
    'X-Robots-Tag': 'noindex, nofollow',
    'Referrer-Policy': 'no-referrer',
  });
  res.type('html').send(page);
}
