CREATE TABLE "account_links" (
	"id" text PRIMARY KEY NOT NULL,
	"hash" text NOT NULL,
	"kind" text NOT NULL,
	"user_id" text,
	"role" text DEFAULT 'member' NOT NULL,
	"uses" integer DEFAULT 1 NOT NULL,
	"created_by" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"expires_at" timestamp with time zone NOT NULL,
	CONSTRAINT "account_links_hash_unique" UNIQUE("hash")
);
--> statement-breakpoint
CREATE TABLE "link_uses" (
	"link_id" text NOT NULL,
	"user_id" text NOT NULL,
	"renewals" integer NOT NULL,
	"first_at" timestamp with time zone DEFAULT now() NOT NULL,
	"last_at" timestamp with time zone DEFAULT now() NOT NULL,
	"times" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "link_uses_link_id_user_id_pk" PRIMARY KEY("link_id","user_id")
);
--> statement-breakpoint
CREATE TABLE "links" (
	"id" text PRIMARY KEY NOT NULL,
	"hash" text NOT NULL,
	"deck_id" text,
	"folder_id" text,
	"translations" boolean DEFAULT false NOT NULL,
	"right" text NOT NULL,
	"notes" boolean DEFAULT true NOT NULL,
	"renewals" integer DEFAULT 0 NOT NULL,
	"phrase" text,
	"expires_at" timestamp with time zone,
	"created_by" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "links_hash_unique" UNIQUE("hash")
);
--> statement-breakpoint
CREATE TABLE "rate_limits" (
	"key" text PRIMARY KEY NOT NULL,
	"points" integer DEFAULT 0 NOT NULL,
	"expire" bigint
);
--> statement-breakpoint
ALTER TABLE "shares" DROP CONSTRAINT "shares_deck_id_user_id_pk";--> statement-breakpoint
ALTER TABLE "shares" ALTER COLUMN "deck_id" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "sessions" ADD COLUMN "device" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "sessions" ADD COLUMN "used_at" timestamp with time zone DEFAULT now() NOT NULL;--> statement-breakpoint
ALTER TABLE "shares" ADD COLUMN "folder_id" text;--> statement-breakpoint
ALTER TABLE "shares" ADD COLUMN "translations" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "shares" ADD COLUMN "notes" boolean DEFAULT true NOT NULL;--> statement-breakpoint
ALTER TABLE "shares" ADD COLUMN "created_by" text;--> statement-breakpoint
ALTER TABLE "shares" ADD COLUMN "at" timestamp with time zone DEFAULT now() NOT NULL;--> statement-breakpoint
ALTER TABLE "users" ADD COLUMN "role" text DEFAULT 'member' NOT NULL;--> statement-breakpoint
ALTER TABLE "users" ADD COLUMN "password" text;--> statement-breakpoint
ALTER TABLE "users" ADD COLUMN "totp" text;--> statement-breakpoint
ALTER TABLE "users" ADD COLUMN "totp_step" integer;--> statement-breakpoint
ALTER TABLE "users" ADD COLUMN "closed_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "users" ADD COLUMN "created_at" timestamp with time zone DEFAULT now() NOT NULL;--> statement-breakpoint
ALTER TABLE "account_links" ADD CONSTRAINT "account_links_user_id_users_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."users"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "account_links" ADD CONSTRAINT "account_links_created_by_users_id_fk" FOREIGN KEY ("created_by") REFERENCES "public"."users"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "link_uses" ADD CONSTRAINT "link_uses_link_id_links_id_fk" FOREIGN KEY ("link_id") REFERENCES "public"."links"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "link_uses" ADD CONSTRAINT "link_uses_user_id_users_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."users"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "links" ADD CONSTRAINT "links_deck_id_decks_id_fk" FOREIGN KEY ("deck_id") REFERENCES "public"."decks"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "links" ADD CONSTRAINT "links_folder_id_folders_id_fk" FOREIGN KEY ("folder_id") REFERENCES "public"."folders"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "links" ADD CONSTRAINT "links_created_by_users_id_fk" FOREIGN KEY ("created_by") REFERENCES "public"."users"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "link_uses_user" ON "link_uses" USING btree ("user_id");--> statement-breakpoint
CREATE INDEX "links_deck" ON "links" USING btree ("deck_id");--> statement-breakpoint
CREATE INDEX "links_folder" ON "links" USING btree ("folder_id");--> statement-breakpoint
CREATE INDEX "rate_limits_expiry" ON "rate_limits" USING btree ("expire");--> statement-breakpoint
ALTER TABLE "shares" ADD CONSTRAINT "shares_folder_id_folders_id_fk" FOREIGN KEY ("folder_id") REFERENCES "public"."folders"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "shares" ADD CONSTRAINT "shares_created_by_users_id_fk" FOREIGN KEY ("created_by") REFERENCES "public"."users"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "decks_folder" ON "decks" USING btree ("folder_id");--> statement-breakpoint
CREATE INDEX "decks_original" ON "decks" USING btree (("metadata" -> 'original' ->> 'deck'));--> statement-breakpoint
CREATE INDEX "sessions_user" ON "sessions" USING btree ("user_id");--> statement-breakpoint
CREATE INDEX "shares_user" ON "shares" USING btree ("user_id");--> statement-breakpoint
CREATE UNIQUE INDEX "users_name" ON "users" USING btree (lower("name")) WHERE "users"."role" <> 'guest' and "users"."password" is not null;--> statement-breakpoint
ALTER TABLE "shares" ADD CONSTRAINT "shares_deck_user" UNIQUE("deck_id","user_id");--> statement-breakpoint
ALTER TABLE "shares" ADD CONSTRAINT "shares_folder_user" UNIQUE("folder_id","user_id");
--> statement-breakpoint
UPDATE "users" SET "role" = 'owner' WHERE "id" = 'demo';--> statement-breakpoint
CREATE VIEW "access" AS
WITH grants AS NOT MATERIALIZED (
  SELECT deck_id, folder_id, translations, user_id, "right", notes FROM shares
  UNION ALL
  SELECT l.deck_id, l.folder_id, l.translations, u.user_id, l."right", l.notes
  FROM links l JOIN link_uses u ON u.link_id = l.id AND u.renewals = l.renewals
  WHERE l.expires_at IS NULL OR l.expires_at > now()
), reached AS NOT MATERIALIZED (
  SELECT deck_id, user_id, "right", notes FROM grants WHERE deck_id IS NOT NULL
  UNION ALL
  SELECT t.id, g.user_id, g."right", g.notes
  FROM grants g
  JOIN decks o ON o.id = g.deck_id
  JOIN decks t ON t.metadata -> 'original' ->> 'deck' = g.deck_id
    AND t.metadata -> 'original' ->> 'language' IS NOT NULL AND t.owner_id = o.owner_id
  WHERE g.translations
  UNION ALL
  SELECT d.id, g.user_id, g."right", g.notes FROM grants g JOIN decks d ON d.folder_id = g.folder_id
)
SELECT deck_id, user_id,
  max(array_position(ARRAY['copy', 'view', 'comment', 'edit'], "right")) AS rank,
  bool_or(notes OR "right" = 'edit') AS notes
FROM reached GROUP BY deck_id, user_id;
