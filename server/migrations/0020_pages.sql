CREATE TABLE "pages" (
	"id" text PRIMARY KEY NOT NULL,
	"deck_id" text NOT NULL,
	"version" integer,
	"notes" boolean NOT NULL,
	"turning" jsonb,
	"origins" jsonb NOT NULL,
	"views" integer DEFAULT 0 NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "pages" ADD CONSTRAINT "pages_deck_id_decks_id_fk" FOREIGN KEY ("deck_id") REFERENCES "public"."decks"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "pages_deck" ON "pages" USING btree ("deck_id");