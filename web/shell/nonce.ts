/** What lets styles that come with code into the page, whose policy admits no others. */
export const styleNonce = document.querySelector<HTMLMetaElement>('meta[name="style-nonce"]')?.content ?? "";
