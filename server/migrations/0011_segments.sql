CREATE TABLE "segments" (
	"deck_id" text NOT NULL,
	"id" text NOT NULL,
	"source" jsonb NOT NULL,
	"target" jsonb NOT NULL,
	"state" text NOT NULL,
	"user_id" text,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "segments_deck_id_id_pk" PRIMARY KEY("deck_id","id")
);
--> statement-breakpoint
ALTER TABLE "segments" ADD CONSTRAINT "segments_deck_id_decks_id_fk" FOREIGN KEY ("deck_id") REFERENCES "public"."decks"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "segments" ADD CONSTRAINT "segments_user_id_users_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."users"("id") ON DELETE set null ON UPDATE no action;