CREATE EXTENSION IF NOT EXISTS pg_trgm;
--> statement-breakpoint
CREATE TABLE "memory" (
	"id" text PRIMARY KEY NOT NULL,
	"owner_id" text NOT NULL,
	"from_language" text NOT NULL,
	"to_language" text NOT NULL,
	"words" text NOT NULL,
	"source" jsonb NOT NULL,
	"target" jsonb NOT NULL,
	"deck_id" text,
	"at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "memory" ADD CONSTRAINT "memory_owner_id_users_id_fk" FOREIGN KEY ("owner_id") REFERENCES "public"."users"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "memory" ADD CONSTRAINT "memory_deck_id_decks_id_fk" FOREIGN KEY ("deck_id") REFERENCES "public"."decks"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "memory_owner" ON "memory" USING btree ("owner_id","from_language","to_language");--> statement-breakpoint
CREATE INDEX "memory_words" ON "memory" USING gin ("words" gin_trgm_ops);