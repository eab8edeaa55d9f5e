import { argon2id } from "@noble/hashes/argon2.js";
import { hash } from "@node-rs/argon2";
import { bytesToHex, hexToBytes } from "@noble/hashes/utils.js";
import { ARGON2, codeAt, hashPassword, HouseKey, isPassword, letterFile, newSecret, stepOfCode } from ".";
import { passwordWeakness } from "../api";

describe("passwords", () => {
  it("the library that checks our hashes gives the tag of RFC 9106, 5.3 (Argon2id)", () => {
    const fill = (byte: number, length: number) => new Uint8Array(length).fill(byte);
    const tag = argon2id(fill(1, 32), fill(2, 16), {
      t: 3,
      m: 32,
      p: 4,
      dkLen: 32,
      key: fill(3, 8),
      personalization: fill(4, 12),
    });
    expect(bytesToHex(tag)).toBe("0d640df58d78766c08c037a34a8b53c9d01ef0452d75b65eb52520e96b01e659");
  });

  it("are hashed with the second recommended parameters of RFC 9106, section 4", async () => {
    const [, kind, version, parameters, salt, tag] = (await hashPassword("long enough to be one")).split("$");
    expect([kind, version, parameters]).toEqual(["argon2id", "v=19", "m=65536,t=3,p=4"]);
    expect(Buffer.from(salt ?? "", "base64").length).toBe(16);
    expect(Buffer.from(tag ?? "", "base64").length).toBe(32);
  });

  it("have the hash that another implementation computes", async () => {
    // With a megabyte: the other implementation is in JavaScript and takes a minute for 64.
    const stored = await hash("sand 🏖 between toes", { ...ARGON2, memoryCost: 1024 });
    const [, , , , salt = "", tag = ""] = stored.split("$");
    const computed = argon2id(new TextEncoder().encode("sand 🏖 between toes"), Buffer.from(salt, "base64"), {
      t: ARGON2.timeCost,
      m: 1024,
      p: ARGON2.parallelism,
      dkLen: ARGON2.outputLen,
    });
    expect(bytesToHex(computed)).toBe(bytesToHex(hexToBytes(Buffer.from(tag, "base64").toString("hex"))));
  });

  it("are the same whichever way an accent was typed, and differ in every other character", async () => {
    const stored = await hashPassword("d\u00fcnen am morgen");
    expect(await isPassword("du\u0308nen am morgen", stored)).toBe(true);
    expect(await isPassword("dunen am morgen", stored)).toBe(false);
    expect(await isPassword("anything at all", null)).toBe(false);
  });

  it.each([
    ["ASVS 2.1.1: shorter than 12 characters", "tide tables", false],
    ["ASVS 2.1.1: of 12 characters", "tide 7 tabkl", true],
    ["ASVS 2.1.2: of 128 characters", "marram, lyme and sea rocket hold the sand ".repeat(4).slice(0, 128), true],
    ["ASVS 2.1.2: of 129 characters", "marram, lyme and sea rocket hold the sand ".repeat(4).slice(0, 129), false],
    ["ASVS 2.1.4: of emoji and spaces", "🌊🦀 low water 🐚 at six", true],
    ["ASVS 2.1.7: one that everybody has", "qwertyuiop12", false],
    ["ASVS 2.1.7: one that repeats itself", "aaaaaaaaaaaaaaaa", false],
    ["ASVS 2.1.7: the name twice", "wardenwarden", false],
    ["ASVS 2.1.9: of small letters alone", "otters sleep while holding paws", true],
  ])("%s", async (_, password, taken) => {
    expect((await passwordWeakness(password, "warden")) === undefined).toBe(taken);
  });
});

describe("codes of the second factor", () => {
  // RFC 6238, appendix B: SHA-1, 8 digits; the secret is the ASCII text 12345678901234567890.
  const SECRET = "GEZDGNBVGY3TQOJQGEZDGNBVGY3TQOJQ";
  it.each([
    [59, "94287082"],
    [1111111109, "07081804"],
    [1111111111, "14050471"],
    [1234567890, "89005924"],
    [2000000000, "69279037"],
    [20000000000, "65353130"],
  ])("at %d seconds: %s (RFC 6238, appendix B)", (seconds, code) => {
    expect(codeAt(SECRET, seconds * 1000, 8)).toBe(code);
  });

  it("are taken one step early or late and not beyond, and none twice (RFC 6238, 5.2; ASVS 2.8.1)", () => {
    const at = 1_111_111_111_000;
    const secret = newSecret();
    const valid = (seconds: number, used: number | null = null) =>
      stepOfCode(secret, codeAt(secret, at + seconds * 1000), at, used);
    expect([valid(-30), valid(0), valid(30)].every((step) => step !== undefined)).toBe(true);
    expect([valid(-90), valid(90)]).toEqual([undefined, undefined]);
    const step = valid(0);
    expect(valid(0, step ?? null)).toBeUndefined();
    expect(valid(-30, step ?? null)).toBeUndefined();
    expect(stepOfCode(secret, "not a code", at, null)).toBeUndefined();
  });

  it("secrets have the 160 bits of RFC 4226, section 4", () => {
    expect(newSecret()).toMatch(/^[A-Z2-7]{32}$/);
    expect(newSecret()).not.toBe(newSecret());
  });
});

it("the key of a house gives the same token again, and no other key does", () => {
  const [one, other] = [HouseKey.random(), HouseKey.random()];
  expect(one.token("link a 0")).toBe(one.token("link a 0"));
  expect(one.token("link a 0")).toMatch(/^[\w-]{43}$/);
  expect(new Set([one.token("link a 0"), one.token("link a 1"), other.token("link a 0")]).size).toBe(3);
  const secret = one.encrypt("JBSWY3DP");
  expect(one.decrypt(secret)).toBe("JBSWY3DP");
  expect(other.decrypt(secret)).toBeUndefined();
  expect(secret).not.toContain("JBSWY3DP");
});

it("letters have the head of RFC 5322 and keep every character", () => {
  const letter = letterFile({ to: "Wärterin 🌊", subject: "Neues Passwort", text: "Grüße\n…" }, new Date(0));
  const [head = "", body = ""] = letter.split("\r\n\r\n");
  expect(head).toMatch(/^Date: Thu, 01 Jan 1970 00:00:00 \+0000\r\nFrom: .+\r\nTo: =\?utf-8\?B\?/);
  expect(Buffer.from(body.replaceAll("\r\n", ""), "base64").toString()).toBe("Grüße\n…");
  expect(letter.split("\r\n").every((line) => line.length <= 998)).toBe(true);
});
