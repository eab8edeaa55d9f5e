import type { ViewedDeck, ViewedSlide } from "@unitext/server/api";

/** Returns the address of a slide's drawing, which names the version so that it can be kept. */
export const drawingAddress = (base: string, { version }: Pick<ViewedDeck, "version">, slide: string): string =>
  `/api${base}/drawings/${slide}?version=${version}`;

const percent = (value: number, of: number) => `${(value / of) * 100}%`;

/** A slide as large as the page allows, with its words for those who do not see it, its links, films and notes. */
export function ViewedSlideView({
  base,
  deck,
  slide,
  number,
  zoom,
  notes,
  data,
}: {
  /** The path of the deck or page in the API. */
  base: string;
  deck: ViewedDeck;
  slide: string;
  number: number;
  zoom: number;
  notes: boolean;
  data: ViewedSlide | undefined;
}) {
  const { width, height } = deck.page;
  const place = (at: { x: number; y: number; width: number; height: number }) => ({
    left: percent(at.x, width),
    top: percent(at.y, height),
    width: percent(at.width, width),
    height: percent(at.height, height),
  });
  return (
    <div className="mx-auto flex min-h-full flex-col p-3 max-md:p-0" style={{ width: `${zoom * 100}%` }}>
      <section
        aria-roledescription="slide"
        aria-label={`${number} of ${deck.slides.length}: ${deck.slides[number - 1]?.name ?? ""}`}
        className={`relative mx-auto w-full ${notes ? "" : "my-auto"}`}
        // As wide as the window, and no higher than what is left of it beside the notes.
        style={{
          maxWidth: `calc((${notes ? 78 : 100}dvh - 9rem) * ${(zoom * width) / height})`,
          aspectRatio: `${width} / ${height}`,
        }}
        data-viewed-slide={slide}
      >
        <img className="block h-full w-full bg-base-100" src={drawingAddress(base, deck, slide)} alt="" />
        {data && (
          <>
            {/* biome-ignore lint/security/noDangerouslySetInnerHtml: words that the server has escaped, in elements without attributes but addresses that it has checked. */}
            <div className="sr-only" dangerouslySetInnerHTML={{ __html: data.words }} />
            {data.links.map(({ to, words, ...at }, nth) => (
              <a
                key={nth}
                href={to}
                aria-label={words}
                title={to.startsWith("#") ? words : to}
                className="absolute rounded-sm focus-visible:outline-3 focus-visible:outline-secondary"
                style={place(at)}
                {...(to.startsWith("#") ? {} : { target: "_blank", rel: "noreferrer" })}
              />
            ))}
            {data.media.map(({ type, alt, sha256, poster, ...at }, nth) => {
              const address = (sum: string) => `/api${base}/pictures/${sum}`;
              return (
                <div key={nth} className="absolute" style={place(at)}>
                  {type === "video" ? (
                    <video
                      className="h-full w-full bg-black object-contain"
                      controls
                      playsInline
                      preload="metadata"
                      aria-label={alt || "Film"}
                      src={address(sha256)}
                      {...(poster === null ? {} : { poster: address(poster) })}
                    />
                  ) : (
                    // biome-ignore lint/a11y/useMediaCaption: sounds in decks come without captions.
                    <audio
                      className="w-full"
                      controls
                      preload="metadata"
                      aria-label={alt || "Sound"}
                      src={address(sha256)}
                    />
                  )}
                </div>
              );
            })}
          </>
        )}
      </section>
      {notes && data && (
        <section
          aria-label="Notes"
          className="mx-auto w-full max-w-3xl px-3 py-3 font-serif leading-7 [&_li]:ml-6 [&_ol]:list-decimal [&_p]:mb-2 [&_ul]:list-disc"
        >
          {data.notes === null ? (
            <p className="quiet">This slide has no notes.</p>
          ) : (
            // biome-ignore lint/security/noDangerouslySetInnerHtml: notes that the server has escaped.
            <div dangerouslySetInnerHTML={{ __html: data.notes }} />
          )}
        </section>
      )}
    </div>
  );
}
