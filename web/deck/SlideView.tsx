import type { FigurePath } from "@unitext/core/figures";
import {
  cssFamily,
  drawsLigatures,
  formulaPaths,
  ruledPaths,
  type Scene,
  type SceneLine,
  type SceneNode,
  type SceneRun,
} from "@unitext/core/layout";
import { pathsMarkup, recolourMarkup } from "@unitext/core/draw";
import { languageDirection, type Reveal, textHash } from "@unitext/core/model";
import { memo, useId } from "react";

/** Rounds numbers to thousandths of a point, finer than any screen. */
const n = (value: number) => Math.round(value * 1000) / 1000;

const NO_LIGATURES = { fontVariantLigatures: "none" } as const;

function Paths({ paths }: { paths: readonly FigurePath[] }) {
  // A unique name: the same slide may be drawn in a hidden part of the page, whose definitions are not used.
  const own = useId().replace(/\W/g, "");
  if (paths.some(({ paint, blur }) => paint || blur))
    // biome-ignore lint/security/noDangerouslySetInnerHtml: gradients and patterns as escaped markup of our own drawing, the same as in files.
    return <g dangerouslySetInnerHTML={{ __html: pathsMarkup(paths, own) }} />;
  return paths.map(({ d, fill, stroke, width, matrix, dash, fillOpacity, strokeOpacity }, at) => (
    <path
      key={at}
      d={d}
      fill={fill ?? "none"}
      fillOpacity={fillOpacity}
      strokeOpacity={strokeOpacity}
      strokeDasharray={dash?.join(" ")}
      stroke={stroke}
      strokeWidth={stroke ? n(width ?? 1) : undefined}
      strokeLinejoin={stroke ? "round" : undefined}
      transform={matrix ? `matrix(${matrix.map((value) => Number(value.toFixed(6))).join(" ")})` : undefined}
    />
  ));
}

function Run({ run, y: line }: { run: SceneRun; y: number }) {
  if (run.formula) return <Paths paths={formulaPaths(run, line)} />;
  const y = line - (run.rise ?? 0);
  return (
    <>
      {run.highlight && (
        <rect
          x={n(run.x)}
          y={n(y - run.size * 0.95)}
          width={n(run.width)}
          height={n(run.size * 1.2)}
          fill={run.highlight}
        />
      )}
      <text
        x={n(run.rtl ? run.x + run.width : run.x)}
        y={n(y)}
        direction={run.rtl ? "rtl" : undefined}
        fontFamily={cssFamily(run.face)}
        fontSize={n(run.size)}
        fill={run.fill}
        xmlSpace="preserve"
        data-advance={n(run.width)}
        {...(drawsLigatures(run.face) ? {} : { style: NO_LIGATURES })}
      >
        {run.text}
      </text>
      {(run.underline || run.strike) && <Paths paths={ruledPaths(run, y)} />}
    </>
  );
}

function Line({ line }: { line: SceneLine }) {
  return line.runs.map((run, at) => <Run key={at} run={run} y={line.y} />);
}

/** How an element or paragraph is shown now: hidden, with its entrance, or (undefined) unchanged. */
type Showing = (element: string | null, paragraph?: number) => Reveal | "later" | undefined;

/** Wraps what appears in a group that plays its effect. */
function Revealed({ by, children }: { by: ReturnType<Showing>; children: React.ReactNode }) {
  if (by === "later") return null;
  if (!by) return children;
  return (
    <g
      data-effect={by.effect}
      style={{ ["--takes" as string]: `${by.seconds}s`, ["--waits" as string]: `${by.start}s` }}
    >
      {children}
    </g>
  );
}

const Node = memo(function Node(props: { node: SceneNode; deck: string; showing: Showing | undefined }) {
  const { node, showing } = props;
  const by = "element" in node ? showing?.(node.element) : undefined;
  return by ? (
    <Revealed by={by}>
      <Drawn {...props} showing={undefined} />
    </Revealed>
  ) : (
    <Drawn {...props} />
  );
});

function Drawn({ node, deck, showing }: { node: SceneNode; deck: string; showing: Showing | undefined }) {
  if (node.kind === "rect")
    return <rect x={n(node.x)} y={n(node.y)} width={n(node.width)} height={n(node.height)} fill={node.fill} />;
  if (node.kind === "text")
    return (
      <g data-element={node.element ?? undefined}>
        {node.lines.map((line, at) => (
          <Revealed key={at} by={showing?.(node.element, line.paragraph)}>
            <Line line={line} />
          </Revealed>
        ))}
      </g>
    );
  if (node.kind === "paths")
    return (
      <g data-element={node.element ?? undefined}>
        <Paths paths={node.paths} />
      </g>
    );
  if (node.kind === "group") {
    const { matrix, clip, opacity, nodes } = node;
    const inside = nodes.map((inner, at) => <Node key={at} node={inner} deck={deck} showing={showing} />);
    const id = clip === undefined ? "" : `c${textHash(clip)}`;
    return (
      <g
        transform={matrix ? `matrix(${matrix.map((value) => Number(value.toFixed(6))).join(" ")})` : undefined}
        opacity={opacity}
      >
        {clip === undefined ? (
          inside
        ) : (
          <>
            <clipPath id={id}>
              <path d={clip} clipRule="evenodd" />
            </clipPath>
            <g clipPath={`url(#${id})`}>{inside}</g>
          </>
        )}
      </g>
    );
  }
  const { x, y, width, height, alt, sha256 } = node;
  if (!sha256) {
    return (
      <g>
        <title>{alt}</title>
        <rect
          x={n(x)}
          y={n(y)}
          width={n(width)}
          height={n(height)}
          fill="none"
          stroke="#8a8f8d"
          strokeDasharray="6 4"
        />
        <text x={n(x + width / 2)} y={n(y + height / 2)} textAnchor="middle" fontSize={16} fill="#6b716f">
          {node.source} is not in the deck yet
        </text>
      </g>
    );
  }
  const image = (
    <image
      x={n(x)}
      y={n(y)}
      width={n(width)}
      height={n(height)}
      preserveAspectRatio="none"
      href={`${deck.startsWith("/") ? deck : `/api/decks/${deck}`}/pictures/${sha256}`}
    >
      <title>{alt}</title>
    </image>
  );
  if (!node.recolour) return image;
  return (
    <>
      {/* biome-ignore lint/security/noDangerouslySetInnerHtml: a filter of our own, the same as in files. */}
      <g dangerouslySetInnerHTML={{ __html: recolourMarkup(node.recolour) }} />
      <g filter={`url(#recolour-${node.recolour})`}>{image}</g>
    </>
  );
}

/**
 * Draws a slide from its scene. It takes the width of its container; the page's shape sets its height. Without a label
 * it is inside something that has a name. With `step`, what appears at presses is shown up to that one; with `since`,
 * what appeared after that press plays its effect.
 */
export const SlideView = memo(function SlideView({
  scene,
  deck,
  label,
  step,
  since,
  className = "",
}: {
  scene: Scene;
  deck: string;
  label?: string;
  step?: number;
  since?: number;
  className?: string;
}) {
  const { width, height } = scene.page;
  const { reveals } = scene;
  const showing: Showing | undefined =
    step === undefined || !reveals
      ? undefined
      : (element, paragraph) => {
          const reveal = reveals.find((one) => one.element === element && one.paragraph === paragraph);
          if (!reveal) return undefined;
          if (reveal.press > step) return "later";
          return since !== undefined && reveal.press > since && (reveal.effect !== "appear" || reveal.start > 0)
            ? reveal
            : undefined;
        };
  return (
    // biome-ignore lint/a11y/noSvgWithoutTitle: a drawing with a label has it as aria-label; one without is hidden from readers.
    <svg
      viewBox={`0 0 ${width} ${height}`}
      data-direction={languageDirection(scene.language)}
      className={`slide-drawing block w-full ${className}`}
      {...(label ? { role: "img", "aria-label": label } : { "aria-hidden": true })}
      lang={scene.language}
      data-slide={scene.slide}
    >
      <rect width={width} height={height} fill={scene.background} />
      {scene.nodes.map((node, at) => (
        <Node key={at} node={node} deck={deck} showing={showing} />
      ))}
    </svg>
  );
});
