CREATE TABLE "details" (
	"hash" text PRIMARY KEY NOT NULL,
	"kept" jsonb NOT NULL,
	"measured_at" timestamp with time zone DEFAULT now() NOT NULL
);
