ALTER TABLE "open_item" DROP CONSTRAINT "open_item_once";--> statement-breakpoint
ALTER TABLE "open_item" ADD CONSTRAINT "open_item_once" UNIQUE NULLS NOT DISTINCT("entry_id","due_date");