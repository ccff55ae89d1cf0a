-- Each change says by itself what it touched: PostgreSQL sends these words when it has been committed, to every process that
-- listens (NOTIFY), so that no service has to remember who keeps what in memory. `server/services/events` says what they mean.
create function tell(topic text, ids text[]) returns void language plpgsql as $$
declare
  start int := 1;
begin
  -- A notification holds at most 8000 bytes.
  while start <= coalesce(cardinality(ids), 0) loop
    perform pg_notify('touched', topic || ' ' || array_to_string(ids[start:start + 99], ' '));
    start := start + 100;
  end loop;
end $$;
--> statement-breakpoint
create function tell(topic text) returns void language sql as $$ select pg_notify('touched', topic) $$;
--> statement-breakpoint
create function told_new_files() returns trigger language plpgsql as $$ begin
  perform tell('library', (select array_agg(distinct id) from new_rows)); return null;
end $$;
--> statement-breakpoint
create function told_old_files() returns trigger language plpgsql as $$ begin
  perform tell('library', (select array_agg(distinct id) from old_rows)); return null;
end $$;
--> statement-breakpoint
create function told_changed_files() returns trigger language plpgsql as $$ begin
  perform tell('library', (select array_agg(distinct id) from new_rows));
  -- Buttons to what went to the bin, or came back, are drawn otherwise.
  if exists (select 1 from old_rows o join new_rows n using (id) where o.deleted is distinct from n.deleted) then
    perform tell('live'); perform tell('uses');
  end if;
  return null;
end $$;
--> statement-breakpoint
create trigger told_insert after insert on files referencing new table as new_rows for each statement execute function told_new_files();
--> statement-breakpoint
create trigger told_delete after delete on files referencing old table as old_rows for each statement execute function told_old_files();
--> statement-breakpoint
create trigger told_update after update on files referencing old table as old_rows new table as new_rows for each statement execute function told_changed_files();
--> statement-breakpoint
create function told_new_of_file() returns trigger language plpgsql as $$ begin
  perform tell('library', (select array_agg(distinct file_id) from new_rows)); return null;
end $$;
--> statement-breakpoint
create function told_old_of_file() returns trigger language plpgsql as $$ begin
  perform tell('library', (select array_agg(distinct file_id) from old_rows)); return null;
end $$;
--> statement-breakpoint
create function told_changed_editions() returns trigger language plpgsql as $$ begin
  perform tell('library', (select array_agg(distinct file_id) from (select file_id from old_rows union select file_id from new_rows) as both_rows));
  if exists (select 1 from old_rows o join new_rows n using (file_id, number) where o.withdrawn is distinct from n.withdrawn) then perform tell('live'); end if;
  return null;
end $$;
--> statement-breakpoint
create trigger told_insert after insert on editions referencing new table as new_rows for each statement execute function told_new_of_file();
--> statement-breakpoint
create trigger told_delete after delete on editions referencing old table as old_rows for each statement execute function told_old_of_file();
--> statement-breakpoint
create trigger told_update after update on editions referencing old table as old_rows new table as new_rows for each statement execute function told_changed_editions();
--> statement-breakpoint
create trigger told_insert after insert on bundles referencing new table as new_rows for each statement execute function told_new_of_file();
--> statement-breakpoint
create trigger told_delete after delete on bundles referencing old table as old_rows for each statement execute function told_old_of_file();
--> statement-breakpoint
create trigger told_update after update on bundles referencing new table as new_rows for each statement execute function told_new_of_file();
--> statement-breakpoint
create function told_topics() returns trigger language plpgsql as $$
declare
  topic text;
begin
  foreach topic in array tg_argv loop perform tell(topic); end loop; return null;
end $$;
--> statement-breakpoint
create trigger told after insert or update or delete on folders for each statement execute function told_topics('folders');
--> statement-breakpoint
create trigger told after insert or update or delete on looks for each statement execute function told_topics('site', 'live', 'uses');
--> statement-breakpoint
create trigger told after insert or update or delete on uses for each statement execute function told_topics('uses');
--> statement-breakpoint
create trigger told_insert after insert or delete on pages for each statement execute function told_topics('live', 'uses');
--> statement-breakpoint
create trigger told_update after update on page_versions for each statement execute function told_topics('live');
--> statement-breakpoint
create function told_changed_pages() returns trigger language plpgsql as $$ begin
  perform tell('uses');
  if exists (select 1 from old_rows o join new_rows n using (id) where (o.live, o.slug, o.edge, o.title, o.description, o.in_menu, o.picture) is distinct from (n.live, n.slug, n.edge, n.title, n.description, n.in_menu, n.picture)) then
    perform tell('live');
  end if;
  return null;
end $$;
--> statement-breakpoint
create trigger told_update after update on pages referencing old table as old_rows new table as new_rows for each statement execute function told_changed_pages();
--> statement-breakpoint
create function told_read() returns trigger language plpgsql as $$ begin
  perform tell('read', (select array_agg(n.sha256) from old_rows o join new_rows n using (sha256)
    where (o.facts, o.preview, o.reading, o.reading_error) is distinct from (n.facts, n.preview, n.reading, n.reading_error)));
  return null;
end $$;
--> statement-breakpoint
create trigger told_update after update on blobs referencing old table as old_rows new table as new_rows for each statement execute function told_read();
--> statement-breakpoint
create function told_new_signposts() returns trigger language plpgsql as $$ begin
  perform tell('signposts', (select array_agg(id) from new_rows));
  perform tell('library', (select array_agg(distinct file_id) from new_rows where file_id is not null));
  perform tell('live'); perform tell('uses'); return null;
end $$;
--> statement-breakpoint
create function told_old_signposts() returns trigger language plpgsql as $$ begin
  perform tell('signposts', (select array_agg(id) from old_rows));
  perform tell('library', (select array_agg(distinct file_id) from old_rows where file_id is not null));
  perform tell('live'); perform tell('uses'); return null;
end $$;
--> statement-breakpoint
create function told_changed_signposts() returns trigger language plpgsql as $$ begin
  perform tell('signposts', (select array_agg(id) from new_rows));
  perform tell('library', (select array_agg(distinct file_id) from (select file_id from old_rows union select file_id from new_rows) as both_rows where file_id is not null));
  perform tell('live'); perform tell('uses'); return null;
end $$;
--> statement-breakpoint
create trigger told_insert after insert on signposts referencing new table as new_rows for each statement execute function told_new_signposts();
--> statement-breakpoint
create trigger told_delete after delete on signposts referencing old table as old_rows for each statement execute function told_old_signposts();
--> statement-breakpoint
create trigger told_update after update on signposts referencing old table as old_rows new table as new_rows for each statement execute function told_changed_signposts();
--> statement-breakpoint
create function told_setting() returns trigger language plpgsql as $$ begin
  perform tell('settings', array[coalesce(new.key, old.key)]);
  if coalesce(new.key, old.key) in ('site', 'site-former', 'style') then perform tell('site'); end if;
  return null;
end $$;
--> statement-breakpoint
create trigger told after insert or update or delete on settings for each row execute function told_setting();
--> statement-breakpoint
create function told_downloads() returns trigger language plpgsql as $$ begin
  perform tell('downloads', (select array_agg(distinct file_id) from new_rows)); return null;
end $$;
--> statement-breakpoint
create trigger told_insert after insert on downloads referencing new table as new_rows for each statement execute function told_downloads();
--> statement-breakpoint
create trigger told after insert or delete on old_addresses for each statement execute function told_topics('oldAddresses');
