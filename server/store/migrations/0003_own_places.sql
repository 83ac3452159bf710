CREATE TABLE "own_places" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"sheet_slug" text NOT NULL,
	"sheet_name" text NOT NULL,
	"project_id" uuid,
	"slug" text NOT NULL,
	"place" jsonb NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"changed_at" timestamp with time zone DEFAULT now() NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"deleted_at" timestamp with time zone,
	CONSTRAINT "own_places_slug" UNIQUE("sheet_slug","slug")
);
