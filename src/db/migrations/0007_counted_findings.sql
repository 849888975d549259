DROP INDEX "findings_proved";--> statement-breakpoint
CREATE INDEX "findings_proved" ON "findings" USING btree ("shop_id","part_kind","mode","arrived_at") WHERE "findings"."strength" = 'proved';