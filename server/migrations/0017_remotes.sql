CREATE TABLE "remotes" (
	"hash" text PRIMARY KEY NOT NULL,
	"deck_id" text NOT NULL,
	"state" jsonb,
	"expires_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
ALTER TABLE "remotes" ADD CONSTRAINT "remotes_deck_id_decks_id_fk" FOREIGN KEY ("deck_id") REFERENCES "public"."decks"("id") ON DELETE cascade ON UPDATE no action;