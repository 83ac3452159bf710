CREATE TABLE "unneeded_objects" (
	"sha256" text PRIMARY KEY NOT NULL
);
--> statement-breakpoint
ALTER TABLE "blobs" ADD COLUMN "place" text DEFAULT 'database' NOT NULL;