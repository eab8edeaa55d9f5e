declare module "fontkit" {
  /** The part of fontkit that tests compare with. */
  export interface Font {
    unitsPerEm: number;
    ascent: number;
    descent: number;
    layout(text: string): { advanceWidth: number };
  }
  export function create(bytes: Uint8Array): Font;
}
