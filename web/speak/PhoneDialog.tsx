import type { Remote } from "@unitext/server/api";
import { toString as qrCode } from "qrcode";
import { useEffect, useState } from "react";
import { Dialog } from "../ui/Dialog";

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
  const [code, setCode] = useState("");
  const base = remote?.addresses[0] ?? window.location.origin;
  const link = remote ? `${base}/remote/${remote.token}` : "";
  useEffect(() => {
    if (link) void qrCode(link, { type: "svg", margin: 1 }).then(setCode);
  }, [link]);
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
          {code && (
            <img
              className="w-48 bg-white p-1"
              src={`data:image/svg+xml,${encodeURIComponent(code)}`}
              alt="QR code of the link"
            />
          )}
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
                UNITEXT_LISTEN=0.0.0.0; other computers then reach this page and nothing else.
              </p>
            )}
          </div>
        </div>
      )}
    </Dialog>
  );
}
