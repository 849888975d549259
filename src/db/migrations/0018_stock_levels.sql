CREATE TABLE "stock_levels" (
	"shop_id" uuid NOT NULL,
	"item_id" uuid NOT NULL,
	"place_id" uuid NOT NULL,
	"count" numeric(18, 3) NOT NULL,
	CONSTRAINT "stock_levels_of_place" PRIMARY KEY("item_id","place_id")
);
--> statement-breakpoint
ALTER TABLE "stock_levels" ADD CONSTRAINT "stock_levels_item" FOREIGN KEY ("item_id","shop_id") REFERENCES "public"."stock_items"("id","shop_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "stock_levels" ADD CONSTRAINT "stock_levels_place" FOREIGN KEY ("place_id","shop_id") REFERENCES "public"."stock_places"("id","shop_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "stock_levels_by_shop" ON "stock_levels" USING btree ("shop_id");
--> statement-breakpoint
INSERT INTO "stock_levels" ("shop_id", "item_id", "place_id", "count")
  SELECT "shop_id", "item_id", "place_id", sum("count") FROM "stock_moves" GROUP BY "shop_id", "item_id", "place_id";
--> statement-breakpoint
-- In the order of the ids, so that two statements never wait for each other's rows.
CREATE FUNCTION add_to_levels() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  INSERT INTO stock_levels (shop_id, item_id, place_id, count)
    SELECT shop_id, item_id, place_id, sum(count) FROM fresh GROUP BY shop_id, item_id, place_id ORDER BY item_id, place_id
    ON CONFLICT (item_id, place_id) DO UPDATE SET count = stock_levels.count + excluded.count;
  RETURN NULL;
END
$$;
--> statement-breakpoint
CREATE TRIGGER stock_moves_added AFTER INSERT ON "stock_moves"
  REFERENCING NEW TABLE AS fresh FOR EACH STATEMENT EXECUTE FUNCTION add_to_levels();
