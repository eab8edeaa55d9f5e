ALTER TABLE "sources" ADD COLUMN "address" text;--> statement-breakpoint
ALTER TABLE "sources" ADD COLUMN "etag" text;--> statement-breakpoint
ALTER TABLE "sources" ADD COLUMN "modified" text;--> statement-breakpoint
ALTER TABLE "sources" ADD COLUMN "checked_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "sources" ADD COLUMN "problem" text;