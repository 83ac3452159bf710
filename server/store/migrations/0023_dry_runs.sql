CREATE TABLE "dry_run_files" (
	"dry_run_id" uuid NOT NULL,
	"position" integer NOT NULL,
	"outcome" jsonb NOT NULL,
	CONSTRAINT "dry_run_files_dry_run_id_position_pk" PRIMARY KEY("dry_run_id","position")
);
--> statement-breakpoint
CREATE TABLE "dry_run_pictures" (
	"dry_run_id" uuid NOT NULL,
	"sha256" text NOT NULL,
	CONSTRAINT "dry_run_pictures_dry_run_id_sha256_pk" PRIMARY KEY("dry_run_id","sha256")
);
--> statement-breakpoint
CREATE TABLE "dry_run_waits" (
	"dry_run_id" uuid NOT NULL,
	"network" text NOT NULL,
	"why" text NOT NULL,
	"since" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "dry_run_waits_dry_run_id_network_pk" PRIMARY KEY("dry_run_id","network")
);
--> statement-breakpoint
CREATE TABLE "dry_runs" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"project_id" uuid NOT NULL,
	"delivery_id" uuid,
	"state" text DEFAULT 'waiting' NOT NULL,
	"items" jsonb DEFAULT '[]'::jsonb NOT NULL,
	"failure" text,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "dry_run_files" ADD CONSTRAINT "dry_run_files_dry_run_id_dry_runs_id_fk" FOREIGN KEY ("dry_run_id") REFERENCES "public"."dry_runs"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "dry_run_pictures" ADD CONSTRAINT "dry_run_pictures_dry_run_id_dry_runs_id_fk" FOREIGN KEY ("dry_run_id") REFERENCES "public"."dry_runs"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "dry_run_pictures" ADD CONSTRAINT "dry_run_pictures_sha256_blobs_sha256_fk" FOREIGN KEY ("sha256") REFERENCES "public"."blobs"("sha256") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "dry_run_waits" ADD CONSTRAINT "dry_run_waits_dry_run_id_dry_runs_id_fk" FOREIGN KEY ("dry_run_id") REFERENCES "public"."dry_runs"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "dry_runs" ADD CONSTRAINT "dry_runs_delivery_id_deliveries_id_fk" FOREIGN KEY ("delivery_id") REFERENCES "public"."deliveries"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "dry_run_pictures_sha256" ON "dry_run_pictures" USING btree ("sha256");