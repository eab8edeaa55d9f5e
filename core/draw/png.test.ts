import { decode, encode } from "fast-png";
import { withEndOfPng } from "./png";

const whole = encode({ width: 3, height: 2, channels: 3, depth: 8, data: new Uint8Array(18).fill(120) });
/** The end chunk has 12 bytes (PNG specification, third edition, 11.2.5). */
const cut = whole.subarray(0, whole.length - 12);

describe("a PNG without its end", () => {
  it("gets the chunk that ends it, and is then what it was", () => {
    expect(withEndOfPng(cut)).toEqual(new Uint8Array(whole));
    expect(decode(withEndOfPng(cut)).data).toEqual(decode(whole).data);
  });

  it("is left as it is where more is missing", () => {
    const broken = whole.subarray(0, whole.length - 20);
    expect(withEndOfPng(broken)).toBe(broken);
  });

  it("is the only file that is changed", () => {
    expect(withEndOfPng(whole)).toBe(whole);
    const jpeg = Uint8Array.from([0xff, 0xd8, 0xff, 0xe0]);
    expect(withEndOfPng(jpeg)).toBe(jpeg);
  });
});
