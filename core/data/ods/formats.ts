import { attribute, localName, type XmlNode } from "../../formats/shared/xml";

const repeat = (sign: string, count: number) => sign.repeat(Math.max(0, count));

/** Characters of a format that stand for themselves. */
const literal = (text: string) =>
  text === "" ? "" : /^[ \-+/:.,()%€$£]+$/.test(text) ? text : `"${text.replaceAll('"', '\\"')}"`;

function numberCode(node: XmlNode): string {
  const decimals = Number(attribute(node, "decimal-places") ?? 0);
  const optional = Number(attribute(node, "min-decimal-places") ?? decimals);
  const whole = Number(attribute(node, "min-integer-digits") ?? 1);
  const grouped = attribute(node, "grouping") === "true";
  const digits = repeat("0", whole) || "#";
  const integer = grouped ? `#,${digits.padStart(3, "#")}` : digits;
  const fraction = `${repeat("0", optional)}${repeat("#", decimals - optional)}`;
  return fraction ? `${integer}.${fraction}` : integer;
}

/** The parts of dates and times (OpenDocument 1.3, part 3, 16.29) as format codes: short and long. */
const DATE_CODES: Readonly<Record<string, readonly [short: string, long: string]>> = {
  day: ["d", "dd"],
  "day-of-week": ["ddd", "dddd"],
  year: ["yy", "yyyy"],
  hours: ["h", "hh"],
  minutes: ["m", "mm"],
  seconds: ["s", "ss"],
};

function partCode(node: XmlNode): string {
  const name = localName(node);
  if (name === "number") return numberCode(node);
  if (name === "scientific-number")
    return `${numberCode(node)}E+${repeat("0", Number(attribute(node, "min-exponent-digits") ?? 2))}`;
  if (name === "fraction") return "# ?/?";
  if (name === "text") return literal(node.text);
  if (name === "currency-symbol") return node.text ? `"${node.text}"` : "";
  if (name === "text-content") return "@";
  if (name === "am-pm") return "AM/PM";
  if (name === "boolean") return "General";
  const long = attribute(node, "style") === "long";
  if (name === "month") return attribute(node, "textual") === "true" ? (long ? "mmmm" : "mmm") : long ? "mm" : "m";
  const code = DATE_CODES[name]?.[long ? 1 : 0] ?? "";
  const decimals = name === "seconds" ? Number(attribute(node, "decimal-places") ?? 0) : 0;
  return decimals > 0 ? `${code}.${repeat("0", decimals)}` : code;
}

/** Returns the format code of a data style (OpenDocument 1.3, part 3, 16.29), as spreadsheets of today write it. */
export function formatCode(style: XmlNode): string {
  const code = style.children.map(partCode).join("");
  const elapsed = attribute(style, "truncate-on-overflow") === "false";
  return elapsed ? code.replace(/^h+/, (hours) => `[${hours}]`) : code || "General";
}

const DATA_STYLES = new Set([
  "number-style",
  "percentage-style",
  "currency-style",
  "date-style",
  "time-style",
  "boolean-style",
  "text-style",
]);

/**
 * Returns the format codes by the names of cell styles, among the styles of a document and its automatic ones. A style
 * without a format of its own has that of its parent.
 */
export function formatsByStyle(styles: readonly XmlNode[]): Map<string, string> {
  const codes = new Map<string, string>();
  const cells = new Map<string, { data?: string | undefined; parent?: string | undefined }>();
  for (const style of styles) {
    const name = attribute(style, "name") ?? "";
    if (DATA_STYLES.has(localName(style))) codes.set(name, formatCode(style));
    else if (localName(style) === "style" && attribute(style, "family") === "table-cell")
      cells.set(name, { data: attribute(style, "data-style-name"), parent: attribute(style, "parent-style-name") });
  }
  const found = new Map<string, string>();
  for (const name of cells.keys()) {
    let at = cells.get(name);
    for (let depth = 0; at && at.data === undefined && depth < 20; depth++) at = cells.get(at.parent ?? "");
    const code = at?.data === undefined ? undefined : codes.get(at.data);
    if (code !== undefined) found.set(name, code);
  }
  return found;
}
