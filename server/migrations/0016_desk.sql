CREATE TABLE "folders" (
	"id" text PRIMARY KEY NOT NULL,
	"owner_id" text NOT NULL,
	"name" text NOT NULL,
	CONSTRAINT "folders_name" UNIQUE("owner_id","name")
);
--> statement-breakpoint
CREATE TABLE "slide_words" (
	"deck_id" text NOT NULL,
	"slide_id" text NOT NULL,
	"number" integer NOT NULL,
	"language" "regconfig" NOT NULL,
	"words" text NOT NULL,
	"search" "tsvector" NOT NULL,
	CONSTRAINT "slide_words_deck_id_slide_id_pk" PRIMARY KEY("deck_id","slide_id")
);
--> statement-breakpoint
ALTER TABLE "decks" ADD COLUMN "folder_id" text;--> statement-breakpoint
ALTER TABLE "decks" ADD COLUMN "binned_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "decks" ADD COLUMN "words_version" integer DEFAULT -1 NOT NULL;--> statement-breakpoint
ALTER TABLE "folders" ADD CONSTRAINT "folders_owner_id_users_id_fk" FOREIGN KEY ("owner_id") REFERENCES "public"."users"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "slide_words" ADD CONSTRAINT "slide_words_deck_id_decks_id_fk" FOREIGN KEY ("deck_id") REFERENCES "public"."decks"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "slide_words_search" ON "slide_words" USING gin ("search");--> statement-breakpoint
ALTER TABLE "decks" ADD CONSTRAINT "decks_folder_id_folders_id_fk" FOREIGN KEY ("folder_id") REFERENCES "public"."folders"("id") ON DELETE set null ON UPDATE no action;