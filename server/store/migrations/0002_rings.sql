ALTER TABLE "frames" ADD COLUMN "ring" jsonb;--> statement-breakpoint
ALTER TABLE "frames" ADD COLUMN "cut_out" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "frames" ADD COLUMN "flatten" text;--> statement-breakpoint
ALTER TABLE "frames" ADD COLUMN "stretch" double precision DEFAULT 1 NOT NULL;--> statement-breakpoint
UPDATE "deliveries" SET "state" = 'failed', "failure" = 'The program was renewed before these files were made. Deliver again.'
  WHERE "state" IN ('waiting', 'working');
