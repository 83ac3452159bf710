CREATE TABLE "backup_plans" (
	"folder" text PRIMARY KEY NOT NULL,
	"every_hours" double precision NOT NULL,
	"keep" integer NOT NULL,
	"is_encrypted" boolean NOT NULL,
	"warn_hours" double precision NOT NULL,
	"since" timestamp with time zone DEFAULT now() NOT NULL,
	"asked_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "backups" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"path" text NOT NULL,
	"started_at" timestamp with time zone DEFAULT now() NOT NULL,
	"taken_at" timestamp with time zone,
	"files" integer DEFAULT 0 NOT NULL,
	"bytes" bigint DEFAULT 0 NOT NULL,
	"state" text DEFAULT 'making' NOT NULL,
	"failure" text
);
