import { firstInsideLanguage, type InsideLanguage } from '@zonal/core/texts';
import type { Request } from 'express';

/** Returns the language in which a request wants its answer (RFC 9110 section 12.5.4): English unless it asks for another one. */
export const requestLanguage = (req: Request): InsideLanguage =>
  firstInsideLanguage(req.acceptsLanguages()) ?? 'en';
