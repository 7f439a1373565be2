// Gives each frame that holds a window of this site the height of its content. Frames of others stay as they are.
const own = new URL(document.currentScript.src).origin;
addEventListener('message', ({ origin, source, data }) => {
  if (origin !== own || !data || data.zonalWindow !== 'size') return;
  for (const frame of document.querySelectorAll('iframe'))
    if (frame.contentWindow === source && Number.isFinite(data.height)) frame.height = data.height;
});
// One that was there before this said its size to nobody.
for (const frame of document.querySelectorAll('iframe'))
  if (frame.src.startsWith(own + '/')) frame.contentWindow.postMessage({ zonalWindow: 'tell' }, own);
