-- What earlier versions encoded was not kept with what it was found to be: it is encoded again when it is wanted.
DELETE FROM "encodings";--> statement-breakpoint
ALTER TABLE "encodings" ADD COLUMN "opened" jsonb NOT NULL;
