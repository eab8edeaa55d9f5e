import type { Scene } from "@unitext/core/layout";
import { metadataOf } from "@unitext/core/model";
import { DeckState } from "@unitext/server/api";
import { useEffect, useMemo, useState } from "react";
import useSWR from "swr";
import { get } from "../api/client";
import { keepScene, recallScene, seenScenes } from "./keptscenes";
import { useScene } from "./scenes";
import { SlideView } from "./SlideView";

interface Props {
  deck: string;
  version: number;
  /** The slide; the first one unless given. */
  slide?: string;
  label: string;
}

/**
 * Shows a slide of a deck that is not open. It is laid out once for a version of the deck and then kept in this browser,
 * so that the Desk shows its decks at once.
 */
export function KeptSlide({ deck, version, slide, label }: Props) {
  const key = `${deck}@${version}${slide === undefined ? "" : `/${slide}`}`;
  const [kept, setKept] = useState<Scene | null | undefined>(() => seenScenes.get(key));
  useEffect(() => {
    let gone = false;
    void recallScene(key).then((scene) => !gone && setKept(scene ?? null));
    return () => {
      gone = true;
    };
  }, [key]);
  if (kept) return <SlideView scene={kept} deck={deck} label={label} />;
  if (kept === undefined) return null;
  return (
    <Loaded
      deck={deck}
      version={version}
      label={label}
      {...(slide === undefined ? {} : { slide })}
      onScene={(scene) => void keepScene(key, scene)}
    />
  );
}

function Loaded({ deck, version, slide, label, onScene }: Props & { onScene: (scene: Scene) => void }) {
  const address = `/decks/${deck}/first${slide === undefined ? "" : `?slide=${slide}`}`;
  const { data } = useSWR(`${address}@${version}`, () => get(address, DeckState), { revalidateOnFocus: false });
  return data?.deck.slides[0] ? <Drawn state={data} label={label} onScene={onScene} /> : null;
}

function Drawn({
  state: { deck },
  label,
  onScene,
}: {
  state: DeckState;
  label: string;
  onScene: (scene: Scene) => void;
}) {
  const metadata = useMemo(() => metadataOf(deck), [deck]);
  const scene = useScene(deck.slides[0] as DeckState["deck"]["slides"][number], 1, metadata);
  // biome-ignore lint/correctness/useExhaustiveDependencies: kept once for each drawing.
  useEffect(() => {
    if (scene) onScene(scene);
  }, [scene]);
  return scene ? <SlideView scene={scene} deck={deck.id} label={label} /> : null;
}
