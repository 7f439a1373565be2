/** What a server process is told by its environment. */
export interface Config {
  readonly databaseUrl: string;
  readonly host: string;
  readonly port: number;
  /** Origin that outward addresses start with, without a slash at its end. */
  readonly publicUrl: string;
  readonly sessionSecret: string;
  /** Folder of the built organiser's application, or empty to serve none. */
  readonly webFolder: string;
  /** Folder of the style sheet, script and typefaces of the outside pages. */
  readonly outsideFolder: string;
  /** Number of proxies in front whose word on the client's address counts. */
  readonly proxies: number;
  /** Accounts to tell at /api/demo; null outside demo mode. */
  readonly demoAccounts: readonly DemoAccount[] | null;
}

export interface DemoAccount {
  readonly name: string;
  readonly email: string;
  readonly password: string;
  readonly role: string;
}

/** Returns the configuration in the environment. Throws an Error that names what is missing. */
export function configFrom(env: Readonly<Record<string, string | undefined>>): Config {
  const need = (name: string) => {
    const value = env[name];
    if (!value) throw new Error(`The environment variable ${name} is missing. Set it and start again.`);
    return value;
  };
  const port = Number(env['PORT'] ?? 4310);
  return {
    databaseUrl: need('DATABASE_URL'),
    host: env['HOST'] ?? '127.0.0.1',
    port,
    publicUrl: (env['PUBLIC_URL'] ?? `http://127.0.0.1:${port}`).replace(/\/$/, ''),
    sessionSecret: need('SESSION_SECRET'),
    webFolder: env['WEB_FOLDER'] ?? '',
    outsideFolder: need('OUTSIDE_FOLDER'),
    proxies: Number(env['PROXIES'] ?? 0),
    demoAccounts: env['DEMO_ACCOUNTS'] ? (JSON.parse(env['DEMO_ACCOUNTS']) as DemoAccount[]) : null,
  };
}
