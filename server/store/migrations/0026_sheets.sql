CREATE TABLE "sheet_versions" (
	"sheet_id" uuid NOT NULL,
	"number" integer NOT NULL,
	"content" jsonb NOT NULL,
	"since" jsonb NOT NULL,
	"saved_by" text DEFAULT '' NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"saved_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "sheet_versions_sheet_id_number_pk" PRIMARY KEY("sheet_id","number")
);
--> statement-breakpoint
CREATE TABLE "sheets" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"slug" text NOT NULL,
	"project_id" uuid,
	"version" integer DEFAULT 1 NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "sheets_slug" UNIQUE("slug")
);
--> statement-breakpoint
CREATE TABLE "shelf" (
	"slug" text PRIMARY KEY NOT NULL,
	"position" integer,
	"is_away" boolean DEFAULT false NOT NULL
);
--> statement-breakpoint
ALTER TABLE "projects" ADD COLUMN "pins" jsonb DEFAULT '{}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "sheet_versions" ADD CONSTRAINT "sheet_versions_sheet_id_sheets_id_fk" FOREIGN KEY ("sheet_id") REFERENCES "public"."sheets"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
INSERT INTO "sheets" ("slug", "project_id", "created_at")
SELECT "sheet_slug", max("project_id"::text)::uuid, min("created_at") FROM "own_places" GROUP BY "sheet_slug";--> statement-breakpoint
INSERT INTO "sheet_versions" ("sheet_id", "number", "content", "since", "note", "saved_at")
SELECT "sheets"."id", 1,
	jsonb_build_object(
		'name', (array_agg("sheet_name" ORDER BY "own_places"."created_at"))[1],
		'kind', CASE WHEN "sheets"."project_id" IS NULL THEN 'your own sheet' ELSE 'for one project' END,
		'checkedOn', to_char(min("changed_at") AT TIME ZONE 'UTC', 'YYYY-MM-DD'),
		'places', jsonb_agg(
			"place" || jsonb_build_object('slug', "own_places"."slug")
				|| CASE WHEN "deleted_at" IS NULL THEN '{}'::jsonb ELSE '{"isAway": true}'::jsonb END
			ORDER BY "own_places"."created_at")),
	jsonb_object_agg("own_places"."slug", 1),
	'As it was before sheets had versions', max("changed_at")
FROM "own_places" JOIN "sheets" ON "sheets"."slug" = "own_places"."sheet_slug" GROUP BY "sheets"."id";--> statement-breakpoint
INSERT INTO "shelf" ("slug", "is_away")
SELECT "sheet_slug", true FROM "own_places" GROUP BY "sheet_slug" HAVING bool_and("deleted_at" IS NOT NULL);--> statement-breakpoint
CREATE TRIGGER "sheets_changed" AFTER INSERT OR UPDATE OR DELETE OR TRUNCATE ON "sheets" FOR EACH STATEMENT EXECUTE FUNCTION "library_changed"();--> statement-breakpoint
CREATE TRIGGER "sheet_versions_changed" AFTER INSERT OR UPDATE OR DELETE OR TRUNCATE ON "sheet_versions" FOR EACH STATEMENT EXECUTE FUNCTION "library_changed"();--> statement-breakpoint
CREATE TRIGGER "shelf_changed" AFTER INSERT OR UPDATE OR DELETE OR TRUNCATE ON "shelf" FOR EACH STATEMENT EXECUTE FUNCTION "library_changed"();--> statement-breakpoint
CREATE TRIGGER "pins_set" AFTER INSERT ON "projects" FOR EACH ROW WHEN (NEW."pins" <> '{}'::jsonb) EXECUTE FUNCTION "library_changed"();--> statement-breakpoint
CREATE TRIGGER "pins_changed" AFTER UPDATE ON "projects" FOR EACH ROW WHEN (OLD."pins" IS DISTINCT FROM NEW."pins") EXECUTE FUNCTION "library_changed"();
