CREATE TABLE "recipes" (
	"id" uuid PRIMARY KEY NOT NULL,
	"shop_id" uuid NOT NULL,
	"name" text NOT NULL,
	"plan" json NOT NULL,
	"rests" json NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "recipes_name" UNIQUE("shop_id","name")
);
--> statement-breakpoint
ALTER TABLE "recipes" ADD CONSTRAINT "recipes_shop_id_shops_id_fk" FOREIGN KEY ("shop_id") REFERENCES "public"."shops"("id") ON DELETE no action ON UPDATE no action;