CREATE TABLE "learned_uploads" (
	"place_id" text PRIMARY KEY NOT NULL,
	"survival" jsonb NOT NULL,
	"learned_from" text NOT NULL,
	"learned_on" date NOT NULL,
	"learned_for" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "survivals" (
	"hash" text PRIMARY KEY NOT NULL,
	"survival" jsonb NOT NULL,
	"measured_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "frames" ADD COLUMN "upload_width" integer;