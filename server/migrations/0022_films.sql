CREATE TABLE "film_parts" (
	"key" text PRIMARY KEY NOT NULL,
	"bytes" "bytea" NOT NULL,
	"words" jsonb,
	"used_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "films" (
	"id" text PRIMARY KEY NOT NULL,
	"deck_id" text NOT NULL,
	"format" text NOT NULL,
	"width" integer NOT NULL,
	"height" integer NOT NULL,
	"seconds" real NOT NULL,
	"slides" integer NOT NULL,
	"version" integer NOT NULL,
	"captions" jsonb NOT NULL,
	"remarks" jsonb NOT NULL,
	"size" integer NOT NULL,
	"bytes" "bytea" NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "films" ADD CONSTRAINT "films_deck_id_decks_id_fk" FOREIGN KEY ("deck_id") REFERENCES "public"."decks"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "films_deck" ON "films" USING btree ("deck_id","created_at");--> statement-breakpoint
-- Sound and pictures are compressed already; stored as they are, a part of them can be read alone.
ALTER TABLE "films" ALTER COLUMN "bytes" SET STORAGE EXTERNAL;--> statement-breakpoint
ALTER TABLE "film_parts" ALTER COLUMN "bytes" SET STORAGE EXTERNAL;
