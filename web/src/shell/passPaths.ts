/** Paths of pages whose addresses work once. They open with and without a session. */
export const PASS_PATHS = ['/welcome', '/begin', '/new-password', '/confirm-address'] as const;
export type PassPath = (typeof PASS_PATHS)[number];

export function isPassPath(path: string): path is PassPath {
  return PASS_PATHS.some((one) => one === path);
}
