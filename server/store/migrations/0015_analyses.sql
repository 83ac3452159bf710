CREATE TABLE "analyses" (
	"sha256" text NOT NULL,
	"page" integer NOT NULL,
	"version" integer NOT NULL,
	"analysis" jsonb NOT NULL,
	"seen_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "analyses_sha256_page_pk" PRIMARY KEY("sha256","page")
);
--> statement-breakpoint
ALTER TABLE "originals" ADD COLUMN "decided" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "projects" ADD COLUMN "composing" text DEFAULT 'seen' NOT NULL;--> statement-breakpoint
ALTER TABLE "analyses" ADD CONSTRAINT "analyses_sha256_blobs_sha256_fk" FOREIGN KEY ("sha256") REFERENCES "public"."blobs"("sha256") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
-- What was framed before stays as it is until somebody asks for more.
UPDATE "projects" SET "composing" = 'marks';
