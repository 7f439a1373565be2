import argon2 from 'argon2';

/** Returns the argon2id hash of a password. */
export function hashPassword(password: string): Promise<string> {
  return argon2.hash(password, { type: argon2.argon2id });
}

let dummy: Promise<string> | undefined;

/** Returns whether a password fits a hash; with no hash it takes as long and says no. */
export async function passwordFits(hash: string | undefined, password: string): Promise<boolean> {
  dummy ??= hashPassword('nobody has this password');
  const fits = await argon2.verify(hash ?? (await dummy), password);
  return hash !== undefined && fits;
}
