CREATE TABLE "circuit_versions" (
	"id" uuid PRIMARY KEY NOT NULL,
	"shop_id" uuid NOT NULL,
	"circuit_id" uuid NOT NULL,
	"version" integer NOT NULL,
	"file" json NOT NULL,
	"made_by" uuid NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "circuit_versions_id_shop" UNIQUE("id","shop_id"),
	CONSTRAINT "circuit_versions_version" UNIQUE("circuit_id","version"),
	CONSTRAINT "circuit_versions_from_one" CHECK ("circuit_versions"."version" >= 1)
);
--> statement-breakpoint
CREATE TABLE "circuits" (
	"id" uuid PRIMARY KEY NOT NULL,
	"shop_id" uuid NOT NULL,
	"vehicle_id" uuid NOT NULL,
	"file_id" text NOT NULL,
	"name" text NOT NULL,
	CONSTRAINT "circuits_id_shop" UNIQUE("id","shop_id"),
	CONSTRAINT "circuits_file" UNIQUE("vehicle_id","file_id")
);
--> statement-breakpoint
CREATE TABLE "job_circuits" (
	"job_id" uuid NOT NULL,
	"circuit_version_id" uuid NOT NULL,
	"shop_id" uuid NOT NULL,
	"position" integer NOT NULL,
	CONSTRAINT "job_circuits_job_id_circuit_version_id_pk" PRIMARY KEY("job_id","circuit_version_id")
);
--> statement-breakpoint
CREATE TABLE "job_events" (
	"id" uuid PRIMARY KEY NOT NULL,
	"shop_id" uuid NOT NULL,
	"job_id" uuid NOT NULL,
	"seq" integer NOT NULL,
	"person_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"body" json NOT NULL,
	"client_order" integer NOT NULL,
	"made_at" timestamp with time zone NOT NULL,
	"arrived_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "job_events_seq" UNIQUE("job_id","seq"),
	CONSTRAINT "job_events_from_one" CHECK ("job_events"."seq" >= 1),
	CONSTRAINT "job_events_kind" CHECK ("job_events"."kind" = "job_events"."body" ->> 'kind')
);
--> statement-breakpoint
CREATE TABLE "job_summaries" (
	"job_id" uuid PRIMARY KEY NOT NULL,
	"shop_id" uuid NOT NULL,
	"stage" text NOT NULL,
	"complaint" text NOT NULL,
	"found" text,
	"readings" integer NOT NULL,
	"watch_due" date,
	"watch_words" text,
	"last_seq" integer NOT NULL,
	"last_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "jobs" (
	"id" uuid PRIMARY KEY NOT NULL,
	"shop_id" uuid NOT NULL,
	"vehicle_id" uuid NOT NULL,
	"title" text NOT NULL,
	"opened_by" uuid NOT NULL,
	"opened_at" timestamp with time zone NOT NULL,
	"panel_set_version_id" uuid,
	"last_seq" integer DEFAULT 0 NOT NULL,
	CONSTRAINT "jobs_id_shop" UNIQUE("id","shop_id")
);
--> statement-breakpoint
CREATE TABLE "panel_set_versions" (
	"id" uuid PRIMARY KEY NOT NULL,
	"shop_id" uuid NOT NULL,
	"panel_set_id" uuid NOT NULL,
	"version" integer NOT NULL,
	"file" json NOT NULL,
	"made_by" uuid NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "panel_set_versions_id_shop" UNIQUE("id","shop_id"),
	CONSTRAINT "panel_set_versions_version" UNIQUE("panel_set_id","version"),
	CONSTRAINT "panel_set_versions_from_one" CHECK ("panel_set_versions"."version" >= 1)
);
--> statement-breakpoint
CREATE TABLE "panel_sets" (
	"id" uuid PRIMARY KEY NOT NULL,
	"shop_id" uuid NOT NULL,
	"vehicle_id" uuid NOT NULL,
	"file_id" text NOT NULL,
	"name" text NOT NULL,
	CONSTRAINT "panel_sets_id_shop" UNIQUE("id","shop_id"),
	CONSTRAINT "panel_sets_vehicle" UNIQUE("vehicle_id")
);
--> statement-breakpoint
CREATE TABLE "people" (
	"id" uuid PRIMARY KEY NOT NULL,
	"shop_id" uuid NOT NULL,
	"name" text NOT NULL,
	"role" text NOT NULL,
	CONSTRAINT "people_id_shop" UNIQUE("id","shop_id"),
	CONSTRAINT "people_role" CHECK ("people"."role" in ('owner', 'technician', 'apprentice'))
);
--> statement-breakpoint
CREATE TABLE "shops" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"town" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "vehicles" (
	"id" uuid PRIMARY KEY NOT NULL,
	"shop_id" uuid NOT NULL,
	"name" text NOT NULL,
	"make" text NOT NULL,
	"model" text NOT NULL,
	"year" integer,
	"plate" text NOT NULL,
	"nominal_volts" integer,
	"odometer_km" integer,
	"notes" text DEFAULT '' NOT NULL,
	CONSTRAINT "vehicles_id_shop" UNIQUE("id","shop_id"),
	CONSTRAINT "vehicles_plate" UNIQUE("shop_id","plate"),
	CONSTRAINT "vehicles_volts" CHECK ("vehicles"."nominal_volts" in (6, 12, 24, 36, 48)),
	CONSTRAINT "vehicles_year" CHECK ("vehicles"."year" between 1900 and 2100)
);
--> statement-breakpoint
ALTER TABLE "circuit_versions" ADD CONSTRAINT "circuit_versions_circuit" FOREIGN KEY ("circuit_id","shop_id") REFERENCES "public"."circuits"("id","shop_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "circuit_versions" ADD CONSTRAINT "circuit_versions_person" FOREIGN KEY ("made_by","shop_id") REFERENCES "public"."people"("id","shop_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "circuits" ADD CONSTRAINT "circuits_vehicle" FOREIGN KEY ("vehicle_id","shop_id") REFERENCES "public"."vehicles"("id","shop_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "job_circuits" ADD CONSTRAINT "job_circuits_job" FOREIGN KEY ("job_id","shop_id") REFERENCES "public"."jobs"("id","shop_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "job_circuits" ADD CONSTRAINT "job_circuits_version" FOREIGN KEY ("circuit_version_id","shop_id") REFERENCES "public"."circuit_versions"("id","shop_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "job_events" ADD CONSTRAINT "job_events_job" FOREIGN KEY ("job_id","shop_id") REFERENCES "public"."jobs"("id","shop_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "job_events" ADD CONSTRAINT "job_events_person" FOREIGN KEY ("person_id","shop_id") REFERENCES "public"."people"("id","shop_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "job_summaries" ADD CONSTRAINT "job_summaries_job" FOREIGN KEY ("job_id","shop_id") REFERENCES "public"."jobs"("id","shop_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "jobs" ADD CONSTRAINT "jobs_vehicle" FOREIGN KEY ("vehicle_id","shop_id") REFERENCES "public"."vehicles"("id","shop_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "jobs" ADD CONSTRAINT "jobs_person" FOREIGN KEY ("opened_by","shop_id") REFERENCES "public"."people"("id","shop_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "jobs" ADD CONSTRAINT "jobs_panel_set" FOREIGN KEY ("panel_set_version_id","shop_id") REFERENCES "public"."panel_set_versions"("id","shop_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "panel_set_versions" ADD CONSTRAINT "panel_set_versions_set" FOREIGN KEY ("panel_set_id","shop_id") REFERENCES "public"."panel_sets"("id","shop_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "panel_set_versions" ADD CONSTRAINT "panel_set_versions_person" FOREIGN KEY ("made_by","shop_id") REFERENCES "public"."people"("id","shop_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "panel_sets" ADD CONSTRAINT "panel_sets_vehicle_shop" FOREIGN KEY ("vehicle_id","shop_id") REFERENCES "public"."vehicles"("id","shop_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "people" ADD CONSTRAINT "people_shop_id_shops_id_fk" FOREIGN KEY ("shop_id") REFERENCES "public"."shops"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "vehicles" ADD CONSTRAINT "vehicles_shop_id_shops_id_fk" FOREIGN KEY ("shop_id") REFERENCES "public"."shops"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "job_summaries_by_stage" ON "job_summaries" USING btree ("shop_id","stage","last_at");--> statement-breakpoint
CREATE INDEX "job_summaries_by_due" ON "job_summaries" USING btree ("shop_id","watch_due");--> statement-breakpoint
CREATE INDEX "jobs_by_vehicle" ON "jobs" USING btree ("shop_id","vehicle_id","opened_at");