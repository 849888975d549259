-- Pages that hold a job are told when something beside its entries has changed: the stock, the vehicle, the maps it stands on.
CREATE FUNCTION tell_of_stock() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  PERFORM pg_notify('every_trace', json_build_object('to', shop_id, 'news', 'held')::text)
    FROM (SELECT DISTINCT shop_id FROM fresh) AS shops_told;
  RETURN NULL;
END
$$;
--> statement-breakpoint
CREATE FUNCTION tell_of_row() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE
  changed jsonb := to_jsonb(CASE WHEN TG_OP = 'DELETE' THEN OLD ELSE NEW END);
BEGIN
  PERFORM pg_notify('every_trace', json_build_object('to', changed ->> TG_ARGV[0], 'news', 'held')::text);
  RETURN NULL;
END
$$;
--> statement-breakpoint
CREATE TRIGGER stock_moves_told AFTER INSERT ON "stock_moves"
  REFERENCING NEW TABLE AS fresh FOR EACH STATEMENT EXECUTE FUNCTION tell_of_stock();
--> statement-breakpoint
CREATE TRIGGER stock_items_told AFTER INSERT OR UPDATE ON "stock_items"
  FOR EACH ROW EXECUTE FUNCTION tell_of_row('shop_id');
--> statement-breakpoint
CREATE TRIGGER stock_places_told AFTER INSERT OR UPDATE ON "stock_places"
  FOR EACH ROW EXECUTE FUNCTION tell_of_row('shop_id');
--> statement-breakpoint
CREATE TRIGGER shops_told AFTER UPDATE OF "hourly_rate" ON "shops"
  FOR EACH ROW EXECUTE FUNCTION tell_of_row('id');
--> statement-breakpoint
CREATE TRIGGER vehicles_told AFTER UPDATE ON "vehicles"
  FOR EACH ROW EXECUTE FUNCTION tell_of_row('id');
--> statement-breakpoint
CREATE TRIGGER circuits_told AFTER INSERT OR UPDATE OR DELETE ON "circuits"
  FOR EACH ROW EXECUTE FUNCTION tell_of_row('vehicle_id');
--> statement-breakpoint
CREATE TRIGGER panel_sets_told AFTER INSERT OR UPDATE OR DELETE ON "panel_sets"
  FOR EACH ROW EXECUTE FUNCTION tell_of_row('vehicle_id');
--> statement-breakpoint
-- Each entry moves the number of the job's last one, and is told by itself.
CREATE TRIGGER jobs_told AFTER UPDATE OF "title", "vehicle_id", "panel_set_version_id" ON "jobs"
  FOR EACH ROW EXECUTE FUNCTION tell_of_row('id');
--> statement-breakpoint
CREATE TRIGGER job_circuits_told AFTER INSERT OR UPDATE OR DELETE ON "job_circuits"
  FOR EACH ROW EXECUTE FUNCTION tell_of_row('job_id');
--> statement-breakpoint
-- What a slot showed concerns the other jobs of the vehicle too; the job that read it has the entry itself.
CREATE OR REPLACE FUNCTION tell_of_entries() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  PERFORM pg_notify('every_trace', json_build_object('to', job_id, 'news', 'entries')::text)
    FROM (SELECT DISTINCT job_id FROM fresh) AS jobs_told;
  PERFORM pg_notify('every_trace', json_build_object('to', vehicle_id, 'news', 'held', 'by', job_id)::text)
    FROM (
      SELECT DISTINCT jobs.vehicle_id, fresh.job_id
      FROM fresh JOIN jobs ON jobs.id = fresh.job_id
      WHERE fresh.kind IN ('slot-reading', 'slot-state', 'correction')
    ) AS vehicles_told;
  RETURN NULL;
END
$$;
