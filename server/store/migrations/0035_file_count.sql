ALTER TABLE "deliveries" ADD COLUMN "file_count" integer;--> statement-breakpoint
UPDATE "deliveries" SET "file_count" = jsonb_array_length("items");--> statement-breakpoint
ALTER TABLE "deliveries" ALTER COLUMN "file_count" SET NOT NULL;--> statement-breakpoint
-- One item is taken out of thousands again and again: what lies there uncompressed need not be unpacked whole for that.
ALTER TABLE "deliveries" ALTER COLUMN "items" SET STORAGE EXTERNAL;
