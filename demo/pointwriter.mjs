// A stand-in for a service that writes points: node demo/pointwriter.mjs PORT answers on loopback at /v1/chat/completions,
// as model servers do. It leaves out what stands in brackets, and what follows the last comma of a long sentence.
// FAULT=number changes the numbers, negation leaves out “not”, short answers for fewer sentences, nonsense answers no JSON,
// hang never answers.
import { createServer } from "node:http";

const fault = process.env.FAULT ?? "";

function pointOf(sentence) {
  const words = sentence.replace(/\s*\([^)]*\)/g, "").replace(/[.!?]+$/, "");
  const point = words.split(" ").length > 12 ? words.replace(/,[^,]*$/, "") : words;
  if (fault === "number") return point.replace(/\d+/g, (number) => String(Number(number) + 1));
  if (fault === "negation") return point.replace(/ not\b/g, "");
  return point;
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
      const { paragraphs } = JSON.parse(asked.messages.at(-1).content);
      const points = paragraphs.map((sentences) => sentences.map(pointOf));
      if (fault === "short") points[0]?.pop();
      const content = `\`\`\`json\n${JSON.stringify({ points })}\n\`\`\``;
      response.writeHead(200, { "content-type": "application/json" });
      response.end(JSON.stringify({ choices: [{ message: { role: "assistant", content } }] }));
    } catch {
      response.writeHead(400).end();
    }
  });
}).listen(Number(process.argv[2] ?? 4301), "127.0.0.1", function () {
  process.send?.(this.address().port);
});
