import type { Slide } from "@unitext/core/model";

const when = new Intl.DateTimeFormat(undefined, { dateStyle: "medium" });

/** The comments of a slide's file, under its notes. */
export function Comments({ slide: { comments = [] } }: { slide: Slide }) {
  if (!comments.length) return null;
  return (
    <section aria-label="Comments" className="hairline mt-3 border">
      <h2 className="bg-base-200 px-3 py-1 text-sm font-semibold">
        {comments.length === 1 ? "One comment" : `${comments.length} comments`}
      </h2>
      <ul className="divide-base-300 divide-y px-3">
        {comments.map(({ author, text, date }, nth) => {
          const moment = date === undefined ? Number.NaN : Date.parse(date);
          return (
            <li key={nth} className="py-2">
              <p className="quiet text-sm">
                {author || "Somebody"}
                {Number.isFinite(moment) && (
                  <>
                    , <time dateTime={date}>{when.format(moment)}</time>
                  </>
                )}
              </p>
              <p className="whitespace-pre-wrap">{text}</p>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
