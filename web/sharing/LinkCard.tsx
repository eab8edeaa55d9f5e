import type { Link, LinkAsked } from "@unitext/server/api";
import { QrCode as QrIcon } from "lucide-react";
import { useState } from "react";
import { CopyField } from "../ui/CopyField";
import { QrCode } from "../ui/QrCode";
import { LinkForm } from "./LinkForm";
import { RIGHT_WORDS, scopeWords, type SharedThing } from "./rights";

const day = new Intl.DateTimeFormat(undefined, { dateStyle: "medium" });
const when = new Intl.DateTimeFormat(undefined, { dateStyle: "medium", timeStyle: "short" });

interface Props {
  link: Link;
  thing: SharedThing;
  /** Whether it is a link of the folder that the deck is in. */
  inherited: boolean;
  translations: number;
  /** Changes what the link gives. Returns whether it was taken. */
  onChange: (terms: LinkAsked) => Promise<boolean>;
  onRenew: () => void;
  onTakeBack: () => void;
}

/** A link: what it gives, its address, and who has used it. */
export function LinkCard({ link, thing, inherited, translations, onChange, onRenew, onTakeBack }: Props) {
  const [changing, setChanging] = useState(false);
  const [code, setCode] = useState(false);
  const { scope, right, notes, hasPhrase, expiresAt, expired, path, uses } = link;
  const address = path === null ? "" : window.location.origin + path;
  const words = [
    `Whoever has it ${RIGHT_WORDS[right]}: ${scopeWords(scope, translations)}`,
    notes ? "with notes" : "without notes",
    ...(hasPhrase ? ["with a pass phrase"] : []),
    expiresAt === null ? "for good" : `${expired ? "ended" : "until"} ${day.format(new Date(expiresAt))}`,
  ];
  return (
    <li className="hairline border p-3 text-sm" data-link={link.id}>
      <p className={`mb-2 ${expired ? "text-error" : ""}`}>{words.join(", ")}.</p>
      {path === null ? (
        <p className="border-warning mb-2 border-l-4 pl-2">
          This house has another key than when the link was made, so its address is not known here. Whoever has it can
          still use it; renew it for an address that you can copy.
        </p>
      ) : (
        <CopyField label="Address of the link" value={address} />
      )}
      {code && address && <QrCode value={address} label="QR code of the link" className="mt-2 w-40" />}
      {inherited ? (
        <p className="quiet mt-2">It is a link of the folder; change it there.</p>
      ) : (
        <div className="mt-2 flex flex-wrap gap-1">
          <button type="button" className="btn btn-ghost btn-sm" aria-pressed={code} onClick={() => setCode(!code)}>
            <QrIcon size={16} aria-hidden="true" /> QR code
          </button>
          <button type="button" className="btn btn-ghost btn-sm" onClick={() => setChanging(!changing)}>
            Change …
          </button>
          <button
            type="button"
            className="btn btn-ghost btn-sm"
            title="Gives the link another address; the present one leads nowhere any more"
            onClick={onRenew}
          >
            Renew
          </button>
          <button
            type="button"
            className="btn btn-ghost btn-sm"
            title="Ends the link; whoever came by it sees nothing any more"
            onClick={onTakeBack}
          >
            Take back
          </button>
        </div>
      )}
      {changing && (
        <LinkForm
          thing={thing}
          translations={translations}
          link={link}
          act="Save"
          onCancel={() => setChanging(false)}
          onSend={async (terms) => {
            if (await onChange(terms)) setChanging(false);
          }}
        />
      )}
      {uses.length > 0 && (
        <details className="mt-1">
          <summary className="cursor-pointer">
            Used by {uses.length === 1 ? "one person" : `${uses.length} people`}
          </summary>
          <ul>
            {uses.map(({ name, guest, lastAt, times }, nth) => (
              <li key={nth}>
                {name}
                {guest && " (without an account)"}, last {when.format(new Date(lastAt))}
                {times > 1 && `, ${times} times`}
              </li>
            ))}
          </ul>
        </details>
      )}
    </li>
  );
}
