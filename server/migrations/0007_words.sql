ALTER TABLE "changes" RENAME COLUMN "says" TO "description";--> statement-breakpoint
ALTER TABLE "decks" RENAME COLUMN "head" TO "metadata";