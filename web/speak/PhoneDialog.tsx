import type { Remote } from "@unitext/server/api";
import { Dialog } from "../ui/Dialog";
import { QrCode } from "../ui/QrCode";

const when = new Intl.DateTimeFormat(undefined, { timeStyle: "short" });

/** The link of the talk for a phone, as a QR code and to copy. */
export function PhoneDialog({
  remote,
  problem,
  onEnd,
  onClose,
}: {
  remote: Remote | undefined;
  problem: string;
  onEnd: () => void;
  onClose: () => void;
}) {
  const base = remote?.addresses[0] ?? window.location.origin;
  const link = remote ? `${base}/remote/${remote.token}` : "";
  return (
    <Dialog
      title="A phone in the hand"
      lead="It shows this slide, the next one, notes and time, and turns the slides. The link ends with the talk."
      onClose={onClose}
      actions={(close) => (
        <>
          <button
            type="button"
            className="btn btn-ghost"
            onClick={() => {
              onEnd();
              close();
            }}
          >
            End the link
          </button>
          <button type="button" className="btn btn-primary" onClick={close}>
            Close
          </button>
        </>
      )}
    >
      {problem && <p role="alert">{problem}</p>}
      {remote && (
        <div className="flex flex-wrap items-start gap-4">
          <QrCode value={link} label="QR code of the link" />
          <div className="min-w-0 flex-1 text-sm">
            <p className="mb-2">Point the phone's camera at the code, or open</p>
            <p className="mb-2 font-mono break-all" data-remote-link>
              {link}
            </p>
            <p className="quiet">
              It works until {when.format(new Date(remote.expiresAt))}, or until the talk is left.
            </p>
            {remote.addresses.length === 0 && (
              <p className="border-warning mt-2 border-l-4 pl-2">
                This server is reached from this computer only. To let a phone on the same network in, start it with
                UNITEXT_LISTEN=0.0.0.0; in the demo, other computers then reach this page and links alone.
              </p>
            )}
          </div>
        </div>
      )}
    </Dialog>
  );
}
