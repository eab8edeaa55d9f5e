CREATE TABLE "blobs" (
	"sha256" text PRIMARY KEY NOT NULL,
	"media_type" text NOT NULL,
	"bytes" "bytea" NOT NULL
);
--> statement-breakpoint
CREATE TABLE "changes" (
	"deck_id" text NOT NULL,
	"version" integer NOT NULL,
	"change_id" text NOT NULL,
	"user_id" text NOT NULL,
	"change" jsonb NOT NULL,
	"inverse" jsonb NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "changes_deck_id_version_pk" PRIMARY KEY("deck_id","version"),
	CONSTRAINT "changes_once" UNIQUE("deck_id","change_id")
);
--> statement-breakpoint
CREATE TABLE "deck_blobs" (
	"deck_id" text NOT NULL,
	"sha256" text NOT NULL,
	CONSTRAINT "deck_blobs_deck_id_sha256_pk" PRIMARY KEY("deck_id","sha256")
);
--> statement-breakpoint
CREATE TABLE "decks" (
	"id" text PRIMARY KEY NOT NULL,
	"owner_id" text NOT NULL,
	"head" jsonb NOT NULL,
	"version" integer DEFAULT 0 NOT NULL,
	"text" text,
	"text_version" integer DEFAULT -1 NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"changed_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "sessions" (
	"token" text PRIMARY KEY NOT NULL,
	"user_id" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "shares" (
	"deck_id" text NOT NULL,
	"user_id" text NOT NULL,
	"right" text NOT NULL,
	CONSTRAINT "shares_deck_id_user_id_pk" PRIMARY KEY("deck_id","user_id")
);
--> statement-breakpoint
CREATE TABLE "slides" (
	"deck_id" text NOT NULL,
	"id" text NOT NULL,
	"key" text NOT NULL,
	"parent_id" text,
	"body" jsonb NOT NULL,
	"notes" jsonb NOT NULL,
	CONSTRAINT "slides_deck_id_id_pk" PRIMARY KEY("deck_id","id")
);
--> statement-breakpoint
CREATE TABLE "users" (
	"id" text PRIMARY KEY NOT NULL,
	"name" text NOT NULL
);
--> statement-breakpoint
ALTER TABLE "changes" ADD CONSTRAINT "changes_deck_id_decks_id_fk" FOREIGN KEY ("deck_id") REFERENCES "public"."decks"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "changes" ADD CONSTRAINT "changes_user_id_users_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."users"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "deck_blobs" ADD CONSTRAINT "deck_blobs_deck_id_decks_id_fk" FOREIGN KEY ("deck_id") REFERENCES "public"."decks"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "deck_blobs" ADD CONSTRAINT "deck_blobs_sha256_blobs_sha256_fk" FOREIGN KEY ("sha256") REFERENCES "public"."blobs"("sha256") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "decks" ADD CONSTRAINT "decks_owner_id_users_id_fk" FOREIGN KEY ("owner_id") REFERENCES "public"."users"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sessions" ADD CONSTRAINT "sessions_user_id_users_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."users"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "shares" ADD CONSTRAINT "shares_deck_id_decks_id_fk" FOREIGN KEY ("deck_id") REFERENCES "public"."decks"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "shares" ADD CONSTRAINT "shares_user_id_users_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."users"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "slides" ADD CONSTRAINT "slides_deck_id_decks_id_fk" FOREIGN KEY ("deck_id") REFERENCES "public"."decks"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "decks_owner" ON "decks" USING btree ("owner_id");--> statement-breakpoint
CREATE INDEX "slides_order" ON "slides" USING btree ("deck_id","key");