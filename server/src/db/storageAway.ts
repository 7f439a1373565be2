/**
 * Codes of the system and of PostgreSQL (its documentation, appendix A) that say that the database is unavailable: it cannot
 * be reached, is full or read-only, shuts down, or something held it up for too long.
 */
const AWAY = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'EPIPE',
  'ENOENT',
  'ETIMEDOUT',
  'EHOSTUNREACH',
  '08000',
  '08001',
  '08003',
  '08006',
  '25006',
  '25P03',
  '53100',
  '53200',
  '53300',
  '55P03',
  '57014',
  '57P01',
  '57P02',
  '57P03',
  '57P05',
]);
/** Names of Sequelize's errors: threads that use no database do without the library. */
const AWAY_NAMES = /^Sequelize(AccessDenied|Connection\w*|HostNot\w+|InvalidConnection|Timeout)Error$/;
const AWAY_WORDS = /Connection terminated|timeout exceeded when trying to connect|Query read timeout/;

/** Returns whether an error means that the database cannot be reached or does not accept anything now. */
export function isStorageAway(error: unknown): boolean {
  const { name, code, original } = (error ?? {}) as {
    name?: string;
    code?: string;
    original?: { code?: string };
  };
  return (
    AWAY_NAMES.test(name ?? '') ||
    AWAY.has(code ?? '') ||
    AWAY.has(original?.code ?? '') ||
    AWAY_WORDS.test(String(error))
  );
}
