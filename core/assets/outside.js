// Keeps how this reader reads this calendar, and offers the reader's own time zone. The page is whole without this.
const KEPT = ['tz', 'lang', 'clock', 'week', 'theme'];
const place = 'reading:' + location.pathname.split('/')[2];
const query = new URLSearchParams(location.search);

function kept() {
  try {
    return JSON.parse(localStorage.getItem(place)) || {};
  } catch {
    // What cannot be kept or read is as if nothing had been chosen.
    return {};
  }
}

function keep(chosen) {
  try {
    localStorage.setItem(place, JSON.stringify(chosen));
  } catch {
    // As above.
  }
}

function withZone(zone) {
  const own = new URLSearchParams(location.search);
  own.set('tz', zone);
  return location.pathname + '?' + own;
}

function offerZone() {
  const { ownTimes, zone } = document.body.dataset;
  const own = Intl.DateTimeFormat().resolvedOptions().timeZone;
  const line = document.querySelector('.zone p');
  if (!line || !own || own === zone) return;
  const link = document.createElement('a');
  link.href = withZone(own);
  link.textContent = ownTimes.replace('{zone}', own.replace(/_/g, ' '));
  line.append(' ', link);
}

/** Tells the page that holds an embed, and the one around that, how large it is: nothing else of it. */
function tellSize() {
  const { offsetHeight, scrollWidth, clientWidth } = document.documentElement;
  const cut = [...document.querySelectorAll('.hours li')].filter(
    (li) => li.scrollHeight > li.clientHeight + 2,
  );
  const said = {
    zonalWindow: 'size',
    height: offsetHeight,
    sideways: scrollWidth - clientWidth,
    cut: cut.length,
  };
  const told = { ...said, room: innerHeight };
  parent.postMessage(told, '*');
  if (top !== parent) top.postMessage(told, '*');
}

if (parent !== window && document.documentElement.className === 'embed') {
  new ResizeObserver(tellSize).observe(document.documentElement);
  addEventListener('resize', tellSize);
  addEventListener('message', ({ source, data }) => {
    if (source === parent && data && data.zonalWindow === 'tell') tellSize();
  });
}

/** Puts a button beside each address that is there to be copied; browsers offer no clipboard to pages without encryption. */
function offerCopying() {
  if (!navigator.clipboard) return;
  for (const address of document.querySelectorAll('code[data-copy]')) {
    const { copy, copied } = address.dataset;
    const button = document.createElement('button');
    button.textContent = copy;
    button.ariaLive = 'polite';
    button.addEventListener('click', async () => {
      await navigator.clipboard.writeText(address.textContent);
      button.textContent = copied;
    });
    address.after(' ', button);
  }
}

offerCopying();
const before = kept();
const missing = KEPT.filter((name) => !query.has(name) && before[name]);
if (missing.length) {
  for (const name of missing) query.set(name, before[name]);
  location.replace(location.pathname + '?' + query);
} else {
  const now = { ...before };
  for (const name of KEPT) if (query.has(name)) now[name] = query.get(name);
  if (JSON.stringify(now) !== JSON.stringify(before)) keep(now);
  offerZone();
}
