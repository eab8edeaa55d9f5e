/** The nonce for styles that come with code: the page's policy allows no others. */
export const styleNonce = document.querySelector<HTMLMetaElement>('meta[name="style-nonce"]')?.content ?? "";
