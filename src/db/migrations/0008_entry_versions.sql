ALTER TABLE "job_events" ADD COLUMN "version" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "job_events" ADD COLUMN "person_name" text;