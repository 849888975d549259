CREATE TABLE "stock_items" (
	"id" uuid PRIMARY KEY NOT NULL,
	"shop_id" uuid NOT NULL,
	"sort" text NOT NULL,
	"name" text NOT NULL,
	"part" json,
	"unit" text NOT NULL,
	"minimum" numeric(12, 3) NOT NULL,
	"reorder" numeric(12, 3) NOT NULL,
	CONSTRAINT "stock_items_id_shop" UNIQUE("id","shop_id"),
	CONSTRAINT "stock_items_not_negative" CHECK ("stock_items"."minimum" >= 0 and "stock_items"."reorder" >= 0)
);
--> statement-breakpoint
CREATE TABLE "stock_moves" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"shop_id" uuid NOT NULL,
	"item_id" uuid NOT NULL,
	"place_id" uuid NOT NULL,
	"person_id" uuid NOT NULL,
	"sort" text NOT NULL,
	"count" numeric(12, 3) NOT NULL,
	"words" text DEFAULT '' NOT NULL,
	"job_id" uuid,
	"event_id" uuid,
	"line" integer,
	"request_id" uuid,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "stock_moves_of_entry" UNIQUE("event_id","line","sort"),
	CONSTRAINT "stock_moves_sort" CHECK ("stock_moves"."sort" in ('booked', 'used', 'given-back', 'counted', 'scrapped', 'moved'))
);
--> statement-breakpoint
CREATE TABLE "stock_places" (
	"id" uuid PRIMARY KEY NOT NULL,
	"shop_id" uuid NOT NULL,
	"name" text NOT NULL,
	"sort" text NOT NULL,
	"vehicle_id" uuid,
	CONSTRAINT "stock_places_id_shop" UNIQUE("id","shop_id"),
	CONSTRAINT "stock_places_name" UNIQUE("shop_id","name")
);
--> statement-breakpoint
ALTER TABLE "follow_ups" ADD COLUMN "sort" text DEFAULT 'watch' NOT NULL;--> statement-breakpoint
ALTER TABLE "hazards" ADD COLUMN "sort" text DEFAULT 'exchanged' NOT NULL;--> statement-breakpoint
ALTER TABLE "hazards" ADD COLUMN "due" date;--> statement-breakpoint
ALTER TABLE "hazards" ADD COLUMN "person_id" uuid;--> statement-breakpoint
ALTER TABLE "stock_items" ADD CONSTRAINT "stock_items_shop_id_shops_id_fk" FOREIGN KEY ("shop_id") REFERENCES "public"."shops"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "stock_moves" ADD CONSTRAINT "stock_moves_item" FOREIGN KEY ("item_id","shop_id") REFERENCES "public"."stock_items"("id","shop_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "stock_moves" ADD CONSTRAINT "stock_moves_place" FOREIGN KEY ("place_id","shop_id") REFERENCES "public"."stock_places"("id","shop_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "stock_moves" ADD CONSTRAINT "stock_moves_person" FOREIGN KEY ("person_id","shop_id") REFERENCES "public"."people"("id","shop_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "stock_moves" ADD CONSTRAINT "stock_moves_job" FOREIGN KEY ("job_id","shop_id") REFERENCES "public"."jobs"("id","shop_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "stock_places" ADD CONSTRAINT "stock_places_shop_id_shops_id_fk" FOREIGN KEY ("shop_id") REFERENCES "public"."shops"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "stock_places" ADD CONSTRAINT "stock_places_vehicle" FOREIGN KEY ("vehicle_id","shop_id") REFERENCES "public"."vehicles"("id","shop_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "stock_items_by_name" ON "stock_items" USING btree ("shop_id","sort","name");--> statement-breakpoint
CREATE INDEX "stock_moves_by_item" ON "stock_moves" USING btree ("item_id","place_id");--> statement-breakpoint
CREATE INDEX "stock_moves_by_shop" ON "stock_moves" USING btree ("shop_id","made_at");--> statement-breakpoint
CREATE FUNCTION refuse_stock_change() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  RAISE EXCEPTION 'Moves of the stock are append-only: % is refused.', TG_OP
    USING ERRCODE = 'restrict_violation';
END
$$;
--> statement-breakpoint
CREATE TRIGGER stock_moves_append_only BEFORE UPDATE OR DELETE ON "stock_moves"
  FOR EACH ROW EXECUTE FUNCTION refuse_stock_change();
