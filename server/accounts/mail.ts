import { mkdirSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { nanoid } from "nanoid";

export interface Letter {
  /** The name of the person. */
  to: string;
  subject: string;
  text: string;
}

/** A way to send letters to people of the house. */
export interface Mail {
  send(letter: Letter): void;
}

const encoded = (text: string) => `=?utf-8?B?${Buffer.from(text).toString("base64")}?=`;

/** Returns a letter in the form of RFC 5322. */
export const letterFile = ({ to, subject, text }: Letter, at: Date): string =>
  [
    `Date: ${at.toUTCString().replace("GMT", "+0000")}`,
    "From: Unitext <house@house.invalid>",
    `To: ${encoded(to)} <person@house.invalid>`,
    `Subject: ${encoded(subject)}`,
    "MIME-Version: 1.0",
    "Content-Type: text/plain; charset=utf-8",
    "Content-Transfer-Encoding: base64",
    "",
    ...(Buffer.from(text)
      .toString("base64")
      .match(/.{1,76}/g) ?? []),
    "",
  ].join("\r\n");

/** A stand-in for a mail service: letters are files of a folder, which whoever runs the house can read and pass on. */
export function mailFolder(folder: string): Mail {
  return {
    send(letter) {
      mkdirSync(folder, { recursive: true, mode: 0o700 });
      const at = new Date();
      const name = `${at.toISOString().replace(/[:.]/g, "-")}-${nanoid(6)}.eml`;
      writeFileSync(join(folder, name), letterFile(letter, at), { mode: 0o600 });
    },
  };
}
