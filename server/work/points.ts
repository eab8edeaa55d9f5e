import { extractPoints, loadGrammar, pointFaults } from "@unitext/core/generate";
import { Failure, type PointEngineName } from "@unitext/core/model";
import { type LanguageService, pointsByService } from "@unitext/node";
import type { PointsAsked, PointsProposed } from "../api";

interface Asked extends PointsAsked {
  service: LanguageService | undefined;
}

/** What an engine makes, and what it says where it makes nothing. */
interface Made {
  points: (string | null)[][];
  remark: string;
}

/** The engines by name. Each throws a Failure when it cannot work at all. */
const ENGINE: Record<PointEngineName, (asked: Asked) => Promise<Made>> = {
  extract: async ({ paragraphs, language }) => ({ points: await extractPoints(paragraphs, language), remark: "" }),
  service: ({ paragraphs, language, service }) => {
    if (!service) throw new Failure("unavailable", "service", "No service that writes points is set up here.");
    return pointsByService(paragraphs, language, service);
  },
};

/** Returns the points that an engine makes from paragraphs, each checked against its sentence. */
export async function proposePoints(asked: Asked): Promise<PointsProposed> {
  await loadGrammar();
  const { points, remark } = await ENGINE[asked.engine](asked);
  const paragraphs = points.map((list, nth) =>
    list.map((point, at) => {
      const sentence = asked.paragraphs[nth]?.[at] ?? "";
      return point === null ? null : { point, faults: pointFaults(sentence, point, asked.language) };
    }),
  );
  return { paragraphs, remark };
}
