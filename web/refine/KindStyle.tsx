import { placeTheme, roleAppearance, sizeOf, slotPlaces } from "@unitext/core/layout";
import { PAGES, type RoleOverride, roleOf, type Slide, type SlotRole, type TextElement } from "@unitext/core/model";
import { useDeck } from "../deck/DeckContext";
import { Fold } from "../ui/Fold";
import { Colour } from "../ui/ColourField";
import { FONT_NAMES } from "../ui/fonts";
import { Measure } from "../ui/Measure";

/** What texts of a role are called together. */
const KINDS: Partial<Record<SlotRole, string>> = {
  opening: "opening titles",
  title: "titles",
  subtitle: "lines below titles",
  body: "points",
  statement: "statements",
  number: "key figures",
  caption: "captions",
  references: "references",
  corner: "names in the corner",
  name: "names in the middle",
};

const SWITCHES = { strong: "Bold", italic: "Italic", capitals: "Capitals" } as const;

/** How all texts of the kind of the selected one look in this deck, now and later. */
export function KindStyle({ slide, text }: { slide: Slide; text: TextElement }) {
  const { deck, session, canEdit } = useDeck();
  const role = roleOf(slide, text);
  const kind = role && KINDS[role];
  if (!role || !kind || text.style !== undefined) return null;
  const { theme } = deck;
  const surface = text.slot === null ? undefined : slotPlaces(slide.arrangement, deck).get(text.slot)?.surface;
  const appearance = roleAppearance(role, placeTheme(slide, surface, deck));
  const override = theme.roles?.[role] ?? {};
  const apply = (next: RoleOverride | undefined, words: string) => {
    const { [role]: _, ...others } = theme.roles ?? {};
    const { roles: __, ...bare } = theme;
    const roles = next && Object.keys(next).length ? { ...others, [role]: next } : others;
    session.apply(
      { kind: "setTheme", theme: Object.keys(roles).length ? { ...bare, roles } : bare },
      { words: `${words} of all ${kind}` },
    );
  };
  return (
    <Fold name="text-kind" title={`All ${kind} of the deck`}>
      <fieldset disabled={!canEdit}>
        <label className="mb-1 flex items-center gap-2">
          <span className="flex-1">Font</span>
          <select
            className="select select-sm w-40"
            value={appearance.family}
            onChange={({ target }) => apply({ ...override, font: target.value }, "Font")}
          >
            {[...new Set([appearance.family, ...FONT_NAMES])].map((family) => (
              <option key={family}>{family}</option>
            ))}
          </select>
        </label>
        <Measure
          label="Size"
          unit="pt"
          least={6}
          most={400}
          value={sizeOf(role, theme, PAGES["16:9"])}
          onSet={(size) => apply({ ...override, size }, "Size")}
        />
        <Colour
          label="Colour of the text"
          value={override.colour ?? appearance.fill}
          onSet={(colour) => apply({ ...override, colour }, "Colour")}
        />
        <div className="my-1 flex gap-4">
          {(Object.keys(SWITCHES) as (keyof typeof SWITCHES)[]).map((name) => (
            <label key={name} className="flex items-center gap-2">
              <input
                type="checkbox"
                className="checkbox checkbox-sm"
                checked={appearance[name]}
                onChange={({ target }) => apply({ ...override, [name]: target.checked }, SWITCHES[name])}
              />
              {SWITCHES[name]}
            </label>
          ))}
        </div>
        <button
          type="button"
          className="btn btn-xs"
          disabled={!theme.roles?.[role]}
          onClick={() => apply(undefined, "Look")}
        >
          As the design has them
        </button>
      </fieldset>
    </Fold>
  );
}
