-- Tells which rows a statement has changed, and to which versions; of many it tells only that there are some. See listening.ts.
CREATE FUNCTION "tell_frames"() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	PERFORM pg_notify('changes', jsonb_build_object(
		'workspaceId', "workspace_id", 'kind', 'frames', 'projectId', "project_id",
		'rows', CASE WHEN count(*) <= 50 THEN jsonb_agg(jsonb_build_array("id", CASE WHEN TG_OP <> 'DELETE' THEN "version" END)) END,
		-- Whoever has changed many knows by it that nothing else has changed: versions only ever grow.
		'total', CASE WHEN count(*) > 50 AND TG_OP <> 'DELETE'
			THEN (SELECT sum("version") FROM "frames" WHERE "frames"."project_id" = "touched"."project_id") END
	)::text) FROM "touched" GROUP BY "workspace_id", "project_id";
	RETURN NULL;
END
$$;--> statement-breakpoint
CREATE FUNCTION "tell_rows"() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	PERFORM pg_notify('changes', jsonb_build_object(
		'workspaceId', "workspace_id", 'kind', TG_TABLE_NAME, 'projectId', NULL,
		'rows', CASE WHEN count(*) <= 50 THEN jsonb_agg(jsonb_build_array("id", CASE WHEN TG_OP <> 'DELETE' THEN "version" END)) END
	)::text) FROM "touched" GROUP BY "workspace_id";
	RETURN NULL;
END
$$;--> statement-breakpoint
-- Names are changed without a new version, and projects are touched by every change of a frame.
CREATE FUNCTION "tell_named"() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	PERFORM pg_notify('changes', jsonb_build_object(
		'workspaceId', now."workspace_id", 'kind', TG_TABLE_NAME, 'projectId', NULL,
		'rows', CASE WHEN count(*) <= 50 THEN jsonb_agg(jsonb_build_array(now."id", CASE WHEN now."version" > before."version" THEN now."version" END)) END
	)::text) FROM "touched" AS now JOIN "untouched" AS before ON before."id" = now."id"
	WHERE now."version" <> before."version" OR now."name" <> before."name" OR now."deleted_at" IS DISTINCT FROM before."deleted_at"
	GROUP BY now."workspace_id";
	RETURN NULL;
END
$$;--> statement-breakpoint
CREATE FUNCTION "tell_pictures"() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	PERFORM pg_notify('changes', jsonb_build_object(
		'workspaceId', "workspace_id", 'kind', 'pictures', 'projectId', "project_id", 'rows', NULL
	)::text) FROM "touched" GROUP BY "workspace_id", "project_id";
	RETURN NULL;
END
$$;--> statement-breakpoint
CREATE FUNCTION "tell_library"() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	PERFORM pg_notify('changes', jsonb_build_object(
		'workspaceId', "workspace_id", 'kind', 'library', 'projectId', NULL, 'rows', NULL
	)::text) FROM "touched" GROUP BY "workspace_id";
	RETURN NULL;
END
$$;--> statement-breakpoint
DO $$
DECLARE
	one record;
BEGIN
	FOR one IN SELECT * FROM (VALUES
		('frames', 'tell_frames'), ('projects', 'tell_rows'), ('originals', 'tell_rows'), ('finishes', 'tell_rows'),
		('project_originals', 'tell_pictures'), ('deliveries', 'tell_pictures'), ('sheets', 'tell_library'),
		('shelf', 'tell_library'), ('place_sets', 'tell_library'), ('letter_styles', 'tell_library'), ('own_fonts', 'tell_library')
	) AS all_of (name, teller) LOOP
		EXECUTE format('CREATE TRIGGER "told_insert" AFTER INSERT ON %I REFERENCING NEW TABLE AS "touched" FOR EACH STATEMENT EXECUTE FUNCTION %I()', one.name, one.teller);
		IF one.name IN ('projects', 'originals') THEN
			EXECUTE format('CREATE TRIGGER "told_update" AFTER UPDATE ON %I REFERENCING OLD TABLE AS "untouched" NEW TABLE AS "touched" FOR EACH STATEMENT EXECUTE FUNCTION "tell_named"()', one.name);
		ELSE
			EXECUTE format('CREATE TRIGGER "told_update" AFTER UPDATE ON %I REFERENCING NEW TABLE AS "touched" FOR EACH STATEMENT EXECUTE FUNCTION %I()', one.name, one.teller);
		END IF;
		EXECUTE format('CREATE TRIGGER "told_delete" AFTER DELETE ON %I REFERENCING OLD TABLE AS "touched" FOR EACH STATEMENT EXECUTE FUNCTION %I()', one.name, one.teller);
	END LOOP;
END
$$;
