CREATE FUNCTION "inkwell_person"() RETURNS uuid LANGUAGE sql STABLE PARALLEL SAFE AS $$
	SELECT nullif(current_setting('inkwell.person', true), '')::uuid
$$;--> statement-breakpoint
CREATE TABLE "shares" (
	"workspace_id" uuid NOT NULL,
	"person_id" uuid,
	"bytes" bigint,
	"pixels" bigint,
	"jobs" bigint,
	"uploads" bigint,
	"requests" bigint,
	CONSTRAINT "shares_one" UNIQUE NULLS NOT DISTINCT("workspace_id","person_id")
);
--> statement-breakpoint
CREATE TABLE "changes" (
	"id" bigint PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "changes_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 9223372036854775807 START WITH 1 CACHE 1),
	"workspace_id" uuid DEFAULT inkwell_workspace() NOT NULL,
	"step" bigint NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"person_id" uuid DEFAULT inkwell_person(),
	"project_id" uuid,
	"table" text NOT NULL,
	"row_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"before" jsonb
);
--> statement-breakpoint
DROP INDEX "work_next";--> statement-breakpoint
ALTER TABLE "deliveries" ADD COLUMN "asked_by" uuid DEFAULT inkwell_person();--> statement-breakpoint
ALTER TABLE "originals" ADD COLUMN "added_by" uuid DEFAULT inkwell_person();--> statement-breakpoint
ALTER TABLE "work" ADD COLUMN "asked_by" uuid DEFAULT inkwell_person();--> statement-breakpoint
ALTER TABLE "work" ADD COLUMN "waiter" uuid DEFAULT coalesce(inkwell_person(), inkwell_workspace(), '00000000-0000-0000-0000-000000000000') NOT NULL;--> statement-breakpoint
ALTER TABLE "shares" ADD CONSTRAINT "shares_workspace_id_workspaces_id_fk" FOREIGN KEY ("workspace_id") REFERENCES "public"."workspaces"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "shares" ADD CONSTRAINT "shares_person_id_people_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."people"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "changes_project" ON "changes" USING btree ("project_id","id");--> statement-breakpoint
CREATE INDEX "changes_row" ON "changes" USING btree ("row_id","id");--> statement-breakpoint
CREATE INDEX "work_next" ON "work" USING btree ("state","lane","waiter","turn","priority","rank");--> statement-breakpoint
-- What a row of a project holds that is no part of its history.
CREATE FUNCTION "history_of"("row" jsonb) RETURNS jsonb LANGUAGE sql IMMUTABLE PARALLEL SAFE AS $$
	SELECT "row" - ARRAY['version', 'workspace_id', 'created_at', 'changed_at', 'carried_from']
$$;--> statement-breakpoint
-- Of two states of a row those values of the first that differ; null where none does.
CREATE FUNCTION "differing"("before" jsonb, "after" jsonb) RETURNS jsonb LANGUAGE sql IMMUTABLE PARALLEL SAFE AS $$
	SELECT jsonb_object_agg("key", "value") FROM jsonb_each("before") WHERE "value" IS DISTINCT FROM "after" -> "key"
$$;--> statement-breakpoint
-- Writes down what a statement has done to rows of projects. A restored database brings its history along.
CREATE FUNCTION "note_changes"() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE
	-- An original may be in several projects; what says that it is in one has no id of its own.
	the_project text := CASE TG_TABLE_NAME WHEN 'projects' THEN 'id' WHEN 'originals' THEN NULL ELSE 'project_id' END;
	the_row text := CASE TG_TABLE_NAME WHEN 'project_originals' THEN 'original_id' ELSE 'id' END;
BEGIN
	IF current_setting('inkwell.restoring', true) = 'on' THEN
		RETURN NULL;
	END IF;
	IF TG_OP = 'INSERT' THEN
		INSERT INTO "changes" ("workspace_id", "step", "project_id", "table", "row_id", "kind")
		SELECT "workspace_id", txid_current(), (j ->> the_project)::uuid, TG_TABLE_NAME, (j ->> the_row)::uuid, 'added'
		FROM (SELECT "workspace_id", to_jsonb("touched") AS j FROM "touched" OFFSET 0) AS "of";
	ELSIF TG_OP = 'DELETE' THEN
		INSERT INTO "changes" ("workspace_id", "step", "project_id", "table", "row_id", "kind", "before")
		SELECT "workspace_id", txid_current(), (j ->> the_project)::uuid, TG_TABLE_NAME, (j ->> the_row)::uuid, 'removed', history_of(j)
		FROM (SELECT "workspace_id", to_jsonb("touched") AS j FROM "touched" OFFSET 0) AS "of";
	ELSE
		INSERT INTO "changes" ("workspace_id", "step", "project_id", "table", "row_id", "kind", "before")
		SELECT "workspace_id", txid_current(), (j ->> the_project)::uuid, TG_TABLE_NAME, (j ->> the_row)::uuid, 'changed', "before"
		FROM (
			SELECT "workspace_id", j, differing(history_of("was"), j) AS "before"
			FROM (SELECT "workspace_id", to_jsonb("touched") AS j FROM "touched" OFFSET 0) AS "now"
			JOIN (SELECT to_jsonb("untouched") AS "was" FROM "untouched" OFFSET 0) AS "then"
				ON "was" ->> the_row = j ->> the_row AND "was" ->> 'project_id' IS NOT DISTINCT FROM j ->> 'project_id'
			OFFSET 0) AS "of"
		WHERE "before" IS NOT NULL;
	END IF;
	RETURN NULL;
END
$$;--> statement-breakpoint
DO $$
DECLARE
	one text;
BEGIN
	FOREACH one IN ARRAY ARRAY['projects', 'frames', 'project_originals', 'originals'] LOOP
		-- That an original was taken in is no step of any project.
		IF one <> 'originals' THEN
			EXECUTE format('CREATE TRIGGER "noted_insert" AFTER INSERT ON %I REFERENCING NEW TABLE AS "touched" FOR EACH STATEMENT EXECUTE FUNCTION "note_changes"()', one);
			EXECUTE format('CREATE TRIGGER "noted_delete" AFTER DELETE ON %I REFERENCING OLD TABLE AS "touched" FOR EACH STATEMENT EXECUTE FUNCTION "note_changes"()', one);
		END IF;
		EXECUTE format('CREATE TRIGGER "noted_update" AFTER UPDATE ON %I REFERENCING OLD TABLE AS "untouched" NEW TABLE AS "touched" FOR EACH STATEMENT EXECUTE FUNCTION "note_changes"()', one);
	END LOOP;
END
$$;
