import { must } from "@unitext/core/model";
import type { Left } from "@unitext/core/tally";
import { strFromU8, strToU8 } from "fflate";
import type { z } from "zod";
import { isMacro } from "./macros";

/** Link schemes that files may use: web pages and mail. */
const SCHEMES = new Set(["http", "https", "mailto"]);
/** The target of links that were removed: a reserved name (RFC 2606, 2). */
const NOWHERE = "https://left-out.invalid/";

/**
 * Whether a target is a web page, a mail address or inside the file: not a program, a script, a local file or a network
 * share.
 */
export function isSafeTarget(target: string): boolean {
  // Programs ignore white space and control characters inside a scheme.
  const plain = target.replace(/[\s\p{Cc}]/gu, "");
  if (/^(\\\\|\/\/|\/?\\)/.test(plain)) return false;
  const scheme = /^([a-z][a-z0-9+.-]*):/i.exec(plain)?.[1]?.toLowerCase();
  return scheme === undefined || SCHEMES.has(scheme);
}

const ENTITIES: Record<string, string> = { amp: "&", lt: "<", gt: ">", quot: '"', apos: "'" };
const unescaped = (text: string) =>
  text.replace(/&(?:#x([\da-f]+)|#(\d+)|(\w+));/gi, (whole, hex?: string, decimal?: string, name?: string) =>
    hex || decimal
      ? String.fromCodePoint(Math.min(0x10ffff, hex ? Number.parseInt(hex, 16) : Number(decimal)))
      : (ENTITIES[must(name)] ?? whole),
  );

/** The attributes with link targets in both standards. */
const TARGETS = { rels: /(\sTarget\s*=\s*)("[^"]*"|'[^']*')/g, odp: /(\sxlink:href\s*=\s*)("[^"]*"|'[^']*')/g };

function targetsOf(path: string): RegExp | undefined {
  if (path.endsWith(".rels")) return TARGETS.rels;
  return /(?:^|\/)(?:content|styles)\.xml$/.test(path) ? TARGETS.odp : undefined;
}

/** Whether a part of a source package must be checked before it is written again. */
export const isChecked = (path: string): boolean => targetsOf(path) !== undefined || isObject(path);

/** Whether a part is an object that a program of its own opens. */
const isObject = (path: string) =>
  /(?:^|\/)activeX\/|\.(?:bin|exe|dll|com|scr|bat|cmd|js|jse|vbs|vbe|wsf|hta|msi|jar|ps1|lnk|docm|dotm|xlsm|xltm|xlam|pptm|potm|ppam|ppsm|sldm)$/i.test(
    path,
  ) || /^Object [^/]*$/.test(path);

/** The name of the stream of a packaged file in a compound document (MS-OLEDS, 2.3.6), as its directory has it. */
const PACKAGED = [..."Ole10Native"].flatMap((letter) => [letter.charCodeAt(0), 0]);

function holds(bytes: Uint8Array, wanted: readonly number[]): boolean {
  const [first] = wanted as [number];
  for (let at = bytes.indexOf(first); at >= 0; at = bytes.indexOf(first, at + 1))
    if (wanted.every((byte, nth) => bytes[at + nth] === byte)) return true;
  return false;
}

/** Whether a part can run: a control, a program, a document with macros, or an object that wraps any file. */
function canRun(path: string, bytes: Uint8Array): boolean {
  if (!isObject(path)) return false;
  return !/\.bin$|^Object /i.test(path) || /activeX\//i.test(path) || holds(bytes, PACKAGED);
}

/**
 * Returns a part of another program's file as it may be written again: targets other than pages and mail lead nowhere,
 * and content that can run is empty. Returns the same bytes when nothing is removed.
 */
export function safePart(path: string, bytes: Uint8Array): Uint8Array {
  if (canRun(path, bytes)) return new Uint8Array();
  const targets = targetsOf(path);
  if (!targets) return bytes;
  const text = strFromU8(bytes);
  const safe = text.replace(targets, (whole, name: string, quoted: string) =>
    isSafeTarget(unescaped(quoted.slice(1, -1))) ? whole : `${name}"${NOWHERE}"`,
  );
  return safe === text ? bytes : strToU8(safe);
}

/** Reports the parts of a file that link to local programs and files, or can run. */
export function unsafeContent(
  paths: Iterable<string>,
  bytesOf: (path: string) => Uint8Array | undefined,
): z.infer<typeof Left>[] {
  let links = 0;
  let objects = 0;
  for (const path of paths) {
    if (isMacro(path) || !isChecked(path)) continue;
    let bytes: Uint8Array | undefined;
    try {
      bytes = bytesOf(path);
    } catch {
      // A damaged part is reported where it is needed.
    }
    if (!bytes) continue;
    if (canRun(path, bytes)) objects += 1;
    const targets = targetsOf(path);
    if (targets)
      for (const [, , quoted] of strFromU8(bytes).matchAll(targets))
        if (!isSafeTarget(unescaped(must(quoted).slice(1, -1)))) links += 1;
  }
  return [
    ...(links
      ? [
          {
            slide: null,
            what: links === 1 ? "a link" : `${links} links`,
            why: "links lead to pages, mail addresses and slides only; a program, a script or a file of one's machine is not opened",
          },
        ]
      : []),
    ...(objects
      ? [
          {
            slide: null,
            what: objects === 1 ? "an embedded object that can run" : `${objects} embedded objects that can run`,
            why: "Unitext neither runs nor keeps programs; the picture of each stays",
          },
        ]
      : []),
  ];
}
