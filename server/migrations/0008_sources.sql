CREATE TABLE "bindings" (
	"deck_id" text NOT NULL,
	"slide_id" text NOT NULL,
	"nth" integer NOT NULL,
	"source" text NOT NULL,
	"range" text NOT NULL,
	"mode" text NOT NULL,
	"version" text,
	"state" text NOT NULL,
	CONSTRAINT "bindings_deck_id_slide_id_nth_pk" PRIMARY KEY("deck_id","slide_id","nth")
);
--> statement-breakpoint
CREATE TABLE "source_versions" (
	"source_id" text NOT NULL,
	"sha256" text NOT NULL,
	"origin" text NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"bytes" "bytea" NOT NULL,
	CONSTRAINT "source_versions_source_id_sha256_pk" PRIMARY KEY("source_id","sha256")
);
--> statement-breakpoint
CREATE TABLE "sources" (
	"id" text PRIMARY KEY NOT NULL,
	"owner_id" text NOT NULL,
	"name" text NOT NULL,
	"newest" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "sources_name" UNIQUE("owner_id","name")
);
--> statement-breakpoint
ALTER TABLE "bindings" ADD CONSTRAINT "bindings_deck_id_slide_id_slides_deck_id_id_fk" FOREIGN KEY ("deck_id","slide_id") REFERENCES "public"."slides"("deck_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "source_versions" ADD CONSTRAINT "source_versions_source_id_sources_id_fk" FOREIGN KEY ("source_id") REFERENCES "public"."sources"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sources" ADD CONSTRAINT "sources_owner_id_users_id_fk" FOREIGN KEY ("owner_id") REFERENCES "public"."users"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "bindings_source" ON "bindings" USING btree ("source","deck_id");--> statement-breakpoint
CREATE INDEX "source_versions_at" ON "source_versions" USING btree ("source_id","at");--> statement-breakpoint
CREATE FUNCTION index_bindings() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	IF TG_OP = 'UPDATE' THEN
		IF NEW.body IS NOT DISTINCT FROM OLD.body AND NEW.notes IS NOT DISTINCT FROM OLD.notes THEN
			RETURN NULL;
		END IF;
		DELETE FROM bindings WHERE deck_id = NEW.deck_id AND slide_id = NEW.id;
	END IF;
	INSERT INTO bindings (deck_id, slide_id, nth, source, range, mode, version, state)
	SELECT NEW.deck_id, NEW.id, row_number() OVER () - 1, bound ->> 'source', bound ->> 'range', bound ->> 'mode',
		bound ->> 'version', coalesce(bound -> 'problem' ->> 'state', 'current')
	FROM jsonb_path_query(jsonb_build_array(NEW.body, NEW.notes), 'strict $.** ? (exists(@.binding)).binding') AS bound
	WHERE jsonb_typeof(bound) = 'object' AND bound ? 'source' AND bound ? 'range' AND bound ? 'mode';
	RETURN NULL;
END;
$$;
--> statement-breakpoint
CREATE TRIGGER slides_bindings AFTER INSERT OR UPDATE ON slides FOR EACH ROW EXECUTE FUNCTION index_bindings();
--> statement-breakpoint
INSERT INTO bindings (deck_id, slide_id, nth, source, range, mode, version, state)
SELECT s.deck_id, s.id, row_number() OVER (PARTITION BY s.deck_id, s.id) - 1, bound ->> 'source', bound ->> 'range',
	CASE WHEN bound ->> 'mode' = 'moment' THEN 'fixed' ELSE bound ->> 'mode' END, bound ->> 'version', 'current'
FROM slides s, jsonb_path_query(jsonb_build_array(s.body, s.notes), 'strict $.** ? (exists(@.binding)).binding') AS bound
WHERE jsonb_typeof(bound) = 'object' AND bound ? 'source' AND bound ? 'range' AND bound ? 'mode';
