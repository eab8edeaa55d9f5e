import { CollectionList } from "@unitext/server/api";
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import useSWR from "swr";
import { z } from "zod";
import { get, post } from "../api/client";
import { Page } from "../people/Page";
import { CollectionForm } from "./CollectionForm";

const when = new Intl.DateTimeFormat(undefined, { dateStyle: "medium", timeStyle: "short" });

/** All collections of the person, and a form to begin one. */
export default function Collections() {
  const { data, error } = useSWR("/collections", () => get("/collections", CollectionList));
  const [making, setMaking] = useState(false);
  const [problem, setProblem] = useState("");
  const navigate = useNavigate();
  return (
    <Page
      title="Collect decks"
      lead="Others hand in a deck by a link, without an account and under names of one scheme. You see who is missing, look through, comment, and gather all into one."
    >
      {(problem || error) && (
        <p role="alert" className="border-error mb-3 border-l-4 pl-2">
          {problem || (error as Error).message}
        </p>
      )}
      {making ? (
        <CollectionForm
          act="Begin to collect"
          onCancel={() => setMaking(false)}
          onSend={async (terms) => {
            try {
              const { id } = await post("/collections", terms, z.object({ id: z.string() }));
              navigate(`/collections/${id}`);
            } catch (reason) {
              setProblem((reason as Error).message);
            }
          }}
        />
      ) : (
        <button type="button" className="btn btn-primary btn-sm mb-4" onClick={() => setMaking(true)}>
          New collection …
        </button>
      )}
      {data && data.collections.length > 0 && (
        <table className="w-full text-sm">
          <thead>
            <tr className="quiet text-left">
              <th className="py-1 pr-4 font-normal">Collection</th>
              <th className="py-1 pr-4 font-normal">Due</th>
              <th className="py-1 text-right font-normal">Handed in</th>
            </tr>
          </thead>
          <tbody>
            {data.collections.map(({ id, title, dueAt, closed, names, expected }) => (
              <tr key={id} className="hairline border-t">
                <td className="py-2 pr-4">
                  <Link className="font-semibold underline-offset-4 hover:underline" to={`/collections/${id}`}>
                    {title}
                  </Link>
                  {closed && <span className="quiet"> · closed</span>}
                </td>
                <td className="py-2 pr-4">{dueAt ? when.format(new Date(dueAt)) : "–"}</td>
                <td className="py-2 text-right">{expected ? `${names} of ${expected}` : names}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {data?.collections.length === 0 && !making && (
        <p className="quiet">You collect nothing yet. A collection is a link that you give to a class.</p>
      )}
    </Page>
  );
}
