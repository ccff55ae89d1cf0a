ALTER TABLE "uses" ADD COLUMN "part" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "uses" ADD COLUMN "folder_id" text;--> statement-breakpoint
ALTER TABLE "uses" DROP CONSTRAINT "uses_page_id_side_placement_pk";--> statement-breakpoint
ALTER TABLE "uses" ADD CONSTRAINT "uses_page_id_side_placement_part_pk" PRIMARY KEY("page_id","side","placement","part");--> statement-breakpoint
CREATE INDEX "uses_placement" ON "uses" USING btree ("placement");
