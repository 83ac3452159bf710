-- A session keeps the plan of a statement, made when one row was changed. For five thousand rows that plan compared each with each.
ALTER FUNCTION "note_changes"() SET enable_nestloop = off;--> statement-breakpoint
ALTER FUNCTION "tell_named"() SET enable_nestloop = off;
