CREATE TABLE "posted_ticks" (
	"delivery_id" uuid NOT NULL,
	"post" text NOT NULL,
	"posted_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "posted_ticks_delivery_id_post_pk" PRIMARY KEY("delivery_id","post")
);
--> statement-breakpoint
ALTER TABLE "frames" ADD COLUMN "posting" jsonb DEFAULT '{"altText":null,"caption":null,"tags":null}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "projects" ADD COLUMN "posting" jsonb DEFAULT '{"caption":"","tags":""}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "posted_ticks" ADD CONSTRAINT "posted_ticks_delivery_id_deliveries_id_fk" FOREIGN KEY ("delivery_id") REFERENCES "public"."deliveries"("id") ON DELETE cascade ON UPDATE no action;