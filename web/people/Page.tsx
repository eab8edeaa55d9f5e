import { type ReactNode, useEffect } from "react";
import { Rail } from "../shell/Rail";

/** A page beside the rail that is about people and no deck. */
export function Page({ title, lead, children }: { title: string; lead?: ReactNode; children: ReactNode }) {
  useEffect(() => {
    document.title = `${title} · Unitext`;
  }, [title]);
  return (
    <div className="flex h-full max-md:flex-col-reverse">
      <Rail />
      <main className="min-h-0 min-w-0 flex-1 overflow-auto px-6 py-6 max-md:px-3">
        <div className="mx-auto max-w-4xl">
          <h1 className="font-serif text-2xl">{title}</h1>
          {lead && <p className="quiet mb-4 text-sm">{lead}</p>}
          {children}
        </div>
      </main>
    </div>
  );
}

/** A part of such a page. */
export function Section({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section className="hairline mt-6 border-t pt-4">
      <h2 className="mb-2 text-lg font-semibold">{title}</h2>
      {children}
    </section>
  );
}
