import { Check, Copy } from "lucide-react";
import { useState } from "react";

/** A text to copy, such as an address, with a button that copies it. */
export function CopyField({ label, value }: { label: string; value: string }) {
  const [copied, setCopied] = useState(false);
  const copy = async () => {
    await navigator.clipboard.writeText(value);
    setCopied(true);
    setTimeout(() => setCopied(false), 2000);
  };
  return (
    <div className="flex min-w-0 items-center gap-1">
      <input
        readOnly
        aria-label={label}
        className="input input-sm min-w-0 flex-1 font-mono text-xs"
        value={value}
        onFocus={({ target }) => target.select()}
      />
      <button type="button" className="btn btn-sm" onClick={() => void copy()}>
        {copied ? <Check size={16} aria-hidden="true" /> : <Copy size={16} aria-hidden="true" />}
        {copied ? "Copied" : "Copy"}
      </button>
    </div>
  );
}
