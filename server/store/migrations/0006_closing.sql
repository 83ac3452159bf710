ALTER TABLE "frames" ADD COLUMN "closing" jsonb;--> statement-breakpoint
UPDATE "deliveries" SET "state" = 'failed', "failure" = 'The program was renewed before these files were made. Deliver again.'
  WHERE "state" IN ('waiting', 'working');
