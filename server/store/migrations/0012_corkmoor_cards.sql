-- Places of a shipped sheet have other names; frames that are made for them follow.
UPDATE "frames" SET "place_id" = 'corkmoor/tall-card' WHERE "place_id" = 'corkmoor/tall-pin';--> statement-breakpoint
UPDATE "frames" SET "place_id" = 'corkmoor/long-card' WHERE "place_id" = 'corkmoor/long-pin';--> statement-breakpoint
UPDATE "frames" SET "place_id" = 'corkmoor/collection-cover' WHERE "place_id" = 'corkmoor/board-cover';--> statement-breakpoint
UPDATE "own_places" SET "place" = jsonb_set("place", '{purpose}', '"card"') WHERE "place" ->> 'purpose' = 'pin';
