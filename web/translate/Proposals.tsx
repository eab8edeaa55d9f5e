import { Proposals, type ProposalsAsked } from "@unitext/server/api";
import useSWR from "swr";
import type { z } from "zod";
import { post } from "../api/client";
import { typedText } from "@unitext/core/translate";

export type Proposal = Proposals["proposals"][number];

/** Returns the memory's proposals for a text; empty while they load and when no text is given. */
export function useProposals(asked: z.infer<typeof ProposalsAsked> | undefined): readonly Proposal[] {
  const { data } = useSWR(
    asked && ["/memory/proposals", JSON.stringify(asked)],
    ([path]) => post(path, asked, Proposals),
    { revalidateOnFocus: false },
  );
  return data?.proposals ?? [];
}

const PERCENT = new Intl.NumberFormat(undefined, { style: "percent", maximumFractionDigits: 0 });

/** Says how similar the source of a proposal is. */
function likenessName({ sameContext, numbersAdapted, likeness }: Proposal): string {
  if (sameContext) return "same context";
  return numbersAdapted ? "other numbers" : PERCENT.format(likeness);
}

/** Proposals of the memory, each with its likeness and the key that takes it. */
export function ProposalList({
  proposals,
  onTake,
}: {
  proposals: readonly Proposal[];
  onTake: (proposal: Proposal) => void;
}) {
  if (!proposals.length) return null;
  return (
    <ul aria-label="From the memory" className="mt-1 text-xs">
      {proposals.slice(0, 3).map((proposal, nth) => (
        <li key={typedText(proposal.pieces)}>
          <button
            type="button"
            className="hover:bg-base-300 flex w-full gap-2 px-1 py-0.5 text-left"
            title={`Alt+${nth + 1}`}
            onClick={() => onTake(proposal)}
          >
            <span className="quiet w-24 shrink-0 tabular-nums">
              {nth + 1}: {likenessName(proposal)}
            </span>
            <span>{typedText(proposal.pieces)}</span>
          </button>
        </li>
      ))}
    </ul>
  );
}
