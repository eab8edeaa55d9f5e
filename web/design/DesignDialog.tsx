import {
  choiceOf,
  chosenTheme,
  DESIGNS,
  type Deck,
  FONT_PAIRINGS,
  type FontPairingName,
  metadataOf,
  must,
  OFFERED_DESIGNS,
  type OfferedDesign,
  type Slide,
  type Theme,
  type ThemeChoice,
  withoutOwnAppearance,
} from "@unitext/core/model";
import { batch, putTheme } from "@unitext/core/edit";
import { useMemo, useState } from "react";
import { useDeck } from "../deck/DeckContext";
import { SmallSlide } from "../deck/SmallSlide";
import { Choices } from "../ui/Choices";
import { Colour } from "../ui/ColourField";
import { Dialog } from "../ui/Dialog";
import { Measure } from "../ui/Measure";
import { DeckLook } from "./DeckLook";
import { LogoChoice } from "./LogoChoice";
import { sampleSlides } from "./samples";
import { useSavedThemes } from "./savedthemes";

interface Sample {
  slide: Slide;
  number: number;
}

/** Returns the slides again as objects of their own, as they are in a theme: with `restyled`, those of files take it too. */
const copied = (samples: readonly Sample[], theme: Theme, restyled: boolean): Sample[] =>
  samples.map(({ slide, number }) => ({
    slide: { ...(restyled ? withoutOwnAppearance(slide, theme) : slide), parent: null },
    number,
  }));

/**
 * Returns the choice with another design: in its own mood, unless a mood was chosen. Fonts and colours that came with a
 * file give way to those of the design.
 */
function inDesign(choice: ThemeChoice, design: OfferedDesign): ThemeChoice {
  if (choice.design === "plain") return { design, mood: DESIGNS[design].mood };
  const isOwnMood = choice.mood === DESIGNS[choice.design].mood;
  return { ...choice, design, mood: isOwnMood ? DESIGNS[design].mood : choice.mood };
}

/** Returns the metadata of a deck in a theme, with the picture of its logo. */
const inTheme = (deck: Deck, theme: Theme) =>
  metadataOf({
    ...deck,
    theme,
    assets: theme.logo ? { ...deck.assets, [theme.logo.source]: theme.logo.asset } : deck.assets,
  });

/** A small slide of the deck in a theme. */
function ThemeCard({ theme, sample }: { theme: Theme; sample: Sample }) {
  const { deck } = useDeck();
  const [own] = useMemo(() => copied([sample], theme, true), [sample, theme]);
  const metadata = useMemo(() => inTheme(deck, theme), [deck, theme]);
  const { slide, number } = must(own);
  return <SmallSlide slide={slide} number={number} metadata={metadata} deck={deck.id} width={176} />;
}

/** A small slide of the deck in a design. */
function DesignCard({ design, sample, choice }: { design: OfferedDesign; sample: Sample; choice: ThemeChoice }) {
  const theme = useMemo(() => chosenTheme(inDesign(choice, design)), [choice, design]);
  return <ThemeCard theme={theme} sample={sample} />;
}

/** Slides of the deck in the theme that is tried: one large, the others below it. */
function Preview({ samples, theme, restyled }: { samples: readonly Sample[]; theme: Theme; restyled: boolean }) {
  const { deck } = useDeck();
  const [shown, setShown] = useState(0);
  const small = useMemo(() => copied(samples, theme, restyled), [samples, theme, restyled]);
  const large = useMemo(() => copied(samples, theme, restyled), [samples, theme, restyled]);
  const metadata = useMemo(() => inTheme(deck, theme), [deck, theme]);
  const { slide, number } = must(large[shown] ?? large[0]);
  return (
    <>
      <SmallSlide slide={slide} number={number} metadata={metadata} deck={deck.id} width={496} label="Preview" />
      <div className="mt-2 flex gap-2" role="group" aria-label="Slides of the preview">
        {small.map((one, nth) => (
          <div key={one.slide.id} className={`relative ${nth === shown ? "outline-2 outline-secondary" : ""}`}>
            <SmallSlide slide={one.slide} number={one.number} metadata={metadata} deck={deck.id} width={116} />
            <button
              type="button"
              aria-pressed={nth === shown}
              aria-label={`Slide ${one.number}`}
              className="absolute inset-0 cursor-pointer"
              onClick={() => setShown(nth)}
            />
          </div>
        ))}
      </div>
    </>
  );
}

const pairingOf = ({ design, fonts }: ThemeChoice): FontPairingName | "own" =>
  fonts
    ? ((Object.keys(FONT_PAIRINGS) as FontPairingName[]).find(
        (name) => FONT_PAIRINGS[name].fonts.heading === fonts.heading && FONT_PAIRINGS[name].fonts.body === fonts.body,
      ) ?? "own")
    : DESIGNS[design].fonts;

/** Mood, fonts and colours of the theme that is tried. */
function Settings({ choice, onChoice }: { choice: ThemeChoice; onChoice: (choice: ThemeChoice) => void }) {
  const { design, mood, seeds } = choice;
  const { colours } = chosenTheme(choice);
  const pairing = pairingOf(choice);
  const withFonts = (name: FontPairingName) => {
    const { fonts: _, ...rest } = choice;
    onChoice(name === DESIGNS[design].fonts ? rest : { ...rest, fonts: FONT_PAIRINGS[name].fonts });
  };
  const withSeeds = (next: ThemeChoice["seeds"]) => {
    const { seeds: _, ...rest } = choice;
    onChoice(next ? { ...rest, seeds: next } : rest);
  };
  return (
    <div className="mt-2 grid grid-cols-2 gap-x-6 text-sm">
      <div>
        <Choices
          legend="Background"
          showLegend
          value={mood}
          onChange={(next) => onChoice({ ...choice, mood: next })}
          options={[
            { value: "light", label: "Light" },
            { value: "dark", label: "Dark" },
          ]}
        />
        <label className="mt-1 block">
          <span className="font-semibold">Fonts</span>
          <select
            className="select select-sm w-full"
            value={pairing}
            onChange={({ target }) => withFonts(target.value as FontPairingName)}
          >
            {pairing === "own" && <option value="own">As they are</option>}
            {(Object.keys(FONT_PAIRINGS) as FontPairingName[]).map((name) => {
              const { label, fonts } = FONT_PAIRINGS[name];
              const faces = fonts.heading === fonts.body ? fonts.body : `${fonts.heading} and ${fonts.body}`;
              return (
                <option key={name} value={name}>
                  {label}: {faces}
                </option>
              );
            })}
          </select>
        </label>
      </div>
      <fieldset>
        <legend className="font-semibold">Colours</legend>
        <Colour
          label="Main colour"
          value={seeds?.[0] ?? colours.accent}
          onSet={(colour) => withSeeds([colour, seeds?.[1]])}
        />
        <Colour
          label="Second colour"
          value={seeds?.[1] ?? colours.second}
          onSet={(colour) => withSeeds([seeds?.[0] ?? colours.accent, colour])}
        />
        <button type="button" className="btn btn-xs" disabled={!seeds} onClick={() => withSeeds(undefined)}>
          Colours of the design
        </button>
      </fieldset>
      <LogoChoice choice={choice} onChoice={onChoice} />
      <Measure
        label="Space between paragraphs"
        unit="%"
        least={0}
        most={300}
        step={10}
        value={(choice.spacing ?? 1) * 100}
        onSet={(percent) => onChoice({ ...choice, spacing: percent / 100 })}
      />
    </div>
  );
}

/** The designs that the person has saved, each on a slide of the deck, with what can be done with it. */
function SavedDesigns({
  saves,
  sample,
  taken,
  onTake,
}: {
  saves: ReturnType<typeof useSavedThemes>;
  sample: Sample;
  taken: string | undefined;
  onTake: (theme: Theme) => void;
}) {
  const { session } = useDeck();
  if (!saves.saved.length) return null;
  const chosen = saves.saved.find(({ theme }) => theme.name === taken);
  const all = async (name: string) => {
    const count = await saves.putOnDecks(name);
    session.notify(
      count ? `“${name}” is now on ${count} more decks as it was saved.` : `All decks have “${name}” as it was saved.`,
    );
  };
  return (
    <div className="mb-4">
      <Choices
        legend="Your designs"
        showLegend
        layout="columns"
        value={taken}
        onChange={(name) => {
          const found = saves.saved.find(({ theme }) => theme.name === name);
          if (found) onTake(found.theme);
        }}
        options={saves.saved.map(({ theme }) => ({
          value: theme.name,
          label: <span className="min-w-0 truncate">{theme.name}</span>,
          content: <ThemeCard theme={theme} sample={sample} />,
        }))}
      />
      {chosen && (
        <p className="mt-2 flex flex-wrap items-center gap-2 text-sm">
          <span className="quiet flex-1">
            {chosen.theme.name}: on {chosen.decks === 1 ? "1 deck" : `${chosen.decks} decks`}
          </span>
          {chosen.decks > 0 && (
            <button type="button" className="btn btn-xs" onClick={() => void all(chosen.theme.name)}>
              Bring decks up to date
            </button>
          )}
          <button type="button" className="btn btn-xs" onClick={() => void saves.forget(chosen.theme.name)}>
            Delete
          </button>
        </p>
      )}
    </div>
  );
}

/** Saves the theme that is tried under a name of its own. */
function SaveDesign({ theme, onSave }: { theme: Theme; onSave: (name: string, withLines: boolean) => Promise<void> }) {
  const { deck } = useDeck();
  const [name, setName] = useState("");
  const [withLines, setWithLines] = useState(false);
  const hasLines = deck.regions.footer !== "" || deck.regions.header !== undefined;
  const given = name.trim().slice(0, 80);
  return (
    <div className="mt-2 flex flex-wrap items-end gap-2 text-sm">
      <label className="min-w-0 flex-1">
        <span className="font-semibold">Save as your own design</span>
        <input
          className="input input-sm w-full"
          value={name}
          maxLength={80}
          placeholder={theme.name}
          onChange={({ target }) => setName(target.value)}
          onKeyDown={(event) => {
            if (event.key !== "Enter" || !given) return;
            event.preventDefault();
            void onSave(given, withLines);
          }}
        />
      </label>
      <button type="button" className="btn btn-sm" disabled={!given} onClick={() => void onSave(given, withLines)}>
        Save
      </button>
      {hasLines && (
        <label className="flex min-h-8 items-center gap-2">
          <input
            type="checkbox"
            className="checkbox checkbox-sm"
            checked={withLines}
            onChange={({ target }) => setWithLines(target.checked)}
          />
          with the lines at top and foot
        </label>
      )}
    </div>
  );
}

/**
 * Chooses the design, mood, fonts and colours of the deck, seen on its own slides, and saves them under a name. Arrow keys
 * try, Enter takes.
 */
export function DesignDialog({ onClose }: { onClose: () => void }) {
  const { deck, session } = useDeck();
  const saves = useSavedThemes();
  const [choice, choose] = useState(() => choiceOf(deck.theme));
  // A saved design is taken as it is, until something of it is changed.
  const [own, setOwn] = useState<Theme | undefined>(deck.theme);
  const setChoice = (next: ThemeChoice) => {
    setOwn(undefined);
    choose(next);
  };
  const takeSaved = (theme: Theme) => {
    choose(choiceOf(theme));
    setOwn(theme);
  };
  const samples = useMemo(() => sampleSlides(deck), [deck]);
  const theme = useMemo(() => own ?? chosenTheme(choice), [own, choice]);
  const newer = saves.newerThan(deck.theme);
  const first = samples[0];
  const ofFiles = deck.slides.filter(({ master }) => master !== undefined);
  const [restyled, setRestyled] = useState(true);
  const take = () => {
    const slides = restyled ? ofFiles : [];
    const change = batch([
      ...(deck.layouts ? [{ kind: "setLayouts" as const, layouts: null }] : []),
      ...putTheme(deck, theme),
      ...slides.map((slide) => ({
        kind: "setSlide" as const,
        slide: slide.id,
        as: withoutOwnAppearance(slide, theme),
      })),
    ]);
    session.apply(change, { words: `Design “${theme.name}”` });
  };
  const isSaved = own !== undefined && saves.saved.some((one) => one.theme.name === own.name);
  return (
    <Dialog
      title="Design"
      lead="Arrow keys try a design, Enter takes it, Esc leaves the deck as it is."
      width="page"
      tall
      onClose={onClose}
      onSubmit={take}
      actions={(close) => (
        <>
          <button type="button" className="btn btn-ghost" onClick={close}>
            Cancel
          </button>
          <button type="submit" className="btn btn-primary">
            Use this design
          </button>
        </>
      )}
    >
      <div className="flex min-h-0 flex-1 gap-6 max-md:flex-col max-md:overflow-y-auto">
        <div className="min-h-0 shrink-0 overflow-y-auto p-1 md:w-[25.5rem]">
          {newer && (
            <p className="border-warning mb-3 border-l-4 pl-2 text-sm">
              “{newer.name}” has been saved with changes since this deck took it.{" "}
              <button type="button" className="btn btn-xs" onClick={() => takeSaved(newer)}>
                Try the saved state
              </button>
            </p>
          )}
          {first && (
            <SavedDesigns saves={saves} sample={first} taken={isSaved ? own?.name : undefined} onTake={takeSaved} />
          )}
          {first && (
            <Choices
              legend="Designs"
              showLegend={saves.saved.length > 0}
              layout="columns"
              value={choice.design === "plain" || isSaved ? undefined : choice.design}
              onChange={(design) => setChoice(inDesign(choice, design))}
              options={OFFERED_DESIGNS.map((design) => ({
                value: design,
                label: DESIGNS[design].label,
                content: <DesignCard design={design} sample={first} choice={choice} />,
              }))}
            />
          )}
        </div>
        <div className="min-w-0 flex-1 md:overflow-y-auto">
          {first && <Preview samples={samples} theme={theme} restyled={restyled} />}
          <p className="quiet mt-1 min-h-6 text-sm" aria-live="polite">
            {DESIGNS[choice.design].label}: {DESIGNS[choice.design].description.toLowerCase()}
          </p>
          {ofFiles.length > 0 && (
            <label
              className="mt-1 flex items-center gap-2 text-sm"
              title="Slides with drawings keep them and every position, on plain paper"
            >
              <input
                type="checkbox"
                className="checkbox checkbox-sm"
                checked={restyled}
                onChange={({ target }) => setRestyled(target.checked)}
              />
              {ofFiles.length === 1
                ? "The slide with the look of a file takes it too"
                : `The ${ofFiles.length} slides with the look of a file take it too`}
            </label>
          )}
          <Settings choice={choice} onChoice={setChoice} />
          <DeckLook restyled={restyled && ofFiles.length > 0} onTaken={onClose} />
          <SaveDesign
            theme={theme}
            onSave={async (name, withLines) => {
              const { lines: _, ...bare } = theme;
              const { footer, header = "" } = deck.regions;
              const named = { ...bare, name, ...(withLines ? { lines: { footer, header } } : {}) };
              await saves.save(named);
              takeSaved(named);
            }}
          />
        </div>
      </div>
    </Dialog>
  );
}
