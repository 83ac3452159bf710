CREATE FUNCTION "inkwell_workspace"() RETURNS uuid LANGUAGE sql STABLE PARALLEL SAFE AS $$
	SELECT nullif(current_setting('inkwell.workspace', true), '')::uuid
$$;--> statement-breakpoint
-- What was there before belongs to the first workspace.
DO $$
DECLARE
	the_first uuid := (SELECT "id" FROM "workspaces" ORDER BY "created_at" LIMIT 1);
	one text;
BEGIN
	FOREACH one IN ARRAY ARRAY['place_sets', 'sheet_versions', 'sheets', 'shelf', 'deliveries', 'delivery_files', 'posted_ticks', 'dry_run_files', 'dry_run_pictures', 'dry_run_waits', 'dry_runs', 'sheet_findings', 'finishes', 'letter_styles', 'originals', 'own_fonts', 'learned_uploads', 'frames', 'project_originals', 'projects', 'webhook_calls', 'webhooks'] LOOP
		EXECUTE format('ALTER TABLE %I ADD COLUMN "workspace_id" uuid DEFAULT %L NOT NULL', one, the_first);
		EXECUTE format('ALTER TABLE %I ALTER COLUMN "workspace_id" SET DEFAULT inkwell_workspace()', one);
	END LOOP;
	EXECUTE format('ALTER TABLE "tokens" ADD COLUMN "workspace_id" uuid DEFAULT %L NOT NULL', the_first);
	ALTER TABLE "tokens" ALTER COLUMN "workspace_id" DROP DEFAULT;
	EXECUTE format('ALTER TABLE "work" ADD COLUMN "workspace_id" uuid DEFAULT %L', the_first);
	ALTER TABLE "work" ALTER COLUMN "workspace_id" SET DEFAULT inkwell_workspace();
	UPDATE "work" SET "workspace_id" = NULL WHERE "kind" IN ('mail', 'forgotten');
	EXECUTE format('ALTER TABLE "library_versions" ADD COLUMN "workspace_id" uuid DEFAULT %L PRIMARY KEY NOT NULL', the_first);
	ALTER TABLE "library_versions" ALTER COLUMN "workspace_id" DROP DEFAULT;
END
$$;--> statement-breakpoint
ALTER TABLE "members" ADD COLUMN "since" timestamp with time zone DEFAULT now() NOT NULL;--> statement-breakpoint
UPDATE "members" SET "since" = "people"."created_at" FROM "people" WHERE "people"."id" = "members"."person_id";--> statement-breakpoint
ALTER TABLE "door_events" ADD COLUMN "workspace_id" uuid;--> statement-breakpoint
ALTER TABLE "door_events" ADD COLUMN "person_id" uuid;--> statement-breakpoint
ALTER TABLE "sheets" DROP CONSTRAINT "sheets_slug";--> statement-breakpoint
ALTER TABLE "sheet_findings" DROP CONSTRAINT "sheet_findings_one";--> statement-breakpoint
ALTER TABLE "work" DROP CONSTRAINT "work_key_unique";--> statement-breakpoint
ALTER TABLE "shelf" DROP CONSTRAINT "shelf_pkey";--> statement-breakpoint
ALTER TABLE "own_fonts" DROP CONSTRAINT "own_fonts_pkey";--> statement-breakpoint
ALTER TABLE "learned_uploads" DROP CONSTRAINT "learned_uploads_pkey";--> statement-breakpoint
ALTER TABLE "shelf" ADD CONSTRAINT "shelf_workspace_id_slug_pk" PRIMARY KEY("workspace_id","slug");--> statement-breakpoint
ALTER TABLE "own_fonts" ADD CONSTRAINT "own_fonts_workspace_id_id_pk" PRIMARY KEY("workspace_id","id");--> statement-breakpoint
ALTER TABLE "learned_uploads" ADD CONSTRAINT "learned_uploads_workspace_id_place_id_pk" PRIMARY KEY("workspace_id","place_id");--> statement-breakpoint
ALTER TABLE "tokens" ADD CONSTRAINT "tokens_workspace_id_workspaces_id_fk" FOREIGN KEY ("workspace_id") REFERENCES "public"."workspaces"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "place_sets" ADD CONSTRAINT "place_sets_workspace_id_workspaces_id_fk" FOREIGN KEY ("workspace_id") REFERENCES "public"."workspaces"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sheets" ADD CONSTRAINT "sheets_workspace_id_workspaces_id_fk" FOREIGN KEY ("workspace_id") REFERENCES "public"."workspaces"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "shelf" ADD CONSTRAINT "shelf_workspace_id_workspaces_id_fk" FOREIGN KEY ("workspace_id") REFERENCES "public"."workspaces"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "deliveries" ADD CONSTRAINT "deliveries_workspace_id_workspaces_id_fk" FOREIGN KEY ("workspace_id") REFERENCES "public"."workspaces"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "dry_runs" ADD CONSTRAINT "dry_runs_workspace_id_workspaces_id_fk" FOREIGN KEY ("workspace_id") REFERENCES "public"."workspaces"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sheet_findings" ADD CONSTRAINT "sheet_findings_workspace_id_workspaces_id_fk" FOREIGN KEY ("workspace_id") REFERENCES "public"."workspaces"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "finishes" ADD CONSTRAINT "finishes_workspace_id_workspaces_id_fk" FOREIGN KEY ("workspace_id") REFERENCES "public"."workspaces"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "letter_styles" ADD CONSTRAINT "letter_styles_workspace_id_workspaces_id_fk" FOREIGN KEY ("workspace_id") REFERENCES "public"."workspaces"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "originals" ADD CONSTRAINT "originals_workspace_id_workspaces_id_fk" FOREIGN KEY ("workspace_id") REFERENCES "public"."workspaces"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "own_fonts" ADD CONSTRAINT "own_fonts_workspace_id_workspaces_id_fk" FOREIGN KEY ("workspace_id") REFERENCES "public"."workspaces"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "learned_uploads" ADD CONSTRAINT "learned_uploads_workspace_id_workspaces_id_fk" FOREIGN KEY ("workspace_id") REFERENCES "public"."workspaces"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "door_events" ADD CONSTRAINT "door_events_workspace_id_workspaces_id_fk" FOREIGN KEY ("workspace_id") REFERENCES "public"."workspaces"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "door_events" ADD CONSTRAINT "door_events_person_id_people_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."people"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "projects" ADD CONSTRAINT "projects_workspace_id_workspaces_id_fk" FOREIGN KEY ("workspace_id") REFERENCES "public"."workspaces"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "webhooks" ADD CONSTRAINT "webhooks_workspace_id_workspaces_id_fk" FOREIGN KEY ("workspace_id") REFERENCES "public"."workspaces"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sheets" ADD CONSTRAINT "sheets_slug" UNIQUE("workspace_id","slug");--> statement-breakpoint
ALTER TABLE "sheet_findings" ADD CONSTRAINT "sheet_findings_one" UNIQUE NULLS NOT DISTINCT("workspace_id","network","place","field");--> statement-breakpoint
ALTER TABLE "work" ADD CONSTRAINT "work_key" UNIQUE NULLS NOT DISTINCT("workspace_id","key");--> statement-breakpoint
ALTER TABLE "work" ADD CONSTRAINT "work_fenced" CHECK (workspace_id is not null or task ->> 'kind' in ('mail', 'forgotten'));--> statement-breakpoint
CREATE OR REPLACE FUNCTION "library_changed"() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	IF inkwell_workspace() IS NULL THEN
		UPDATE "library_versions" SET "number" = "number" + 1;
	ELSE
		INSERT INTO "library_versions" ("workspace_id", "number") VALUES (inkwell_workspace(), 1)
		ON CONFLICT ("workspace_id") DO UPDATE SET "number" = "library_versions"."number" + 1;
	END IF;
	RETURN NULL;
END
$$;
