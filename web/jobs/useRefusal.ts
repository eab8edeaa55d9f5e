import { useEffect } from "react";
import { useLocation, useNavigate } from "react-router";
import { useJobs } from "./useJobs";

/** Goes back to the Desk, which says why, when the file of this page's deck is refused. */
export function useRefusal(): void {
  const navigate = useNavigate();
  const { state } = useLocation() as { state: { job?: string } | null };
  const refused = useJobs().some(({ id, state: now, deck }) => id === state?.job && now === "failed" && deck === null);
  useEffect(() => void (refused && navigate("/", { replace: true })), [refused, navigate]);
}
