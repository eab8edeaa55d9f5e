import { type ReactNode, useEffect } from "react";

/** Lines of the tide, from the sea to the sand. */
const TIDES = [
  { d: "M0 64C120 40 200 88 320 66S520 40 640 62V200H0Z", className: "fill-primary opacity-90" },
  { d: "M0 98C140 76 220 120 340 98S520 80 640 100V200H0Z", className: "fill-primary opacity-60" },
  { d: "M0 134C120 116 240 152 360 132S540 120 640 136V200H0Z", className: "fill-primary opacity-35" },
  { d: "M0 168C160 152 260 182 380 166S560 160 640 172V200H0Z", className: "fill-base-300" },
];

/** A page on which somebody comes in: one card above a drawn shore. */
export function EntranceFrame({ title, lead, children }: { title: string; lead?: ReactNode; children: ReactNode }) {
  useEffect(() => {
    document.title = `${title} · Unitext`;
  }, [title]);
  return (
    <div className="relative grid min-h-full place-items-center overflow-auto p-4">
      <svg
        aria-hidden="true"
        className="pointer-events-none fixed inset-x-0 bottom-0 h-1/3 w-full"
        viewBox="0 0 640 200"
        preserveAspectRatio="none"
      >
        {TIDES.map(({ d, className }) => (
          <path key={d} d={d} className={className} />
        ))}
      </svg>
      <main className="bg-base-100 hairline relative w-full max-w-md border p-6 sm:p-8">
        <p className="quiet font-serif text-lg">Unitext</p>
        <h1 className="mb-1 font-serif text-2xl">{title}</h1>
        {lead && <p className="quiet mb-4 text-sm">{lead}</p>}
        {!window.isSecureContext && (
          <p className="border-warning mb-4 border-l-4 pl-2 text-sm">
            This connection is not encrypted: others on the network can read what you type. Ask whoever runs this house
            for an address that begins with https.
          </p>
        )}
        {children}
      </main>
    </div>
  );
}
