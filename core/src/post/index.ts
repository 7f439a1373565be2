export { digestLetter, noticeConfirmLetter, type DigestReading } from './digest';
export { headerText, letterHtml, letterText, type Letter, type LetterPart } from './letter';
export {
  LETTER_KINDS,
  addressKnownLetter,
  addressLetter,
  alertLetter,
  ceilingReplyLetter,
  ceilingRequestLetter,
  credentialsLetter,
  invitationLetter,
  passwordLetter,
  reachLetter,
  sightReplyLetter,
  sightRequestLetter,
  testLetter,
  type LetterKind,
} from './letters';
export { letterTexts } from './letterTexts';
export {
  MAIL_LIMITS,
  MAIL_LIMIT_PERIOD_MS,
  RECIPIENT_LIMITS,
  exceededMailLimit,
  type MailLimit,
  type SentMails,
} from './mailLimits';
export { MAIL_STATES, type MailState } from './mailState';
