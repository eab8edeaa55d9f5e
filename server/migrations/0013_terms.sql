CREATE TABLE "term_lists" (
	"owner_id" text NOT NULL,
	"from_language" text NOT NULL,
	"to_language" text NOT NULL,
	"terms" jsonb NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "term_lists_owner_id_from_language_to_language_pk" PRIMARY KEY("owner_id","from_language","to_language")
);
--> statement-breakpoint
ALTER TABLE "term_lists" ADD CONSTRAINT "term_lists_owner_id_users_id_fk" FOREIGN KEY ("owner_id") REFERENCES "public"."users"("id") ON DELETE cascade ON UPDATE no action;