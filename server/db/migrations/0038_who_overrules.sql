ALTER TABLE "check_setting" ALTER COLUMN "severity" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "check_setting" ADD COLUMN "overruled_by" text;--> statement-breakpoint
ALTER TABLE "check_setting" ADD CONSTRAINT "check_setting_overruled_by" CHECK (overruled_by IN ('nobody', 'controllers', 'approvers', 'clerks'));
