ALTER TABLE "frames" ADD COLUMN "grid" jsonb;--> statement-breakpoint
ALTER TABLE "frames" ADD COLUMN "bridged" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "frames" ADD COLUMN "shared_quality" boolean DEFAULT true NOT NULL;--> statement-breakpoint
UPDATE "deliveries" SET "state" = 'failed', "failure" = 'The program was renewed before these files were made. Deliver again.'
  WHERE "state" IN ('waiting', 'working');
