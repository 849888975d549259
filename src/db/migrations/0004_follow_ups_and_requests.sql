CREATE TABLE "follow_ups" (
	"event_id" uuid PRIMARY KEY NOT NULL,
	"shop_id" uuid NOT NULL,
	"job_id" uuid NOT NULL,
	"words" text NOT NULL,
	"due" date,
	"done" boolean NOT NULL
);
--> statement-breakpoint
CREATE TABLE "requests" (
	"id" uuid PRIMARY KEY NOT NULL,
	"shop_id" uuid NOT NULL,
	"person_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"answer" json,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
DROP INDEX "job_summaries_by_due";--> statement-breakpoint
ALTER TABLE "follow_ups" ADD CONSTRAINT "follow_ups_job" FOREIGN KEY ("job_id","shop_id") REFERENCES "public"."jobs"("id","shop_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "requests" ADD CONSTRAINT "requests_person" FOREIGN KEY ("person_id","shop_id") REFERENCES "public"."people"("id","shop_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "follow_ups_open" ON "follow_ups" USING btree ("shop_id","due","event_id") WHERE not "follow_ups"."done";--> statement-breakpoint
CREATE INDEX "follow_ups_by_job" ON "follow_ups" USING btree ("job_id");--> statement-breakpoint
INSERT INTO "follow_ups" ("event_id", "shop_id", "job_id", "words", "due", "done")
SELECT "id", "shop_id", "job_id", "body" ->> 'words', ("body" ->> 'due')::date, false
FROM "job_events" WHERE "kind" = 'watch' AND NOT EXISTS (
	SELECT 1 FROM "job_events" AS "later"
	WHERE "later"."job_id" = "job_events"."job_id" AND "later"."kind" = 'correction'
	AND "later"."body" ->> 'of' = "job_events"."id"::text
);--> statement-breakpoint
ALTER TABLE "job_summaries" DROP COLUMN "watch_due";--> statement-breakpoint
ALTER TABLE "job_summaries" DROP COLUMN "watch_words";--> statement-breakpoint
ALTER TABLE "photos" ADD COLUMN "sent_sha256" text;
