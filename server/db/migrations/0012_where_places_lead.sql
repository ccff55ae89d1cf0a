ALTER TABLE "uses" ADD COLUMN "address" text;--> statement-breakpoint
UPDATE "uses" SET "address" = '' WHERE "elsewhere";--> statement-breakpoint
ALTER TABLE "uses" ADD COLUMN "section" text;--> statement-breakpoint
CREATE INDEX "uses_address" ON "uses" USING btree ("address");