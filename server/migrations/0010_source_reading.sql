ALTER TABLE "sources" ADD COLUMN "csv" jsonb;--> statement-breakpoint
ALTER TABLE "sources" ADD COLUMN "typed" boolean DEFAULT false NOT NULL;