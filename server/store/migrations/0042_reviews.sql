CREATE TABLE "review_answers" (
	"workspace_id" uuid DEFAULT inkwell_workspace() NOT NULL,
	"review_id" uuid NOT NULL,
	"project_id" uuid NOT NULL,
	"frame_id" uuid NOT NULL,
	"answer" text NOT NULL,
	"word" text NOT NULL,
	"plan_hash" text NOT NULL,
	"answered_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "review_answers_review_id_frame_id_pk" PRIMARY KEY("review_id","frame_id")
);
--> statement-breakpoint
CREATE TABLE "reviews" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workspace_id" uuid DEFAULT inkwell_workspace() NOT NULL,
	"project_id" uuid NOT NULL,
	"name" text NOT NULL,
	"hash" text NOT NULL,
	"made_by" text,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"ends_at" timestamp with time zone NOT NULL,
	"withdrawn_at" timestamp with time zone,
	CONSTRAINT "reviews_hash_unique" UNIQUE("hash")
);
--> statement-breakpoint
ALTER TABLE "review_answers" ADD CONSTRAINT "review_answers_review_id_reviews_id_fk" FOREIGN KEY ("review_id") REFERENCES "public"."reviews"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "review_answers" ADD CONSTRAINT "review_answers_frame_id_frames_id_fk" FOREIGN KEY ("frame_id") REFERENCES "public"."frames"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "reviews" ADD CONSTRAINT "reviews_workspace_id_workspaces_id_fk" FOREIGN KEY ("workspace_id") REFERENCES "public"."workspaces"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "reviews" ADD CONSTRAINT "reviews_project_id_projects_id_fk" FOREIGN KEY ("project_id") REFERENCES "public"."projects"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE FUNCTION "tell_reviews"() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	PERFORM pg_notify('changes', jsonb_build_object(
		'workspaceId', "workspace_id", 'kind', 'reviews', 'projectId', "project_id", 'rows', NULL
	)::text) FROM "touched" GROUP BY "workspace_id", "project_id";
	RETURN NULL;
END
$$;--> statement-breakpoint
CREATE TRIGGER "told_insert" AFTER INSERT ON "review_answers" REFERENCING NEW TABLE AS "touched" FOR EACH STATEMENT EXECUTE FUNCTION "tell_reviews"();--> statement-breakpoint
CREATE TRIGGER "told_update" AFTER UPDATE ON "review_answers" REFERENCING NEW TABLE AS "touched" FOR EACH STATEMENT EXECUTE FUNCTION "tell_reviews"();--> statement-breakpoint
CREATE TRIGGER "told_insert" AFTER INSERT ON "reviews" REFERENCING NEW TABLE AS "touched" FOR EACH STATEMENT EXECUTE FUNCTION "tell_reviews"();--> statement-breakpoint
CREATE TRIGGER "told_update" AFTER UPDATE ON "reviews" REFERENCING NEW TABLE AS "touched" FOR EACH STATEMENT EXECUTE FUNCTION "tell_reviews"();
