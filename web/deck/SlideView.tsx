import { cssFamily, drawsLigatures, type Scene, type SceneLine, type SceneNode, type SceneRun } from "@unitext/core/layout";
import { memo } from "react";

/** Numbers on the page: a thousandth of a point is finer than any screen. */
const n = (value: number) => Math.round(value * 1000) / 1000;

const NO_LIGATURES = { fontVariantLigatures: "none" } as const;

function Run({ run, y }: { run: SceneRun; y: number }) {
  return (
    <>
      <text x={n(run.rtl ? run.x + run.width : run.x)} y={n(y)} direction={run.rtl ? "rtl" : undefined} fontFamily={cssFamily(run.face)} fontSize={n(run.size)} fill={run.fill} xmlSpace="preserve" data-advance={n(run.width)} {...(drawsLigatures(run.face) ? {} : { style: NO_LIGATURES })}>
        {run.text}
      </text>
      {run.underline && <rect x={n(run.x)} y={n(y + run.size * 0.12)} width={n(run.width)} height={n(run.size * 0.05)} fill={run.fill} />}
      {run.strike && <rect x={n(run.x)} y={n(y - run.size * 0.28)} width={n(run.width)} height={n(run.size * 0.05)} fill={run.fill} />}
    </>
  );
}

function Line({ line }: { line: SceneLine }) {
  return line.runs.map((run, at) => <Run key={at} run={run} y={line.y} />);
}

function Node({ node, deck }: { node: SceneNode; deck: string }) {
  if (node.kind === "rect") return <rect x={n(node.x)} y={n(node.y)} width={n(node.width)} height={n(node.height)} fill={node.fill} />;
  if (node.kind === "text") return <g data-element={node.element ?? undefined}>{node.lines.map((line, at) => <Line key={at} line={line} />)}</g>;
  const { x, y, width, height, alt, sha256 } = node;
  if (!sha256) {
    return (
      <g>
        <title>{alt}</title>
        <rect x={n(x)} y={n(y)} width={n(width)} height={n(height)} fill="none" stroke="#8a8f8d" strokeDasharray="6 4" />
        <text x={n(x + width / 2)} y={n(y + height / 2)} textAnchor="middle" fontSize={16} fill="#6b716f">
          {node.source} is not in the deck yet
        </text>
      </g>
    );
  }
  return (
    <image x={n(x)} y={n(y)} width={n(width)} height={n(height)} href={`/api/decks/${deck}/pictures/${sha256}`}>
      <title>{alt}</title>
    </image>
  );
}

/** A slide drawn from its scene. It takes the width of its place; the page's shape sets its height. Without a label it stands in something that is named already. */
export const SlideView = memo(function SlideView({ scene, deck, label, className = "" }: { scene: Scene; deck: string; label?: string; className?: string }) {
  const { width, height } = scene.page;
  return (
    <svg viewBox={`0 0 ${width} ${height}`} className={`slide-drawing block w-full ${className}`} {...(label ? { role: "img", "aria-label": label } : { "aria-hidden": true })} lang={scene.language} data-slide={scene.slide}>
      <rect width={width} height={height} fill={scene.background} />
      {scene.nodes.map((node, at) => (
        <Node key={at} node={node} deck={deck} />
      ))}
    </svg>
  );
});
