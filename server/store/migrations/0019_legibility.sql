CREATE TABLE "legibilities" (
	"hash" text PRIMARY KEY NOT NULL,
	"found" jsonb NOT NULL,
	"measured_at" timestamp with time zone DEFAULT now() NOT NULL
);
