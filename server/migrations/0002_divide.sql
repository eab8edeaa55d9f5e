CREATE TABLE "versions" (
	"deck_id" text NOT NULL,
	"version" integer NOT NULL,
	"name" text NOT NULL,
	"user_id" text NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "versions_deck_id_version_pk" PRIMARY KEY("deck_id","version")
);
--> statement-breakpoint
ALTER TABLE "changes" ADD COLUMN "says" text;--> statement-breakpoint
ALTER TABLE "changes" ADD COLUMN "undoes" text;--> statement-breakpoint
ALTER TABLE "changes" ADD COLUMN "redoes" text;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "result" jsonb;--> statement-breakpoint
ALTER TABLE "versions" ADD CONSTRAINT "versions_deck_id_decks_id_fk" FOREIGN KEY ("deck_id") REFERENCES "public"."decks"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "versions" ADD CONSTRAINT "versions_user_id_users_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."users"("id") ON DELETE no action ON UPDATE no action;