ALTER TABLE "frames" ADD COLUMN "composed" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "frames" ADD COLUMN "backing" jsonb;--> statement-breakpoint
ALTER TABLE "originals" ADD COLUMN "marks" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "originals" ADD COLUMN "trim" jsonb;--> statement-breakpoint
ALTER TABLE "originals" ADD COLUMN "version" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
UPDATE "frames" SET "window" = "window" || '{"turn": 0, "mirror": false}'::jsonb;--> statement-breakpoint
UPDATE "deliveries" SET "state" = 'failed', "failure" = 'The program was renewed before these files were made. Deliver again.'
  WHERE "state" IN ('waiting', 'working');
