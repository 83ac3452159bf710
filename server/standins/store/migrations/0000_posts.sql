CREATE SCHEMA "standins";
--> statement-breakpoint
CREATE SEQUENCE "standins"."published" INCREMENT BY 1 MINVALUE 1 MAXVALUE 9223372036854775807 START WITH 1 CACHE 1;--> statement-breakpoint
CREATE TABLE "standins"."accounts" (
	"network" text PRIMARY KEY NOT NULL,
	"token" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "standins"."files" (
	"post_id" uuid NOT NULL,
	"number" integer NOT NULL,
	"sha256" text NOT NULL,
	"alt_text" text NOT NULL,
	"kept" jsonb NOT NULL,
	"data" "bytea" NOT NULL,
	CONSTRAINT "files_post_id_number_pk" PRIMARY KEY("post_id","number")
);
--> statement-breakpoint
CREATE TABLE "standins"."posts" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"network" text NOT NULL,
	"place" text NOT NULL,
	"key" text NOT NULL,
	"state" text DEFAULT 'open' NOT NULL,
	"pieces" integer NOT NULL,
	"columns" integer NOT NULL,
	"caption" text NOT NULL,
	"number" integer,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "posts_key" UNIQUE("network","key")
);
--> statement-breakpoint
CREATE TABLE "standins"."renditions" (
	"post_id" uuid NOT NULL,
	"number" integer NOT NULL,
	"shown_width" integer NOT NULL,
	"rendition" jsonb NOT NULL,
	"data" "bytea" NOT NULL,
	CONSTRAINT "renditions_post_id_number_shown_width_pk" PRIMARY KEY("post_id","number","shown_width")
);
--> statement-breakpoint
ALTER TABLE "standins"."files" ADD CONSTRAINT "files_post_id_posts_id_fk" FOREIGN KEY ("post_id") REFERENCES "standins"."posts"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "standins"."renditions" ADD CONSTRAINT "renditions_post_id_posts_id_fk" FOREIGN KEY ("post_id") REFERENCES "standins"."posts"("id") ON DELETE cascade ON UPDATE no action;