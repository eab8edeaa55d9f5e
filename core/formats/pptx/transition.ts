import type { Slide } from "@unitext/core/model";
import { xml } from "../archive";

/** Texts whose paragraphs appear one at a time, as the ids of their shapes with how many paragraphs they have. */
export type Stepped = readonly { shape: number; paragraphs: number }[];

/** Points that appear at a press, one after the other (`p:timing`, ECMA-376-1, 19.5): each is made visible by an entrance of its own. */
export function timingXml(stepped: Stepped): string {
  if (!stepped.length) return "";
  let id = 2;
  const begin = (delay: string) => xml("p:stCondLst", {}, xml("p:cond", { delay }));
  const point = (shape: number, at: number) => {
    const target = xml("p:tgtEl", {}, xml("p:spTgt", { spid: shape }, xml("p:txEl", {}, xml("p:pRg", { st: at, end: at }))));
    const set = () => xml("p:set", {}, xml("p:cBhvr", {}, xml("p:cTn", { id: ++id, dur: 1, fill: "hold" }, begin("0")), target, "<p:attrNameLst><p:attrName>style.visibility</p:attrName></p:attrNameLst>"), '<p:to><p:strVal val="visible"/></p:to>');
    // Ids count from outside in, as they are read.
    const outer = id + 1;
    id = outer + 2;
    const shown = set();
    const effect = xml("p:par", {}, xml("p:cTn", { id: outer + 2, presetID: 1, presetClass: "entr", presetSubtype: 0, fill: "hold", grpId: 0, nodeType: "clickEffect" }, begin("0"), xml("p:childTnLst", {}, shown)));
    const middle = xml("p:par", {}, xml("p:cTn", { id: outer + 1, fill: "hold" }, begin("0"), xml("p:childTnLst", {}, effect)));
    return xml("p:par", {}, xml("p:cTn", { id: outer, fill: "hold" }, begin("indefinite"), xml("p:childTnLst", {}, middle)));
  };
  const points = stepped.flatMap(({ shape, paragraphs }) => Array.from({ length: paragraphs }, (_, at) => point(shape, at)));
  const slide = '<p:tgtEl><p:sldTgt/></p:tgtEl>';
  const sequence = xml("p:seq", { concurrent: 1, nextAc: "seek" }, xml("p:cTn", { id: 2, dur: "indefinite", nodeType: "mainSeq" }, xml("p:childTnLst", {}, ...points)), `<p:prevCondLst><p:cond evt="onPrev" delay="0">${slide}</p:cond></p:prevCondLst><p:nextCondLst><p:cond evt="onNext" delay="0">${slide}</p:cond></p:nextCondLst>`);
  const root = xml("p:par", {}, xml("p:cTn", { id: 1, dur: "indefinite", restart: "never", nodeType: "tmRoot" }, xml("p:childTnLst", {}, sequence)));
  return xml("p:timing", {}, xml("p:tnLst", {}, root), xml("p:bldLst", {}, ...stepped.map(({ shape }) => xml("p:bldP", { spid: shape, grpId: 0, build: "p" }))));
}

/** How a slide comes in (`p:transition`, ECMA-376-1, 19.3.1.50); nothing where it just comes. */
export function transitionXml({ transition, delay }: Pick<Slide, "transition" | "delay">): string {
  if (!transition && !delay) return "";
  const speed = !transition || transition.seconds <= 0.5 ? "fast" : transition.seconds <= 1 ? "med" : "slow";
  return xml("p:transition", { spd: speed, advTm: delay ? Math.round(delay * 1000) : undefined }, transition ? `<p:${transition.kind}/>` : "");
}
