CREATE TABLE "search_entries" (
	"key" text PRIMARY KEY NOT NULL,
	"shop_id" uuid NOT NULL,
	"vehicle_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"name" text NOT NULL,
	"detail" text NOT NULL,
	"href" text NOT NULL,
	"slot" json,
	"sentence" text,
	"words" "tsvector" NOT NULL,
	CONSTRAINT "search_entries_kind" CHECK ("search_entries"."kind" in ('vehicle', 'circuit', 'job', 'slot'))
);
--> statement-breakpoint
DROP INDEX "job_summaries_by_stage";--> statement-breakpoint
ALTER TABLE "circuits" ADD COLUMN "version" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "circuits" ADD COLUMN "parts" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "panel_sets" ADD COLUMN "version" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "panel_sets" ADD COLUMN "panels" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "panel_sets" ADD COLUMN "slots" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "search_entries" ADD CONSTRAINT "search_entries_vehicle" FOREIGN KEY ("vehicle_id","shop_id") REFERENCES "public"."vehicles"("id","shop_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "search_entries_words" ON "search_entries" USING gin ("words");--> statement-breakpoint
CREATE INDEX "search_entries_of_vehicle" ON "search_entries" USING btree ("vehicle_id","kind");--> statement-breakpoint
CREATE INDEX "job_summaries_open" ON "job_summaries" USING btree ("shop_id","last_at","job_id") WHERE "job_summaries"."stage" <> 'closed';--> statement-breakpoint
CREATE INDEX "job_summaries_closed" ON "job_summaries" USING btree ("shop_id","last_at","job_id") WHERE "job_summaries"."stage" = 'closed';--> statement-breakpoint
CREATE INDEX "job_summaries_latest" ON "job_summaries" USING btree ("shop_id","last_at");--> statement-breakpoint
CREATE INDEX "vehicles_by_name" ON "vehicles" USING btree ("shop_id","name","id");