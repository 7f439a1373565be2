import { hash, verify } from '@node-rs/argon2';

/** Returns the argon2id hash of a password (the package's default is argon2id with OWASP's least settings). */
export function hashPassword(password: string): Promise<string> {
  return hash(password);
}

let dummy: Promise<string> | undefined;

/** Returns whether a password fits a hash; with no hash it takes as long and says no. */
export async function passwordFits(stored: string | undefined, password: string): Promise<boolean> {
  dummy ??= hashPassword('nobody has this password');
  const fits = await verify(stored ?? (await dummy), password);
  return stored !== undefined && fits;
}
