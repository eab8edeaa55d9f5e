import { useParams } from "react-router";
import { Viewer } from "./Viewer";

/** The viewer's page of a deck that is shared with a person of the house. */
export default function DeckView() {
  const { deck = "" } = useParams();
  return <Viewer key={deck} deck={deck} />;
}
