CREATE TABLE "themes" (
	"owner_id" text NOT NULL,
	"name" text NOT NULL,
	"theme" jsonb NOT NULL,
	"schema" integer DEFAULT 1 NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "themes_owner_id_name_pk" PRIMARY KEY("owner_id","name")
);
--> statement-breakpoint
ALTER TABLE "themes" ADD CONSTRAINT "themes_owner_id_users_id_fk" FOREIGN KEY ("owner_id") REFERENCES "public"."users"("id") ON DELETE cascade ON UPDATE no action;