CREATE INDEX "arrivals_answers" ON "arrivals" USING btree ("answers_id");--> statement-breakpoint
CREATE INDEX "files_picture" ON "files" USING btree ("picture") WHERE "files"."picture" is not null;--> statement-breakpoint
CREATE INDEX "pages_picture" ON "pages" USING btree ("picture");--> statement-breakpoint
CREATE INDEX "retired_entry_slugs_entry" ON "retired_entry_slugs" USING btree ("entry_id");--> statement-breakpoint
CREATE INDEX "retired_handles_file" ON "retired_handles" USING btree ("file_id") WHERE "retired_handles"."file_id" is not null;