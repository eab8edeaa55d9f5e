import { cutText, deckLink, nameOf, slideLink } from "@unitext/core/model";
import { linkTarget } from "@unitext/core/text";
import { useEffect, useId, useState } from "react";
import { Link } from "react-router";
import { useDeck } from "../deck/DeckContext";
import { SlidePicker } from "../deck/SlidePicker";

const WEB = "web";

/** Returns what was typed as an address that a slide can link to; undefined for anything else. */
function addressOf(typed: string): string | undefined {
  const full =
    typed === ""
      ? undefined
      : linkTarget(/^[a-z]+:/i.test(typed) ? typed : typed.includes("@") ? `mailto:${typed}` : `https://${typed}`);
  return full !== undefined && URL.canParse(full) && !/%|\s/.test(new URL(full).hostname) ? full : undefined;
}

/** Edits the target of a link: none, a web page, or a slide. The link can be followed. */
export function LeadsTo({
  to,
  disabled,
  onSet,
}: {
  to: string | undefined;
  disabled?: boolean;
  onSet: (to: string | undefined) => void;
}) {
  const { deck } = useDeck();
  const id = useId();
  const inside = to === undefined ? undefined : slideLink(to);
  const other = to === undefined ? undefined : deckLink(to);
  const missing = inside !== undefined && !deck.slides.some((slide) => slide.id === inside);
  const address = to !== undefined && inside === undefined && !other ? to : "";
  const [kind, setKind] = useState(address ? WEB : (to ?? ""));
  const [text, setText] = useState(address);
  useEffect(() => {
    setKind(address ? WEB : (to ?? ""));
    setText(address);
  }, [to, address]);
  const [choosing, setChoosing] = useState(false);
  const typed = text.trim();
  const wanted = addressOf(typed);
  const take = () => {
    if (typed === "" && to !== undefined && address) onSet(undefined);
    else if (wanted !== undefined && wanted !== to) onSet(wanted);
  };
  return (
    <div>
      <label htmlFor={id} className="block">
        Leads to
      </label>
      <select
        id={id}
        className="select select-sm w-full"
        disabled={disabled}
        value={kind}
        onChange={({ target: { value } }) => {
          setKind(value);
          if (value !== WEB) onSet(value || undefined);
        }}
      >
        <option value="">No link</option>
        <option value={WEB}>A page on the web or an e-mail address</option>
        {other && <option value={to}>A slide of another deck</option>}
        {missing && <option value={to}>A slide that is not here any more</option>}
        <optgroup label="A slide">
          {deck.slides.map((slide, nth) => (
            <option key={slide.id} value={`slide:${slide.id}`}>
              {nth + 1} {cutText(nameOf(slide), 60) || "without words"}
            </option>
          ))}
        </optgroup>
      </select>
      {kind === WEB && (
        <label className="mt-1 block">
          Address
          <input
            className="input input-sm w-full"
            type="text"
            inputMode="url"
            disabled={disabled}
            value={text}
            placeholder="https://…"
            aria-invalid={typed !== "" && wanted === undefined}
            aria-describedby={`${id}-why`}
            onChange={({ target }) => setText(target.value)}
            onBlur={take}
            onKeyDown={(event) => event.key === "Enter" && take()}
          />
          <span id={`${id}-why`} className="text-error block min-h-5 text-xs" aria-live="polite">
            {typed !== "" && wanted === undefined
              ? "This is no address that a slide can open: https://…, http://… or mailto:…"
              : ""}
          </span>
        </label>
      )}
      {!disabled && (
        <button type="button" className="btn btn-xs mt-1 mr-1" onClick={() => setChoosing(true)}>
          Choose a slide …
        </button>
      )}
      {choosing && (
        <SlidePicker
          title="Where the link leads"
          onChoose={(slide) => onSet(`slide:${slide}`)}
          onClose={() => setChoosing(false)}
        />
      )}
      {inside !== undefined && !missing && (
        <Link className="btn btn-xs mt-1" to={`/decks/${deck.id}/refine/${inside}`}>
          Go there
        </Link>
      )}
      {address && (
        <a className="btn btn-xs" href={address} target="_blank" rel="noreferrer">
          Try it in a new tab
        </a>
      )}
    </div>
  );
}
