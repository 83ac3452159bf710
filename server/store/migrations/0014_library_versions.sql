CREATE TABLE "library_versions" (
	"number" bigint NOT NULL
);
--> statement-breakpoint
INSERT INTO "library_versions" ("number") VALUES (1);--> statement-breakpoint
CREATE FUNCTION "library_changed"() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	UPDATE "library_versions" SET "number" = "number" + 1;
	RETURN NULL;
END
$$;--> statement-breakpoint
CREATE TRIGGER "own_places_changed" AFTER INSERT OR UPDATE OR DELETE OR TRUNCATE ON "own_places" FOR EACH STATEMENT EXECUTE FUNCTION "library_changed"();--> statement-breakpoint
CREATE TRIGGER "finishes_changed" AFTER INSERT OR UPDATE OR DELETE OR TRUNCATE ON "finishes" FOR EACH STATEMENT EXECUTE FUNCTION "library_changed"();
