import { type DragEvent, useState } from "react";
import { droppedFiles, unreadableSentence } from "./droppedfiles";

/**
 * Takes files that are dropped anywhere on an element; `onProblem` gets a sentence on those that cannot be read. Returns
 * whether files hover over it, and the handlers to put on it. What is dragged inside the page is left alone.
 */
export function useFileDrop(onFiles: (files: readonly File[]) => void, onProblem: (sentence: string) => void) {
  const [over, setOver] = useState(false);
  const hasFiles = (event: DragEvent) => event.dataTransfer.types.includes("Files");
  return {
    over,
    handlers: {
      onDragOver: (event: DragEvent) => {
        if (!hasFiles(event)) return;
        event.preventDefault();
        setOver(true);
      },
      onDragLeave: (event: DragEvent) => {
        if (!event.currentTarget.contains(event.relatedTarget as Node | null)) setOver(false);
      },
      onDrop: (event: DragEvent) => {
        if (event.defaultPrevented || !event.dataTransfer.files.length) return;
        event.preventDefault();
        setOver(false);
        void droppedFiles(event.dataTransfer).then(({ files, unreadable }) => {
          if (files.length) onFiles(files);
          const problem = unreadableSentence(unreadable);
          if (problem) onProblem(problem);
        });
      },
    },
  };
}
