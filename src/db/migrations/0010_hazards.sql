CREATE TABLE "hazards" (
	"event_id" uuid PRIMARY KEY NOT NULL,
	"shop_id" uuid NOT NULL,
	"job_id" uuid NOT NULL,
	"vehicle_id" uuid NOT NULL,
	"words" text NOT NULL,
	"since" timestamp with time zone NOT NULL,
	"over" boolean NOT NULL
);
--> statement-breakpoint
ALTER TABLE "hazards" ADD CONSTRAINT "hazards_job" FOREIGN KEY ("job_id","shop_id") REFERENCES "public"."jobs"("id","shop_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "hazards_open" ON "hazards" USING btree ("shop_id","since","event_id") WHERE not "hazards"."over";--> statement-breakpoint
CREATE INDEX "hazards_by_vehicle" ON "hazards" USING btree ("vehicle_id") WHERE not "hazards"."over";--> statement-breakpoint
CREATE INDEX "hazards_by_job" ON "hazards" USING btree ("job_id");