CREATE TABLE "sheet_findings" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"network" text NOT NULL,
	"place" text,
	"field" text NOT NULL,
	"change" jsonb NOT NULL,
	"said" text NOT NULL,
	"measured" text NOT NULL,
	"measured_at" timestamp with time zone DEFAULT now() NOT NULL,
	"dry_run_id" uuid,
	"state" text DEFAULT 'open' NOT NULL,
	"taken" jsonb,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "sheet_findings_one" UNIQUE NULLS NOT DISTINCT("network","place","field")
);
--> statement-breakpoint
ALTER TABLE "sheet_findings" ADD CONSTRAINT "sheet_findings_dry_run_id_dry_runs_id_fk" FOREIGN KEY ("dry_run_id") REFERENCES "public"."dry_runs"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
CREATE TRIGGER "sheet_findings_changed" AFTER INSERT OR UPDATE OR DELETE OR TRUNCATE ON "sheet_findings" FOR EACH STATEMENT EXECUTE FUNCTION "library_changed"();
