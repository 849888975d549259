CREATE TABLE "findings" (
	"job_id" uuid PRIMARY KEY NOT NULL,
	"shop_id" uuid NOT NULL,
	"event_id" uuid NOT NULL,
	"part_kind" text,
	"mode" text,
	"strength" text NOT NULL,
	"arrived_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "slot_sightings" (
	"event_id" uuid PRIMARY KEY NOT NULL,
	"shop_id" uuid NOT NULL,
	"job_id" uuid NOT NULL,
	"vehicle_id" uuid NOT NULL,
	"person_id" uuid NOT NULL,
	"seq" integer NOT NULL,
	"made_at" timestamp with time zone NOT NULL,
	"body" json NOT NULL
);
--> statement-breakpoint
ALTER TABLE "job_summaries" ADD COLUMN "progress" json;--> statement-breakpoint
ALTER TABLE "findings" ADD CONSTRAINT "findings_job" FOREIGN KEY ("job_id","shop_id") REFERENCES "public"."jobs"("id","shop_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "slot_sightings" ADD CONSTRAINT "slot_sightings_job" FOREIGN KEY ("job_id","shop_id") REFERENCES "public"."jobs"("id","shop_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "slot_sightings" ADD CONSTRAINT "slot_sightings_person" FOREIGN KEY ("person_id","shop_id") REFERENCES "public"."people"("id","shop_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "findings_proved" ON "findings" USING btree ("shop_id","arrived_at") WHERE "findings"."strength" = 'proved';--> statement-breakpoint
CREATE INDEX "slot_sightings_by_vehicle" ON "slot_sightings" USING btree ("shop_id","vehicle_id","made_at");--> statement-breakpoint
CREATE INDEX "slot_sightings_by_job" ON "slot_sightings" USING btree ("job_id");--> statement-breakpoint
CREATE INDEX "job_events_struck" ON "job_events" USING btree ("job_id",("body" ->> 'of')) WHERE "job_events"."kind" = 'correction';
