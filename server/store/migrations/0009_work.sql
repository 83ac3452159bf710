CREATE SEQUENCE "public"."workers" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1 CYCLE;--> statement-breakpoint
CREATE TABLE "encodings" (
	"plan_hash" text NOT NULL,
	"piece" integer NOT NULL,
	"sha256" text NOT NULL,
	"bytes" bigint NOT NULL,
	"seams" jsonb NOT NULL,
	"used_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "encodings_plan_hash_piece_pk" PRIMARY KEY("plan_hash","piece")
);
--> statement-breakpoint
CREATE TABLE "work" (
	"id" bigint PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "work_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 9223372036854775807 START WITH 1 CACHE 1),
	"key" text NOT NULL,
	"task" jsonb NOT NULL,
	"priority" integer NOT NULL,
	"rank" double precision NOT NULL,
	"after" text,
	"delivery_id" uuid,
	"wanted_by" uuid[],
	"state" text DEFAULT 'waiting' NOT NULL,
	"attempts" integer DEFAULT 0 NOT NULL,
	"worker" integer,
	"not_before" timestamp with time zone DEFAULT now() NOT NULL,
	"failure" text,
	CONSTRAINT "work_key_unique" UNIQUE("key")
);
--> statement-breakpoint
ALTER TABLE "encodings" ADD CONSTRAINT "encodings_sha256_blobs_sha256_fk" FOREIGN KEY ("sha256") REFERENCES "public"."blobs"("sha256") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "work" ADD CONSTRAINT "work_delivery_id_deliveries_id_fk" FOREIGN KEY ("delivery_id") REFERENCES "public"."deliveries"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "encodings_sha256" ON "encodings" USING btree ("sha256");--> statement-breakpoint
CREATE INDEX "encodings_used_at" ON "encodings" USING btree ("used_at");--> statement-breakpoint
CREATE INDEX "work_next" ON "work" USING btree ("state","priority","rank");--> statement-breakpoint
CREATE INDEX "work_delivery" ON "work" USING btree ("delivery_id");--> statement-breakpoint
ALTER TABLE "deliveries" DROP COLUMN "beat_at";--> statement-breakpoint
DELETE FROM "weights";--> statement-breakpoint
DELETE FROM "figures";--> statement-breakpoint
DELETE FROM "details";--> statement-breakpoint
UPDATE "deliveries" SET "state" = 'failed', "failure" = 'The program was renewed before these files were made. Deliver again.'
  WHERE "state" IN ('waiting', 'working');--> statement-breakpoint
DROP SCHEMA IF EXISTS "pgboss" CASCADE;
