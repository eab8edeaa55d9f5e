CREATE TABLE "audit" (
	"id" bigint PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "audit_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 9223372036854775807 START WITH 1 CACHE 1),
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"user_id" text NOT NULL,
	"act" text NOT NULL,
	"deck_id" text,
	"detail" text
);
--> statement-breakpoint
ALTER TABLE "sessions" RENAME COLUMN "token" TO "hash";--> statement-breakpoint
UPDATE "sessions" SET "hash" = encode(sha256(convert_to("hash", 'UTF8')), 'hex');--> statement-breakpoint
ALTER TABLE "blobs" ADD COLUMN "taken_at" timestamp with time zone DEFAULT now() NOT NULL;--> statement-breakpoint
ALTER TABLE "changes" ADD COLUMN "schema" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "decks" ADD COLUMN "schema" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "server" text;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "beat_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "tries" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "sessions" ADD COLUMN "expires_at" timestamp with time zone DEFAULT now() + interval '30 days' NOT NULL;--> statement-breakpoint
ALTER TABLE "sessions" ALTER COLUMN "expires_at" DROP DEFAULT;--> statement-breakpoint
ALTER TABLE "slides" ADD COLUMN "schema" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
CREATE INDEX "audit_at" ON "audit" USING btree ("at");--> statement-breakpoint
CREATE INDEX "jobs_open" ON "jobs" USING btree ("state","created_at");--> statement-breakpoint
CREATE INDEX "sessions_expiry" ON "sessions" USING btree ("expires_at");--> statement-breakpoint
DROP SCHEMA IF EXISTS "queue" CASCADE;--> statement-breakpoint
ALTER TABLE "slides" ALTER COLUMN "key" TYPE text COLLATE "C";
