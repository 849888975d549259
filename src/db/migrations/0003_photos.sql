CREATE TABLE "photos" (
	"id" uuid PRIMARY KEY NOT NULL,
	"shop_id" uuid NOT NULL,
	"job_id" uuid NOT NULL,
	"person_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"bytes" "bytea" NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "photos_kind" CHECK ("photos"."kind" in ('image/jpeg', 'image/png', 'image/webp')),
	CONSTRAINT "photos_size" CHECK (octet_length("photos"."bytes") between 1 and 4194304)
);
--> statement-breakpoint
ALTER TABLE "photos" ADD CONSTRAINT "photos_job" FOREIGN KEY ("job_id","shop_id") REFERENCES "public"."jobs"("id","shop_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "photos" ADD CONSTRAINT "photos_person" FOREIGN KEY ("person_id","shop_id") REFERENCES "public"."people"("id","shop_id") ON DELETE no action ON UPDATE no action;