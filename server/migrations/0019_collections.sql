CREATE TABLE "collections" (
	"id" text PRIMARY KEY NOT NULL,
	"owner_id" text NOT NULL,
	"hash" text NOT NULL,
	"title" text NOT NULL,
	"parts" jsonb NOT NULL,
	"formats" jsonb NOT NULL,
	"due_at" timestamp with time zone,
	"expected" jsonb NOT NULL,
	"folder_id" text,
	"closed" boolean DEFAULT false NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "collections_hash_unique" UNIQUE("hash")
);
--> statement-breakpoint
CREATE TABLE "hand_ins" (
	"id" text PRIMARY KEY NOT NULL,
	"collection_id" text NOT NULL,
	"hash" text NOT NULL,
	"name" text NOT NULL,
	"nth" integer NOT NULL,
	"file" text NOT NULL,
	"sha256" text NOT NULL,
	"size" integer NOT NULL,
	"deck_id" text,
	"job_id" text,
	"late" boolean NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "hand_ins_hash_unique" UNIQUE("hash"),
	CONSTRAINT "hand_ins_nth" UNIQUE("collection_id","name","nth")
);
--> statement-breakpoint
ALTER TABLE "collections" ADD CONSTRAINT "collections_owner_id_users_id_fk" FOREIGN KEY ("owner_id") REFERENCES "public"."users"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "collections" ADD CONSTRAINT "collections_folder_id_folders_id_fk" FOREIGN KEY ("folder_id") REFERENCES "public"."folders"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "hand_ins" ADD CONSTRAINT "hand_ins_collection_id_collections_id_fk" FOREIGN KEY ("collection_id") REFERENCES "public"."collections"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "hand_ins" ADD CONSTRAINT "hand_ins_deck_id_decks_id_fk" FOREIGN KEY ("deck_id") REFERENCES "public"."decks"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "hand_ins" ADD CONSTRAINT "hand_ins_job_id_jobs_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."jobs"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "collections_owner" ON "collections" USING btree ("owner_id");