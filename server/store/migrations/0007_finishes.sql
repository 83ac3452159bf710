CREATE TABLE "figures" (
	"plan_hash" text PRIMARY KEY NOT NULL,
	"figures" jsonb NOT NULL,
	"measured_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "finishes" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"name" text NOT NULL,
	"description" text NOT NULL,
	"treatment" jsonb NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"deleted_at" timestamp with time zone
);
--> statement-breakpoint
ALTER TABLE "frames" ADD COLUMN "finish_id" text;--> statement-breakpoint
ALTER TABLE "frames" ADD COLUMN "blend" double precision;--> statement-breakpoint
ALTER TABLE "originals" ADD COLUMN "finish_id" text;--> statement-breakpoint
ALTER TABLE "originals" ADD COLUMN "blend" double precision;--> statement-breakpoint
ALTER TABLE "projects" ADD COLUMN "finish_id" text DEFAULT 'plain' NOT NULL;--> statement-breakpoint
ALTER TABLE "projects" ADD COLUMN "version" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
UPDATE "deliveries" SET "state" = 'failed', "failure" = 'The program was renewed before these files were made. Deliver again.'
  WHERE "state" IN ('waiting', 'working');
