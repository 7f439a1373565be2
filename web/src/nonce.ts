// styled-components reads this global to mark the style element that it makes; the policy lets marked ones through.
const nonce = document.querySelector<HTMLMetaElement>('meta[name=csp-nonce]')?.content;
(globalThis as { __webpack_nonce__?: string | undefined }).__webpack_nonce__ = nonce;
