import { type FormEvent, useState } from "react";
import { useNavigate } from "react-router";
import { mutate as mutateKey } from "swr";
import { z } from "zod";
import { post, put } from "../api/client";
import { useDeck } from "../deck/DeckContext";

/** Fields that name the present state, and that make a version for another audience. */
export function NewVersionForms() {
  const { deck, version, session, canEdit } = useDeck();
  const navigate = useNavigate();
  const [name, setName] = useState("");
  const [audience, setAudience] = useState("");
  const keepName = async (event: FormEvent) => {
    event.preventDefault();
    if (!name.trim()) return;
    await put(`/decks/${deck.id}/versions`, { version, name });
    session.notify(`This state is now called “${name.trim()}”.`);
    setName("");
    await mutateKey(
      (key) =>
        typeof key === "string" &&
        (key.startsWith(`/decks/${deck.id}/versions`) || key.startsWith(`/decks/${deck.id}/history`)),
    );
  };
  const tailor = async (event: FormEvent) => {
    event.preventDefault();
    if (!audience.trim()) return;
    const { id } = await post(`/decks/${deck.id}/followers`, { title: audience }, z.object({ id: z.string() }));
    navigate(`/decks/${id}/arrange/versions`);
  };
  return (
    <>
      <form onSubmit={(event) => void keepName(event)} className="flex gap-1">
        <input
          className="input input-xs min-w-0 flex-1"
          aria-label="Name for this state"
          placeholder="Name for this state"
          value={name}
          onChange={(event) => setName(event.target.value)}
        />
        <button type="submit" className="btn btn-xs" disabled={!name.trim() || !canEdit}>
          Keep
        </button>
      </form>
      <form onSubmit={(event) => void tailor(event)} className="flex gap-1">
        <input
          className="input input-xs min-w-0 flex-1"
          aria-label="Name of a version for another audience"
          placeholder="Version for another audience"
          value={audience}
          onChange={(event) => setAudience(event.target.value)}
        />
        <button type="submit" className="btn btn-xs" disabled={!audience.trim()}>
          Make
        </button>
      </form>
    </>
  );
}
