import { Binding, BINDING_MODES, BINDING_USES } from "@unitext/core/model";

/** What the address of a link begins with whose words are the value of a cell. */
const SCHEME = "cell:";

/** Encodes what ends an address in Markdown or separates its parts; what ranges consist of stays readable. */
const encoded = (text: string) =>
  encodeURIComponent(text)
    .replace(/%3A/g, ":")
    .replace(/%5B/g, "[")
    .replace(/%5D/g, "]")
    .replace(/[()']/g, (sign) => `%${sign.charCodeAt(0).toString(16)}`);

/**
 * Returns a binding as the address of a link: `cell:gauges.xlsx?range=Levels!D4&mode=latest`. What was taken, and when,
 * is not in it.
 */
export function bindingAddress({ source, range, mode, use, format }: Binding): string {
  const fields = { range, mode, ...(use ? { use } : {}), ...(format ? { format } : {}) };
  return `${SCHEME}${encoded(source)}?${Object.entries(fields)
    .map(([name, value]) => `${name}=${encoded(value)}`)
    .join("&")}`;
}

/** Returns the attributes of a table or chart in the text form that name its cells; none without a binding. */
export function bindingAttributes(binding: Binding | undefined): Record<string, string> {
  if (!binding) return {};
  const { source, range, mode } = binding;
  return { source, range, mode };
}

/** Returns the binding that the attributes of a table or chart name; undefined when they name no cells. */
export function bindingOfAttributes(
  attributes: Record<string, string | null | undefined>,
  use: "table" | "chart",
): Binding | undefined {
  const { source, range } = attributes;
  if (!source || !range) return undefined;
  const mode = BINDING_MODES.find((one) => one === attributes.mode) ?? "asked";
  return Binding.safeParse({ source, range, mode, use }).data;
}

const decoded = (text: string): string => {
  try {
    return decodeURIComponent(text);
  } catch {
    return text;
  }
};

/** Returns the binding of a link's address; undefined for other addresses and for those that name no cells. */
export function bindingOfAddress(address: string): Binding | undefined {
  if (!address.startsWith(SCHEME)) return undefined;
  const [source = "", query = ""] = address.slice(SCHEME.length).split("?", 2);
  const fields = new Map(
    query.split("&").map((part): [string, string] => {
      const at = part.indexOf("=");
      return at < 0 ? [part, ""] : [part.slice(0, at), decoded(part.slice(at + 1))];
    }),
  );
  const [use, format] = [BINDING_USES.find((one) => one === fields.get("use")), fields.get("format")];
  return Binding.safeParse({
    source: decoded(source),
    range: fields.get("range"),
    mode: BINDING_MODES.find((one) => one === fields.get("mode")) ?? "asked",
    ...(use ? { use } : {}),
    ...(format ? { format } : {}),
  }).data;
}
