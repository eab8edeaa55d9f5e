// A stand-in for a translation service: node demo/translator.mjs PORT answers on loopback, at / in the JSON contract of
// docs/translation-service.md and at /v1/chat/completions as model servers do. It knows a few words of the shore in
// Spanish; other words stay. FAULT=drop loses placeholders, nonsense answers no JSON, same returns the texts, hang never
// answers.
import { createServer } from "node:http";

const WORDS = {
  the: "la",
  tide: "marea",
  tides: "mareas",
  dune: "duna",
  dunes: "dunas",
  storm: "tormenta",
  sea: "mar",
  water: "agua",
  sand: "arena",
  and: "y",
  of: "de",
};
const fault = process.env.FAULT ?? "";

function translated({ texts, terms = [] }) {
  return texts.map((text) => {
    if (fault === "same") return text;
    if (fault === "drop") return text.replace(/⟨\/?\d+⟩/g, "");
    const withTerms = terms.reduce((words, { source, target }) => words.replaceAll(source, target), text);
    return withTerms.replace(/\p{L}+/gu, (word) => WORDS[word.toLowerCase()] ?? word);
  });
}

createServer((request, response) => {
  const chunks = [];
  request.on("data", (chunk) => chunks.push(chunk));
  request.on("end", () => {
    if (fault === "hang") return;
    if (fault === "nonsense") {
      response.end("I am sorry");
      return;
    }
    try {
      const asked = JSON.parse(Buffer.concat(chunks).toString("utf8"));
      const isChat = request.url === "/v1/chat/completions";
      const texts = translated(isChat ? JSON.parse(asked.messages.at(-1).content) : asked);
      const content = `\`\`\`json\n${JSON.stringify({ texts })}\n\`\`\``;
      response.writeHead(200, { "content-type": "application/json" });
      response.end(JSON.stringify(isChat ? { choices: [{ message: { role: "assistant", content } }] } : { texts }));
    } catch {
      response.writeHead(400).end();
    }
  });
}).listen(Number(process.argv[2] ?? 4300), "127.0.0.1", function () {
  process.send?.(this.address().port);
});
