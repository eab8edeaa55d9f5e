import { createCipheriv, createDecipheriv, createHmac, randomBytes } from "node:crypto";
import { existsSync, readFileSync, writeFileSync } from "node:fs";

const LENGTH = 32;
const NONCE = 12;
const TAG = 16;

/**
 * The key of a house. It is in a file beside the database, so that a copy of the database alone opens no link and gives
 * no second factor.
 */
export class HouseKey {
  constructor(private readonly key: Buffer) {}

  /** Reads the key from a file, which is made where there is none and may be read by its owner alone. */
  static at(path: string): HouseKey {
    if (!existsSync(path)) writeFileSync(path, randomBytes(LENGTH), { mode: 0o600 });
    return new HouseKey(readFileSync(path));
  }

  /** Returns a key that lasts as long as this process. */
  static random(): HouseKey {
    return new HouseKey(randomBytes(LENGTH));
  }

  /** Returns a secret of 43 characters that follows from a text, and that nobody can guess without the key. */
  token(text: string): string {
    return createHmac("sha256", this.key).update(text).digest("base64url");
  }

  /** Encrypts a text (AES-256-GCM). */
  encrypt(text: string): string {
    const nonce = randomBytes(NONCE);
    const cipher = createCipheriv("aes-256-gcm", this.key, nonce);
    const body = Buffer.concat([cipher.update(text, "utf8"), cipher.final()]);
    return Buffer.concat([nonce, cipher.getAuthTag(), body]).toString("base64url");
  }

  /** Returns the text that was encrypted; undefined where another key encrypted it. */
  decrypt(encrypted: string): string | undefined {
    const bytes = Buffer.from(encrypted, "base64url");
    const decipher = createDecipheriv("aes-256-gcm", this.key, bytes.subarray(0, NONCE));
    decipher.setAuthTag(bytes.subarray(NONCE, NONCE + TAG));
    try {
      return decipher.update(bytes.subarray(NONCE + TAG), undefined, "utf8") + decipher.final("utf8");
    } catch {
      return undefined;
    }
  }
}
