CREATE TABLE "blob_chunks" (
	"sha256" text NOT NULL,
	"index" integer NOT NULL,
	"data" "bytea" NOT NULL,
	CONSTRAINT "blob_chunks_sha256_index_pk" PRIMARY KEY("sha256","index")
);
--> statement-breakpoint
CREATE TABLE "blobs" (
	"sha256" text PRIMARY KEY NOT NULL,
	"bytes" bigint NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "deliveries" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"project_id" uuid NOT NULL,
	"project_name" text NOT NULL,
	"pattern" text NOT NULL,
	"state" text DEFAULT 'waiting' NOT NULL,
	"items" jsonb NOT NULL,
	"failure" text,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"beat_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "delivery_files" (
	"delivery_id" uuid NOT NULL,
	"position" integer NOT NULL,
	"sha256" text,
	"file" jsonb,
	"left_out" jsonb,
	CONSTRAINT "delivery_files_delivery_id_position_pk" PRIMARY KEY("delivery_id","position")
);
--> statement-breakpoint
CREATE TABLE "frames" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"project_id" uuid NOT NULL,
	"original_id" uuid NOT NULL,
	"place_id" text NOT NULL,
	"window" jsonb NOT NULL,
	"format" text NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "frames_one_per_place" UNIQUE("project_id","original_id","place_id")
);
--> statement-breakpoint
CREATE TABLE "milestones" (
	"name" text PRIMARY KEY NOT NULL,
	"reached_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "originals" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"name" text NOT NULL,
	"file_name" text NOT NULL,
	"sha256" text NOT NULL,
	"bytes" bigint NOT NULL,
	"format" text NOT NULL,
	"width" integer NOT NULL,
	"height" integer NOT NULL,
	"has_alpha" boolean NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"deleted_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "project_originals" (
	"project_id" uuid NOT NULL,
	"original_id" uuid NOT NULL,
	"position" integer NOT NULL,
	CONSTRAINT "project_originals_project_id_original_id_pk" PRIMARY KEY("project_id","original_id")
);
--> statement-breakpoint
CREATE TABLE "projects" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"name" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"changed_at" timestamp with time zone DEFAULT now() NOT NULL,
	"deleted_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "weights" (
	"plan_hash" text PRIMARY KEY NOT NULL,
	"format" text NOT NULL,
	"quality" integer,
	"bytes" bigint NOT NULL,
	"fits" boolean NOT NULL,
	"measured_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "blob_chunks" ADD CONSTRAINT "blob_chunks_sha256_blobs_sha256_fk" FOREIGN KEY ("sha256") REFERENCES "public"."blobs"("sha256") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "delivery_files" ADD CONSTRAINT "delivery_files_delivery_id_deliveries_id_fk" FOREIGN KEY ("delivery_id") REFERENCES "public"."deliveries"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "delivery_files" ADD CONSTRAINT "delivery_files_sha256_blobs_sha256_fk" FOREIGN KEY ("sha256") REFERENCES "public"."blobs"("sha256") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "frames" ADD CONSTRAINT "frames_project_id_projects_id_fk" FOREIGN KEY ("project_id") REFERENCES "public"."projects"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "frames" ADD CONSTRAINT "frames_original_id_originals_id_fk" FOREIGN KEY ("original_id") REFERENCES "public"."originals"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "originals" ADD CONSTRAINT "originals_sha256_blobs_sha256_fk" FOREIGN KEY ("sha256") REFERENCES "public"."blobs"("sha256") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "project_originals" ADD CONSTRAINT "project_originals_project_id_projects_id_fk" FOREIGN KEY ("project_id") REFERENCES "public"."projects"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "project_originals" ADD CONSTRAINT "project_originals_original_id_originals_id_fk" FOREIGN KEY ("original_id") REFERENCES "public"."originals"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "delivery_files_sha256" ON "delivery_files" USING btree ("sha256");--> statement-breakpoint
CREATE INDEX "originals_sha256" ON "originals" USING btree ("sha256");