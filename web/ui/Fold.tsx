import { type ReactNode, useState } from "react";

/** A group of a panel that folds; whether it is open is remembered under `name` in this browser. */
export function Fold({
  name,
  title,
  open = false,
  children,
}: {
  name: string;
  title: string;
  open?: boolean;
  children: ReactNode;
}) {
  const key = `fold/${name}`;
  const [isOpen, setOpen] = useState(() => {
    const kept = localStorage.getItem(key);
    return kept === null ? open : kept === "open";
  });
  return (
    <details
      className="hairline mb-2 border-b pb-2"
      open={isOpen}
      onToggle={({ currentTarget }) => {
        setOpen(currentTarget.open);
        localStorage.setItem(key, currentTarget.open ? "open" : "closed");
      }}
    >
      <summary className="cursor-pointer py-1 font-semibold">{title}</summary>
      {isOpen && <div className="pt-1">{children}</div>}
    </details>
  );
}
