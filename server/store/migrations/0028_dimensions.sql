ALTER TABLE "frames" ADD COLUMN "dimensions" jsonb;--> statement-breakpoint
ALTER TABLE "frames" ADD COLUMN "carried_from" jsonb;--> statement-breakpoint
UPDATE "frames" SET "dimensions" = jsonb_build_object(
	'width', COALESCE((
		SELECT ("place" ->> 'width')::int
		FROM "sheets"
		JOIN "sheet_versions" ON "sheet_versions"."sheet_id" = "sheets"."id" AND "sheet_versions"."number" = "sheets"."version"
		CROSS JOIN jsonb_array_elements("sheet_versions"."content" -> 'places') AS "place"
		WHERE "sheets"."slug" || '/' || ("place" ->> 'slug') = "frames"."place_id"), 1440),
	'height', "height")
WHERE "height" IS NOT NULL;
