ALTER TABLE "frames" ADD COLUMN "weighing" jsonb DEFAULT '{"aim":null,"mostQuality":null,"chroma":"measured","colours":"full","belowFloor":false}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "frames" ADD COLUMN "height" integer;--> statement-breakpoint
ALTER TABLE "originals" ADD COLUMN "page" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "originals" ADD COLUMN "pages" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "originals" ADD COLUMN "words" jsonb DEFAULT '{"credit":"","copyright":"","altText":""}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "originals" ADD COLUMN "origin" jsonb DEFAULT '{"position":null,"device":null}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "projects" ADD COLUMN "keeping" jsonb DEFAULT '{"words":false,"position":false,"device":false,"profile":false}'::jsonb NOT NULL;--> statement-breakpoint
DELETE FROM "weights";--> statement-breakpoint
ALTER TABLE "weights" ADD COLUMN "weight" jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "weights" DROP COLUMN "format";--> statement-breakpoint
ALTER TABLE "weights" DROP COLUMN "quality";--> statement-breakpoint
ALTER TABLE "weights" DROP COLUMN "bytes";--> statement-breakpoint
ALTER TABLE "weights" DROP COLUMN "fits";--> statement-breakpoint
UPDATE "deliveries" SET "state" = 'failed', "failure" = 'The program was renewed before these files were made. Deliver again.'
  WHERE "state" IN ('waiting', 'working');
