CREATE TABLE "learning_resets" (
	"id" uuid PRIMARY KEY NOT NULL,
	"shop_id" uuid NOT NULL,
	"person_id" uuid NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "learning_resets" ADD CONSTRAINT "learning_resets_person" FOREIGN KEY ("person_id","shop_id") REFERENCES "public"."people"("id","shop_id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "learning_resets_by_shop" ON "learning_resets" USING btree ("shop_id","made_at");