import { FORMS, FORM_NAMES, type FormName } from '@zonal/core/forms';

/** Returns all outward addresses of a key: pages, and each form that programs read. */
export function addressesOf(
  publicUrl: string,
  token: string,
): Record<'see' | 'embed' | 'dav' | FormName, string> {
  const forms = FORM_NAMES.map((name) => {
    const { folder, ending } = FORMS[name];
    return [name, `${publicUrl}/${folder}/${token}.${ending}`] as const;
  });
  return {
    see: `${publicUrl}/see/${token}`,
    embed: `${publicUrl}/embed/${token}`,
    dav: `${publicUrl}/dav/${token}/`,
    ...(Object.fromEntries(forms) as Record<FormName, string>),
  };
}
