ALTER TABLE "blobs" ADD COLUMN "trouble" text;--> statement-breakpoint
create or replace function told_read() returns trigger language plpgsql as $$ begin
  perform tell('read', (select array_agg(n.sha256) from old_rows o join new_rows n using (sha256)
    where (o.facts, o.preview, o.reading, o.reading_error, o.trouble) is distinct from (n.facts, n.preview, n.reading, n.reading_error, n.trouble)));
  perform tell('bytes', (select array_agg(n.sha256) from old_rows o join new_rows n using (sha256) where o.trouble is distinct from n.trouble));
  return null;
end $$;
--> statement-breakpoint
create function told_gone_bytes() returns trigger language plpgsql as $$ begin
  perform tell('bytes', (select array_agg(sha256) from old_rows)); return null;
end $$;
--> statement-breakpoint
create trigger told_delete after delete on blobs referencing old table as old_rows for each statement execute function told_gone_bytes();
