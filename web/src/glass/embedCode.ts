const ESCAPES: Record<string, string> = { '&': '&amp;', '"': '&quot;', '<': '&lt;', '>': '&gt;' };

/** Returns the HTML that puts a window into another site. It takes the width that it is given. */
export function embedCode(address: string, title: string): string {
  const safe = (text: string) => text.replace(/[&"<>]/g, (c) => ESCAPES[c]!);
  return `<iframe src="${safe(address)}" title="${safe(title)}" style="width:100%;height:36rem;border:0" loading="lazy"></iframe>`;
}
