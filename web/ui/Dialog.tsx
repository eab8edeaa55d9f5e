import { type ReactNode, useEffect, useId, useRef } from "react";

const WIDTHS = { normal: "", wide: "max-w-2xl", wider: "max-w-3xl", widest: "max-w-4xl", page: "max-w-5xl" } as const;

interface Props {
  title: ReactNode;
  /** A sentence below the title. */
  lead?: ReactNode;
  width?: keyof typeof WIDTHS;
  /** Whether it takes the height of the window, for content that scrolls. */
  tall?: boolean;
  /** Called once when the dialog closes, by a button, Escape or `close`. */
  onClose: () => void;
  /** With it, the dialog is a form that Enter submits. */
  onSubmit?: () => void;
  /** Returns the buttons at the foot, from left to right; the last one is the main act. */
  actions: (close: () => void) => ReactNode;
  onKeyDown?: (event: React.KeyboardEvent) => void;
  children?: ReactNode;
}

/** A modal dialog: named by its title, opened when it appears, closed by Escape, with its buttons at the foot. */
export function Dialog({
  title,
  lead,
  width = "normal",
  tall = false,
  onClose,
  onSubmit,
  actions,
  onKeyDown,
  children,
}: Props) {
  const dialog = useRef<HTMLDialogElement>(null);
  const id = useId();
  useEffect(() => dialog.current?.showModal(), []);
  const close = () => dialog.current?.close();
  const content = (
    <>
      <h2 id={id} className="mb-1 text-lg font-semibold">
        {title}
      </h2>
      {lead && <p className="quiet mb-3 text-sm">{lead}</p>}
      {children}
      <div className="modal-action flex-wrap">{actions(close)}</div>
    </>
  );
  const box = `modal-box hairline border ${WIDTHS[width]} ${tall ? "flex h-[86vh] flex-col" : ""}`;
  return (
    <dialog ref={dialog} className="modal" aria-labelledby={id} onClose={onClose} onKeyDown={onKeyDown}>
      {onSubmit ? (
        <form
          className={box}
          onSubmit={(event) => {
            event.preventDefault();
            onSubmit();
            close();
          }}
        >
          {content}
        </form>
      ) : (
        <div className={box}>{content}</div>
      )}
    </dialog>
  );
}
