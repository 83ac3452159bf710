CREATE TABLE "turns" (
	"turn" uuid PRIMARY KEY NOT NULL,
	"at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
DROP INDEX "work_next";--> statement-breakpoint
ALTER TABLE "work" ADD COLUMN "kind" text GENERATED ALWAYS AS (task ->> 'kind') STORED NOT NULL;--> statement-breakpoint
ALTER TABLE "work" ADD COLUMN "lane" text GENERATED ALWAYS AS (case task ->> 'kind' when 'dry run' then 'uploads' when 'call' then 'calls' else 'cores' end) STORED NOT NULL;--> statement-breakpoint
ALTER TABLE "work" ADD COLUMN "turn" uuid DEFAULT '00000000-0000-0000-0000-000000000000' NOT NULL;--> statement-breakpoint
ALTER TABLE "work" ADD COLUMN "pixels" bigint DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "work" ADD COLUMN "asked_at" timestamp with time zone DEFAULT now() NOT NULL;--> statement-breakpoint
CREATE INDEX "work_next" ON "work" USING btree ("state","lane","turn","priority","rank");