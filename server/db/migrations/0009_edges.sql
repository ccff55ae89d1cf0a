ALTER TABLE "pages" ADD COLUMN "edge" text;--> statement-breakpoint
INSERT INTO "pages" ("id", "slug", "edge", "title", "in_menu", "draft", "live_revision") VALUES
  ('head', '~head', 'head', 'Head of every page', false, '{"type":"doc","content":[{"type":"paragraph"}]}', 1),
  ('foot', '~foot', 'foot', 'Foot of every page', false, '{"type":"doc","content":[{"type":"paragraph"}]}', 1);
