declare module "fontkit" {
  /** As much of fontkit as the tests compare with. */
  export interface Font {
    unitsPerEm: number;
    ascent: number;
    descent: number;
    layout(text: string): { advanceWidth: number };
  }
  export function create(bytes: Uint8Array): Font;
}
