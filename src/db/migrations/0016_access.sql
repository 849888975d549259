CREATE TABLE "accounts" (
	"id" uuid PRIMARY KEY NOT NULL,
	"account_id" text NOT NULL,
	"provider_id" text NOT NULL,
	"user_id" uuid NOT NULL,
	"password" text,
	"access_token" text,
	"refresh_token" text,
	"id_token" text,
	"access_token_expires_at" timestamp with time zone,
	"refresh_token_expires_at" timestamp with time zone,
	"scope" text,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "accounts_of_user" UNIQUE("user_id","provider_id")
);
--> statement-breakpoint
CREATE TABLE "entry_links" (
	"id" uuid PRIMARY KEY NOT NULL,
	"shop_id" uuid NOT NULL,
	"person_id" uuid NOT NULL,
	"token_hash" text NOT NULL,
	"made_by" uuid,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	"expires_at" timestamp with time zone NOT NULL,
	"used_at" timestamp with time zone,
	CONSTRAINT "entry_links_token_hash_unique" UNIQUE("token_hash")
);
--> statement-breakpoint
CREATE TABLE "guest_links" (
	"id" uuid PRIMARY KEY NOT NULL,
	"shop_id" uuid NOT NULL,
	"job_id" uuid NOT NULL,
	"sheet" text NOT NULL,
	"for_whom" text DEFAULT '' NOT NULL,
	"token_hash" text NOT NULL,
	"made_by" uuid,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	"expires_at" timestamp with time zone NOT NULL,
	"ended_at" timestamp with time zone,
	CONSTRAINT "guest_links_token_hash_unique" UNIQUE("token_hash"),
	CONSTRAINT "guest_links_sheet" CHECK ("guest_links"."sheet" in ('technician', 'customer'))
);
--> statement-breakpoint
CREATE TABLE "helpers" (
	"id" uuid PRIMARY KEY NOT NULL,
	"shop_id" uuid NOT NULL,
	"job_id" uuid NOT NULL,
	"code_hash" text,
	"token_hash" text,
	"name" text,
	"asked" json,
	"stands_for" text,
	"stands_at" timestamp with time zone,
	"made_by" uuid,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	"expires_at" timestamp with time zone NOT NULL,
	"ended_at" timestamp with time zone,
	CONSTRAINT "helpers_code_hash_unique" UNIQUE("code_hash"),
	CONSTRAINT "helpers_token_hash_unique" UNIQUE("token_hash")
);
--> statement-breakpoint
CREATE TABLE "installation" (
	"key" text PRIMARY KEY NOT NULL,
	"value" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "presence" (
	"job_id" uuid NOT NULL,
	"person_id" uuid NOT NULL,
	"page" uuid NOT NULL,
	"shop_id" uuid NOT NULL,
	"seen_at" timestamp with time zone NOT NULL,
	CONSTRAINT "presence_job_id_page_pk" PRIMARY KEY("job_id","page")
);
--> statement-breakpoint
CREATE TABLE "sessions" (
	"id" uuid PRIMARY KEY NOT NULL,
	"token" text NOT NULL,
	"user_id" uuid NOT NULL,
	"person_id" uuid,
	"begun_by" text,
	"ip_address" text,
	"user_agent" text,
	"expires_at" timestamp with time zone NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "sessions_token_unique" UNIQUE("token")
);
--> statement-breakpoint
CREATE TABLE "shop_devices" (
	"id" uuid PRIMARY KEY NOT NULL,
	"shop_id" uuid NOT NULL,
	"name" text NOT NULL,
	"token_hash" text NOT NULL,
	"made_by" uuid,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	"expires_at" timestamp with time zone NOT NULL,
	"ended_at" timestamp with time zone,
	CONSTRAINT "shop_devices_token_hash_unique" UNIQUE("token_hash")
);
--> statement-breakpoint
CREATE TABLE "tries" (
	"key" text PRIMARY KEY NOT NULL,
	"points" bigint DEFAULT 0 NOT NULL,
	"expire" bigint
);
--> statement-breakpoint
CREATE TABLE "verifications" (
	"id" uuid PRIMARY KEY NOT NULL,
	"identifier" text NOT NULL,
	"value" text NOT NULL,
	"expires_at" timestamp with time zone NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "users" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"email" text NOT NULL,
	"email_verified" boolean DEFAULT false NOT NULL,
	"image" text,
	"username" text,
	"display_username" text,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "users_email_unique" UNIQUE("email"),
	CONSTRAINT "users_username_unique" UNIQUE("username")
);
--> statement-breakpoint
ALTER TABLE "people" DROP CONSTRAINT "people_role";--> statement-breakpoint
UPDATE "people" SET "role" = 'learner' WHERE "role" = 'apprentice';--> statement-breakpoint
ALTER TABLE "people" ADD COLUMN "user_id" uuid;--> statement-breakpoint
ALTER TABLE "people" ADD COLUMN "left_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "people" ADD COLUMN "code_hash" text;--> statement-breakpoint
ALTER TABLE "shops" ADD COLUMN "demo" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "accounts" ADD CONSTRAINT "accounts_user_id_users_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."users"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "entry_links" ADD CONSTRAINT "entry_links_person" FOREIGN KEY ("person_id","shop_id") REFERENCES "public"."people"("id","shop_id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "guest_links" ADD CONSTRAINT "guest_links_job" FOREIGN KEY ("job_id","shop_id") REFERENCES "public"."jobs"("id","shop_id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "helpers" ADD CONSTRAINT "helpers_job" FOREIGN KEY ("job_id","shop_id") REFERENCES "public"."jobs"("id","shop_id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "presence" ADD CONSTRAINT "presence_job" FOREIGN KEY ("job_id","shop_id") REFERENCES "public"."jobs"("id","shop_id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "presence" ADD CONSTRAINT "presence_person" FOREIGN KEY ("person_id","shop_id") REFERENCES "public"."people"("id","shop_id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sessions" ADD CONSTRAINT "sessions_user_id_users_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."users"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sessions" ADD CONSTRAINT "sessions_person_id_people_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."people"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "entry_links_by_person" ON "entry_links" USING btree ("person_id");--> statement-breakpoint
CREATE INDEX "guest_links_by_job" ON "guest_links" USING btree ("job_id");--> statement-breakpoint
CREATE INDEX "helpers_by_job" ON "helpers" USING btree ("job_id");--> statement-breakpoint
CREATE INDEX "sessions_by_user" ON "sessions" USING btree ("user_id");--> statement-breakpoint
CREATE INDEX "sessions_by_person" ON "sessions" USING btree ("person_id");--> statement-breakpoint
CREATE INDEX "shop_devices_by_shop" ON "shop_devices" USING btree ("shop_id");--> statement-breakpoint
CREATE INDEX "verifications_by_identifier" ON "verifications" USING btree ("identifier");--> statement-breakpoint
ALTER TABLE "people" ADD CONSTRAINT "people_user_id_users_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."users"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "people" ADD CONSTRAINT "people_user" UNIQUE("shop_id","user_id");--> statement-breakpoint
ALTER TABLE "people" ADD CONSTRAINT "people_role" CHECK ("people"."role" in ('owner', 'technician', 'learner'));--> statement-breakpoint
UPDATE "shops" SET "demo" = true WHERE "id" = '722024ba-416c-4a49-8368-f40cdfb5ebeb';
--> statement-breakpoint
CREATE OR REPLACE FUNCTION refuse_change() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  -- Only a demo is ever removed, as a whole, by a transaction that names it.
  IF TG_LEVEL = 'ROW' AND TG_OP = 'DELETE' THEN
    IF OLD.shop_id::text = current_setting('every_trace.removing', true)
      AND EXISTS (SELECT 1 FROM shops WHERE id = OLD.shop_id AND demo) THEN
      RETURN OLD;
    END IF;
  END IF;
  RAISE EXCEPTION 'The job log is append-only: % on % is refused.', TG_OP, TG_TABLE_NAME
    USING ERRCODE = 'restrict_violation';
END
$$;
--> statement-breakpoint
CREATE OR REPLACE FUNCTION refuse_stock_change() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF TG_LEVEL = 'ROW' AND TG_OP = 'DELETE' THEN
    IF OLD.shop_id::text = current_setting('every_trace.removing', true)
      AND EXISTS (SELECT 1 FROM shops WHERE id = OLD.shop_id AND demo) THEN
      RETURN OLD;
    END IF;
  END IF;
  RAISE EXCEPTION 'Moves of the stock are append-only: % is refused.', TG_OP
    USING ERRCODE = 'restrict_violation';
END
$$;
--> statement-breakpoint
CREATE FUNCTION tell_of_entries() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  PERFORM pg_notify('every_trace', json_build_object('job', job_id, 'news', 'entries')::text)
    FROM (SELECT DISTINCT job_id FROM fresh) AS jobs_told;
  RETURN NULL;
END
$$;
--> statement-breakpoint
CREATE TRIGGER job_events_told AFTER INSERT ON "job_events"
  REFERENCING NEW TABLE AS fresh FOR EACH STATEMENT EXECUTE FUNCTION tell_of_entries();
--> statement-breakpoint
-- Signs cookies. Four random UUIDs are 488 bits from the random numbers of the operating system.
INSERT INTO "installation" ("key", "value")
  SELECT 'secret', string_agg(replace(gen_random_uuid()::text, '-', ''), '') FROM generate_series(1, 4);
