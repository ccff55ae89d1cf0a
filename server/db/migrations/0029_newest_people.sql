DROP INDEX "contacts_created";--> statement-breakpoint
DROP INDEX "guests_created";--> statement-breakpoint
CREATE INDEX "contacts_newest" ON "contacts" USING btree ("created" DESC NULLS FIRST,"id");--> statement-breakpoint
CREATE INDEX "guests_newest" ON "guests" USING btree ("created" DESC NULLS FIRST,"id");