CREATE TABLE "own_fonts" (
	"id" text PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"sha256" text NOT NULL,
	"weight" jsonb NOT NULL,
	"width" jsonb NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"deleted_at" timestamp with time zone
);
--> statement-breakpoint
ALTER TABLE "own_fonts" ADD CONSTRAINT "own_fonts_sha256_blobs_sha256_fk" FOREIGN KEY ("sha256") REFERENCES "public"."blobs"("sha256") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE TRIGGER "own_fonts_changed" AFTER INSERT OR UPDATE OR DELETE OR TRUNCATE ON "own_fonts" FOR EACH STATEMENT EXECUTE FUNCTION "library_changed"();
