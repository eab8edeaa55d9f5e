/** Requests that were sent before the script that needs them was there, by path. */
const sent = new Map<string, Promise<Response>>();
/** How long an unused answer is kept, in milliseconds. */
const KEPT = 5000;

/** Requests a path of the API before the page that shows it is rendered. */
export function requestAhead(path: string): void {
  const answer = fetch(`/api${path}`);
  // An error reaches whoever asks for the answer.
  answer.catch(() => undefined);
  sent.set(path, answer);
  setTimeout(() => sent.delete(path), KEPT);
}

/** Returns the answer that was requested ahead, once; undefined where there is none. */
export function takeAhead(path: string): Promise<Response> | undefined {
  const answer = sent.get(path);
  sent.delete(path);
  return answer;
}
